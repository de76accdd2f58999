/** How the choices of a definition are called on the screens. */
/** Every polarity and accumulation that a KPI can have; the editor offers those it can edit. */
export const POLARITIES = { higher: 'higher', lower: 'lower', band: 'within a band', none: 'not judged' } as const;
export const ACCUMULATIONS = {
    sum: 'added up',
    mean: 'mean',
    latest: 'latest stands',
    maximum: 'highest',
    minimum: 'lowest',
    recompute: 'worked out again',
} as const;
export const BETTER_WHEN = { higher: 'higher', lower: 'lower', none: 'not judged' } as const;
export const GATHERED_BY = { sum: 'added up', mean: 'mean', latest: 'latest stands' } as const;
export const LEVELS = {
    organisational: 'organisational',
    departmental: 'departmental',
    operational: 'operational',
} as const;
