<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import { monthAndYear } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { ROLL_UPS } from '@/words';
import { computed, onMounted, reactive, ref, useTemplateRef } from 'vue';
import { placeOf } from './unitPlace';

/** One unit as it is changed: what it is called, where it stands and how it counts, until when, and whether it stays. */
const { unit, units, beginsBelow, refresh } = defineProps<{
    unit: Schemas['UnitTreeLine'];
    /** The whole tree, top down. */
    units: Schemas['UnitTreeLine'][];
    /** Where it was dropped; to be saved or left. */
    beginsBelow: string | null;
    /** Reads the tree again. */
    refresh: () => Promise<Schemas['UnitTreeLine'][]>;
}>();
const emit = defineEmits<{
    closed: [];
    /** It is kept so, and stood otherwise before. */
    kept: [change: { now: Schemas['UnitPlace']; before: Schemas['UnitPlace'] }];
    gone: [];
}>();
const { busy, problem, message, send, trouble } = useSending();

const draft = reactive(placeOf(unit));
/** As it stood when it was opened: what somebody else changed since is not overwritten. */
const seen = ref(placeOf(unit));
/** The month from which it is to be retired. */
const month = ref('');
const first = useTemplateRef<HTMLInputElement>('first');
onMounted(() => first.value?.focus());

/** Where the unit may stand: everywhere but in itself. */
const places = computed(() => {
    let inside = -1;
    return units.filter((each) => {
        if (inside >= 0 && each.depth > inside) {
            return false;
        }
        inside = each.code === unit.code ? each.depth : -1;
        return inside < 0;
    });
});
if (places.value.some(({ code }) => code === beginsBelow)) {
    draft.parent = beginsBelow;
}
const isFree = computed(() => unit.parent !== null && unit.kpis === 0 && unit.people === 0 && unit.below === 0);

async function save(): Promise<void> {
    const [before, wanted] = [seen.value, placeOf(draft)];
    const path = { unit: unit.code };
    let now = wanted;
    const isKept = await send(async () => {
        await read(api.PUT('/api/units/{unit}', { params: { path }, body: { ...wanted, seen: before } }));
        now = placeOf((await refresh()).find(({ code }) => code === wanted.code) ?? wanted);
    });
    if (isKept) {
        emit('kept', { now, before });
    } else if (problem.value instanceof ApiError && problem.value.status === 409) {
        // What stands there now has been read by whoever saves again.
        seen.value = placeOf((await refresh()).find(({ code }) => code === unit.code) ?? before);
    }
}

async function retire(): Promise<void> {
    const ends =
        unit.kpis === 0 ? '' : ` ${unit.kpis === 1 ? 'One KPI ends' : `${unit.kpis} KPIs end`} with the month before.`;
    if (
        !window.confirm(
            `Retire ${unit.name}, and what stands below it?${ends} What was measured stays, and it can be brought back.`,
        )
    ) {
        return;
    }
    const path = { unit: unit.code };
    const isDone = await send(async () => {
        await read(api.PUT('/api/units/{unit}/retirement', { params: { path }, body: { from: month.value } }));
        await refresh();
    });
    if (isDone) {
        emit('closed');
    }
}

async function bringBack(): Promise<void> {
    const isDone = await send(async () => {
        await read(api.DELETE('/api/units/{unit}/retirement', { params: { path: { unit: unit.code } } }));
        await refresh();
    });
    if (isDone) {
        emit('closed');
    }
}

async function takeAway(): Promise<void> {
    if (!window.confirm(`Take ${unit.name} away? Nothing is measured there and nobody belongs there.`)) {
        return;
    }
    const isGone = await send(async () => {
        await read(api.DELETE('/api/units/{unit}', { params: { path: { unit: unit.code } } }));
        await refresh();
    });
    if (isGone) {
        emit('gone');
    }
}
</script>

<template>
    <form
        class="grid gap-x-5 gap-y-3 md:grid-cols-[1.4fr_160px_1.2fr_auto] md:items-start"
        novalidate
        @submit.prevent="save"
        @keydown.esc="$emit('closed')"
    >
        <label class="block"
            ><span class="mb-1 block text-[14px] text-ink-soft">Name</span
            ><input
                ref="first"
                v-model="draft.name"
                class="field w-full"
                maxlength="200"
                autocomplete="off"
                :aria-invalid="message('/name') !== undefined"
            /><span class="error" role="alert">{{ message('/name') }}</span></label
        >
        <label class="block"
            ><span class="mb-1 block text-[14px] text-ink-soft">What it is</span
            ><input
                v-model="draft.kind"
                class="field w-full"
                maxlength="24"
                list="unit-kinds"
                autocomplete="off"
                :readonly="unit.parent === null"
                :aria-invalid="message('/kind') !== undefined"
            /><span class="error" role="alert">{{ message('/kind') }}</span></label
        >
        <label v-if="unit.parent !== null" class="block"
            ><span class="mb-1 block text-[14px] text-ink-soft">Belongs to</span
            ><select v-model="draft.parent" class="field w-full" :aria-invalid="message('/parent') !== undefined">
                <option v-for="each in places" :key="each.code" :value="each.code">
                    {{ '\u2003'.repeat(each.depth) }}{{ each.name }}
                </option></select
            ><span class="error" role="alert">{{ message('/parent') }}</span></label
        >
        <span v-else />
        <p class="flex gap-2 md:pt-[23px]">
            <button type="submit" class="button" :disabled="busy">Save</button>
            <button type="button" class="button button-quiet" @click="$emit('closed')">Leave it</button>
            <button
                v-if="isFree"
                type="button"
                class="quiet-link ml-2 min-h-6 text-[14px]"
                :disabled="busy"
                @click="takeAway"
            >
                Take away
            </button>
        </p>
        <div class="flex flex-wrap items-start gap-x-5 gap-y-3 md:col-span-4">
            <FormField
                label="Code"
                :problem="message('/code')"
                :hint="draft.code === seen.code ? undefined : `${seen.code} still finds it.`"
                ><input
                    v-model="draft.code"
                    class="field w-[140px]"
                    maxlength="64"
                    autocomplete="off"
                    spellcheck="false"
            /></FormField>
            <FormField v-if="unit.parent !== null" label="Weight" :problem="message('/weight')"
                ><input v-model="draft.weight" class="field w-[80px] text-right" inputmode="decimal" autocomplete="off"
            /></FormField>
            <FormField label="Its status follows from what is under it"
                ><select v-model="draft.rollUp" class="field w-[260px]">
                    <option v-for="(rule, key) in ROLL_UPS" :key="key" :value="key">
                        {{ rule.name }}
                    </option>
                </select></FormField
            >
            <template v-if="draft.rollUp !== 'worst'">
                <FormField :label="ROLL_UPS[draft.rollUp].green" :problem="message('/rollUpGreen')"
                    ><input v-model="draft.rollUpGreen" class="field w-[90px] text-right" inputmode="decimal"
                /></FormField>
                <FormField :label="ROLL_UPS[draft.rollUp].other" :problem="message('/rollUpOther')"
                    ><input v-model="draft.rollUpOther" class="field w-[90px] text-right" inputmode="decimal"
                /></FormField>
            </template>
        </div>
        <p class="text-[13.5px] text-ink-faint md:col-span-4">
            Months that are closed keep the place, the weight and the rule by which they were closed.
        </p>
        <div
            v-if="unit.parent !== null"
            class="flex flex-wrap items-end gap-3 border-t border-rule-soft pt-3 md:col-span-4"
        >
            <template v-if="unit.retired">
                <span class="text-[14.5px]">Nothing is measured there from {{ monthAndYear(unit.retired) }} on.</span>
                <button type="button" class="button button-quiet" :disabled="busy" @click="bringBack">
                    Bring it back
                </button>
            </template>
            <template v-else>
                <FormField label="Nothing is measured there from" :problem="message('/from')"
                    ><input v-model="month" type="month" class="field w-[180px]"
                /></FormField>
                <button type="button" class="button button-quiet" :disabled="busy || month === ''" @click="retire">
                    Retire it
                </button>
            </template>
        </div>
        <p v-if="trouble || message('/unit')" class="error md:col-span-4" role="alert">
            {{ message('/unit') ?? trouble }}
        </p>
    </form>
</template>
