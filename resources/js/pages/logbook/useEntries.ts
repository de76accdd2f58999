import { ApiError, api, read, type Schemas } from '@/api/client';
import { useEventListener, useIntervalFn } from '@vueuse/core';
import { computed, reactive, watch, type Ref } from 'vue';
import {
    fresh,
    parts,
    partsOf,
    same,
    useUnsent,
    type Entry,
    type NoteParts,
    type TypedParts,
    type What,
} from './entry';

type Row = Schemas['LogbookRow'];

export interface SheetRow {
    /** `52/2026-08`: the KPI in its unit, and the period */
    key: string;
    row: Row;
    figure: Entry<string>;
    note: Entry<NoteParts>;
    /** of a figure that is the sum of some; none otherwise */
    parts: Entry<TypedParts>;
    /** how the figure being typed would be judged; null when it is not known */
    verdict: Schemas['Verdict'] | null;
}

const RETRY_MS = 5_000;
const PREVIEW_MS = 180;

/**
 * The entries of a month sheet: saved as they are left, one after the other for each cell. While the server is out of
 * reach they wait in the browser, survive a reload, and are sent when it is back.
 */
export function useEntries(
    owner: Ref<string>,
    page: Ref<Schemas['LogbookPage'] | undefined>,
    onSaved: (row: Row) => void,
) {
    const sheet = reactive(new Map<string, SheetRow>());
    const timers = new Map<string, number>();
    // A second entry in a cell waits for the version that the first one gets.
    const queues = new Map<string, Promise<void>>();
    let sheetPeriod = '';

    const unsent = useUnsent(() => owner.value);
    const { remember } = unsent;

    watch(
        page,
        (loaded) => {
            if (loaded === undefined) {
                return;
            }
            const keys = new Set(loaded.rows.map((row) => `${row.id}/${row.period}`));
            [...sheet.keys()].filter((key) => !keys.has(key)).forEach((key) => sheet.delete(key));
            const kept = unsent.all();
            const isSame = sheetPeriod === loaded.period;
            for (const row of loaded.rows) {
                const key = `${row.id}/${row.period}`;
                const known = sheet.get(key);
                const entry = <T>(what: What, value: T, version: number, old: Entry<T> | undefined): Entry<T> => {
                    if (isSame && old !== undefined && old.state !== 'same') {
                        return old;
                    }
                    const own = unsent.of(kept, key, what);
                    return own === undefined || same(own.value, value)
                        ? fresh(value, version)
                        : { ...fresh(value, version), value: own.value as T, version: own.version, state: 'waiting' };
                };
                sheet.set(key, {
                    key,
                    row,
                    figure: entry('figure', row.typed, row.version, known?.figure),
                    note: entry('note', parts(row.note), row.note?.version ?? 0, known?.note),
                    parts: entry('parts', partsOf(row), row.version, known?.parts),
                    verdict: row.verdict,
                });
            }
            sheetPeriod = loaded.period;
            void flush();
        },
        { immediate: true },
    );

    function typed<T>(key: string, what: What, entry: Entry<T>, value: T): void {
        entry.value = value;
        entry.state = same(value, entry.saved) ? 'same' : 'typing';
        entry.message = '';
        remember(key, what, entry);
    }

    /** A changed figure is judged by the server while it is being typed. */
    function type(key: string, text: string): void {
        const line = sheet.get(key);
        if (line !== undefined) {
            typed(key, 'figure', line.figure, text);
            window.clearTimeout(timers.get(key));
            timers.set(
                key,
                window.setTimeout(() => void preview(key), PREVIEW_MS),
            );
        }
    }

    async function preview(key: string): Promise<void> {
        const line = sheet.get(key);
        if (line === undefined || (line.figure.state !== 'typing' && line.figure.state !== 'same')) {
            return;
        }
        const text = line.figure.value;
        try {
            const verdict = await read(
                api.POST('/api/measurements/{measurement}/readings/{period}/preview', {
                    params: { path: { measurement: line.row.id, period: line.row.period } },
                    body: { typed: text, version: line.figure.version },
                }),
            );
            if (line.figure.value === text) {
                line.verdict = verdict;
            }
        } catch {
            // Half a number is no error yet; leaving the cell says what is wrong with it.
            line.verdict = null;
        }
    }

    function typeNote(key: string, change: Partial<NoteParts>): void {
        const note = sheet.get(key)?.note;
        if (note !== undefined) {
            typed(key, 'note', note, { ...note.value, ...change });
        }
    }

    function typePart(key: string, part: string, text: string): void {
        const entry = sheet.get(key)?.parts;
        if (entry !== undefined) {
            typed(key, 'parts', entry, { ...entry.value, [part]: text });
        }
    }

    const isPending = (entry: Entry<unknown>): boolean =>
        ['typing', 'waiting', 'refused'].includes(entry.state) && !same(entry.value, entry.saved);

    function save(key: string, what: What): Promise<void> {
        const turn = (queues.get(key) ?? Promise.resolve()).then(() => saveNow(key, what));
        queues.set(
            key,
            turn.catch(() => undefined),
        );
        return turn;
    }

    async function saveNow(key: string, what: What): Promise<void> {
        const line = sheet.get(key);
        if (line === undefined) {
            return;
        }
        // A colour goes with its reason, or waits for it.
        if (line.row.asksReason && line.figure.value !== '' && isPending(line.figure)) {
            if (line.note.value.text.trim() === '') {
                line.figure.message = 'Say why, then it is saved.';
                return;
            }
            await send(line, 'figure', isPending(line.note));
        } else if (isPending(line[what])) {
            await send(line, what, false);
        }
    }

    /** A figure over the counted one, with the reason that stands beside it; blank takes it back. */
    function putOver(key: string, text: string): Promise<void> {
        const turn = (queues.get(key) ?? Promise.resolve()).then(async () => {
            const line = sheet.get(key);
            if (line !== undefined) {
                line.figure.value = text;
                await send(line, 'figure', isPending(line.note));
            }
        });
        queues.set(
            key,
            turn.catch(() => undefined),
        );
        return turn;
    }

    async function send(line: SheetRow, what: What, together: boolean): Promise<void> {
        const { figure, note } = line;
        const sent = { figure: figure.value, note: note.value, parts: line.parts.value };
        const written: What[] = together ? ['figure', 'note'] : [what];
        const path = { measurement: line.row.id, period: line.row.period };
        written.forEach((each) => (line[each].state = 'saving'));
        try {
            const row = await read(
                what === 'parts'
                    ? api.PUT('/api/measurements/{measurement}/readings/{period}', {
                          params: { path },
                          body: { typed: '', parts: sent.parts, version: line.parts.version },
                      })
                    : what === 'figure'
                      ? api.PUT('/api/measurements/{measurement}/readings/{period}', {
                            params: { path },
                            body: {
                                typed: sent.figure,
                                version: figure.version,
                                note: together ? { ...sent.note, version: note.version } : null,
                            },
                        })
                      : api.PUT('/api/measurements/{measurement}/notes/{period}', {
                            params: { path },
                            body: { ...sent.note, version: note.version },
                        }),
            );
            line.row = row;
            settleSaved(line, 'figure', figure, row.typed, row.version, written, sent.figure);
            settleSaved(line, 'parts', line.parts, partsOf(row), row.version, written, sent.parts);
            // The sum is what its parts are, and they stand at its version.
            if (what === 'parts') {
                line.figure = fresh(row.typed, row.version);
                line.verdict = row.verdict;
            } else if (what === 'figure' && line.parts.state === 'same') {
                line.parts = fresh(partsOf(row), row.version);
            }
            settleSaved(line, 'note', note, parts(row.note), row.note?.version ?? 0, written, sent.note);
            if (figure.state === 'same') {
                line.verdict = row.verdict;
            }
            onSaved(row);
        } catch (error) {
            written.forEach((each) => fail(line.key, each, line[each], error));
        }
    }

    function settleSaved<T>(
        line: SheetRow,
        what: What,
        entry: Entry<T>,
        value: T,
        version: number,
        written: What[],
        sent: T,
    ): void {
        if (!written.includes(what)) {
            return;
        }
        entry.version = version;
        entry.saved = value;
        // What was typed while this was on its way is sent next.
        if (same(entry.value, sent)) {
            entry.value = value;
            entry.state = 'same';
        } else {
            entry.state = 'typing';
        }
        entry.message = '';
        remember(line.key, what, entry);
    }

    function fail(key: string, what: What, entry: Entry<unknown>, error: unknown): void {
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
        remember(key, what, entry);
    }

    /** After a conflict: keep what was typed here, or take what the other person entered. */
    async function settle(key: string, what: What, mine: boolean): Promise<void> {
        const line = sheet.get(key);
        const current = line?.[what].current;
        if (line === undefined || current == null) {
            return;
        }
        const theirs =
            what === 'figure'
                ? current.text
                : what === 'parts'
                  ? { ...Object.fromEntries(Object.keys(line.parts.value).map((part) => [part, ''])), ...current.parts }
                  : { text: current.text, outlook: current.outlook ?? '', doing: current.doing ?? '' };
        const entry = line[what] as Entry<unknown>;
        if (what === 'parts') {
            line.figure = fresh(current.text, current.version);
        }
        entry.version = current.version;
        entry.saved = theirs;
        entry.message = '';
        if (mine && !same(entry.value, theirs)) {
            entry.state = 'typing';
            await save(key, what);
        } else {
            entry.value = theirs;
            entry.state = 'same';
            remember(key, what, entry);
            if (what === 'figure') {
                await preview(key);
            }
        }
    }

    /** Put back what is saved. */
    function putBack(key: string): void {
        const line = sheet.get(key);
        if (line !== undefined) {
            line.figure = fresh(line.figure.saved, line.figure.version);
            line.verdict = line.row.verdict;
            remember(key, 'figure', line.figure);
        }
    }

    async function flush(): Promise<void> {
        for (const [key, line] of sheet) {
            for (const what of ['figure', 'note', 'parts'] as const) {
                if (line[what].state === 'waiting') {
                    await save(key, what);
                }
            }
        }
    }

    /** When everything that is on its way has come back. */
    async function settled(): Promise<void> {
        await Promise.all(queues.values());
    }

    const lines = computed(() => [...sheet.values()]);
    const entries = computed(() => lines.value.flatMap(({ figure, note, parts: own }) => [figure, note, own]));
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

    return { lines, waiting, unsaved, saving, type, typeNote, typePart, save, settled, settle, putBack, putOver };
}
