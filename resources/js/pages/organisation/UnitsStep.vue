<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import { counted } from '@/composables/useNumbers';
import { useLatest } from '@/composables/useLatest';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';

/** Units from a list: what stands further in belongs to what stands above. Nothing is made before one says so. */
const emit = defineEmits<{ made: [] }>();

const { root, load } = useSession();
const { busy, send, said } = useSending();

const list = ref('');
const below = ref('team');
const planned = ref<Schemas['ListedUnit'][]>([]);
const trouble = ref('');
/** What was made last, and can be taken back. */
const made = ref<{ batch: string; count: number } | null>(null);
const word = ref('');

const ask = useLatest<Schemas['ListedUnit'][]>(
    (answer) => {
        planned.value = answer;
        trouble.value = '';
    },
    (reason) =>
        (trouble.value =
            reason instanceof ApiError
                ? (Object.values(reason.fields)[0] ?? reason.detail)
                : 'The list could not be read.'),
);
const preview = useDebounceFn(
    () => ask(() => read(api.POST('/api/unit-lists/preview', { body: { list: list.value, below: below.value } }))),
    200,
);
watch([list, below], () => {
    if (list.value !== '') {
        word.value = '';
    }
    void preview();
});

const fresh = computed(() => planned.value.filter(({ state }) => state === 'new').length);
const refused = computed(() => planned.value.filter(({ state }) => state === 'refused'));
/** Two of one name are allowed, and worth a word. */
const twins = computed(() => {
    const names = planned.value.map(({ name }) => name);
    return names.find((name, index) => names.indexOf(name) !== index);
});
const depth = (unit: Schemas['ListedUnit']): string => `${unit.depth * 20}px`;

async function make(): Promise<void> {
    const count = fresh.value;
    const done = await send(async () => {
        const { batch } = await read(api.POST('/api/unit-lists', { body: { list: list.value, below: below.value } }));
        made.value = { batch, count };
        await load();
    });
    if (done) {
        list.value = '';
        planned.value = [];
        word.value = count === 1 ? 'One unit is made.' : `${count} units are made.`;
        emit('made');
    }
}

async function takeBack(): Promise<void> {
    const last = made.value;
    if (last === null) {
        return;
    }
    const done = await send(async () => {
        await read(api.DELETE('/api/unit-lists/{batch}', { params: { path: { batch: last.batch } } }));
        await load();
    });
    if (done) {
        made.value = null;
        word.value = 'They are gone again.';
        emit('made');
    }
}

/** Tab goes further in, as in any list; Escape first gives it back its usual meaning. */
const indents = ref(true);
function onTab(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
        indents.value = false;
        return;
    }
    const field = event.target as HTMLTextAreaElement;
    if (event.key !== 'Tab' || event.shiftKey || !indents.value) {
        return;
    }
    event.preventDefault();
    field.setRangeText('  ', field.selectionStart, field.selectionEnd, 'end');
    list.value = field.value;
}
</script>

<template>
    <h2 class="text-[20px]">Units</h2>
    <p class="mt-0.5 mb-2.5 text-[14.5px] text-ink-soft">
        Type or paste a list; what stands further in belongs to what stands above. A code may follow in brackets; levels
        in columns of a sheet do as well.
    </p>
    <div class="grid gap-x-[26px] gap-y-4 xl:grid-cols-[300px_minmax(0,1fr)]">
        <div>
            <label for="unit-list" class="sr-only">The list of units</label>
            <textarea
                id="unit-list"
                v-model="list"
                class="field block h-[296px] w-full text-[14px] leading-[1.55]"
                spellcheck="false"
                :placeholder="`${root?.name ?? ''}\n  Department\n    Team\n    Team\n  Department`"
                aria-describedby="unit-list-help"
                @keydown="onTab"
                @focus="indents = true"
            />
            <p id="unit-list-help" class="mt-1 text-[13px] text-ink-faint">
                Tab goes further in; Escape, then Tab, goes on to the next field.
            </p>
            <label class="mt-2 flex items-center gap-2 text-[14.5px] text-ink-soft"
                >Below departments stands a
                <input v-model="below" class="field w-[110px]" maxlength="24" autocomplete="off"
            /></label>
        </div>
        <div>
            <p v-if="planned.length === 0 && !trouble" class="text-[14.5px] text-ink-faint">
                The units appear here as they would be made, with the codes that tell them apart.
            </p>
            <table v-else-if="planned.length > 0" class="w-full border-collapse text-[15px]">
                <caption class="sr-only">
                    The units as they would be made
                </caption>
                <thead class="sr-only">
                    <tr>
                        <th scope="col">Name</th>
                        <th scope="col">Code</th>
                        <th scope="col">What it is</th>
                    </tr>
                </thead>
                <tbody>
                    <tr v-for="unit in planned" :key="unit.line" class="border-b border-rule-soft">
                        <td class="py-[5px] pr-3" :class="{ 'font-semibold': unit.depth <= 1 }">
                            <span :style="{ paddingLeft: depth(unit) }">{{ unit.name }}</span>
                            <span v-if="unit.state === 'refused'" class="error block" role="alert">{{
                                unit.problem
                            }}</span>
                        </td>
                        <td class="w-[130px] pr-3 text-[13.5px] text-ink-soft">{{ unit.code }}</td>
                        <td
                            class="w-[110px] text-[13.5px]"
                            :class="
                                unit.state === 'new'
                                    ? 'text-green'
                                    : unit.state === 'refused'
                                      ? 'text-red-text'
                                      : 'text-ink-faint'
                            "
                        >
                            {{
                                unit.state === 'new' ? unit.kind : unit.state === 'there' ? 'there already' : 'refused'
                            }}
                        </td>
                    </tr>
                </tbody>
            </table>
            <p v-if="twins && refused.length === 0" class="mt-1.5 text-[13.5px] text-amber-text">
                More than one unit is called {{ twins }}: that is allowed, their codes tell them apart.
            </p>
            <p v-if="trouble" class="error mt-1.5" role="alert">{{ trouble }}</p>
        </div>
    </div>
    <p v-if="said" class="error mt-3" role="alert">{{ said }}</p>
    <p class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <button type="button" class="button" :disabled="busy || fresh === 0 || refused.length > 0" @click="make">
            {{ fresh === 0 ? 'Make units' : fresh === 1 ? 'Make one unit' : `Make ${counted(fresh)} units` }}
        </button>
        <button v-if="made" type="button" class="button button-quiet" :disabled="busy" @click="takeBack">
            Take back the last {{ made.count === 1 ? 'one' : counted(made.count) }}
        </button>
        <span class="text-[14.5px] text-ink-soft" role="status">{{
            word || 'Nothing is kept before you say so; what was made can be taken back while nothing hangs on it.'
        }}</span>
    </p>
</template>
