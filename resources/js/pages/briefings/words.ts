import type { Schemas } from '@/api/client';

export type Kind = Schemas['Piece']['kind'];

/** What a piece is called in a sentence: "Show Leakage as …". */
export const KINDS: Record<Kind, string> = {
    figure: 'a figure with its course',
    courses: 'courses under each other',
    scale: 'a scale',
    line: 'a line over time',
    table: 'a table',
    matrix: 'a matrix',
    compare: 'units beside each other',
    split: 'a split into parts',
    map: 'a map',
    exceptions: 'what deserves attention',
    actions: 'actions',
    cases: 'cases',
    drivers: 'what it depends on',
    commentary: 'commentary',
    text: 'a text or picture',
};

/** As one asks for another one. */
export const SHORT_KINDS: Record<Kind, string> = {
    figure: 'figure',
    courses: 'courses',
    scale: 'scale',
    line: 'line',
    table: 'table',
    matrix: 'matrix',
    compare: 'comparison',
    split: 'split',
    map: 'map',
    exceptions: 'exceptions',
    actions: 'actions',
    cases: 'cases',
    drivers: 'drivers',
    commentary: 'commentary',
    text: 'text or picture',
};

export const PARTS: Record<string, string> = {
    needle: 'needle',
    course: 'course',
    target: 'to target',
    since: 'since before',
    lastYear: 'last year',
    columns: '13 columns',
    pace: 'progress and pace',
    yearEnd: 'year end',
    zones: 'zones',
    projection: 'to the year end',
    trend: 'trend',
    average: 'mean of three',
    control: 'mean and limits',
    before: 'the month before',
    goal: 'goal',
    ranges: 'ranges',
};

export const CHOICES: Record<string, string> = {
    since: 'Since',
    written: 'Written',
    decimals: 'Decimals',
    over: 'Over',
    form: 'Drawn',
    mode: 'Points',
    reach: 'Reaching back',
    rows: 'Rows',
    crossing: 'Crossing',
    months: 'Months',
    graphic: 'As',
    colour: 'Coloured by',
    count: 'How many',
    which: 'Which',
    depth: 'Steps deep',
};

const OPTIONS: Record<string, string> = {
    period: 'the month before',
    quarter: 'a quarter before',
    year: 'a year before',
    short: 'k, m, bn',
    full: 'in full',
    own: 'its own',
    kpis: 'several KPIs',
    units: 'units of one KPI',
    straight: 'straight',
    arc: 'as an arc',
    months: 'single',
    gathered: 'gathered',
    quarters: 'quarters',
    years: 'this year on last',
    three: 'three years',
    all: 'all',
    red: 'off course',
    bad: 'not on course',
    'units-kpis': 'units and KPIs',
    'kpis-months': 'KPIs and months',
    'units-months': 'units and months',
    spread: 'how they are spread',
    table: 'a table',
    two: 'two against each other',
    worth: 'what it would be worth',
    ranks: 'ranks over time',
    bars: 'bars',
    areas: 'areas',
    status: 'status',
    figure: 'figure in steps',
    open: 'open',
    overdue: 'overdue',
};
export const option = (name: string, choice: string): string =>
    name === 'reach' && choice === 'year' ? 'a year' : (OPTIONS[choice] ?? choice);

/** What a page can begin with. */
export const BEGINNINGS: Record<string, { name: string; means: string; span: Schemas['BriefingPage']['span'] }> = {
    organisation: {
        name: 'Organisation on a page',
        means: 'the weightiest figures, one over time, what deserves attention, the departments',
        span: 'yearToDate',
    },
    department: {
        name: 'Department',
        means: 'its figures, two of them over time, all its KPIs, what is being done',
        span: 'month',
    },
    weekly: {
        name: 'Weekly meeting',
        means: 'short: figures with their last 13, what is new, what is late',
        span: 'month',
    },
    'one-kpi': { name: 'One KPI over its units', means: 'figure, line, map, courses, ranks over time', span: 'month' },
    'month-end': {
        name: 'Month-end pack',
        means: 'commentary, all KPIs, all exceptions, all actions',
        span: 'yearToDate',
    },
    nothing: { name: 'Nothing', means: 'an empty page', span: 'month' },
};
