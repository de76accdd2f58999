import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch, type Ref } from 'vue';

type Row = Schemas['GridRow'];

/** Heights of a row and of a heading, in pixels. */
const ROW = 30;
const GROUP = 33;
/** A digit with what stands around it, in pixels. */
const DIGIT = 7.8;

/**
 * What stands where in the year grid: headings between rows, only what is in view drawn, columns as wide as the longest
 * figure of all rows.
 */
export function useGridLayout(scroller: Ref<HTMLElement | null>, all: Ref<Row[]>, shown: Ref<Row[]>) {
    const { figure, setApart } = useNumbers();

    const severalUnits = computed(() => new Set(shown.value.map((row) => row.unit)).size > 1);
    /** Rows with a heading where the unit changes, or inside one unit the theme. */
    const items = computed(() => {
        const list: ({ title: string } | { row: Row; at: number })[] = [];
        let title: string | null = null;
        shown.value.forEach((row, at) => {
            const own = severalUnits.value ? row.unit : row.theme;
            if (own !== title) {
                title = own;
                list.push({ title: own });
            }
            list.push({ row, at });
        });
        return list;
    });
    const itemOf = computed(
        () => new Map(items.value.flatMap((item, index) => ('row' in item ? [[item.at, index] as const] : []))),
    );

    const printing = ref(false);
    useEventListener(window, 'beforeprint', () => (printing.value = true));
    useEventListener(window, 'afterprint', () => (printing.value = false));
    const virtual = useVirtualizer(
        computed(() => ({
            count: items.value.length,
            getScrollElement: () => scroller.value,
            estimateSize: (index: number) =>
                items.value[index] !== undefined && 'row' in items.value[index] ? ROW : GROUP,
            // Paper shows all of it.
            overscan: printing.value ? items.value.length : 6,
        })),
    );
    watch(items, () => virtual.value.measure());

    const longest = (texts: string[]): number => texts.reduce((most, text) => Math.max(most, setApart(text).length), 0);
    // Every row has the same columns, however long its figures are; what is in view has no say in it.
    const widths = computed(() => {
        const rows = all.value;
        const cell = rows.reduce((most, row) => Math.max(most, row.kind === 'judged' ? 0 : longest(row.typed)), 0);
        const total = rows.reduce(
            (most, row) => Math.max(most, row.total ? figure(row.total, row.measure).length : 0),
            0,
        );
        return {
            '--cell': `${Math.max(58, Math.ceil(cell * DIGIT) + 22)}px`,
            '--total': `${Math.max(78, Math.ceil(total * DIGIT) + 22)}px`,
        };
    });

    /** Where the row of a cell is among rows and headings; scrolled to. */
    function scrollTo(row: number): void {
        const index = itemOf.value.get(row);
        if (index !== undefined) {
            virtual.value.scrollToIndex(row === 0 ? 0 : index, { align: 'auto' });
        }
    }

    return { items, virtual, widths, scrollTo };
}
