<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import SettingsTabs from '@/components/SettingsTabs.vue';
import FormField from '@/components/FormField.vue';
import StateNote from '@/components/StateNote.vue';
import { counted } from '@/composables/useNumbers';
import { monthAndYear } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, nextTick, reactive, ref, useTemplateRef } from 'vue';
import UnitsStep from './UnitsStep.vue';

/** The tree of the organisation: what its parts are called, where they stand, and what hangs on them. */
useTitle('Units · Kybernet');
const { load } = useSession();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['units'],
    queryFn: () => read(api.GET('/api/units')),
    staleTime: 0,
});
const { busy, problem, message, send, said, trouble } = useSending();

type Unit = Schemas['UnitTreeLine'];
type Place = Schemas['UnitPlace'];
const place = ({ code, name, kind, parent, weight, rollUp, rollUpGreen, rollUpOther }: Place): Place => ({
    code,
    name,
    kind,
    parent,
    weight,
    rollUp,
    rollUpGreen,
    rollUpOther,
});
const NOTHING: Place = {
    code: '',
    name: '',
    kind: '',
    parent: null,
    weight: '1',
    rollUp: 'weighted',
    rollUpGreen: '1.5',
    rollUpOther: '0.5',
};
const ROLL_UPS = {
    weighted: { name: 'by the weighted mean of scores', green: 'On course from', other: 'Drifting from' },
    worst: { name: 'as the worst of them', green: '', other: '' },
    share: { name: 'by shares of the weight', green: 'On course from % green', other: 'Off course above % red' },
} as const;

const isAdding = ref(false);
const editing = ref<Unit | null>(null);
const draft = reactive<Place>({ ...NOTHING });
/** As it stood when it was opened: what somebody else changed since is not overwritten. */
const seen = ref<Place>({ ...NOTHING });
/** The month from which it is to be retired. */
const month = ref('');
/** What was done last, and what takes it back. */
const done = ref<{ words: string; code: string; now: Place; before: Place } | null>(null);
/** In a row of a list: one of them at most. */
const first = useTemplateRef<HTMLInputElement[]>('first');

const sought = ref('');
const byCode = computed(() => new Map(data.value?.map((unit) => [unit.code, unit])));
const called = (code: string | null): string => byCode.value.get(code ?? '')?.name ?? '';
/** Those that are meant, with the way to them. */
const shown = computed(() => {
    const words = sought.value.trim().toLowerCase();
    if (words === '') {
        return data.value ?? [];
    }
    const wanted = new Set<string>();
    for (const unit of data.value ?? []) {
        if (`${unit.name} ${unit.code}`.toLowerCase().includes(words)) {
            for (let each: Unit | undefined = unit; each !== undefined; each = byCode.value.get(each.parent ?? '')) {
                wanted.add(each.code);
            }
        }
    }
    return (data.value ?? []).filter(({ code }) => wanted.has(code));
});
const kinds = computed(() => [...new Set(data.value?.map(({ kind }) => kind))]);
const levels = computed(() => Math.max(0, ...(data.value ?? []).map(({ depth }) => depth)));
/** Where the unit may stand: everywhere but in itself. */
const places = computed(() => {
    const own = editing.value;
    let inside = -1;
    return (data.value ?? []).filter((unit) => {
        if (inside >= 0 && unit.depth > inside) {
            return false;
        }
        inside = unit.code === own?.code ? unit.depth : -1;
        return inside < 0;
    });
});
const isFree = (unit: Unit): boolean =>
    unit.parent !== null && unit.kpis === 0 && unit.people === 0 && unit.below === 0;

async function open(unit: Unit): Promise<void> {
    isAdding.value = false;
    problem.value = null;
    editing.value = unit;
    seen.value = place(unit);
    Object.assign(draft, place(unit));
    month.value = '';
    await nextTick();
    first.value?.[0]?.focus();
}

/** Whoever works by keyboard goes on where they were. */
async function close(): Promise<void> {
    const code = editing.value?.code ?? '';
    editing.value = null;
    await nextTick();
    document.getElementById(`change-${code}`)?.focus();
}

function put(code: string, to: Place, from: Place): Promise<boolean> {
    return send(async () => {
        await read(api.PUT('/api/units/{unit}', { params: { path: { unit: code } }, body: { ...to, seen: from } }));
        await Promise.all([refetch(), load()]);
    });
}

async function save(): Promise<void> {
    const unit = editing.value;
    if (unit === null) {
        return;
    }
    const [before, now] = [seen.value, place(draft)];
    if (await put(unit.code, now, before)) {
        await close();
        const moved = now.parent === before.parent ? '' : `, and stands below ${called(now.parent)}`;
        done.value = {
            code: now.code,
            now: place(byCode.value.get(now.code) ?? now),
            before,
            words:
                now.name === before.name
                    ? `${now.name} is kept${moved}.`
                    : `${before.name} is called ${now.name}${moved}.`,
        };
    } else if (problem.value instanceof ApiError && problem.value.status === 409) {
        // What stands there now has been read by whoever saves again.
        await refetch();
        seen.value = place(byCode.value.get(unit.code) ?? before);
    }
}

async function takeBack(): Promise<void> {
    const last = done.value;
    if (last !== null && (await put(last.code, last.before, last.now))) {
        done.value = null;
    }
}

/** Those that stand below each unit, in their order: asked for by every row, so looked up once. */
const inside = computed(() => {
    const found = new Map<string | null, Unit[]>();
    for (const unit of data.value ?? []) {
        const those = found.get(unit.parent);
        if (those === undefined) {
            found.set(unit.parent, [unit]);
        } else {
            those.push(unit);
        }
    }
    return found;
});
/** Those that stand beside the unit, itself included. */
const beside = (unit: Unit): Unit[] => inside.value.get(unit.parent) ?? [];

async function order(unit: Unit, after: string | null): Promise<void> {
    done.value = null;
    await send(async () => {
        await read(api.PUT('/api/units/{unit}/order', { params: { path: { unit: unit.code } }, body: { after } }));
        await Promise.all([refetch(), load()]);
    });
}

/** One place up or down among those beside it; the focus stays with it. */
async function shift(unit: Unit, by: -1 | 1): Promise<void> {
    const all = beside(unit);
    const at = all.findIndex(({ code }) => code === unit.code);
    await order(unit, all[at + (by === 1 ? 1 : -2)]?.code ?? null);
    await nextTick();
    document.getElementById(`change-${unit.code}`)?.focus();
}

const dragged = ref<Unit | null>(null);
/** Dropped on a neighbour it stands behind it; on another, the form opens with that as its place, to be saved or left. */
async function drop(on: Unit): Promise<void> {
    const unit = dragged.value;
    dragged.value = null;
    if (unit === null || unit.code === on.code || unit.parent === null) {
        return;
    }
    if (unit.parent === on.parent) {
        await order(unit, on.code);
        return;
    }
    await open(unit);
    if (places.value.some(({ code }) => code === on.code)) {
        draft.parent = on.code;
    }
}

async function retire(unit: Unit): Promise<void> {
    const ends =
        unit.kpis === 0 ? '' : ` ${unit.kpis === 1 ? 'One KPI ends' : `${unit.kpis} KPIs end`} with the month before.`;
    if (
        !window.confirm(
            `Retire ${unit.name}, and what stands below it?${ends} What was measured stays, and it can be brought back.`,
        )
    ) {
        return;
    }
    const isDone = await send(async () => {
        await read(
            api.PUT('/api/units/{unit}/retirement', {
                params: { path: { unit: unit.code } },
                body: { from: month.value },
            }),
        );
        await Promise.all([refetch(), load()]);
    });
    if (isDone) {
        await close();
    }
}

async function bringBack(unit: Unit): Promise<void> {
    await send(async () => {
        await read(api.DELETE('/api/units/{unit}/retirement', { params: { path: { unit: unit.code } } }));
        await Promise.all([refetch(), load()]);
    });
    await close();
}

async function takeAway(unit: Unit): Promise<void> {
    if (!window.confirm(`Take ${unit.name} away? Nothing is measured there and nobody belongs there.`)) {
        return;
    }
    done.value = null;
    const isGone = await send(async () => {
        await read(api.DELETE('/api/units/{unit}', { params: { path: { unit: unit.code } } }));
        await Promise.all([refetch(), load()]);
    });
    if (isGone) {
        editing.value = null;
    }
}

function add(): void {
    editing.value = null;
    isAdding.value = !isAdding.value;
}
</script>

<template>
    <SettingsTabs here="units" />
    <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
            <h1 class="text-[28px] leading-[1.15]">Units</h1>
            <p v-if="data" class="mt-[5px] text-[17px]">
                {{ data[0]?.name }} has {{ data.length - 1 === 1 ? 'one unit' : `${data.length - 1} units` }}
                <template v-if="levels > 1">on {{ counted(levels) }} levels</template>. What closed months said of them
                stays.
            </p>
        </div>
        <button type="button" class="button" :aria-expanded="isAdding" @click="add">
            {{ isAdding ? 'Close the list' : 'Add units' }}
        </button>
    </div>
    <section v-if="isAdding" class="mt-4 border-y border-rule py-4" aria-label="Add units">
        <UnitsStep @made="refetch()" />
    </section>
    <p
        v-if="done"
        class="mt-4 flex flex-wrap items-center gap-4 border-l-[3px] border-brass bg-brass-tint px-4 py-2.5 text-[15px]"
        role="status"
    >
        {{ done.words }}
        <button type="button" class="quiet-link min-h-6" :disabled="busy" @click="takeBack">Take it back</button>
    </p>
    <p v-if="editing === null && said" class="error mt-3" role="alert">{{ said }}</p>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <label v-if="data.length > 12" class="mt-4 block max-w-[320px]"
            ><span class="sr-only">Find a unit</span
            ><input v-model="sought" type="search" class="field w-full" placeholder="Find by name or code"
        /></label>
        <table class="mt-4 w-full border-collapse text-left text-[15px]">
            <thead>
                <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                    <th scope="col">Name</th>
                    <th scope="col" class="max-md:hidden">Code</th>
                    <th scope="col" class="max-md:hidden">What it is</th>
                    <th scope="col" class="w-[70px] text-right">KPIs</th>
                    <th scope="col" class="w-[80px] text-right max-md:hidden">People</th>
                    <th scope="col"><span class="sr-only">What can be done</span></th>
                </tr>
            </thead>
            <tbody>
                <template v-for="unit in shown" :key="unit.code">
                    <tr
                        v-if="editing?.code !== unit.code"
                        class="group border-t border-rule-soft"
                        :class="{ 'text-ink-faint': unit.retired, 'bg-brass-tint': dragged?.code === unit.code }"
                        :draggable="unit.parent !== null"
                        @dragstart="dragged = unit"
                        @dragend="dragged = null"
                        @dragover.prevent
                        @drop.prevent="drop(unit)"
                    >
                        <td class="py-[7px] pr-4" :class="{ 'font-semibold': unit.depth <= 1 }">
                            <span class="block" :style="{ paddingLeft: `${unit.depth * 20}px` }"
                                >{{ unit.name
                                }}<span v-if="unit.retired" class="ml-2 text-[13px] font-normal"
                                    >retired from {{ monthAndYear(unit.retired) }}</span
                                ></span
                            >
                        </td>
                        <td class="pr-4 text-[13.5px] text-ink-soft max-md:hidden">{{ unit.code }}</td>
                        <td class="pr-4 text-[13.5px] text-ink-soft max-md:hidden">{{ unit.kind }}</td>
                        <td class="text-right">{{ unit.kpis > 0 ? unit.kpis : '' }}</td>
                        <td class="text-right max-md:hidden">{{ unit.people > 0 ? unit.people : '' }}</td>
                        <td class="pl-5 text-right whitespace-nowrap">
                            <template v-if="sought === '' && unit.parent !== null && beside(unit).length > 1">
                                <button
                                    type="button"
                                    class="min-h-6 min-w-6 px-1 text-ink-faint opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-ink focus-visible:opacity-100 disabled:invisible"
                                    :disabled="busy || beside(unit)[0]?.code === unit.code"
                                    :aria-label="`${unit.name} up`"
                                    @click="shift(unit, -1)"
                                >
                                    ↑
                                </button>
                                <button
                                    type="button"
                                    class="mr-3 min-h-6 min-w-6 px-1 text-ink-faint opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-ink focus-visible:opacity-100 disabled:invisible"
                                    :disabled="busy || beside(unit).at(-1)?.code === unit.code"
                                    :aria-label="`${unit.name} down`"
                                    @click="shift(unit, 1)"
                                >
                                    ↓
                                </button>
                            </template>
                            <button
                                :id="`change-${unit.code}`"
                                type="button"
                                class="quiet-link min-h-6 text-[14px]"
                                :aria-label="`Change ${unit.name}`"
                                @click="open(unit)"
                            >
                                Change
                            </button>
                        </td>
                    </tr>
                    <tr v-else class="border-t border-rule bg-sheet">
                        <td colspan="6" class="px-3 py-3">
                            <form
                                class="grid gap-x-5 gap-y-3 md:grid-cols-[1.4fr_160px_1.2fr_auto] md:items-start"
                                novalidate
                                @submit.prevent="save"
                                @keydown.esc="close"
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
                                    ><select
                                        v-model="draft.parent"
                                        class="field w-full"
                                        :aria-invalid="message('/parent') !== undefined"
                                    >
                                        <option v-for="each in places" :key="each.code" :value="each.code">
                                            {{ '\u2003'.repeat(each.depth) }}{{ each.name }}
                                        </option></select
                                    ><span class="error" role="alert">{{ message('/parent') }}</span></label
                                >
                                <span v-else />
                                <p class="flex gap-2 md:pt-[23px]">
                                    <button type="submit" class="button" :disabled="busy">Save</button>
                                    <button type="button" class="button button-quiet" @click="close">Leave it</button>
                                    <button
                                        v-if="isFree(unit)"
                                        type="button"
                                        class="quiet-link ml-2 min-h-6 text-[14px]"
                                        :disabled="busy"
                                        @click="takeAway(unit)"
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
                                        ><input
                                            v-model="draft.weight"
                                            class="field w-[80px] text-right"
                                            inputmode="decimal"
                                            autocomplete="off"
                                    /></FormField>
                                    <FormField label="Its status follows from what is under it"
                                        ><select v-model="draft.rollUp" class="field w-[260px]">
                                            <option v-for="(rule, key) in ROLL_UPS" :key="key" :value="key">
                                                {{ rule.name }}
                                            </option>
                                        </select></FormField
                                    >
                                    <template v-if="draft.rollUp !== 'worst'">
                                        <FormField
                                            :label="ROLL_UPS[draft.rollUp].green"
                                            :problem="message('/rollUpGreen')"
                                            ><input
                                                v-model="draft.rollUpGreen"
                                                class="field w-[90px] text-right"
                                                inputmode="decimal"
                                        /></FormField>
                                        <FormField
                                            :label="ROLL_UPS[draft.rollUp].other"
                                            :problem="message('/rollUpOther')"
                                            ><input
                                                v-model="draft.rollUpOther"
                                                class="field w-[90px] text-right"
                                                inputmode="decimal"
                                        /></FormField>
                                    </template>
                                </div>
                                <p class="text-[13.5px] text-ink-faint md:col-span-4">
                                    Months that are closed keep the place, the weight and the rule by which they were
                                    closed.
                                </p>
                                <div
                                    v-if="unit.parent !== null"
                                    class="flex flex-wrap items-end gap-3 border-t border-rule-soft pt-3 md:col-span-4"
                                >
                                    <template v-if="unit.retired">
                                        <span class="text-[14.5px]"
                                            >Nothing is measured there from {{ monthAndYear(unit.retired) }} on.</span
                                        >
                                        <button
                                            type="button"
                                            class="button button-quiet"
                                            :disabled="busy"
                                            @click="bringBack(unit)"
                                        >
                                            Bring it back
                                        </button>
                                    </template>
                                    <template v-else>
                                        <FormField label="Nothing is measured there from" :problem="message('/from')"
                                            ><input v-model="month" type="month" class="field w-[180px]"
                                        /></FormField>
                                        <button
                                            type="button"
                                            class="button button-quiet"
                                            :disabled="busy || month === ''"
                                            @click="retire(unit)"
                                        >
                                            Retire it
                                        </button>
                                    </template>
                                </div>
                                <p v-if="trouble || message('/unit')" class="error md:col-span-4" role="alert">
                                    {{ message('/unit') ?? trouble }}
                                </p>
                            </form>
                        </td>
                    </tr>
                </template>
            </tbody>
        </table>
        <p v-if="shown.length === 0" class="mt-4 text-ink-soft" role="status">
            No unit has “{{ sought }}” in its name or code.
        </p>
        <datalist id="unit-kinds">
            <option v-for="kind in kinds" :key="kind" :value="kind" />
        </datalist>
    </template>
</template>
