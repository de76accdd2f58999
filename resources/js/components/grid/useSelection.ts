import { computed, reactive, ref, type Ref } from 'vue';

export interface Place {
    row: number;
    column: number;
}

/** A rectangle of cells; both ends belong to it. */
export interface Area {
    top: number;
    bottom: number;
    left: number;
    right: number;
}

/** The cells between two of them. */
const areaOf = (one: Place, other: Place): Area => ({
    top: Math.min(one.row, other.row),
    bottom: Math.max(one.row, other.row),
    left: Math.min(one.column, other.column),
    right: Math.max(one.column, other.column),
});

/** Where a run of filled cells, or of empty ones, ends in a direction: at its last cell, at the latest that of the grid. */
function edgeOf(from: Place, [down, right]: [number, number], last: Place, isFilled: (place: Place) => boolean): Place {
    const isInside = ({ row, column }: Place): boolean =>
        row >= 0 && column >= 0 && row <= last.row && column <= last.column;
    const next = ({ row, column }: Place): Place => ({ row: row + down, column: column + right });
    let at = next(from);
    if (!isInside(at)) {
        return from;
    }
    const isRun = isFilled(from) && isFilled(at);
    while (isInside(next(at)) && (isRun ? isFilled(next(at)) : !isFilled(at))) {
        at = next(at);
    }
    return at;
}

const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, value));

/**
 * Which cell is worked on, and which are selected around it, with the keys that spreadsheets have for it. It knows
 * nothing of what the cells hold.
 */
export function useSelection(rows: Ref<number>, columns: Ref<number>) {
    const active = reactive<Place>({ row: 0, column: 0 });
    const anchor = reactive<Place>({ row: 0, column: 0 });
    const dragging = ref(false);

    const last = computed<Place>(() => ({ row: rows.value - 1, column: columns.value - 1 }));
    const area = computed<Area>(() => {
        const whole = areaOf(active, anchor);
        return {
            ...whole,
            bottom: Math.min(whole.bottom, last.value.row),
            right: Math.min(whole.right, last.value.column),
        };
    });
    const size = computed(() => (area.value.bottom - area.value.top + 1) * (area.value.right - area.value.left + 1));

    /** Goes to a cell; the selection follows, or reaches from where it was when extended. */
    function go(row: number, column: number, extend = false): void {
        active.row = clamp(row, rows.value - 1);
        active.column = clamp(column, columns.value - 1);
        if (!extend) {
            Object.assign(anchor, active);
        }
    }

    /** The places of an area, row by row. */
    function* places(of: Area = area.value): Generator<Place> {
        for (let row = of.top; row <= of.bottom; row++) {
            for (let column = of.left; column <= of.right; column++) {
                yield { row, column };
            }
        }
    }

    /**
     * Takes a key that moves; false when it is not one.
     *
     * @param page how many rows are in view
     * @param isFilled whether there is something in a cell
     */
    function onKey(event: KeyboardEvent, page: number, isFilled: (place: Place) => boolean): boolean {
        const far = event.ctrlKey || event.metaKey;
        const arrows: Record<string, [number, number]> = {
            ArrowUp: [-1, 0],
            ArrowDown: [1, 0],
            ArrowLeft: [0, -1],
            ArrowRight: [0, 1],
        };
        const arrow = arrows[event.key];
        if (arrow !== undefined && !event.altKey) {
            const to = far
                ? edgeOf(active, arrow, last.value, isFilled)
                : { row: active.row + arrow[0], column: active.column + arrow[1] };
            go(to.row, to.column, event.shiftKey);
        } else if (event.key === 'Home') {
            go(far ? 0 : active.row, 0, event.shiftKey);
        } else if (event.key === 'End') {
            go(far ? rows.value - 1 : active.row, columns.value - 1, event.shiftKey);
        } else if (event.key === 'PageUp' || event.key === 'PageDown') {
            go(active.row + (event.key === 'PageUp' ? -page : page), active.column, event.shiftKey);
        } else if (event.key === 'Tab' && !far) {
            const next = active.row * columns.value + active.column + (event.shiftKey ? -1 : 1);
            // At either end the focus leaves the grid, as it would any other control.
            if (next < 0 || next >= rows.value * columns.value) {
                return false;
            }
            go(Math.floor(next / columns.value), next % columns.value);
        } else if (event.key === 'Enter') {
            go(active.row + (event.shiftKey ? -1 : 1), active.column);
        } else if (far && event.key.toLowerCase() === 'a') {
            Object.assign(anchor, { row: 0, column: 0 });
            Object.assign(active, { row: rows.value - 1, column: columns.value - 1 });
        } else {
            return false;
        }
        event.preventDefault();
        return true;
    }

    return { active, area, last, size, dragging, go, places, onKey };
}
