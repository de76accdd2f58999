import type { Schemas } from '@/api/client';

/** What a field holds, as a choice. */
export const TYPES = { text: 'text', number: 'number', date: 'date', time: 'time', yesno: 'yes or no' } as const;

/** How dates and numbers are written in a file. */
export const FORMS: Record<string, Partial<Record<Schemas['SourceField']['form'], string>>> = {
    date: { '': '2026-08-31', 'day-first': '31/08/2026', 'month-first': '08/31/2026' },
    time: { '': '2026-08-31 23:30', 'day-first': '31/08/2026 23:30', 'month-first': '08/31/2026 23:30' },
    number: { '': '1234.5', comma: '1234,5' },
};

/** What a load does with what is there. */
export const MODES = {
    key: 'adds what is new and changes what is known',
    add: 'adds what is new and leaves what is known',
    all: 'takes the place of everything',
} as const;

export const WAYS = {
    file: 'a file by hand',
    folder: 'a watched folder',
    address: 'an address that is asked',
    query: 'a query to another database',
    sent: 'sent by a program',
} as const;

const STATES: Record<Schemas['LoadLine']['state'], string> = {
    mapping: 'waits to be read',
    reading: 'is being read',
    ready: 'waits to be brought in',
    applying: 'is being brought in',
    applied: '',
    undoing: 'is being taken back',
    undone: 'taken back',
    failed: 'did not come in',
};
export const stateWords = (load: Schemas['LoadLine']): string => STATES[load.state];

/** Whether a worker is at it. */
export const isAtWork = (load: Schemas['LoadLine'] | undefined): boolean =>
    load !== undefined && ['mapping', 'reading', 'applying', 'undoing'].includes(load.state) && load.problem === '';

/** What a load brought, in words: 12 new, 3 changed. */
export function broughtWords(load: Schemas['LoadLine'], number: (count: number) => string): string {
    const parts = (
        [
            [load.added, 'new'],
            [load.changed, 'changed'],
            [load.same, 'the same'],
            [load.gone, 'gone'],
            [load.refused, 'refused'],
        ] as const
    ).filter(([count]) => count > 0);
    return parts.map(([count, words]) => `${number(count)} ${words}`).join(', ') || 'nothing';
}
