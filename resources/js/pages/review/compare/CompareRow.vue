<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { along, type Track } from '@/graphics/peers';
import { number } from '@/graphics/scale';
import { computed } from 'vue';
import type { ComparedKpi, CompareView } from './useComparison';
import { useWords } from './useWords';

/** A unit with its figure of each KPI, on the scale that the column shares. Few elements a cell: there are thousands. */
const props = defineProps<{
    place: number;
    name: string;
    found: [number, number] | null;
    isFollowed: boolean;
    kpis: ComparedKpi[];
    tracks: Track[];
    /** widths of the figures, in pixels */
    wide: number[];
    view: CompareView;
    targets: boolean;
    /** the column in focus, 0 for the name; null for none of this row */
    focused: number | null;
    links: { unit: string; kpi: string[] };
}>();
defineEmits<{ reach: [column: number]; follow: [] }>();
const { figure, signed } = useNumbers();
const { said, beyond } = useWords();

const parts = computed(() => {
    const [from, to] = props.found ?? [0, 0];
    return [props.name.slice(0, from), props.name.slice(from, to), props.name.slice(to)];
});
const percent = (track: Track, value: number): number => along(track, value) * 100;

const cells = computed(() =>
    props.kpis.map((kpi, column) => {
        const cell = kpi.cells[props.place] ?? null;
        const track = props.tracks[column];
        const value = number(cell?.actual?.exact);
        if (cell?.actual == null || track === undefined || value === null) {
            return {
                text: cell?.instead ?? '',
                was: '',
                more: '',
                said: said(props.name, kpi, cell),
                tone: '',
                mark: null,
                ticks: [],
            };
        }
        const isTwo = props.view === 'two';
        const isRanks = props.view === 'ranks' && cell.rank !== null;
        const then = isTwo ? number(cell.then?.exact) : null;
        const rank = isRanks ? 100 - (100 * ((cell.rank ?? 1) - 1)) / Math.max(1, kpi.figures - 1) : 0;
        const at = isRanks ? rank : percent(track, value);
        const from = isRanks ? at : isTwo ? (then === null ? at : percent(track, then)) : 0;
        const isLine = isTwo || (track.isBar && !isRanks);
        return {
            text: isRanks
                ? String(cell.rank)
                : isTwo
                  ? cell.change === null
                      ? figure(cell.actual, kpi.measure)
                      : signed(cell.change.difference, kpi.measure)
                  : figure(cell.actual, kpi.measure),
            was: !isTwo ? '' : cell.then === null ? 'none then' : `${figure(cell.then)} → ${figure(cell.actual)}`,
            more: beyond(kpi, cell),
            said: said(props.name, kpi, cell),
            tone: isTwo ? (cell.change?.effect === 'adverse' ? 'adverse' : '') : (cell.tenth ?? ''),
            mark: { at, from: Math.min(from, at), width: isLine ? Math.abs(at - from) : 0, isPoint: !isLine || isTwo },
            ticks:
                props.targets && !isTwo && !isRanks
                    ? [cell.target, cell.low, cell.high].flatMap((each) =>
                          each ? [percent(track, Number(each.exact))] : [],
                      )
                    : [],
        };
    }),
);
const TEXT: Record<string, string> = {
    best: 'font-bold text-green',
    worst: 'font-bold text-red-text',
    adverse: 'font-semibold text-red-text',
};
const FILL: Record<string, string> = { best: 'bg-green', worst: 'bg-red' };
</script>

<template>
    <tr role="row" class="group" :class="{ 'bg-brass-tint': isFollowed }" :aria-selected="isFollowed">
        <th
            role="rowheader"
            scope="row"
            data-column="0"
            class="sticky left-0 z-[1] h-[32px] border-b border-rule-soft p-0 text-left font-normal outline-none -outline-offset-2 outline-brass focus-visible:outline-2"
            :class="isFollowed ? 'bg-brass-tint' : 'bg-paper print:bg-transparent'"
            :tabindex="focused === 0 ? 0 : -1"
            @focus="$emit('reach', 0)"
        >
            <span class="flex items-center gap-1.5 pr-2">
                <button
                    type="button"
                    tabindex="-1"
                    class="flex size-[18px] shrink-0 items-center justify-center print:hidden"
                    :title="isFollowed ? `No longer follow ${name}` : `Follow ${name}`"
                    :aria-label="isFollowed ? `No longer follow ${name}` : `Follow ${name}`"
                    :aria-pressed="isFollowed"
                    @click="$emit('follow')"
                >
                    <span
                        class="size-[9px] rounded-full border-[1.5px]"
                        :class="
                            isFollowed
                                ? 'border-brass bg-brass'
                                : 'border-rule group-hover:border-brass group-focus-within:border-brass'
                        "
                    />
                </button>
                <a :href="links.unit" tabindex="-1" class="min-w-0 truncate hover:text-brass" :title="name"
                    >{{ parts[0] }}<b v-if="parts[1]" class="bg-brass-tint font-bold">{{ parts[1] }}</b
                    >{{ parts[2] }}</a
                >
            </span>
        </th>
        <td
            v-for="(cell, column) in cells"
            :key="column"
            role="gridcell"
            :data-column="column + 1"
            class="border-b border-rule-soft p-0 outline-none -outline-offset-2 outline-brass focus-visible:outline-2"
            :tabindex="focused === column + 1 ? 0 : -1"
            :title="cell.said"
            @focus="$emit('reach', column + 1)"
        >
            <a :href="links.kpi[column]" tabindex="-1" class="flex items-center gap-2 pl-3 hover:text-brass">
                <span v-if="cell.mark" class="relative h-[6px] min-w-[24px] grow bg-rule-soft">
                    <span
                        v-if="cell.mark.width > 0"
                        class="absolute inset-y-0"
                        :class="[FILL[cell.tone] ?? 'bg-line', { 'my-[2px]': view === 'two' }]"
                        :style="{ left: `${cell.mark.from}%`, width: `${cell.mark.width}%` }"
                    />
                    <span
                        v-if="cell.mark.isPoint"
                        class="absolute top-1/2 size-[8px] -translate-1/2 rounded-full"
                        :class="cell.tone === 'adverse' ? 'bg-red' : (FILL[cell.tone] ?? 'bg-line')"
                        :style="{ left: `${cell.mark.at}%` }"
                    />
                    <span
                        v-for="(tick, index) in cell.ticks"
                        :key="index"
                        class="absolute -top-[4px] h-[14px] w-[2px] -translate-x-1/2 bg-brass"
                        :style="{ left: `${tick}%` }"
                    />
                </span>
                <span
                    class="shrink-0 text-right leading-[1.05] whitespace-nowrap"
                    :class="[cell.mark ? TEXT[cell.tone] : 'grow text-[13px] text-ink-faint']"
                    :style="cell.mark ? { width: `${wide[column]}px` } : {}"
                    >{{ cell.text
                    }}<span v-if="cell.was" class="block text-[11.5px] font-normal text-ink-faint">{{
                        cell.was
                    }}</span></span
                >
                <span class="sr-only">{{ cell.more }}</span>
            </a>
        </td>
    </tr>
</template>
