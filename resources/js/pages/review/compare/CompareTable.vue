<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { useView } from '@/composables/useView';
import { trackOf } from '@/graphics/peers';
import { number } from '@/graphics/scale';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { useEventListener } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import CompareRow from './CompareRow.vue';
import WhatItIsWorth from './WhatItIsWorth.vue';
import { useCompared, type ComparedKpi } from './useComparison';

/** Units down, KPIs across: figures, ranks, or what has moved between two months. */
const view = useCompared();
/** @param beside height of what stands beside it, in pixels; 0 where nothing does */
const props = defineProps<{ title: string; beside: number }>();
const router = useRouter();
const { query } = useView();
const { figure, signed, unitOf } = useNumbers();

const ROW = 32;
/** From so many rows on, only what is in view is drawn. */
const MANY = 60;
const DIGIT = 7.9;
/** A small digit, as a share of that. */
const SMALL = 0.74;

const isTwo = computed(() => view.view === 'two');
const tracks = computed(() =>
    view.kpis.map((kpi) =>
        trackOf(
            kpi.cells
                .flatMap((cell) =>
                    cell?.actual
                        ? [cell.actual, ...(isTwo.value ? [cell.then] : view.plain ? [] : [cell.target, cell.low, cell.high])] // prettier-ignore
                        : [],
                )
                .flatMap((each) => number(each?.exact) ?? []),
        ),
    ),
);
const wide = computed(() =>
    view.kpis.map((kpi) => {
        const longest = kpi.cells.reduce((most, cell) => {
            const text = cell?.actual == null ? '' : figure(cell.actual, isTwo.value ? '' : kpi.measure);
            // Two figures and an arrow between them, in small letters.
            const was = isTwo.value && cell?.then ? (figure(cell.then).length + text.length + 3) * SMALL : 0;
            return Math.max(most, text.length, was);
        }, 2);
        return Math.ceil(longest * DIGIT) + 3;
    }),
);

const scroller = useTemplateRef<HTMLElement>('scroller');
const isMany = computed(() => view.rows.length > MANY);
const printing = ref(false);
useEventListener(window, 'beforeprint', () => (printing.value = true));
useEventListener(window, 'afterprint', () => (printing.value = false));
const virtual = useVirtualizer(
    computed(() => ({
        count: view.rows.length,
        getScrollElement: () => scroller.value,
        estimateSize: () => ROW,
        // Paper shows all of it.
        overscan: printing.value || !isMany.value ? view.rows.length : 8,
    })),
);
const items = computed(() => virtual.value.getVirtualItems());
const drawn = computed(() =>
    items.value.flatMap(({ index }) => {
        const place = view.rows[index];
        return place === undefined ? [] : [{ index, place, name: view.names[place] ?? '', links: links(place) }];
    }),
);
const above = computed(() => items.value[0]?.start ?? 0);
const beneath = computed(() => virtual.value.getTotalSize() - (items.value.at(-1)?.end ?? 0));

const links = (place: number) => {
    const code = view.units[place]?.code ?? '';
    return {
        unit: router.resolve({ name: 'scorecard', query: query({ unit: code }) }).href,
        kpi: view.kpis.map(
            (kpi) => router.resolve({ name: 'course', params: { code: kpi.code }, query: query({ unit: code }) }).href,
        ),
    };
};
/** One listener for thousands of links. */
function onClick(event: MouseEvent): void {
    const link = (event.target as Element).closest('a');
    if (link !== null && !event.defaultPrevented && !event.metaKey && !event.ctrlKey && !event.shiftKey) {
        event.preventDefault();
        void router.push(link.pathname + link.search);
    }
}

const at = ref({ row: 0, column: 0 });
const body = useTemplateRef<HTMLElement>('body');
watch(
    () => view.rows.length,
    (length) => (at.value = { ...at.value, row: Math.max(0, Math.min(at.value.row, length - 1)) }),
);
/** A row that was far away is drawn a frame or two after it was scrolled to. */
const FRAMES = 10;
async function focus(): Promise<void> {
    virtual.value.scrollToIndex(at.value.row, { align: 'auto' });
    for (let frame = 0; frame < FRAMES; frame++) {
        await nextTick();
        const cell = body.value?.querySelector<HTMLElement>(
            `[data-row="${at.value.row}"] [data-column="${at.value.column}"]`,
        );
        if (cell != null) {
            cell.focus({ preventScroll: isMany.value });
            return;
        }
        await new Promise(requestAnimationFrame);
    }
}
function onKey(event: KeyboardEvent): void {
    const last = view.rows.length - 1;
    const step = {
        ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], PageUp: [-12, 0], PageDown: [12, 0],
        Home: [event.ctrlKey ? -last : 0, -view.kpis.length], End: [event.ctrlKey ? last : 0, view.kpis.length],
    }[event.key]; // prettier-ignore
    if (step !== undefined) {
        event.preventDefault();
        at.value = {
            row: Math.max(0, Math.min(last, at.value.row + (step[0] ?? 0))),
            column: Math.max(0, Math.min(view.kpis.length, at.value.column + (step[1] ?? 0))),
        };
        void focus();
    } else if (event.key === 'Enter') {
        event.preventDefault();
        const to = links(view.rows[at.value.row] ?? 0);
        void router.push(at.value.column === 0 ? to.unit : (to.kpi[at.value.column - 1] ?? to.unit));
    } else if (event.key === ' ') {
        event.preventDefault();
        view.toFollow(view.rows[at.value.row] ?? -1);
    }
}

/** The three that are named over each column: the best or the last, or those that moved most. */
function named(kpi: ComparedKpi): { place: number; text: string }[] {
    const moved = (kpi.moved ?? []).filter(
        (place) => kpi.cells[place]?.change?.effect === (view.lastThree ? 'adverse' : 'favourable'),
    );
    const places = isTwo.value
        ? (view.lastThree ? moved : moved.toReversed()).slice(0, 3)
        : view.lastThree
          ? kpi.last
          : kpi.best;
    return places.map((place) => {
        const cell = kpi.cells[place];
        const shown = isTwo.value ? cell?.change && signed(cell.change.difference) : cell?.actual && figure(cell.actual, kpi.measure); // prettier-ignore
        return { place, text: shown ?? '' };
    });
}
const isEqual = (kpi: ComparedKpi): boolean =>
    !isTwo.value &&
    kpi.figures > 1 &&
    kpi.cells.every((cell) => cell?.rank == null || cell.rank === 1) &&
    kpi.best.length > 0;
const heads = computed(() =>
    view.kpis.map((kpi) => ({
        kpi,
        axis: view.axes?.[0].code === kpi.code ? 'across' : view.axes?.[1].code === kpi.code ? 'up' : '',
        named: isEqual(kpi) ? [] : named(kpi),
        isEqual: isEqual(kpi),
        order: view.order === kpi.code ? (view.bestFirst ? 'best first' : 'worst first') : '',
    })),
);
const label = computed(() =>
    isTwo.value
        ? view.lastThree ? 'worse most' : 'better most' // prettier-ignore
        : view.lastThree
          ? 'last three'
          : 'best three',
);
</script>

<template>
    <div
        ref="scroller"
        class="overflow-x-auto"
        :class="{ 'overflow-y-auto print:!max-h-none print:overflow-visible': isMany }"
        :style="isMany ? { maxHeight: `max(460px, calc(100vh - 260px), ${props.beside}px)` } : {}"
    >
        <table
            role="grid"
            :aria-label="title"
            :aria-rowcount="view.rows.length + 4"
            class="w-full min-w-[560px] table-fixed border-separate border-spacing-0"
            @keydown="onKey"
            @click="onClick"
        >
            <colgroup>
                <col class="w-[150px]" />
                <col v-for="{ kpi } in heads" :key="kpi.code" />
            </colgroup>
            <thead class="sticky top-0 z-10 bg-paper print:static print:bg-transparent">
                <tr role="row">
                    <td class="border-b border-rule" />
                    <th
                        v-for="head in heads"
                        :key="head.kpi.code"
                        role="columnheader"
                        scope="col"
                        class="border-b border-rule pb-0.5 pl-3 text-right align-bottom text-[13px] leading-[1.2] font-normal text-ink-soft"
                        :aria-sort="
                            head.order === '' ? undefined : head.order === 'best first' ? 'ascending' : 'descending'
                        "
                    >
                        <button
                            type="button"
                            class="text-right hover:text-brass"
                            :class="head.axis ? 'border-b-2 border-brass font-semibold text-ink' : ''"
                            :title="
                                head.axis
                                    ? `${head.kpi.name} lies ${head.axis === 'up' ? 'up the side' : 'across'} in the drawing of two`
                                    : `Lay ${head.kpi.name} across in the drawing of two`
                            "
                            @click="view.chooseAxis(head.kpi.code)"
                        >
                            {{ head.kpi.name }}
                            <span v-if="unitOf(head.kpi.measure)" class="font-normal text-ink-faint">{{
                                unitOf(head.kpi.measure)
                            }}</span>
                        </button>
                        <button
                            type="button"
                            class="ml-auto flex min-h-[24px] min-w-[24px] items-center justify-end gap-1 text-[12px] hover:text-brass print:hidden"
                            :class="head.order ? 'font-semibold text-brass' : 'text-ink-faint'"
                            :aria-label="`Order by ${head.kpi.name}${head.order ? `, now ${head.order}` : ''}`"
                            @click="view.turnOrder(head.kpi.code)"
                        >
                            {{ head.order }}
                            <svg width="9" height="10" viewBox="0 0 9 10" aria-hidden="true">
                                <path
                                    :d="
                                        head.order === 'worst first'
                                            ? 'M4.5 1v7M1.5 5.5l3 3 3-3'
                                            : head.order === 'best first'
                                              ? 'M4.5 9V2M1.5 4.5l3-3 3 3'
                                              : 'M1.5 3.5l3-3 3 3M1.5 6.5l3 3 3-3'
                                    "
                                    class="fill-none stroke-current"
                                    stroke-width="1.3"
                                />
                            </svg>
                        </button>
                    </th>
                </tr>
                <tr role="row">
                    <th role="rowheader" scope="row" class="border-b border-rule py-1.5 pr-2 text-right font-normal">
                        <button
                            type="button"
                            class="quiet-link text-[13px] text-ink-faint"
                            :aria-pressed="view.lastThree"
                            @click="view.lastThree = !view.lastThree"
                        >
                            {{ label }}
                        </button>
                    </th>
                    <td
                        v-for="head in heads"
                        :key="head.kpi.code"
                        role="gridcell"
                        class="border-b border-rule py-0.5 pl-3 text-right align-top text-[12.5px] leading-[1.3] text-ink-faint"
                    >
                        <button
                            v-for="(each, index) in head.named"
                            :key="each.place"
                            type="button"
                            class="ml-auto flex min-h-[24px] max-w-full items-center justify-end gap-1 hover:text-brass"
                            :class="index === 0 ? 'font-bold text-ink' : index === 1 ? 'text-ink-soft' : ''"
                            :title="`Follow ${view.names[each.place]}`"
                            @click="view.toFollow(each.place)"
                        >
                            <span class="truncate">{{ view.names[each.place] }}</span>
                            <span class="shrink-0">{{ each.text }}</span>
                        </button>
                        <template v-if="head.isEqual">all equal</template>
                        <template v-else-if="head.named.length === 0">{{
                            head.kpi.polarity === 'none' ? 'not judged' : isTwo ? 'none' : 'no figures'
                        }}</template>
                    </td>
                </tr>
            </thead>
            <tbody ref="body">
                <tr v-if="above > 0" aria-hidden="true">
                    <td :style="{ height: `${above}px` }" />
                </tr>
                <CompareRow
                    v-for="row in drawn"
                    :key="row.place"
                    :data-row="row.index"
                    :aria-rowindex="row.index + 3"
                    :place="row.place"
                    :name="row.name"
                    :found="view.lit.found[row.place] ?? null"
                    :is-followed="view.followed === row.place"
                    :kpis="view.kpis"
                    :tracks="tracks"
                    :wide="wide"
                    :view="view.view"
                    :targets="!view.plain"
                    :focused="at.row === row.index ? at.column : null"
                    :links="row.links"
                    @reach="(column: number) => (at = { row: row.index, column })"
                    @follow="view.toFollow(row.place)"
                />
                <tr v-if="beneath > 0" aria-hidden="true">
                    <td :style="{ height: `${beneath}px` }" />
                </tr>
            </tbody>
            <WhatItIsWorth :sticks="isMany" />
        </table>
    </div>
    <p class="pt-1.5 text-[13px] text-ink-faint max-md:hidden print:hidden">
        arrows move · Enter opens the KPI or the unit · Space follows a unit · a head chooses the axes, its arrow the
        order
    </p>
</template>
