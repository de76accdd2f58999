import type { ApiError, Schemas } from '@/api/client';

export type What = 'figure' | 'note' | 'parts';

/** What is typed of each part of a figure, by name. */
export type TypedParts = Record<string, string>;

export interface NoteParts {
    text: string;
    outlook: string;
    doing: string;
}

/** One value that is typed, sent, and perhaps refused. What was typed is never thrown away. */
export interface Entry<T> {
    value: T;
    /** what the server holds, as far as this page knows */
    saved: T;
    version: number;
    state: 'same' | 'typing' | 'saving' | 'waiting' | 'refused' | 'conflict';
    message: string;
    current: ApiError['current'];
}

const STORE = 'kybernet:unsent';

type Unsent = Record<string, { value: unknown; version: number }>;

const unsentFrom = (): Unsent => {
    try {
        return JSON.parse(localStorage.getItem(STORE) ?? '{}') as Unsent;
    } catch {
        return {};
    }
};

export const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
export const fresh = <T>(value: T, version: number): Entry<T> => ({
    value,
    saved: value,
    version,
    state: 'same',
    message: '',
    current: null,
});
export const parts = (note: Schemas['LogbookRow']['note']): NoteParts => ({
    text: note?.text ?? '',
    outlook: note?.outlook ?? '',
    doing: note?.doing ?? '',
});

export const partsOf = (row: Schemas['LogbookRow']): TypedParts =>
    Object.fromEntries(row.parts.map(({ part, typed }) => [part, typed]));

/** What a person has typed and the server does not hold yet, in this browser: it survives a reload. */
export function useUnsent(owner: () => string) {
    const name = (key: string, what: What): string => `${owner()}/${key}/${what}`;

    return {
        /** What was kept of an entry, among all that is kept. */
        of: (all: Unsent, key: string, what: What) => all[name(key, what)],
        all: unsentFrom,
        /** Keeps an entry that is under way, and forgets one that the server holds. */
        remember: (key: string, what: What, entry: Entry<unknown>): void => {
            const others = Object.entries(unsentFrom()).filter(([each]) => each !== name(key, what));
            const own = [name(key, what), { value: entry.value, version: entry.version }] as const;
            localStorage.setItem(
                STORE,
                JSON.stringify(Object.fromEntries(entry.state === 'same' ? others : [...others, own])),
            );
        },
    };
}
