<script setup lang="ts">
import type { Definition, Rule } from './useDraft';
import { monthAndYear, step } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { computed } from 'vue';
import ChoiceRow from '@/components/ChoiceRow.vue';
import FormLine from '@/components/FormLine.vue';
import { EACH, PACES, REFERENCES, limitWords, pick } from '@/words';
import { usePairings } from './usePairings';

/** One rule set: what is compared with what, how far off is still good, and from when it holds. */
const props = defineProps<{
    draft: Definition;
    saved: Rule | null;
    idPrefix: string;
    error: (field: string) => string | undefined;
}>();
const rule = defineModel<Rule>({ required: true });
const { period } = useView();
/** Said where several rules are on one page. */
const place = computed(() => (props.idPrefix === 'kpi' ? '' : ` in ${props.idPrefix}`));

const band = computed(() => props.draft.polarity === 'band');

const { isPossible, measuresOf } = usePairings(() => props.draft);
/** What can judge this KPI, and what does so far. */
const references = computed(() =>
    pick(
        { ...REFERENCES, ...(band.value ? { target: 'the band' } : {}) },
        (name) => isPossible(name) || name === rule.value.reference,
    ),
);
const measures = computed(() =>
    pick(
        {
            percent: 'in percent',
            absolute: `in ${props.draft.measure || 'its measure'}`,
            reached: 'share reached',
            level: 'as a level',
        },
        (name) => measuresOf(rule.value.reference).includes(name) || name === rule.value.measure,
    ),
);

const reference = computed({
    get: () => rule.value.reference,
    set: (now) => {
        const possible = measuresOf(now);
        const measure = possible.includes(rule.value.measure)
            ? rule.value.measure
            : (possible[0] ?? rule.value.measure);
        const same = measure === rule.value.measure;
        rule.value = {
            ...rule.value,
            reference: now,
            measure,
            periods: now === 'recent' ? (rule.value.periods ?? 3) : null,
            // Against the whole it would be off course nearly all year.
            pace: now === 'year-target' ? 'even' : 'whole',
            green: same ? rule.value.green : measure === 'reached' ? '100' : measure === 'level' ? '' : '0',
            amber: same ? rule.value.amber : measure === 'reached' ? '90' : measure === 'level' ? '' : '5',
        };
    },
});
const measure = computed({
    get: () => rule.value.measure,
    set: (now) =>
        (rule.value = {
            ...rule.value,
            measure: now,
            ...(now === 'reached'
                ? { green: '100', amber: '90' }
                : rule.value.measure === 'reached'
                  ? { green: '0', amber: '5' }
                  : {}),
        }),
});

const bandLevel = computed(() => band.value && rule.value.measure === 'level');
const said = computed(() => limitWords(rule.value.measure, props.draft.polarity, props.draft.measure));
const LIMITS = { green: 'On course', amber: 'Drifting' } as const;
const was = (field: keyof typeof LIMITS): string => {
    const before = props.saved;
    return before !== null &&
        before.measure === rule.value.measure &&
        before.reference === rule.value.reference &&
        before[field] !== rule.value[field]
        ? `was ${before[field]}`
        : '';
};

/** A rule can start in any month of this year or the one before, and stays where it is if it is older. */
const starts = computed(() => {
    const near = Array.from({ length: 18 }, (_, index) => step(period.value, index - 12));
    return near.includes(rule.value.from) ? near : [rule.value.from, ...near];
});
const perPeriod = computed(
    () => props.draft.accumulation === 'sum' && (rule.value.measure === 'absolute' || rule.value.measure === 'level'),
);
</script>

<template>
    <FormLine label="Compare with" :error="error('reference') ?? error('measure')">
        <select v-model="reference" class="field font-semibold" :aria-label="`Compare with${place}`">
            <option v-for="(name, value) in references" :key="value" :value="value">{{ name }}</option>
        </select>
        <span v-if="rule.reference === 'recent'" class="ml-3">
            the mean of the previous
            <input
                v-model.number="rule.periods"
                type="number"
                min="1"
                max="60"
                class="field w-[66px] text-right"
                aria-label="How many previous periods"
                :aria-invalid="!!error('periods')"
            />
        </span>
        <span v-if="error('periods')" class="error mt-1 block" role="alert">{{ error('periods') }}</span>
    </FormLine>
    <FormLine v-if="rule.reference === 'year-target'" label="Asked for by now" :error="error('pace')"
        ><ChoiceRow v-model="rule.pace" :label="`Asked for by now${place}`" :choices="PACES"
    /></FormLine>
    <FormLine v-if="rule.reference !== 'none' && rule.reference !== 'year-target'" label="How far off"
        ><ChoiceRow v-model="measure" :label="`How far off${place}`" :choices="measures"
    /></FormLine>
    <template v-if="bandLevel">
        <FormLine label="On course" :error="error('low') ?? error('high') ?? error('green')">
            from
            <input
                v-model="rule.low"
                class="field w-[92px] text-right font-semibold"
                inputmode="decimal"
                autocomplete="off"
                aria-label="On course from"
                :aria-invalid="!!error('low')"
            />
            to
            <input
                v-model="rule.high"
                class="field w-[92px] text-right font-semibold"
                inputmode="decimal"
                autocomplete="off"
                aria-label="On course to"
                :aria-invalid="!!error('high')"
            />
            {{ draft.measure }}
        </FormLine>
        <FormLine label="Drifting" :error="error('marginLow') ?? error('marginHigh')">
            up to
            <input
                v-model="rule.marginLow"
                class="field w-[92px] text-right font-semibold"
                inputmode="decimal"
                autocomplete="off"
                aria-label="Drifting below by"
                :aria-invalid="!!error('marginLow')"
            />
            below,
            <input
                v-model="rule.marginHigh"
                class="field w-[92px] text-right font-semibold"
                inputmode="decimal"
                autocomplete="off"
                aria-label="Drifting above by"
                :aria-invalid="!!error('marginHigh')"
            />
            above
        </FormLine>
    </template>
    <template v-else>
        <FormLine
            v-for="(words, limit) in LIMITS"
            :key="limit"
            :label="words"
            :for="`${idPrefix}-${limit}`"
            :error="error(limit)"
        >
            {{ said.reach }}
            <input
                :id="`${idPrefix}-${limit}`"
                v-model="rule[limit]"
                class="field w-[92px] text-right font-semibold"
                inputmode="decimal"
                autocomplete="off"
                :aria-invalid="!!error(limit)"
            />
            {{ said.unit }} <span class="text-[13.5px] text-ink-faint">{{ was(limit) }}</span>
        </FormLine>
    </template>
    <FormLine label="Off course"><span class="text-ink-faint">anything beyond</span></FormLine>
    <FormLine v-if="!band" label="Excellent at" :for="`${idPrefix}-stretch`" :error="error('stretch')">
        <input
            :id="`${idPrefix}-stretch`"
            v-model="rule.stretch"
            class="field w-[92px] text-right"
            inputmode="decimal"
            autocomplete="off"
            :aria-invalid="!!error('stretch')"
        />
        {{ draft.measure }} <span class="text-[13.5px] text-ink-faint">optional; adds a star to a green</span>
    </FormLine>
    <FormLine
        label="Holds from"
        :for="`${idPrefix}-from`"
        :error="error('from') ?? error('older')"
        :hint="
            perPeriod
                ? `Limits are for one ${EACH[draft.frequency]} and grow with the span. Earlier months keep their colours.`
                : 'Earlier months keep their colours.'
        "
    >
        <select
            :id="`${idPrefix}-from`"
            v-model="rule.from"
            class="field font-semibold"
            :aria-invalid="!!error('from')"
        >
            <option v-for="month in starts" :key="month" :value="month">{{ monthAndYear(month) }}</option>
        </select>
    </FormLine>
</template>
