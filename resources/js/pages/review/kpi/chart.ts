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
