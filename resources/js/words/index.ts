/** How the choices of a definition are called on the screens. */
export const POLARITIES = { higher: 'higher', lower: 'lower', band: 'inside a band', none: 'not judged' } as const;
export const ACCUMULATIONS = {
    sum: 'added up',
    mean: 'mean',
    latest: 'latest stands',
    maximum: 'highest',
    minimum: 'lowest',
    recompute: 'worked out again',
} as const;
export const LEVELS = {
    organisational: 'organisational',
    departmental: 'departmental',
    operational: 'operational',
} as const;
export const KINDS = { entered: 'entered', formula: 'by a formula', judged: 'a person judges' } as const;
export const FREQUENCIES = { week: 'weekly', month: 'monthly', quarter: 'quarterly', year: 'yearly' } as const;
export const EACH = { week: 'week', month: 'month', quarter: 'quarter', year: 'year' } as const;
export const REFERENCES = {
    target: 'the target',
    'prior-year': 'last year',
    recent: 'recent periods',
    'year-target': 'the year target',
    none: 'fixed levels',
} as const;
export const GATHERINGS = {
    '': 'not at all',
    sum: 'added up',
    mean: 'mean of the units',
    weighted: 'mean weighted by another KPI',
    recompute: 'formula over the sums',
} as const;

/** How much of the year target is asked for by now. */
export const PACES = {
    even: 'an even share',
    'last-year': 'by last year’s shape',
    whole: 'the whole of it',
} as const;
