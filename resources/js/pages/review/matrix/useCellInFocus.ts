import type { Schemas } from '@/api/client';
import { useEscape } from '@/composables/useEscape';
import { useView } from '@/composables/useView';
import { computed, nextTick, ref, watch, type Ref } from 'vue';
import { useRouter } from 'vue-router';

export type Crossing = Schemas['MatrixPage']['crossing'];
export const CROSSINGS: Crossing[] = ['units-kpis', 'units-months', 'kpis-months'];

/** What the matrix shows just now. */
interface MatrixView {
    data: Ref<Schemas['MatrixPage'] | undefined>;
    isPlaceholderData: Ref<boolean>;
    shown: Ref<Crossing>;
    shownKpi: Ref<string>;
    isMonths: Ref<boolean>;
    months: Ref<number>;
    /** places of the rows, in the order they are shown in */
    order: Ref<number[]>;
}

/** The cell in focus: a unit, a KPI and a month, whatever the crossing; it is kept from one crossing to another. */
export function useCellInFocus(grid: Ref<HTMLElement | null>, view: MatrixView) {
    const router = useRouter();
    const { unit, period, query } = useView();

    const at = ref({ row: 0, column: 0 });
    const opened = ref(false);
    useEscape(opened, () => (opened.value = false));
    const wanted = ref<{ unit: string; kpi: string; month: string } | null>(null);

    const place = computed(() => {
        const row = view.data.value?.rows[at.value.row];
        const column = view.data.value?.columns[at.value.column];
        if (row === undefined || column === undefined) {
            return null;
        }
        return {
            'units-kpis': { unit: row.key, kpi: column.key, month: period.value },
            'units-months': { unit: row.key, kpi: view.shownKpi.value, month: column.key },
            'kpis-months': { unit: unit.value.code, kpi: row.key, month: column.key },
        }[view.shown.value];
    });
    const cell = computed(() => view.data.value?.cells[at.value.row]?.[at.value.column] ?? null);

    /** The same cell in another crossing. */
    async function cross(to: Crossing): Promise<void> {
        const from = place.value;
        wanted.value = from;
        const parent =
            view.shown.value === 'kpis-months' && to !== 'kpis-months'
                ? (unit.value.parent ?? unit.value.code)
                : unit.value.code;
        const target =
            from === null
                ? { unit: parent, period: period.value }
                : {
                      unit: to === 'kpis-months' ? from.unit : parent,
                      period: to === 'units-kpis' ? from.month : period.value,
                  };
        await router.push({
            query: {
                ...query(target),
                crossing: to,
                kpi: to === 'units-months' ? (from?.kpi ?? view.shownKpi.value) : undefined,
                months: view.months.value === 12 ? undefined : view.months.value,
            },
        });
    }

    watch(
        [view.data, view.isPlaceholderData],
        () => {
            const page = view.data.value;
            if (page === undefined || view.isPlaceholderData.value) {
                return;
            }
            const found = wanted.value;
            wanted.value = null;
            const rowKey = found === null ? '' : view.shown.value === 'kpis-months' ? found.kpi : found.unit;
            const columnKey = found === null ? '' : view.shown.value === 'units-kpis' ? found.kpi : found.month;
            const row = page.rows.findIndex(({ key }) => key === rowKey);
            const column = page.columns.findIndex(({ key }) => key === columnKey);
            at.value = {
                row: row >= 0 ? row : Math.min(at.value.row, Math.max(0, page.rows.length - 1)),
                column:
                    column >= 0
                        ? column
                        : view.isMonths.value
                          ? page.columns.length - 1
                          : Math.min(at.value.column, Math.max(0, page.columns.length - 1)),
            };
            if (found !== null) {
                void focus();
            }
        },
        { immediate: true },
    );

    async function focus(): Promise<void> {
        await nextTick();
        grid.value?.querySelector<HTMLElement>('[role=gridcell][tabindex="0"]')?.focus();
    }

    function onKey(event: KeyboardEvent): void {
        const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
        const rows = view.order.value;
        if (step !== undefined) {
            event.preventDefault();
            const row = rows.indexOf(at.value.row) + (step[0] ?? 0);
            at.value = {
                row: rows[Math.max(0, Math.min(rows.length - 1, row))] ?? 0,
                column: Math.max(
                    0,
                    Math.min((view.data.value?.columns.length ?? 1) - 1, at.value.column + (step[1] ?? 0)),
                ),
            };
            void focus();
        } else if (event.key === 'Enter' || event.key === ' ') {
            event.preventDefault();
            opened.value = true;
        } else if (['1', '2', '3'].includes(event.key)) {
            event.preventDefault();
            void cross(CROSSINGS[Number(event.key) - 1] ?? 'units-kpis');
        }
    }

    function choose(row: number, column: number): void {
        at.value = { row, column };
        opened.value = true;
    }

    return { at, opened, place, cell, cross, onKey, choose };
}
