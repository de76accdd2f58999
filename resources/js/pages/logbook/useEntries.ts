import { ApiError, api, read, type Schemas } from '@/api/client';
import { useEventListener, useIntervalFn } from '@vueuse/core';
import { computed, reactive, watch, type Ref } from 'vue';

type Row = Schemas['LogbookRow'];

/** One value that is typed, sent, and perhaps refused. What was typed is never thrown away. */
interface Entry {
    text: string;
    /** what the server holds, as far as this page knows */
    saved: string;
    version: number;
    state: 'same' | 'typing' | 'saving' | 'waiting' | 'refused' | 'conflict';
    message: string;
    current: ApiError['current'];
}

export interface SheetRow {
    row: Row;
    figure: Entry;
    note: Entry;
    /** how the figure being typed would be judged; null when it is not known */
    verdict: Schemas['Verdict'] | null;
}

const RETRY_MS = 5_000;
const PREVIEW_MS = 180;
const STORE = 'kybernet:unsent';

type Unsent = Record<string, { text: string; version: number }>;

const unsentFrom = (): Unsent => {
    try {
        return JSON.parse(localStorage.getItem(STORE) ?? '{}') as Unsent;
    } catch {
        return {};
    }
};

/**
 * The entries of a month sheet: saved as they are left, one after the other for each cell. While the server is out of
 * reach they wait in the browser, survive a reload, and are sent when it is back.
 */
export function useEntries(
    owner: Ref<string>,
    period: Ref<string>,
    page: Ref<Schemas['LogbookPage'] | undefined>,
    onSaved: (row: Row) => void,
) {
    const sheet = reactive(new Map<number, SheetRow>());
    const timers = new Map<number, number>();

    const key = (id: number, what: 'figure' | 'note'): string => `${owner.value}/${id}/${period.value}/${what}`;

    const fresh = (text: string, version: number): Entry => ({
        text,
        saved: text,
        version,
        state: 'same',
        message: '',
        current: null,
    });

    watch(
        page,
        (loaded) => {
            if (loaded === undefined || loaded.period !== period.value) {
                return;
            }
            const ids = new Set(loaded.rows.map((row) => row.id));
            [...sheet.keys()].filter((id) => !ids.has(id)).forEach((id) => sheet.delete(id));
            const unsent = unsentFrom();
            for (const row of loaded.rows) {
                const known = sheet.get(row.id);
                const mayReplace = (entry: Entry | undefined): boolean => entry === undefined || entry.state === 'same';
                const entry = (
                    what: 'figure' | 'note',
                    text: string,
                    version: number,
                    old: Entry | undefined,
                ): Entry => {
                    if (
                        known?.row !== undefined &&
                        !mayReplace(old) &&
                        old !== undefined &&
                        sheetPeriod === period.value
                    ) {
                        return old;
                    }
                    const kept = unsent[key(row.id, what)];
                    return kept === undefined || kept.text === text
                        ? fresh(text, version)
                        : { ...fresh(text, version), text: kept.text, version: kept.version, state: 'waiting' };
                };
                sheet.set(row.id, {
                    row,
                    figure: entry('figure', row.typed, row.version, known?.figure),
                    note: entry('note', row.note?.text ?? '', row.note?.version ?? 0, known?.note),
                    verdict: row.verdict,
                });
            }
            sheetPeriod = period.value;
            void flush();
        },
        { immediate: true },
    );
    let sheetPeriod = period.value;

    function remember(id: number, what: 'figure' | 'note', entry: Entry): void {
        const others = Object.entries(unsentFrom()).filter(([stored]) => stored !== key(id, what));
        const own = [key(id, what), { text: entry.text, version: entry.version }] as const;
        const unsent = Object.fromEntries(entry.state === 'same' ? others : [...others, own]);
        localStorage.setItem(STORE, JSON.stringify(unsent));
    }

    /** A changed figure is judged by the server while it is being typed. */
    function type(id: number, text: string): void {
        const line = sheet.get(id);
        if (line === undefined) {
            return;
        }
        const { figure } = line;
        figure.text = text;
        figure.state = text === figure.saved ? 'same' : 'typing';
        figure.message = '';
        remember(id, 'figure', figure);
        window.clearTimeout(timers.get(id));
        timers.set(
            id,
            window.setTimeout(() => void preview(id), PREVIEW_MS),
        );
    }

    async function preview(id: number): Promise<void> {
        const line = sheet.get(id);
        if (line?.figure.state !== 'typing') {
            return;
        }
        const text = line.figure.text;
        try {
            const verdict = await read(
                api.POST('/api/measured/{measured}/readings/{period}/preview', {
                    params: { path: { measured: id, period: period.value } },
                    body: { typed: text, version: line.figure.version },
                }),
            );
            if (line.figure.text === text) {
                line.verdict = verdict;
            }
        } catch {
            // Half a number is no error yet; leaving the cell says what is wrong with it.
            line.verdict = null;
        }
    }

    function typeNote(id: number, text: string): void {
        const note = sheet.get(id)?.note;
        if (note !== undefined) {
            note.text = text;
            note.state = text === note.saved ? 'same' : 'typing';
            note.message = '';
            remember(id, 'note', note);
        }
    }

    async function save(id: number, what: 'figure' | 'note'): Promise<void> {
        const line = sheet.get(id);
        if (
            line === undefined ||
            !['typing', 'waiting', 'refused'].includes(line[what].state) ||
            line[what].text === line[what].saved
        ) {
            return;
        }
        const entry = line[what];
        const sent = entry.text;
        const month = period.value;
        entry.state = 'saving';
        const path = { measured: id, period: month };
        try {
            const row = await read(
                what === 'figure'
                    ? api.PUT('/api/measured/{measured}/readings/{period}', {
                          params: { path },
                          body: { typed: sent, version: entry.version },
                      })
                    : api.PUT('/api/measured/{measured}/notes/{period}', {
                          params: { path },
                          body: { text: sent, version: entry.version },
                      }),
            );
            line.row = row;
            entry.version = what === 'figure' ? row.version : (row.note?.version ?? 0);
            entry.saved = what === 'figure' ? row.typed : (row.note?.text ?? '');
            // What was typed while this was on its way is sent next.
            if (entry.text === sent) {
                entry.text = entry.saved;
                entry.state = 'same';
            } else {
                entry.state = 'typing';
            }
            entry.message = '';
            if (line.figure.state === 'same') {
                line.verdict = row.verdict;
            }
            remember(id, what, entry);
            onSaved(row);
        } catch (error) {
            fail(id, what, entry, error);
        }
    }

    function fail(id: number, what: 'figure' | 'note', entry: Entry, error: unknown): void {
        if (!(error instanceof ApiError)) {
            throw error;
        }
        entry.state =
            error.status === 409
                ? 'conflict'
                : error.isOffline || error.status === 401 || error.status === 419
                  ? 'waiting'
                  : 'refused';
        entry.message = Object.values(error.fields)[0] ?? error.detail;
        entry.current = error.current;
        remember(id, what, entry);
    }

    /** After a conflict: keep what was typed here, or take what the other person entered. */
    async function settle(id: number, what: 'figure' | 'note', mine: boolean): Promise<void> {
        const entry = sheet.get(id)?.[what];
        if (entry?.current == null) {
            return;
        }
        entry.version = entry.current.version;
        entry.saved = entry.current.text;
        entry.message = '';
        if (mine && entry.text !== entry.saved) {
            entry.state = 'typing';
            await save(id, what);
        } else {
            entry.text = entry.saved;
            entry.state = 'same';
            remember(id, what, entry);
            if (what === 'figure') {
                entry.state = 'typing';
                await preview(id);
                entry.state = 'same';
            }
        }
    }

    /** Put back what is saved. */
    function putBack(id: number): void {
        const line = sheet.get(id);
        if (line !== undefined) {
            line.figure = fresh(line.figure.saved, line.figure.version);
            line.verdict = line.row.verdict;
            remember(id, 'figure', line.figure);
        }
    }

    async function flush(): Promise<void> {
        for (const [id, line] of sheet) {
            for (const what of ['figure', 'note'] as const) {
                if (line[what].state === 'waiting') {
                    await save(id, what);
                }
            }
        }
    }

    const lines = computed(() => [...sheet.values()]);
    const entries = computed(() => lines.value.flatMap(({ figure, note }) => [figure, note]));
    const waiting = computed(() => entries.value.filter(({ state }) => state === 'waiting').length);
    const unsaved = computed(() => entries.value.filter(({ state }) => state !== 'same').length);
    const saving = computed(() => entries.value.some(({ state }) => state === 'saving'));

    useEventListener('online', () => void flush());
    useIntervalFn(() => {
        if (waiting.value > 0) {
            void flush();
        }
    }, RETRY_MS);
    useEventListener(window, 'beforeunload', (event) => {
        if (unsaved.value > 0) {
            event.preventDefault();
        }
    });

    return { lines, waiting, unsaved, saving, type, typeNote, save, settle, putBack };
}
