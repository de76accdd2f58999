import type { Schemas } from '@/api/client';

export type Point = Schemas['ChartPoint'];
export type Mode = 'months' | 'gathered' | 'quarters';

/** What can be laid over the actuals. */
export interface Layers {
    zones: boolean;
    prior: boolean;
    average: boolean;
    trend: boolean;
    control: boolean;
    projection: boolean;
}

export const number = (text: string | null | undefined): number | null =>
    text === null || text === undefined ? null : Number(text);

/** With so many decimals; nothing has no sign. */
export const rounded = (value: number, decimals: number): string =>
    (Number(value.toFixed(decimals)) || 0).toFixed(decimals);

/** Round steps that divide the range into about so many parts, and the ends that they reach. */
export function ticks(low: number, high: number, parts = 5): number[] {
    const span = high - low || Math.abs(high) || 1;
    const rough = span / parts;
    const power = 10 ** Math.floor(Math.log10(rough));
    const step = ([1, 2, 2.5, 5, 10].find((each) => each * power >= rough) ?? 10) * power;
    const first = Math.floor(low / step + 1e-9);
    const last = Math.ceil(high / step - 1e-9);
    return Array.from({ length: Math.max(2, last - first + 1) }, (_, index) =>
        Number(((first + index) * step).toPrecision(12)),
    );
}

/** Neighbours that have the same in common, as runs from one index to another. */
export function runs<T>(
    items: readonly T[],
    same: (one: T, other: T) => boolean,
): { from: number; to: number; item: T }[] {
    const found: { from: number; to: number; item: T }[] = [];
    items.forEach((item, index) => {
        const last = found.at(-1);
        if (last !== undefined && same(last.item, item)) {
            last.to = index;
        } else {
            found.push({ from: index, to: index, item });
        }
    });
    return found;
}

/** Unbroken stretches of a line; a gap ends one. */
export function stretches(values: readonly (number | null)[]): { at: number; value: number }[][] {
    const found: { at: number; value: number }[][] = [[]];
    values.forEach((value, at) => (value === null ? found.push([]) : found.at(-1)?.push({ at, value })));
    return found.filter((each) => each.length > 0);
}

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
