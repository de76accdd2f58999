/** How many like units are drawn beside each other: scales, dots by the hundred, and the words that light some of them up. */

export interface Track {
    low: number;
    high: number;
    /** it begins at zero, so that a bar says how much there is */
    isBar: boolean;
}

/**
 * The scale that all cells of a KPI share. It begins at zero where the least is not close to the most: of 94 and 132 a bar
 * would be nearly as long as the other. Where figures lie on both sides of zero, or far from it, they are points.
 */
export function trackOf(values: readonly number[]): Track {
    const low = Math.min(...values);
    const high = Math.max(...values);
    if (low >= 0 && low <= high * 0.6 && high > 0) {
        return { low: 0, high, isBar: true };
    }
    const room = (high - low || Math.abs(high) || 1) * 0.06;
    return { low: low - room, high: high + room, isBar: false };
}

/** Where on the track a value lies, 0 to 1. */
export const along = ({ low, high }: Track, value: number): number =>
    Math.max(0, Math.min(1, (value - low) / (high - low || 1)));

/** A name that stands beside a point: what is longer than there is room for is cut. */
export const cut = (name: string, most: number): string =>
    name.length > most ? `${name.slice(0, most - 1).trimEnd()}…` : name;

/** Many dots as one path: drawn with a round cap, each is as wide as the stroke. */
export const dots = (points: readonly (readonly [number, number])[]): string =>
    points.map(([x, y]) => `M${x.toFixed(1)} ${y.toFixed(1)}h0`).join('');

/** The point that is nearest, and near enough; by its place, or -1. */
export function nearest(
    points: readonly (readonly [number, number] | null)[],
    x: number,
    y: number,
    reach: number,
): number {
    let best = -1;
    let least = reach * reach;
    points.forEach((point, at) => {
        if (point !== null) {
            const far = (point[0] - x) ** 2 + (point[1] - y) ** 2;
            if (far <= least) {
                [best, least] = [at, far];
            }
        }
    });
    return best;
}

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/**
 * Finds what was typed in a name, `*` for anything; null where it is not there.
 *
 * @returns from where to where
 */
export function findIn(name: string, typed: string): [number, number] | null {
    const wanted = plain(typed.trim());
    if (wanted === '') {
        return null;
    }
    const pattern = new RegExp(
        wanted
            .split('*')
            .map((part) => part.replace(/[.+?^${}()|[\]\\]/g, '\\$&'))
            .join('.*?'),
        'u',
    );
    const found = pattern.exec(plain(name));
    return found === null ? null : [found.index, found.index + found[0].length];
}

/** Places in the order of their values, those without one last; equal ones stay as they were. */
export function ordered(values: readonly (number | null)[], isLargestFirst = false): number[] {
    const turn = isLargestFirst ? -1 : 1;
    return values
        .map((_, at) => at)
        .sort((one, other) => {
            const [a, b] = [values[one] ?? null, values[other] ?? null];
            return a === null || b === null ? Number(a === null) - Number(b === null) : (a - b) * turn;
        });
}
