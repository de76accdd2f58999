/** How the choices of a definition are called on the screens. */
export const BETTER_WHEN = { higher: 'higher', lower: 'lower', none: 'not judged' } as const;
export const GATHERED_BY = { sum: 'added up', mean: 'mean', latest: 'latest stands' } as const;
export const LEVELS = {
    organisational: 'organisational',
    departmental: 'departmental',
    operational: 'operational',
} as const;
