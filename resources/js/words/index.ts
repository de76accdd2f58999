import type { Schemas, Span, Status } from '@/api/client';

/** The colours, in the order in which they are told, and what they are called. */
export const COLOURS = { green: 'on course', amber: 'drifting', red: 'off course' } as const;
export const STATUSES: Record<Status, string> = { ...COLOURS, 'no-data': 'no reading', 'not-judged': 'not judged' };
/** Colours as a grid of thousands of cells gets them. */
export const LETTERS: Record<string, string> = { g: COLOURS.green, a: COLOURS.amber, r: COLOURS.red };

/** What people come to do. */
export const ROLES = {
    analyst: 'performance analyst',
    head: 'department head',
    owner: 'data owner',
    executive: 'executive',
    reader: 'reader',
    auditor: 'auditor',
    administrator: 'administrator',
} as const;

/** What each of them may do, in a line. */
export const ROLE_MEANS = {
    analyst: 'defines KPIs, enters every figure, closes months',
    head: 'enters and answers for the figures there',
    owner: 'enters the figures that are theirs, wherever they are measured',
    executive: 'reads everything there',
    reader: 'reads everything there',
    auditor: 'reads everything there with the trail, changes nothing',
    administrator: 'units, people and settings of the whole organisation; no figures',
} as const;

/** Number settings that can be chosen. */
/** In which months and days can be written. */
export const DATE_LANGUAGES = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL'] as const;

export const LOCALES = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL', 'de-CH'] as const;

/** A span as a choice. */
export const SPANS: Record<Span, string> = {
    month: 'Month',
    quarter: 'Quarter',
    yearToDate: 'Year to date',
    rolling12: 'Rolling 12',
};
/** A span in the middle of a sentence. */
export const SPAN_PHRASES: Record<Span, string> = {
    month: 'the month',
    quarter: 'the quarter to date',
    yearToDate: 'the year to date',
    rolling12: 'the last 12 months',
};
/** A span over figures, which ends in a month. */
export const spanTitle = (span: Span, month: string): string =>
    ({
        month,
        quarter: `quarter to ${month}`,
        yearToDate: `year to ${month}`,
        rolling12: `twelve months to ${month}`,
    })[span];

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
/** Where targets come from. */
export const AIMS = { set: 'set', worked: 'worked out' } as const;
export const LEVELS = {
    organisational: 'organisational',
    departmental: 'departmental',
    operational: 'operational',
} as const;
export const KINDS = {
    entered: 'entered',
    records: 'from records',
    formula: 'by a formula',
    judged: 'a person judges',
} as const;
export const FREQUENCIES = { week: 'weekly', month: 'monthly', quarter: 'quarterly', year: 'yearly' } as const;
export const EACH = { week: 'week', month: 'month', quarter: 'quarter', year: 'year' } as const;
export const REFERENCES = {
    target: 'the target',
    'prior-year': 'last year',
    recent: 'recent periods',
    'year-target': 'the year target',
    none: 'fixed levels',
} as const;
/** How many KPIs have which colour, and how many have none for want of a reading. */
export const countWords = (counts: Schemas['Counts']): string =>
    (
        [
            [counts.green, COLOURS.green],
            [counts.amber, COLOURS.amber],
            [counts.red, COLOURS.red],
            [counts.noData, 'without a reading'],
        ] as const
    )
        .filter(([count]) => count > 0)
        .map(([count, words]) => `${count} ${words}`)
        .join(', ') || 'nothing judged';
/** Of a limit: which way it reaches, and what it is measured in. */
export const limitWords = (
    measure: Schemas['Rule']['measure'],
    polarity: Schemas['KpiDefinition']['polarity'],
    unit: string,
): { reach: string; unit: string } => {
    const side = { band: 'outside it', higher: 'under', lower: 'over', none: '' }[polarity];
    return {
        reach: measure === 'reached' || (measure === 'level' && polarity === 'higher') ? 'from' : 'up to',
        unit: {
            percent: `% ${side}`,
            absolute: `${unit} ${side}`,
            reached: '% reached',
            level: unit,
        }[measure],
    };
};
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

/** Why a cell cannot be typed in. */
const LOCKS: Record<Exclude<Schemas['Lock'], '' | 'formula'>, string> = {
    gathered: 'gathered from the units below',
    counted: 'counted from records',
    'targets-below': 'the targets are those of the units below',
    'no-targets': 'a judged KPI has no targets',
    planned: 'targets are planned by the analyst',
    future: 'not begun yet',
    'not-theirs': 'not yours to enter',
    'not-measured': 'not measured here then',
    closed: 'closed',
    'other-year': 'changed in the grid of its own year',
    'no-period': 'no period ends here',
};
export const lockWords = (lock: Schemas['Lock'], formula: string): string =>
    lock === '' ? '' : lock === 'formula' ? `worked out: ${formula}` : LOCKS[lock];
/** Whether a figure follows from others: it is only read. */
export const isWorkedOut = (lock: Schemas['Lock']): boolean =>
    lock === 'formula' || lock === 'gathered' || lock === 'counted';

/** Whether a driver has moved with the KPI. */
export const MOVING = {
    together: 'moves with it',
    against: 'moves against it',
    apart: 'hardly moves with it',
} as const;

/** Some of the choices that have words. */
export const pick = <Name extends string>(
    words: Record<Name, string>,
    isPicked: (name: Name) => boolean,
): Partial<Record<Name, string>> =>
    Object.fromEntries(Object.entries(words).filter(([name]) => isPicked(name as Name))) as Partial<
        Record<Name, string>
    >;

/** How likely something is, in words: the nearest of the fractions that people use. */
export function chanceWords(chance: number): string {
    if (chance < 0.03) {
        return 'next to no chance';
    }
    if (chance > 0.97) {
        return 'next to no doubt';
    }
    const fractions: [number, string][] = [
        [1 / 20, 'one chance in twenty'],
        [1 / 10, 'one chance in ten'],
        [1 / 6, 'one chance in six'],
        [1 / 4, 'one chance in four'],
        [1 / 3, 'one chance in three'],
        [1 / 2, 'an even chance'],
        [2 / 3, 'two chances in three'],
        [3 / 4, 'three chances in four'],
        [5 / 6, 'five chances in six'],
        [9 / 10, 'nine chances in ten'],
        [19 / 20, 'nineteen chances in twenty'],
    ];
    const nearest = fractions.reduce((best, each) =>
        Math.abs(each[0] - chance) < Math.abs(best[0] - chance) ? each : best,
    );
    return `about ${nearest[1]}`;
}

/** How a unit's status follows from what is under it, and what its two cuts are called. */
export const ROLL_UPS = {
    weighted: { name: 'by the weighted mean of scores', green: 'On course from', other: 'Drifting from' },
    worst: { name: 'as the worst of them', green: '', other: '' },
    share: { name: 'by shares of the weight', green: 'On course from % green', other: 'Off course above % red' },
} as const;
