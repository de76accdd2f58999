<script setup lang="ts">
import { spanTitle } from '@/words';
import { api, read } from '@/api/client';
import ExportMenu from '@/components/ExportMenu.vue';
import Needle from '@/components/Needle.vue';
import StateNote from '@/components/StateNote.vue';
import { useSwitch } from '@/composables/useAddress';
import { maskedName, unitsOfKind } from '@/composables/unitKinds';
import { capital, useNumbers } from '@/composables/useNumbers';
import { monthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import ScorecardTabs from '@/pages/review/scorecard/ScorecardTabs.vue';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import CellPanel from './CellPanel.vue';
import MatrixHead from './MatrixHead.vue';
import MatrixRow from './MatrixRow.vue';
import { CROSSINGS, useCellInFocus, type Crossing } from './useCellInFocus';

/** Units, KPIs and months: two of them crossed, and from each cell a way to the other two crossings. */

const route = useRoute();
const router = useRouter();
const { unit, period, span } = useView();
const { units } = useSession();
const { figure } = useNumbers();

const asked = (name: string): string => (typeof route.query[name] === 'string' ? route.query[name] : '');
const crossing = computed<Crossing>(() => CROSSINGS.find((each) => each === asked('crossing')) ?? 'units-kpis');
const kpi = computed(() => asked('kpi'));
const months = computed(() => [12, 24, 36].find((each) => String(each) === asked('months')) ?? 12);
const figures = useSwitch('figures');
const worstFirst = useSwitch('worst');
const masked = useSwitch('masked');

const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => [
        'matrix',
        unit.value.code,
        period.value,
        span.value,
        crossing.value,
        kpi.value,
        months.value,
    ]),
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/matrix', {
                params: {
                    path: { unit: unit.value.code },
                    query: {
                        period: period.value,
                        span: span.value,
                        crossing: crossing.value,
                        kpi: kpi.value,
                        months: months.value as 12 | 24 | 36,
                    },
                },
            }),
        ),
    placeholderData: keepPreviousData,
});
const fading = useWaiting(isPlaceholderData);
const isEmpty = computed(() => data.value?.rows.length === 0 || data.value?.columns.length === 0);

/** Where nobody asked for a crossing and the units share hardly a KPI, their roll-ups have more to show. */
const isPassing = computed(
    () =>
        (isEmpty.value || data.value?.columns.length === 1) &&
        data.value?.crossing === 'units-kpis' &&
        asked('crossing') === '',
);
watch(
    [isPassing, isPlaceholderData],
    () => {
        if (isPassing.value && !isPlaceholderData.value) {
            void router.replace({ query: { ...route.query, crossing: 'units-months' } });
        }
    },
    { immediate: true },
);

/** What is on the screen: while another crossing is on its way, still the one before. */
const shown = computed(() => data.value?.crossing ?? crossing.value);
const shownKpi = computed(() => data.value?.kpi ?? kpi.value);

const plural = computed(() => {
    const kinds = new Set(below.value.map(({ kind }) => kind));
    const [kind = ''] = kinds;
    return capital(unitsOfKind(kinds.size === 1 ? kind : ''));
});
const below = computed(() => [...units.value.values()].filter(({ parent }) => parent === unit.value.code));
const NAMES = computed<Record<Crossing, string>>(() => ({
    'units-kpis': `${plural.value} × KPIs`,
    'units-months': `${plural.value} × months`,
    'kpis-months': `${unit.value.name}: KPIs × months`,
}));
const crossed = computed(() => data.value?.kpis.find(({ key }) => key === shownKpi.value));
const title = computed(() => {
    const when = spanTitle(span.value, monthAndYear(period.value));
    return shown.value === 'units-kpis'
        ? `${unit.value.name}, ${when}`
        : shown.value === 'units-months'
          ? `${shownKpi.value === '' ? 'All KPIs rolled up' : (crossed.value?.name ?? shownKpi.value)}, ${unit.value.name}`
          : `${unit.value.name}, month by month`;
});
useTitle(computed(() => `${title.value} · Kybernet`));

/** Rows in the order asked for; those that cannot be judged come last. */
const order = computed(() => {
    const rows = data.value?.rows ?? [];
    const places = rows.map((_, index) => index);
    const score = (index: number): number => rows[index]?.score ?? Infinity;
    return worstFirst.value
        ? places.sort((one, other) => (score(one) < score(other) ? -1 : Number(score(one) > score(other))))
        : places;
});
const rowName = (index: number): string => {
    const row = data.value?.rows[index];
    return masked.value && shown.value !== 'kpis-months'
        ? maskedName(units.value.get(row?.key ?? ''))
        : (row?.name ?? '');
};
const isMonths = computed(() => shown.value !== 'units-kpis');
/** Every column is as wide as its longest figure needs: laid out before it is looked at, a large matrix stays quick. */
const widths = computed(() =>
    (data.value?.columns ?? []).map((_, column) => {
        if (!figures.value) {
            return !isMonths.value ? 76 : months.value > 12 ? 22 : 50;
        }
        const longest = (data.value?.cells ?? []).reduce((most, row) => {
            const actual = row[column]?.actual;
            return Math.max(most, actual ? figure(actual).length : 0);
        }, 0);
        return Math.max(isMonths.value ? 62 : 76, 40 + longest * 7.5);
    }),
);
const isNarrow = computed(() => isMonths.value && months.value > 12 && !figures.value);
const NAMES_WIDE = 'min(200px, 36vw)';
const TOGETHER_WIDE = 90;
const tableWide = computed(() => {
    const columns = widths.value.reduce((sum, each) => sum + each, isMonths.value ? 0 : TOGETHER_WIDE);
    return `calc(${NAMES_WIDE} + ${columns}px)`;
});

const counts = computed(() => {
    const page = data.value;
    if (page === undefined) {
        return null;
    }
    const statuses =
        shown.value === 'units-kpis'
            ? page.rows.map(({ status }) => status)
            : page.cells.map((row) => row.at(-1)?.status);
    const of = (status: string): number => statuses.filter((each) => each === status).length;
    return { all: statuses.length, green: of('green'), amber: of('amber'), red: of('red') };
});

const grid = useTemplateRef<HTMLElement>('grid');
const { at, opened, place, cell, cross, onKey, choose } = useCellInFocus(grid, {
    data,
    isPlaceholderData,
    shown,
    shownKpi,
    isMonths,
    months,
    order,
});

const heads = computed(() =>
    (data.value?.columns ?? []).map(({ key, name }) => (isMonths.value ? monthAndYear(key) : name)),
);
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">{{ title }}</h1>
    <p v-if="counts && counts.all > 0" class="mt-[5px] mb-2 text-[17px]">
        Of {{ counts.all }} {{ shown === 'kpis-months' ? 'KPIs' : plural.toLowerCase() }},
        <b class="font-[650]">{{ counts.green }} {{ counts.green === 1 ? 'is' : 'are' }} on course</b>,
        <b class="font-[650]" :class="{ 'text-amber-text': counts.amber > 0 }">{{ counts.amber }} drifting</b>,
        <b class="font-[650]" :class="{ 'text-red-text': counts.red > 0 }">{{ counts.red }} off course</b
        >{{ isMonths ? ` in ${monthAndYear(period)}` : '' }}.
    </p>
    <ScorecardTabs here="matrix">
        <button
            v-for="each in CROSSINGS"
            :key="each"
            type="button"
            class="tab"
            :aria-pressed="crossing === each"
            @click="cross(each)"
        >
            {{ NAMES[each] }}
        </button>
        <template #right>
            <label v-if="crossing === 'units-months'" class="flex items-center gap-2">
                <span class="sr-only">KPI</span>
                <select
                    class="field max-w-[210px]"
                    :value="kpi"
                    @change="
                        router.push({
                            query: { ...route.query, kpi: ($event.target as HTMLSelectElement).value || undefined },
                        })
                    "
                >
                    <option value="">all KPIs rolled up</option>
                    <option v-for="each in data?.kpis ?? []" :key="each.key" :value="each.key">{{ each.name }}</option>
                </select>
            </label>
            <button
                v-if="isMonths"
                type="button"
                class="quiet-link"
                @click="router.push({ query: { ...route.query, months: months === 12 ? '36' : undefined } })"
            >
                {{ months === 12 ? 'three years' : 'one year' }}
            </button>
            <button type="button" class="quiet-link" :aria-pressed="worstFirst" @click="worstFirst = !worstFirst">
                {{ worstFirst ? 'Register order' : 'Worst first' }}
            </button>
            <button type="button" class="quiet-link" :aria-pressed="figures" @click="figures = !figures">
                {{ figures ? 'Hide figures' : 'Show figures' }}
            </button>
            <button
                v-if="shown !== 'kpis-months'"
                type="button"
                class="quiet-link"
                :aria-pressed="masked"
                @click="masked = !masked"
            >
                {{ masked ? 'Show names' : 'Mask names' }}
            </button>
            <ExportMenu
                :path="`/api/units/${unit.code}/matrix/file`"
                :query="{ period, span, crossing, kpi, months: String(months), ...(masked ? { masked: '1' } : {}) }"
            />
        </template>
    </ScorecardTabs>
    <StateNote v-if="isPending || isPassing || (isEmpty && isPlaceholderData)" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <StateNote
        v-else-if="!data || isEmpty"
        :title="
            shown === 'units-kpis' ? `The units of ${unit.name} have no KPI in common` : 'Nothing is measured here yet'
        "
    >
        <template v-if="shown === 'units-kpis'"
            >Look at
            <button type="button" class="quiet-link" @click="cross('units-months')">
                their roll-ups month by month</button
            >, or choose a unit in the path above whose units share KPIs.</template
        >
        <template v-else>Choose another unit in the path above.</template>
    </StateNote>
    <div v-else class="flex gap-6 max-lg:flex-col">
        <div class="min-w-0 grow overflow-x-auto" :class="{ waiting: fading }">
            <table
                ref="grid"
                role="grid"
                :aria-label="title"
                class="table-fixed border-separate border-spacing-0 text-[15px]"
                :style="{ width: tableWide }"
                @keydown="onKey"
            >
                <colgroup>
                    <col :style="{ width: NAMES_WIDE }" />
                    <col v-for="(wide, column) in widths" :key="column" :style="{ width: `${wide}px` }" />
                    <col v-if="!isMonths" :style="{ width: `${TOGETHER_WIDE}px` }" />
                </colgroup>
                <MatrixHead
                    :columns="data.columns"
                    :corner="shown === 'kpis-months' ? 'KPIs' : plural"
                    :measure="(figures && shown === 'units-months' && crossed?.measure) || ''"
                    :chosen="period"
                    :months="isMonths ? months : null"
                    :figures="figures"
                />
                <tbody>
                    <MatrixRow
                        v-for="row in order"
                        :key="data.rows[row]!.key"
                        :name="rowName(row)"
                        :measure="data.rows[row]!.measure"
                        :cells="data.cells[row]!"
                        :heads="heads"
                        :focused="at.row === row ? at.column : null"
                        :opened="opened && at.row === row"
                        :narrow="isNarrow"
                        :figures="figures"
                        :together="isMonths ? undefined : data.rows[row]!.status"
                        @choose="(column) => choose(row, column)"
                        @reach="(column) => (at = { row, column })"
                    />
                </tbody>
                <tfoot>
                    <tr role="row">
                        <th
                            role="rowheader"
                            scope="row"
                            class="sticky left-0 z-10 border-t border-ink-faint bg-paper py-[6px] pr-4 text-left font-[650] print:bg-transparent"
                        >
                            together
                        </th>
                        <td
                            v-for="column in data.columns"
                            :key="column.key"
                            role="gridcell"
                            class="border-t border-ink-faint"
                            :class="figures ? 'pr-2.5 text-right' : 'text-center'"
                        >
                            <Needle v-if="column.status" :status="column.status" :size="isNarrow ? 's' : 'm'" />
                        </td>
                        <td
                            v-if="!isMonths"
                            role="gridcell"
                            class="border-t border-l border-ink-faint border-l-rule text-center"
                        >
                            <Needle v-if="data.status" :status="data.status" />
                        </td>
                    </tr>
                </tfoot>
            </table>
            <p class="pt-2 text-[13px] text-ink-faint max-md:hidden print:hidden">
                arrows move · Enter opens · 1, 2 and 3 lead from a cell to the other crossings
            </p>
        </div>
        <CellPanel
            v-if="opened && place"
            :cell="cell"
            :place="place"
            :masked="masked ? rowName(at.row) : ''"
            @close="opened = false"
            @cross="cross"
        />
    </div>
</template>
