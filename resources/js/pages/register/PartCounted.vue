<script setup lang="ts">
import type { Definition } from './useDraft';
import { api, read, type Schemas } from '@/api/client';
import { useQuery } from '@tanstack/vue-query';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import ChoiceRow from '@/components/ChoiceRow.vue';
import FormLine from '@/components/FormLine.vue';
import FormulaField from './FormulaField.vue';

import { ACCUMULATIONS, EACH, FREQUENCIES, GATHERINGS, KINDS } from '@/words';

/** Few count from records; the sentence comes when it is wanted. */
const CountSentence = defineAsyncComponent(() => import('./CountSentence.vue'));
const CountPanel = defineAsyncComponent(() => import('./CountPanel.vue'));

const props = defineProps<{
    error: (pointer: string, within?: boolean) => string | undefined;
    saved: Definition;
    register: Schemas['RegisterPage'] | undefined;
}>();
const draft = defineModel<Definition>({ required: true });

/** As it is typed, a part a line; blank lines are none. */
const parts = ref('');
const named = (text: string): string[] =>
    text
        .split('\n')
        .map((line) => line.trim())
        .filter((line) => line !== '');
watch(
    () => draft.value.parts,
    (now) => {
        if (named(parts.value).join('\n') !== now.join('\n')) {
            parts.value = now.join('\n');
        }
    },
    { immediate: true },
);
watch(parts, (text) => {
    if (named(text).join('\n') !== draft.value.parts.join('\n')) {
        draft.value.parts = named(text);
    }
});

const LARGE = { plain: 'in full', scaled: 'in k, m and bn' } as const;
const large = computed<keyof typeof LARGE>({
    get: () => (draft.value.scaled ? 'scaled' : 'plain'),
    set: (choice) => (draft.value.scaled = choice === 'scaled'),
});

const pick = (...keys: Definition['accumulation'][]): Partial<Record<Definition['accumulation'], string>> =>
    Object.fromEntries(keys.map((key) => [key, ACCUMULATIONS[key]]));
const accumulations = computed(() =>
    draft.value.kind === 'judged'
        ? pick('latest', 'mean')
        : draft.value.kind === 'formula'
          ? pick('recompute', 'sum', 'mean', 'latest', 'maximum', 'minimum')
          : pick('sum', 'mean', 'latest', 'maximum', 'minimum'),
);
// A new ratio is nearly always worked out again over time; what was chosen for one that is defined stays.
watch(
    () => draft.value.kind,
    (kind) => {
        if (kind === 'formula' && draft.value.version === 0) {
            draft.value.accumulation = 'recompute';
        }
    },
);
watch(accumulations, (offered) => {
    if (!(draft.value.accumulation in offered)) {
        draft.value.accumulation = draft.value.kind === 'formula' ? 'recompute' : 'latest';
    }
});

const MEANING = computed(() => {
    const each = EACH[draft.value.frequency];
    const longer =
        draft.value.frequency === 'week' ? 'A month' : draft.value.frequency === 'month' ? 'A quarter' : 'A year';
    return {
        sum: `${longer} is the sum of its ${each}s: for counts, volumes and money.`,
        mean:
            draft.value.kind === 'judged'
                ? `${longer} is the mean of its colours.`
                : `${longer} is the mean of its ${each}s: for rates, levels and percentages.`,
        latest: `${longer} is its latest ${each}: for stocks, balances and registers.`,
        maximum: `${longer} is its highest ${each}: for peaks.`,
        minimum: `${longer} is its lowest ${each}: for troughs.`,
        recompute: `${longer} is the formula over its operands gathered: a ratio of sums, not a mean of ratios.`,
    };
});

/** One owner for all units; different ones are set unit by unit. */
const owners = computed(() => new Set(draft.value.units.map(({ owner }) => owner)));
const owner = computed({
    get: () => (owners.value.size > 1 ? 'several' : String([...owners.value][0] ?? '')),
    set: (choice) => {
        if (choice !== 'several') {
            draft.value.units = draft.value.units.map((place) => ({
                ...place,
                owner: choice === '' ? null : Number(choice),
            }));
        }
    },
});

const wasTyped = computed(
    () => props.saved.version > 0 && (props.saved.kind === 'entered' || props.saved.counted?.from != null),
);
const { data: sets } = useQuery({
    queryKey: ['sources'],
    queryFn: () => read(api.GET('/api/record-sets')),
    enabled: computed(() => draft.value.kind === 'records'),
});
const noun = computed(() => sets.value?.find(({ code }) => code === draft.value.counted?.records)?.noun ?? 'records');

const isNumber = computed(() => draft.value.kind !== 'judged');
const others = computed(() =>
    (props.register?.kpis ?? []).filter(
        ({ code, kind, frequency }) =>
            code !== draft.value.code && kind !== 'judged' && frequency === draft.value.frequency,
    ),
);
const dueDay = computed({
    get: () => draft.value.dueDay ?? '',
    set: (day: number | '') => (draft.value.dueDay = day === '' ? null : day),
});
</script>

<template>
    <div class="grid gap-x-[40px] gap-y-[13px] xl:grid-cols-2">
        <FormLine class="xl:col-span-2" label="Comes about" :error="error('/kind')"
            ><ChoiceRow v-model="draft.kind" label="Comes about" :choices="KINDS"
        /></FormLine>
        <div v-if="draft.kind === 'records'" class="space-y-[15px]">
            <CountSentence v-model="draft" :error="error" :was-typed="wasTyped" />
        </div>
        <div v-if="draft.kind === 'records'" class="xl:border-l xl:border-rule xl:pl-[26px]">
            <CountPanel :draft="draft" :noun="noun" />
        </div>
        <hr v-if="draft.kind === 'records'" class="my-2 border-rule xl:col-span-2" />
        <div class="space-y-[13px]">
            <FormLine v-if="draft.kind === 'formula'" label="Formula" for="formula" :error="error('/formula')">
                <FormulaField
                    v-model="draft.formula"
                    :draft="draft"
                    :kpis="register?.kpis ?? []"
                    :invalid="!!error('/formula')"
                />
            </FormLine>
            <template v-if="isNumber">
                <FormLine
                    label="Unit of measure"
                    for="measure"
                    :error="error('/measure')"
                    hint="As people write it: Ml a day, %, £, incidents."
                >
                    <input
                        id="measure"
                        v-model="draft.measure"
                        class="field w-[180px]"
                        maxlength="60"
                        autocomplete="off"
                        :aria-invalid="!!error('/measure')"
                    />
                </FormLine>
                <FormLine
                    label="Decimals shown"
                    for="decimals"
                    :error="error('/decimals')"
                    hint="Figures are kept and judged exactly as entered."
                >
                    <input
                        id="decimals"
                        v-model.number="draft.decimals"
                        type="number"
                        min="0"
                        max="8"
                        class="field w-[74px] text-right"
                        :aria-invalid="!!error('/decimals')"
                    />
                </FormLine>
                <FormLine label="Large figures" :error="error('/scaled')"
                    ><ChoiceRow v-model="large" label="Large figures" :choices="LARGE"
                /></FormLine>
            </template>
            <FormLine label="Measured" :error="error('/frequency')"
                ><ChoiceRow v-model="draft.frequency" label="Measured" :choices="FREQUENCIES"
            /></FormLine>
            <FormLine
                v-if="draft.kind !== 'records'"
                label="Over time"
                :error="error('/accumulation')"
                :hint="MEANING[draft.accumulation]"
            >
                <ChoiceRow v-model="draft.accumulation" label="Over time" :choices="accumulations" />
            </FormLine>
            <FormLine
                v-if="draft.kind === 'entered'"
                label="Parts"
                for="parts"
                :error="error('/parts', true)"
                hint="One a line, where its parts are entered on the month sheet and add up to it."
            >
                <textarea
                    id="parts"
                    v-model="parts"
                    class="field w-full max-w-[340px]"
                    :rows="Math.max(2, draft.parts.length + 1)"
                    :aria-invalid="!!error('/parts', true)"
                />
            </FormLine>
        </div>
        <div class="space-y-[13px]">
            <template v-if="draft.kind !== 'formula'">
                <FormLine
                    :label="draft.kind === 'records' ? 'Answered for by' : 'Entered by'"
                    for="owner"
                    :hint="
                        owner === 'several'
                            ? 'Units have owners of their own; choosing one here sets it for all.'
                            : undefined
                    "
                >
                    <select id="owner" v-model="owner" class="field">
                        <option v-if="owner === 'several'" value="several">several people</option>
                        <option value="">nobody in particular</option>
                        <option v-for="person in register?.people ?? []" :key="person.id" :value="String(person.id)">
                            {{ person.name }}
                        </option>
                    </select>
                </FormLine>
            </template>
            <FormLine
                label="Due by day"
                for="due"
                :error="error('/dueDay')"
                :hint="`Of the month after the ${EACH[draft.frequency]} ends; blank for no day.`"
            >
                <input
                    id="due"
                    v-model="dueDay"
                    type="number"
                    min="1"
                    max="31"
                    class="field w-[74px] text-right"
                    :aria-invalid="!!error('/dueDay')"
                />
            </FormLine>
            <FormLine label="When it is bad">
                <label class="flex items-center gap-2.5"
                    ><input v-model="draft.noteRequired" type="checkbox" class="size-4 accent-brass" /> A reason must be
                    given before the month is handed in</label
                >
            </FormLine>
            <template v-if="isNumber">
                <FormLine
                    label="Cannot be"
                    :error="error('/min') ?? error('/max')"
                    hint="A figure beyond is refused; projections stop there. Blank for no bound."
                >
                    below
                    <input
                        v-model="draft.min"
                        class="field w-[92px] text-right"
                        inputmode="decimal"
                        autocomplete="off"
                        aria-label="Lowest possible figure"
                        :aria-invalid="!!error('/min')"
                    />
                    or above
                    <input
                        v-model="draft.max"
                        class="field w-[92px] text-right"
                        inputmode="decimal"
                        autocomplete="off"
                        aria-label="Highest possible figure"
                        :aria-invalid="!!error('/max')"
                    />
                </FormLine>
                <FormLine
                    label="Matters from"
                    for="materiality"
                    :error="error('/materiality')"
                    hint="A smaller change against last year is no exception."
                >
                    <input
                        id="materiality"
                        v-model="draft.materiality"
                        class="field w-[92px] text-right"
                        inputmode="decimal"
                        autocomplete="off"
                        :aria-invalid="!!error('/materiality')"
                    />
                    {{ draft.measure }}
                </FormLine>
                <FormLine
                    label="Over units"
                    for="gather"
                    :error="error('/gather')"
                    hint="How its units become one figure for a unit above them, marked as gathered under Where."
                >
                    <select id="gather" v-model="draft.gather" class="field">
                        <option
                            v-for="(name, value) in GATHERINGS"
                            :key="value"
                            :value="value"
                            :disabled="value === 'recompute' && draft.kind !== 'formula'"
                        >
                            {{ name }}
                        </option>
                    </select>
                </FormLine>
                <FormLine
                    v-if="draft.gather === 'weighted'"
                    label="Weighted by"
                    for="weighted"
                    :error="error('/weightedBy')"
                >
                    <select
                        id="weighted"
                        class="field max-w-full"
                        :value="draft.weightedBy ?? ''"
                        :aria-invalid="!!error('/weightedBy')"
                        @change="draft.weightedBy = ($event.target as HTMLSelectElement).value || null"
                    >
                        <option value="">choose a KPI</option>
                        <option v-for="kpi in others" :key="kpi.code" :value="kpi.code">
                            {{ kpi.name }} ({{ kpi.code }})
                        </option>
                    </select>
                </FormLine>
            </template>
        </div>
    </div>
</template>
