import type { Schemas } from '@/api/client';
import { ticks } from '@/graphics/scale';

/** A goal as a number, however the reader writes it. */
export const goalOf = (text: string): number => Number(text.replace(',', '.'));

/** One scale for all rows of one value, which holds the goal too. */
export function casesScale(rows: readonly Schemas['CaseRow'][], goal: number | null): [number, number] {
    const all = rows
        .flatMap(({ values, bins }) => [
            ...(values.length > 0 ? [values[0], values.at(-1)] : []),
            ...bins.slice(0, 1).map(({ from }) => from),
            ...bins.slice(-1).map(({ to }) => to),
        ])
        .map(Number);
    const goals = rows.some((row) => row.goal) && goal !== null && Number.isFinite(goal) ? [goal] : [];
    const marks = ticks(Math.min(0, ...all), Math.max(...all, ...goals, 1), 6);
    return [marks[0] ?? 0, marks.at(-1) ?? 1];
}
