<script setup lang="ts">
import { api, read } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { moment, monthAndYear, step } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { computed, watch } from 'vue';
import ConditionLine from './ConditionLine.vue';
import { blankCounted, fieldWords, OVER_TIME, TAKES, takesValues, type Counted, type Members } from './counting';
import FormLine from '@/components/FormLine.vue';
import SourceChoice from './SourceChoice.vue';
import SplitsEditor from './SplitsEditor.vue';
import type { Definition } from './useDraft';

/** How a KPI is counted from records: a sentence of choices. */
const props = defineProps<{ error: (pointer: string, within?: boolean) => string | undefined; wasTyped: boolean }>();
const draft = defineModel<Definition>({ required: true });
const { period, query } = useView();
const { atMost } = useNumbers();

const { data: sets } = useQuery({ queryKey: ['sources'], queryFn: () => read(api.GET('/api/record-sets')) });
const counted = computed<Counted>({
    get: () => draft.value.counted ?? blankCounted(''),
    set: (now) => (draft.value.counted = now),
});
const change = (part: Partial<Counted>): void => {
    counted.value = { ...counted.value, ...part };
};
const code = computed(() => counted.value.records);
const line = computed(() => sets.value?.find((set) => set.code === code.value));
const { data: set } = useQuery({
    queryKey: computed(() => ['source', code.value]),
    queryFn: () => read(api.GET('/api/record-sets/{recordSet}', { params: { path: { recordSet: code.value } } })),
    enabled: computed(() => code.value !== ''),
    retry: false,
});
const fields = computed(() => set.value?.fields ?? []);
const dates = computed(() => fields.value.filter(({ type }) => type === 'date' || type === 'time'));
const noun = computed(() => line.value?.noun ?? 'records');

function choose(records: string): void {
    draft.value.counted = { ...blankCounted(records), from: counted.value.from ?? null };
    draft.value.splits = [];
}
/** What a set says of itself is a good beginning. */
watch(set, (now) => {
    if (now !== undefined && counted.value.datedBy === '') {
        change({ datedBy: dates.value[0]?.name ?? '', unit: now.unitField });
    }
});
// The only set there is is the one that is meant; and what was typed gives way from this month on.
watch(
    [() => draft.value.kind, sets],
    ([kind, all]) => {
        if (kind === 'records' && counted.value.records === '' && all !== undefined && all.length > 0) {
            draft.value.counted = {
                ...blankCounted(all.length === 1 ? (all[0]?.code ?? '') : ''),
                from: props.wasTyped ? step(period.value, 1) : null,
            };
        }
    },
    { immediate: true },
);
function take(now: Counted['take']): void {
    const first = fields.value.find(({ type }) => type === null) ?? fields.value.find(({ type }) => type === 'number');
    change({
        take: now,
        of: takesValues(now) ? (counted.value.of ?? first?.name ?? '') : null,
        percentile: now === 'percentile' ? (counted.value.percentile ?? '90') : null,
        met:
            now === 'share'
                ? counted.value.met?.length
                    ? counted.value.met
                    : [{ of: first?.name ?? '', atMost: '' }]
                : [],
        until: now === 'open' ? (counted.value.until ?? dates.value[1]?.name ?? '') : null,
    });
}
const list = (member: 'met' | 'where'): Members[] => (counted.value[member] as Members[] | undefined) ?? [];
const set1 = (member: 'met' | 'where', at: number, condition: Members): void =>
    change({ [member]: list(member).map((each, index) => (index === at ? condition : each)) });
const remove = (member: 'met' | 'where', at: number): void =>
    change({ [member]: list(member).filter((_, index) => index !== at) });
function another(member: 'met' | 'where'): void {
    const text = fields.value.find(({ type, name }) => type === 'text' && name !== set.value?.key);
    change({
        [member]: [...list(member), member === 'met' ? { of: '', atMost: '' } : { of: text?.name ?? '', is: '' }],
    });
}
const unknown = computed(() =>
    counted.value.unit !== null && counted.value.unit === set.value?.unitField ? (set.value?.unknown ?? []) : [],
);
const months = computed(() => Array.from({ length: 14 }, (_, index) => step(period.value, index - 12)));
</script>

<template>
    <div class="space-y-[15px]">
        <FormLine label="Records" for="records" :error="error('/counted/records')">
            <select
                id="records"
                class="field font-semibold"
                :value="code"
                @change="choose(($event.target as HTMLSelectElement).value)"
            >
                <option value="" disabled>choose a record set</option>
                <option v-for="each in sets ?? []" :key="each.code" :value="each.code">{{ each.name }}</option>
            </select>
            <span v-if="line" class="mt-1 block text-[14px] text-ink-soft">
                {{ atMost(line.records, 0) }} of them<template v-if="line.last"
                    >, last brought in {{ moment(line.last.at) }}</template
                >.
                <RouterLink class="quiet-link" :to="{ name: 'source', params: { code: line.code }, query: query() }"
                    >What they are</RouterLink
                >
            </span>
            <span v-else-if="sets && sets.length === 0" class="mt-1 block text-[14px] text-ink-soft">
                There is no record set yet.
                <RouterLink class="quiet-link" :to="{ name: 'source-new', query: query() }"
                    >Make one from a file</RouterLink
                >
            </span>
        </FormLine>
        <template v-if="code !== '' && fields.length > 0">
            <FormLine
                label="Take"
                :error="
                    error('/counted/take') ?? error('/counted/of') ?? error('/counted/percentile') ?? error('/counted')
                "
            >
                <div class="flex flex-wrap items-center gap-1.5">
                    <select
                        class="field font-semibold"
                        aria-label="What is taken"
                        :value="counted.take"
                        @change="take(($event.target as HTMLSelectElement).value as Counted['take'])"
                    >
                        <option v-for="(words, each) in TAKES" :key="each" :value="each">{{ words }}</option>
                    </select>
                    <template v-if="counted.take === 'percentile'">
                        <input
                            class="field w-[64px] text-right"
                            inputmode="decimal"
                            autocomplete="off"
                            aria-label="Which percentile"
                            :value="counted.percentile ?? ''"
                            @input="change({ percentile: ($event.target as HTMLInputElement).value })"
                        />
                        % of
                    </template>
                    <SourceChoice
                        v-if="takesValues(counted.take)"
                        :model-value="counted.of ?? ''"
                        :fields="fields"
                        :numbers="counted.take !== 'distinct'"
                        label="Of what"
                        :invalid="!!error('/counted/of')"
                        @update:model-value="change({ of: $event })"
                    />
                    <span class="text-ink-soft">{{
                        counted.take === 'share' ? `of ${noun}` : takesValues(counted.take) ? `of ${noun}` : noun
                    }}</span>
                </div>
                <div v-if="counted.take === 'share'" class="mt-2">
                    <p class="mb-1 text-ink-soft">in which</p>
                    <ConditionLine
                        v-for="(condition, at) in list('met')"
                        :key="at"
                        :model-value="condition"
                        :fields="fields"
                        :error="error(`/counted/met/${at}`) ?? error(`/counted/met/${at}`, true)"
                        :removable="list('met').length > 1"
                        @update:model-value="set1('met', at, $event)"
                        @remove="remove('met', at)"
                    />
                    <span v-if="error('/counted/met')" class="error block" role="alert">{{
                        error('/counted/met')
                    }}</span>
                    <button type="button" class="quiet-link text-[14px] text-brass" @click="another('met')">
                        and also
                    </button>
                </div>
            </FormLine>
            <FormLine
                :label="counted.take === 'open' ? 'Open from' : 'Dated by'"
                for="dated"
                :error="error('/counted/datedBy') ?? error('/counted/until')"
                :hint="
                    counted.take === 'open'
                        ? `Begun by the end of the period, and not ended by then.`
                        : `A record counts in the period of “${counted.datedBy.replaceAll('_', ' ')}”; where that is empty it is not counted.`
                "
            >
                <select
                    id="dated"
                    class="field"
                    :value="counted.datedBy"
                    @change="change({ datedBy: ($event.target as HTMLSelectElement).value })"
                >
                    <option value="" disabled>choose a date</option>
                    <option v-for="field in dates" :key="field.name" :value="field.name">
                        {{ fieldWords(field) }}
                    </option>
                </select>
                <template v-if="counted.take === 'open'">
                    until
                    <select
                        class="field"
                        aria-label="Open until"
                        :value="counted.until ?? ''"
                        @change="change({ until: ($event.target as HTMLSelectElement).value })"
                    >
                        <option value="" disabled>choose a date</option>
                        <option v-for="field in dates" :key="field.name" :value="field.name">
                            {{ fieldWords(field) }}
                        </option>
                    </select>
                </template>
            </FormLine>
            <FormLine label="Only where">
                <ConditionLine
                    v-for="(condition, at) in list('where')"
                    :key="at"
                    :model-value="condition"
                    :fields="fields"
                    :error="error(`/counted/where/${at}`) ?? error(`/counted/where/${at}`, true)"
                    removable
                    @update:model-value="set1('where', at, $event)"
                    @remove="remove('where', at)"
                />
                <button type="button" class="quiet-link text-[14px] text-brass" @click="another('where')">
                    {{ list('where').length === 0 ? 'a condition' : 'and another condition' }}
                </button>
            </FormLine>
            <FormLine label="Unit" for="unit-field" :error="error('/counted/unit')">
                <select
                    id="unit-field"
                    class="field"
                    :value="counted.unit ?? ''"
                    @change="change({ unit: ($event.target as HTMLSelectElement).value || null })"
                >
                    <option value="">all records in each unit</option>
                    <option
                        v-for="field in fields.filter(({ type }) => type === 'text')"
                        :key="field.name"
                        :value="field.name"
                    >
                        {{ fieldWords(field) }}
                    </option>
                </select>
                <span v-if="unknown.length > 0 && unknown[0]?.name" class="ml-2 text-[14px] text-amber-text">
                    “{{ unknown[0]?.name }}” is no unit;
                    <RouterLink
                        class="quiet-link"
                        :to="{ name: 'source', params: { code }, query: { ...query(), part: 'units' } }"
                        >say which</RouterLink
                    >
                </span>
            </FormLine>
            <FormLine
                v-if="wasTyped"
                label="Counted from"
                for="from"
                :error="error('/counted/from')"
                hint="What was entered before stays as it is; from this month on it gives way, except where a month is closed."
            >
                <select
                    id="from"
                    class="field"
                    :value="counted.from ?? ''"
                    @change="change({ from: ($event.target as HTMLSelectElement).value || null })"
                >
                    <option value="">the first record</option>
                    <option v-if="counted.from && !months.includes(counted.from)" :value="counted.from">
                        {{ monthAndYear(counted.from) }}
                    </option>
                    <option v-for="month in months" :key="month" :value="month">{{ monthAndYear(month) }}</option>
                </select>
            </FormLine>
            <FormLine label="Over time"
                ><span>{{ OVER_TIME[counted.take](noun) }}</span></FormLine
            >
            <SplitsEditor v-model="draft.splits" :fields="fields" :error="error" />
        </template>
    </div>
</template>
