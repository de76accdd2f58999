<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { formatBlock } from '@/components/grid/clipboard';
import ExportMenu from '@/components/ExportMenu.vue';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';
import { shortMonth } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { computed, ref } from 'vue';
import type { Point } from './chart';

/** The whole year as a table; the same numbers that are drawn. */
const props = defineProps<{ page: Schemas['KpiPage']; chosen: string }>();

const { figure, signed } = useNumbers();
const { unit } = useView();

const own = computed(() => {
    const year = new Set(props.page.gathered.map(({ period }) => period));
    return props.page.frequency === 'month' ? props.page.history.filter(({ period }) => year.has(period)) : [];
});

interface Line {
    name: string;
    points: Point[];
    of: (point: Point) => string;
    exact: (point: Point) => string;
    strong?: boolean;
}
const target = (point: Point): string =>
    point.target ? figure(point.target) + (point.upper ? `–${figure(point.upper)}` : '') : '';
const lines = computed<Line[]>(() => {
    const reached = (points: Point[]): Point[] =>
        points.map((point) => (point.period > props.chosen ? { ...point, actual: null, variance: null } : point));
    const gathered = reached(props.page.gathered);
    const several =
        props.page.accumulation === 'sum' ||
        props.page.accumulation === 'mean' ||
        props.page.accumulation === 'recompute';
    const all: Line[] = [
        {
            name: 'actual',
            points: own.value,
            strong: true,
            of: (each) => (each.actual ? figure(each.actual) : ''),
            exact: (each) => each.actual?.exact ?? '',
        },
        { name: 'target', points: own.value, of: target, exact: (each) => each.target?.exact ?? '' },
        {
            name: 'to target',
            points: own.value,
            of: (each) => (each.variance ? signed(each.variance.difference) : ''),
            exact: (each) => each.variance?.difference.exact ?? '',
        },
        {
            name: 'last year',
            points: own.value,
            of: (each) => (each.prior ? figure(each.prior) : ''),
            exact: (each) => each.prior?.exact ?? '',
        },
        ...(several
            ? ([
                  {
                      name: 'to date',
                      points: gathered,
                      strong: true,
                      of: (each) => (each.actual ? figure(each.actual) : ''),
                      exact: (each) => each.actual?.exact ?? '',
                  },
                  { name: 'target to date', points: gathered, of: target, exact: (each) => each.target?.exact ?? '' },
              ] as Line[])
            : []),
    ];
    return all.filter((each) => each.points.some((point) => each.of(point) !== ''));
});

const copied = ref(false);
async function copy(): Promise<void> {
    await navigator.clipboard.writeText(
        formatBlock([
            ['', ...props.page.gathered.map(({ period }) => period)],
            ...lines.value.map((line) => [line.name, ...line.points.map(line.exact)]),
        ]),
    );
    copied.value = true;
    window.setTimeout(() => (copied.value = false), 2500);
}
</script>

<template>
    <section v-if="own.length > 0" aria-labelledby="year-table">
        <div class="flex items-baseline gap-4">
            <h2 id="year-table" class="text-[18px]">The year in figures</h2>
            <button type="button" class="quiet-link text-[13.5px] text-ink-soft" @click="copy">
                {{ copied ? 'Copied' : 'Copy' }}
            </button>
            <ExportMenu
                class="text-[13.5px] text-ink-soft"
                :path="`/api/units/${unit.code}/figures`"
                :query="{ period: chosen, kpi: page.code }"
            />
        </div>
        <div class="mt-1 overflow-x-auto" tabindex="0" role="region" aria-labelledby="year-table">
            <table class="w-full min-w-[860px] table-fixed border-collapse text-right text-[14px]">
                <thead>
                    <tr class="text-[12.5px] text-ink-soft [&>th]:pb-1 [&>th]:font-medium">
                        <th class="w-[104px]"><span class="sr-only">Line</span></th>
                        <th
                            v-for="point in page.gathered"
                            :key="point.period"
                            scope="col"
                            :class="{ 'font-bold text-ink': point.period === chosen }"
                        >
                            {{ shortMonth(point.period) }}
                        </th>
                    </tr>
                </thead>
                <tbody
                    class="[&_td]:h-[27px] [&_td]:border-t [&_td]:border-rule-soft [&_td]:whitespace-nowrap [&_th]:border-t [&_th]:border-rule-soft [&_th]:text-left [&_th]:text-[13px] [&_th]:font-normal [&_th]:text-ink-soft"
                >
                    <tr>
                        <th scope="row">month</th>
                        <td v-for="point in own" :key="point.period">
                            <Needle
                                v-if="point.period <= chosen || point.actual"
                                :status="point.status"
                                :called="point.called"
                                size="s"
                            />
                        </td>
                    </tr>
                    <tr v-for="line in lines" :key="line.name" :class="line.strong ? 'font-semibold' : 'text-ink-soft'">
                        <th scope="row">{{ line.name }}</th>
                        <td v-for="point in line.points" :key="point.period" :title="line.exact(point)">
                            {{ line.of(point) }}
                        </td>
                    </tr>
                    <tr>
                        <th scope="row">year to date</th>
                        <td v-for="point in page.gathered" :key="point.period">
                            <Needle
                                v-if="point.period <= chosen"
                                :status="point.status"
                                :called="point.called"
                                size="s"
                            />
                        </td>
                    </tr>
                </tbody>
            </table>
        </div>
    </section>
</template>
