import { shortMonth } from '@/composables/usePeriods';
import type { Plane } from './plane';

/** Moves labels apart that would stand on each other, keeping their order. */
export function spread<T extends { y: number }>(labels: T[], gap: number, top: number, bottom: number): T[] {
    const sorted = [...labels].sort((one, other) => one.y - other.y).map((each) => ({ ...each }));
    sorted.forEach((each, index) => {
        const before = sorted[index - 1];
        each.y = Math.max(each.y, before === undefined ? top : before.y + gap);
    });
    let below = bottom + gap;
    for (const each of sorted.toReversed()) {
        each.y = Math.min(each.y, below - gap);
        below = each.y;
    }
    return sorted;
}

/** The least width in which a label can be read. */
const LEAST = 34;

const yearOf = (period: string): string => (period.startsWith('FY') ? period.slice(2, 6) : period.slice(0, 4));

function short(period: string): string {
    if (period.includes('W')) {
        return period.slice(5);
    }
    return period.startsWith('FY') ? period.slice(period.includes('-') ? 7 : 2) : shortMonth(period);
}

/**
 * What stands under each period: every label where there is room, otherwise every so many, the one that is looked at
 * always; the year where it begins.
 */
export function periodLabels(
    periods: readonly string[],
    at: number,
    column: number,
    write = short,
): { text: string; year: string }[] {
    const every = Math.max(1, Math.ceil(LEAST / column));
    return periods.map((period, index) => {
        const year = yearOf(period);
        return {
            text: (index - at) % every === 0 ? write(period) : '',
            year: year === yearOf(periods[index - 1] ?? '') ? '' : year,
        };
    });
}

/**
 * Where a line is the farthest from the others, so that its name stands alone, and on which side of it there is room.
 *
 * @param others the first of them is the one that the name must not be taken for
 * @param last the last place that counts
 */
export function loneliest(
    on: Plane,
    values: readonly (number | null)[],
    others: readonly (readonly (number | null)[])[],
    last: number,
): { at: number; value: number; isAbove: boolean } | null {
    const enough = 60;
    let best: { at: number; value: number; room: number } | null = null;
    for (const [at, value] of values.slice(0, last + 1).entries()) {
        if (value === null || at === 0) {
            continue;
        }
        const there = others.flatMap((each) => each[at] ?? []);
        const room = Math.min(enough, ...there.map((each) => Math.abs(on.y(each) - on.y(value))));
        if (best === null || room > best.room) {
            best = { at, value, room };
        }
    }
    if (best === null) {
        return null;
    }
    const { at, value } = best;
    const beside = [values[at - 1], values[at + 1]].filter((each) => each != null);
    return { at, value, isAbove: value >= Math.max(...beside, -Infinity) || (others[0]?.[at] ?? -Infinity) < value };
}
