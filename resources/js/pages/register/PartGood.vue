<script setup lang="ts">
import type { Definition } from './useDraft';
import Needle from '@/components/Needle.vue';
import { monthAndYear, step } from '@/composables/usePeriods';
import { useRibbon } from '@/composables/useRibbon';
import { useView } from '@/composables/useView';
import { computed } from 'vue';
import ChoiceRow from './ChoiceRow.vue';
import FormLine from './FormLine.vue';
import TargetMonths from './TargetMonths.vue';
import { BETTER_WHEN } from './words';

defineProps<{ error: (pointer: string, within?: boolean) => string | undefined }>();
const draft = defineModel<Definition>({ required: true });

const { period } = useView();
const { data: ribbon } = useRibbon();

const COMPARED_WITH = { target: 'the target', none: 'fixed levels' } as const;
const compared = computed<keyof typeof COMPARED_WITH>({
    get: () => draft.value.rule?.reference ?? 'target',
    set: (reference) => {
        const from = draft.value.rule?.from ?? period.value;
        draft.value.rule =
            reference === 'target'
                ? { from, reference, measure: 'percent', green: '0', amber: '5' }
                : { from, reference, measure: 'level', green: '', amber: '' };
    },
});

const polarity = computed({
    get: () => draft.value.polarity,
    set: (choice) => {
        draft.value.polarity = choice;
        if (choice !== 'none' && draft.value.rule === null) {
            draft.value.rule = { from: period.value, reference: 'target', measure: 'percent', green: '0', amber: '5' };
        }
    },
});

const higher = computed(() => draft.value.polarity === 'higher');
const rule = computed(() => draft.value.rule);
const unit = computed(() =>
    compared.value === 'target' ? `% ${higher.value ? 'under' : 'over'} the target` : draft.value.measure,
);
const reach = computed(() => (compared.value === 'target' ? 'up to' : higher.value ? 'from' : 'up to'));
/** A limit as the list beside the form tells it. */
const said = (limit: string): string =>
    compared.value === 'target' && limit.trim() === '0'
        ? 'at the target or better'
        : `${reach.value} ${limit === '' ? '…' : limit} ${unit.value}`;
const months = computed(() => ribbon.value?.months.map((month) => month.period) ?? []);
/** A rule can start in any month of this year or the one before, and stays where it is if it is older. */
const starts = computed(() => {
    const near = Array.from({ length: 18 }, (_, index) => step(period.value, index - 12));
    const from = rule.value?.from;
    return from === undefined || near.includes(from) ? near : [from, ...near];
});
</script>

<template>
    <div class="grid gap-x-[34px] gap-y-6 xl:grid-cols-[minmax(0,1fr)_340px]">
        <div class="space-y-[13px]">
            <FormLine label="Better when" :error="error('/polarity')"
                ><ChoiceRow v-model="polarity" label="Better when" :choices="BETTER_WHEN"
            /></FormLine>
            <template v-if="rule && draft.polarity !== 'none'">
                <FormLine label="Compare with" :error="error('/rule/measure')">
                    <ChoiceRow v-model="compared" label="Compare with" :choices="COMPARED_WITH" />
                </FormLine>
                <FormLine label="On course" for="green" :error="error('/rule/green')">
                    {{ reach }}
                    <input
                        id="green"
                        v-model="rule.green"
                        class="field w-[92px] text-right font-semibold"
                        inputmode="decimal"
                        autocomplete="off"
                        :aria-invalid="!!error('/rule/green')"
                    />
                    {{ unit }}
                </FormLine>
                <FormLine label="Drifting" for="amber" :error="error('/rule/amber')">
                    {{ reach }}
                    <input
                        id="amber"
                        v-model="rule.amber"
                        class="field w-[92px] text-right font-semibold"
                        inputmode="decimal"
                        autocomplete="off"
                        :aria-invalid="!!error('/rule/amber')"
                    />
                    {{ unit }}
                </FormLine>
                <FormLine label="Off course"><span class="text-ink-faint">anything beyond</span></FormLine>
                <FormLine
                    label="Holds from"
                    for="from"
                    :error="error('/rule/from')"
                    hint="Earlier months keep their colours."
                >
                    <select id="from" v-model="rule.from" class="field font-semibold">
                        <option v-for="month in starts" :key="month" :value="month">{{ monthAndYear(month) }}</option>
                    </select>
                </FormLine>
            </template>
            <FormLine
                v-if="draft.polarity !== 'none' && compared === 'target'"
                label="Targets"
                :error="error('/targets')"
            >
                <TargetMonths v-model="draft" :months="months" :error="error" />
            </FormLine>
        </div>
        <aside class="xl:border-l xl:border-rule xl:pl-[26px]">
            <h2 class="text-[19px]">In words</h2>
            <p v-if="draft.polarity === 'none' || !rule" class="mt-1 text-ink-soft">
                It is only tracked: its figures are shown, compared with last year, and get no colour.
            </p>
            <ul v-else class="mt-3 space-y-2.5">
                <li class="flex gap-3">
                    <Needle status="green" />
                    <span>{{ said(rule.green) }}</span>
                </li>
                <li class="flex gap-3">
                    <Needle status="amber" />
                    <span>{{ said(rule.amber) }}</span>
                </li>
                <li class="flex gap-3">
                    <Needle status="red" /> <span>{{ higher ? 'lower than that' : 'higher than that' }}</span>
                </li>
                <li v-if="compared === 'target'" class="flex gap-3">
                    <Needle status="not-judged" /> <span>in months without a target</span>
                </li>
                <li class="flex gap-3"><Needle status="no-data" /> <span>until the reading is in</span></li>
            </ul>
            <p
                v-if="draft.accumulation === 'sum' && compared === 'none' && draft.polarity !== 'none'"
                class="mt-3 text-[13.5px] text-ink-soft"
            >
                Levels are for one month. Over a longer span they grow with its months.
            </p>
        </aside>
    </div>
</template>
