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

/** What a chart draws; notes, actions and rules where they are to be marked on it. */
export type Charted = Schemas['KpiCourse'] & Partial<Pick<Schemas['KpiPage'], 'notes' | 'actions' | 'rules'>>;

const BACK = { week: 30, month: 11, quarter: 9, year: 9 };

/** The points of a way of drawing. */
export function pointsOf(page: Charted, mode: Mode, long: boolean): Point[] {
    if (mode === 'gathered') {
        return page.gathered;
    }
    if (mode === 'quarters') {
        const first = page.quarters.findIndex((point) => point.actual !== null);
        return first < 0 ? [] : page.quarters.slice(first);
    }
    const at = page.history.findIndex((point) => point.period === page.latest);
    const back = long ? page.history.length : BACK[page.frequency];
    // Weeks to come are many, and say little: four of them stand for the year end.
    const until = page.frequency === 'week' ? at + 5 : page.history.length;
    return page.history.slice(Math.max(0, at - back), until);
}
