<script setup lang="ts">
import type { Definition, Rule } from './useDraft';
import type { Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { monthAndYear, step } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { computed, reactive, ref, watch } from 'vue';
import ChoiceRow from '@/components/ChoiceRow.vue';
import FormLine from '@/components/FormLine.vue';
import FormulaField from './FormulaField.vue';
import ReplayPanel from './ReplayPanel.vue';
import RuleFields from './RuleFields.vue';
import TargetMonths from './TargetMonths.vue';
import { blankRule } from './useDraft';
import { AIMS, COLOURS, EACH, POLARITIES, REFERENCES } from '@/words';

const props = defineProps<{
    error: (pointer: string, within?: boolean) => string | undefined;
    saved: Definition;
    register: Schemas['RegisterPage'] | undefined;
    mayEdit: boolean;
}>();
const draft = defineModel<Definition>({ required: true });

const { period, query } = useView();

const polarity = computed({
    get: () => draft.value.polarity,
    set: (choice) => {
        draft.value.polarity = choice;
        if (choice !== 'none') {
            draft.value.rule ??= blankRule(period.value);
        }
    },
});
const judged = computed(() => draft.value.kind === 'judged');
const rule = computed({
    get: () => draft.value.rule,
    set: (now: Rule | null) => (draft.value.rule = now),
});

/** Set by people, or worked out from other KPIs; the formulas that are given up are kept until one leaves. */
const FORMULAS = ['targetFormula', 'lowFormula', 'highFormula'] as const;
const aimFields = computed(() =>
    draft.value.polarity === 'band'
        ? [
              { name: 'lowFormula' as const, label: 'from' },
              { name: 'highFormula' as const, label: 'to' },
          ]
        : [{ name: 'targetFormula' as const, label: 'as' }],
);
const isWorked = ref(false);
const givenUp = reactive({ targetFormula: '', lowFormula: '', highFormula: '' });
const aim = computed<keyof typeof AIMS>({
    get: () => (isWorked.value || aimFields.value.some(({ name }) => draft.value[name] !== '') ? 'worked' : 'set'),
    set: (choice) => {
        isWorked.value = choice === 'worked';
        for (const name of FORMULAS) {
            if (isWorked.value) {
                draft.value[name] ||= givenUp[name];
            } else {
                [givenUp[name], draft.value[name]] = [draft.value[name], ''];
            }
        }
    },
});
watch(
    () => props.saved,
    () => (isWorked.value = false),
);

/** A change asks from which month it holds: not from when the limits it replaces began, unless somebody says so. */
const limits = (of: Rule | null): string => (of === null ? '' : JSON.stringify({ ...of, from: '' }));
watch(
    () => limits(rule.value),
    (now) => {
        const before = props.saved.rule;
        if (rule.value === null || before === null) {
            return;
        }
        const changed = now !== limits(before);
        if (changed && rule.value.from === before.from && before.from < period.value) {
            rule.value = { ...rule.value, from: period.value };
        } else if (!changed) {
            rule.value = { ...rule.value, from: before.from };
        }
    },
);

/** Rules in words, newest first: what judged which months. */
const said = (each: Schemas['Rule']): string => {
    const limits =
        each.measure === 'level' && each.low !== '' ? `${each.low} to ${each.high}` : `${each.green} / ${each.amber}`;
    const how = {
        percent: '%',
        absolute: ` ${draft.value.measure}`,
        reached: '% reached',
        level: ` ${draft.value.measure}`,
    }[each.measure];
    return `${each.measure === 'level' ? 'levels' : `against ${REFERENCES[each.reference]}`}: ${limits}${how}`;
};
const older = computed(() => props.saved.history.filter(({ from }) => from <= step(period.value, 24)));
</script>

<template>
    <div class="grid gap-x-[34px] gap-y-6 xl:grid-cols-[minmax(0,1fr)_420px]">
        <div class="space-y-[13px]">
            <p v-if="judged" class="text-ink-soft">
                A person gives green, amber or red with a reason. Say below what each colour means, so that two people
                would choose the same.
            </p>
            <template v-else>
                <FormLine label="Better when" :error="error('/polarity')"
                    ><ChoiceRow v-model="polarity" label="Better when" :choices="POLARITIES"
                /></FormLine>
                <RuleFields
                    v-if="rule && draft.polarity !== 'none'"
                    v-model="rule"
                    id-prefix="kpi"
                    :draft="draft"
                    :saved="saved.rule"
                    :error="(field) => error(`/rule/${field}`)"
                />
            </template>
            <FormLine
                v-if="judged || draft.polarity !== 'none'"
                label="In this KPI's words"
                :error="error('/texts', true)"
            >
                <div v-for="(name, colour) in COLOURS" :key="colour" class="mb-2 flex items-center gap-3">
                    <Needle :status="colour" decorative />
                    <input
                        v-model="draft.texts[colour]"
                        class="field w-full max-w-[470px]"
                        maxlength="4000"
                        autocomplete="off"
                        :aria-label="`What ${name} means`"
                        :placeholder="`what ${name} means here`"
                    />
                </div>
            </FormLine>
            <FormLine v-if="!judged" label="Targets" :error="error('/targets')">
                <ChoiceRow v-model="aim" label="Targets" :choices="AIMS" class="mb-2.5" />
                <div v-if="aim === 'worked'" class="mb-3 space-y-2">
                    <div v-for="field in aimFields" :key="field.name">
                        <label :for="field.name" class="text-[13.5px] text-ink-soft">{{ field.label }}</label>
                        <FormulaField
                            :id="field.name"
                            v-model="draft[field.name]"
                            is-target
                            :draft="draft"
                            :kpis="register?.kpis ?? []"
                            :invalid="!!error(`/${field.name}`)"
                        />
                        <span v-if="error(`/${field.name}`)" class="error" role="alert">{{
                            error(`/${field.name}`)
                        }}</span>
                    </div>
                    <p class="text-[13.5px] text-ink-soft">
                        A target that is set below for a {{ EACH[draft.frequency] }} goes before the formula.
                    </p>
                </div>
                <TargetMonths v-model="draft" :error="error" />
                <p v-if="mayEdit && saved.version > 0 && aim === 'set'" class="mt-2 text-[13.5px] text-ink-soft">
                    Spread a year's figure, or grow last year's:
                    <RouterLink class="quiet-link" :to="{ name: 'plan', query: { ...query(), kpi: saved.code } }"
                        >plan the months</RouterLink
                    >
                </p>
            </FormLine>
            <FormLine v-if="older.length > 0" label="Rules so far">
                <ul class="text-[13.5px] text-ink-soft">
                    <li v-for="each in older" :key="each.from">from {{ monthAndYear(each.from) }}: {{ said(each) }}</li>
                </ul>
            </FormLine>
        </div>
        <aside class="xl:border-l xl:border-rule xl:pl-[26px]">
            <ReplayPanel
                v-if="!judged && draft.polarity !== 'none' && saved.version > 0"
                :draft="draft"
                :saved="saved"
            />
            <template v-else>
                <h2 class="text-[19px]">What it would have meant</h2>
                <p class="mt-1 text-ink-soft">
                    {{
                        judged
                            ? 'Colours that people give are not worked out, so there is nothing to replay.'
                            : draft.polarity === 'none'
                              ? 'It is only tracked: its figures are shown, compared with last year, and get no colour.'
                              : 'Once it is defined and has history, the last 24 periods are replayed here under the limits as you type them.'
                    }}
                </p>
            </template>
        </aside>
    </div>
</template>
