<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import { useLatest } from '@/composables/useLatest';
import { useNumbers } from '@/composables/useNumbers';
import { longMonth, periodWords, shortMonth } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { number } from '@/graphics/scale';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { readComparison, readCondition, type Members } from './counting';
import type { Definition } from './useDraft';

/** What a KPI would be while somebody says how it is counted: thirteen periods, what is left out, the records. */
const props = defineProps<{ draft: Definition; noun: string }>();
const { period } = useView();
const { units } = useSession();
const { plain, atMost } = useNumbers();
const unit = ref('');
const home = computed(() =>
    props.draft.units.some((place) => place.unit === unit.value) ? unit.value : (props.draft.units[0]?.unit ?? ''),
);

const found = ref<Schemas['CountPreview'] | null>(null);
const problem = ref('');
const busy = ref(false);
const ask = useLatest<Schemas['CountPreview']>(
    (answer) => {
        found.value = answer;
        problem.value = '';
        busy.value = false;
    },
    (failure) => {
        busy.value = false;
        problem.value =
            failure instanceof ApiError
                ? (Object.values(failure.fields)[0] ?? failure.detail)
                : 'It cannot be counted just now.';
    },
);
const load = useDebounceFn(() => {
    const { counted, splits, code, frequency, decimals } = props.draft;
    if (counted === null || counted.records === '' || home.value === '') {
        return;
    }
    busy.value = true;
    void ask(() =>
        read(
            api.POST('/api/record-preview', {
                body: {
                    counted,
                    splits,
                    kpi: code === '' ? null : code,
                    unit: home.value,
                    period: period.value,
                    frequency,
                    decimals,
                },
            }),
        ),
    );
}, 150);
watch(
    () =>
        JSON.stringify([
            props.draft.counted,
            props.draft.splits,
            props.draft.frequency,
            props.draft.decimals,
            home.value,
            period.value,
        ]),
    load,
    { immediate: true },
);

const latest = computed(() => found.value?.months.at(-1));
const figure = (text: string | null): string => (text === null ? '' : plain(Number(text)));
const splitName = (code: string): string => props.draft.splits.find((split) => split.code === code)?.name ?? code;
const share = computed(() => props.draft.counted?.take === 'share');
/** Each condition that leaves records out, as it is called. */
const left = computed(() => {
    const conditions = (props.draft.counted?.where ?? []) as Members[];
    return (found.value?.leftOut ?? [])
        .map((count, at) => ({
            count,
            words: `by ${readCondition(conditions[at] ?? {}).map((each) => readComparison(each).of.replaceAll('_', ' '))[0] ?? ''}`,
        }))
        .filter(({ count }) => count > 0);
});
const leftOut = computed(() => left.value.reduce((sum, { count }) => sum + count, 0));

const WIDTH = 440;
const HEIGHT = 104;
const bars = computed(() => {
    const months = found.value?.months ?? [];
    const actuals = months.map(({ actual }) => number(actual));
    const targets = months.map(({ target }) => number(target));
    const most = Math.max(0, ...actuals.filter((each) => each !== null), ...targets.filter((each) => each !== null));
    const least = Math.min(0, ...actuals.filter((each) => each !== null));
    const height = (value: number): number => ((value - least) / (most - least || 1)) * (HEIGHT - 16);
    const slot = WIDTH / Math.max(1, months.length);
    return months.map((month, at) => {
        const value = actuals[at] ?? null;
        const target = targets[at] ?? null;
        return {
            ...month,
            x: at * slot + slot * 0.1,
            width: slot * 0.8,
            middle: at * slot + slot / 2,
            y: value === null ? HEIGHT : HEIGHT - height(Math.max(value, 0)),
            height: value === null ? 0 : Math.max(1, height(Math.abs(value))),
            target: target === null ? null : HEIGHT - height(target),
        };
    });
});
const FILLS: Record<string, string> = {
    green: 'fill-green opacity-55',
    amber: 'fill-amber opacity-55',
    red: 'fill-red opacity-60',
};
const targetLine = computed(() => bars.value.filter(({ target }) => target !== null));
const decimals = computed(() => props.draft.decimals);
const label = (period: string): string =>
    /^\d{4}-\d\d$/.test(period) ? shortMonth(period).slice(0, 1) : period.slice(-2);
const isDay = (text: string | null): boolean => text !== null && /^\d{4}-\d\d-\d\d/.test(text);
const cell = (text: string | null): string =>
    text === null ? '' : isDay(text) ? `${Number(text.slice(8, 10))} ${shortMonth(text.slice(0, 7))}` : text;
</script>

<template>
    <div :class="{ waiting: busy && found !== null }">
        <div class="flex items-baseline justify-between gap-3">
            <h2 class="text-[19px]">What it would give</h2>
            <select
                v-if="draft.units.length > 1"
                class="field min-h-[27px] max-w-[170px] py-[1px] text-[13.5px]"
                aria-label="Unit of the preview"
                :value="home"
                @change="unit = ($event.target as HTMLSelectElement).value"
            >
                <option v-for="place in draft.units" :key="place.unit" :value="place.unit">
                    {{ units.get(place.unit)?.name ?? place.unit }}
                </option>
            </select>
        </div>
        <p class="mt-1 min-h-[42px] text-[14.5px] text-ink-soft" role="status">
            <span v-if="problem" class="error text-[14px]">{{ problem }}</span>
            <template v-else-if="found && latest">
                <b class="font-[650] text-ink"
                    >{{ latest.actual === null ? 'No figure' : `${figure(latest.actual)} ${draft.measure}` }} in
                    {{ /^\d{4}-\d\d$/.test(latest.period) ? longMonth(latest.period) : periodWords(latest.period) }}</b
                >: {{ share ? `${atMost(latest.met, 0)} of ` : '' }}{{ atMost(latest.records, 0) }} {{ noun }}.
                <template v-if="leftOut > 0">
                    {{
                        left.length === 1
                            ? `${atMost(leftOut, 0)} ${noun} were left out ${left[0]?.words}.`
                            : `${atMost(leftOut, 0)} ${noun} were left out, ${left.map(({ count, words }) => `${atMost(count, 0)} ${words}`).join(' and ')}.`
                    }}
                </template>
                <template v-if="found.empty > 0">
                    {{ atMost(found.empty, 0) }} have no value and do not count.
                </template>
                <template v-if="latest.stands !== null">
                    Entered by hand so far: {{ figure(latest.stands) }}.
                </template>
            </template>
        </p>
        <template v-if="found">
            <svg
                :viewBox="`0 0 ${WIDTH} ${HEIGHT + 20}`"
                class="mt-2 w-full"
                role="img"
                :aria-label="`The last ${bars.length} periods as they would be counted`"
            >
                <g v-for="bar in bars" :key="bar.period">
                    <rect
                        :x="bar.x"
                        :y="bar.y"
                        :width="bar.width"
                        :height="bar.height"
                        :class="
                            bar.period === latest?.period ? 'fill-ink' : (FILLS[bar.status] ?? 'fill-hollow opacity-60')
                        "
                    />
                    <text
                        v-if="bar.actual !== null"
                        :x="bar.middle"
                        :y="bar.y - 3"
                        text-anchor="middle"
                        class="fill-ink-soft text-[10px]"
                        :class="{ 'fill-ink font-[650]': bar.period === latest?.period }"
                    >
                        {{ figure(bar.actual) }}
                    </text>
                    <text :x="bar.middle" :y="HEIGHT + 13" text-anchor="middle" class="fill-ink-faint text-[10.5px]">
                        {{ label(bar.period) }}
                    </text>
                    <circle v-if="bar.stands !== null" :cx="bar.middle" :cy="HEIGHT + 18" r="1.6" class="fill-brass">
                        <title>Entered: {{ figure(bar.stands) }}</title>
                    </circle>
                </g>
                <polyline
                    v-if="targetLine.length > 1"
                    :points="targetLine.map((bar) => `${bar.middle},${bar.target}`).join(' ')"
                    class="fill-none stroke-ink"
                    stroke-width="1"
                    stroke-dasharray="1.5 3"
                />
            </svg>
            <dl v-if="found.splits.length > 0" class="mt-2 text-[14px]">
                <div v-for="split in found.splits" :key="split.code" class="mt-1">
                    <dt class="inline font-semibold first-letter:uppercase">{{ splitName(split.code) }}:</dt>
                    <dd class="inline text-ink-soft">
                        {{
                            split.parts.length === 0
                                ? ` no ${noun}`
                                : split.parts
                                      .map(({ part, records }) => ` ${part ?? 'in none'} ${atMost(records, 0)}`)
                                      .join(' ·')
                        }}
                    </dd>
                </div>
            </dl>
            <p v-if="targetLine.length > 1" class="text-[12.5px] text-ink-faint">
                Dotted: the target.<template v-if="bars.some(({ stands }) => stands !== null)">
                    A brass dot: entered as well.</template
                >
            </p>
            <table v-if="bars.some(({ stands }) => stands !== null)" class="mt-3 w-full text-right text-[13px]">
                <caption class="pb-1 text-left text-[13px] text-ink-faint">
                    Entered and counted, where there are both
                </caption>
                <tbody
                    class="[&_td]:border-t [&_td]:border-rule-soft [&_td]:py-[2px] [&_th]:text-left [&_th]:font-normal [&_th]:text-ink-faint"
                >
                    <tr>
                        <th scope="row"></th>
                        <td v-for="bar in bars.slice(-7)" :key="bar.period" class="text-ink-faint">
                            {{ label(bar.period) }}
                        </td>
                    </tr>
                    <tr>
                        <th scope="row">entered</th>
                        <td v-for="bar in bars.slice(-7)" :key="bar.period">{{ figure(bar.stands) }}</td>
                    </tr>
                    <tr class="font-semibold">
                        <th scope="row">counted</th>
                        <td v-for="bar in bars.slice(-7)" :key="bar.period">{{ figure(bar.actual) }}</td>
                    </tr>
                </tbody>
            </table>
            <h3 class="mt-5 text-[17px]">
                The records behind
                {{
                    latest
                        ? /^\d{4}-\d\d$/.test(latest.period)
                            ? longMonth(latest.period)
                            : periodWords(latest.period)
                        : ''
                }}
            </h3>
            <p v-if="found.rows.length === 0" class="mt-1 text-[14px] text-ink-soft">No record counts there.</p>
            <div v-else class="mt-1 overflow-x-auto">
                <table class="w-full text-left text-[13.5px]">
                    <thead>
                        <tr class="text-[12.5px] text-ink-faint [&>th]:pr-4 [&>th]:pb-1 [&>th]:font-medium">
                            <th
                                v-for="(field, at) in found.fields"
                                :key="at"
                                scope="col"
                                :class="{ 'text-right': at === found.fields.length - 1 }"
                            >
                                {{ field.replaceAll('_', ' ') }}
                            </th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr
                            v-for="(row, index) in found.rows"
                            :key="index"
                            class="border-t border-rule-soft [&>td]:max-w-[130px] [&>td]:truncate [&>td]:py-[3px] [&>td]:pr-4 [&>td]:whitespace-nowrap"
                        >
                            <td
                                v-for="(text, at) in row"
                                :key="at"
                                :class="{ 'pr-0! text-right font-semibold': at === row.length - 1 }"
                            >
                                {{
                                    at === row.length - 1 &&
                                    text !== null &&
                                    !isDay(text) &&
                                    !Number.isNaN(Number(text))
                                        ? atMost(Number(text), Math.max(1, decimals))
                                        : cell(text)
                                }}
                            </td>
                        </tr>
                    </tbody>
                </table>
            </div>
        </template>
        <p v-else-if="!problem" class="mt-2 text-[14px] text-ink-faint">
            Choose the records, what is taken of them and how they are dated.
        </p>
    </div>
</template>
