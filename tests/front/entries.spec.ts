import { api, type Schemas } from '@/api/client';
import { useEntries } from '@/pages/logbook/useEntries';
import { beforeEach, expect, test } from 'vitest';
import { nextTick, ref } from 'vue';

/* The month sheet between the hand and the server: nothing that was typed is lost, whatever comes back. */

type Row = Schemas['LogbookRow'];
interface Sent {
    typed?: string;
    text?: string;
    version: number;
    note?: { text: string; version: number } | null;
}
type Answer = { status: number; data?: unknown; error?: unknown } | 'unreachable';

const KEY = '1/2026-08';
const row = (typed: string, version: number, more: Partial<Row> = {}): Row =>
    ({
        id: 1,
        period: '2026-08',
        kind: 'entered',
        typed,
        version,
        note: null,
        parts: [],
        verdict: {},
        ...more,
    }) as unknown as Row;

const idle = (): void => undefined;
let sent: Sent[];
let stored: Map<string, string>;
/** What the server says, request by request. */
let answers: (Answer | Promise<Answer>)[];

beforeEach(() => {
    [sent, stored, answers] = [[], new Map(), []];
    Object.assign(globalThis, {
        // Nothing is previewed here, and nobody leaves the page.
        window: { setTimeout: idle, clearTimeout: idle, addEventListener: idle, removeEventListener: idle },
        localStorage: {
            getItem: (name: string) => stored.get(name) ?? null,
            setItem: (name: string, text: string) => stored.set(name, text),
        },
    });
    const send = async (_: string, { body }: { body: Sent }): Promise<unknown> => {
        sent.push(JSON.parse(JSON.stringify(body)) as Sent);
        const answer = await (answers.shift() ?? 'unreachable');
        if (answer === 'unreachable') {
            throw new TypeError('fetch failed');
        }
        const { status, data, error } = answer;
        return { data, error, response: { ok: status < 300, status } };
    };
    Object.assign(api, { PUT: send });
});

function opened(first: Row, page = ref({ period: '2026-08', rows: [first] } as unknown as Schemas['LogbookPage'])) {
    const sheet = useEntries(ref('Ines'), page, () => undefined);
    const line = () => {
        const found = sheet.lines.value[0];
        if (found === undefined) {
            throw new Error('The sheet has a line.');
        }
        return found;
    };
    return { sheet, page, line };
}
const saved = (typed: string, version: number, more: Partial<Row> = {}): Answer => ({ status: 200, data: row(typed, version, more) }); // prettier-ignore
const conflict: Answer = { status: 409, error: { detail: 'Tom entered 7.', current: { text: '7', version: 4, by: 'Tom' } } }; // prettier-ignore

test('a figure is saved as the server writes it', async () => {
    const { sheet, line } = opened(row('5', 1));
    answers = [saved('6.0', 2)];
    sheet.type(KEY, '6');
    expect(line().figure.state).toBe('typing');
    await sheet.save(KEY, 'figure');
    expect(sent).toEqual([{ typed: '6', version: 1, note: null }]);
    expect(line().figure).toMatchObject({ value: '6.0', saved: '6.0', version: 2, state: 'same' });
    expect(sheet.unsaved.value).toBe(0);
});

test('what was not changed is not sent', async () => {
    const { sheet, line } = opened(row('5', 1));
    sheet.type(KEY, '6');
    sheet.type(KEY, '5');
    await sheet.save(KEY, 'figure');
    expect([sent.length, line().figure.state]).toEqual([0, 'same']);
});

test('a refused figure stays as it was typed, with the reason', async () => {
    const { sheet, line } = opened(row('5', 1));
    answers = [{ status: 422, error: { errors: [{ pointer: '/typed', detail: "'6o' is not a number." }] } }];
    sheet.type(KEY, '6o');
    await sheet.save(KEY, 'figure');
    expect(line().figure).toMatchObject({
        value: '6o',
        saved: '5',
        state: 'refused',
        message: "'6o' is not a number.",
    });
    sheet.putBack(KEY);
    expect(line().figure).toMatchObject({ value: '5', version: 1, state: 'same', message: '' });
});

for (const [name, mine, then, value, requests] of [
    ['mine goes over theirs, with the version of theirs', true, [saved('6', 5)], '6', 2],
    ['theirs is taken', false, [], '7', 1],
] as [string, boolean, Answer[], string, number][]) {
    test(`in a conflict ${name}`, async () => {
        const { sheet, line } = opened(row('5', 1));
        answers = [conflict, ...then];
        sheet.type(KEY, '6');
        await sheet.save(KEY, 'figure');
        expect(line().figure).toMatchObject({ value: '6', state: 'conflict', message: 'Tom entered 7.' });
        await sheet.save(KEY, 'figure');
        expect(sent).toHaveLength(1);
        await sheet.settle(KEY, 'figure', mine);
        expect(sent).toHaveLength(requests);
        expect(sent.at(-1)?.version).toBe(mine ? 4 : 1);
        expect(line().figure).toMatchObject({ value, saved: value, state: 'same' });
    });
}

test('typed again while it is on its way, it is sent again with the version that comes back', async () => {
    const { sheet, line } = opened(row('5', 1));
    let answer: (answer: Answer) => void = () => undefined;
    answers = [new Promise((resolve) => (answer = resolve)), saved('8', 3)];
    sheet.type(KEY, '6');
    const first = sheet.save(KEY, 'figure');
    await Promise.resolve();
    sheet.type(KEY, '8');
    const second = sheet.save(KEY, 'figure');
    answer(saved('6', 2));
    await Promise.all([first, second, sheet.settled()]);
    expect(sent.map(({ typed, version }) => [typed, version])).toEqual([['6', 1], ['8', 2]]); // prettier-ignore
    expect(line().figure).toMatchObject({ value: '8', version: 3, state: 'same' });
});

test('out of reach, it waits in the browser, survives a reload, and is sent when the server is back', async () => {
    const before = opened(row('5', 1));
    before.sheet.type(KEY, '6');
    await before.sheet.save(KEY, 'figure');
    expect([before.line().figure.state, before.sheet.waiting.value]).toEqual(['waiting', 1]);

    answers = [saved('6', 2)];
    const after = opened(row('5', 1));
    expect(after.line().figure.value).toBe('6');
    await after.sheet.settled();
    expect(sent.map(({ version }) => version)).toEqual([1, 1]);
    expect(after.line().figure).toMatchObject({ value: '6', version: 2, state: 'same' });
    expect(stored.get('kybernet:unsent')).toBe('{}');
});

test('what the server sends anew takes the place of what was saved, not of what is being typed', async () => {
    const { sheet, page, line } = opened(row('5', 1));
    sheet.type(KEY, '6');
    page.value = { ...page.value, rows: [row('7', 4)] };
    await nextTick();
    expect(line().figure).toMatchObject({ value: '6', version: 1, state: 'typing' });
    sheet.putBack(KEY);
    page.value = { ...page.value, rows: [row('7', 4)] };
    await nextTick();
    expect(line().figure).toMatchObject({ value: '7', version: 4, state: 'same' });
});

test('a colour waits for its reason, and both go together', async () => {
    const { sheet, line } = opened(row('', 0, { kind: 'judged', asksReason: true }));
    sheet.type(KEY, 'amber');
    await sheet.save(KEY, 'figure');
    expect([sent.length, line().figure.message]).toEqual([0, 'Say why, then it is saved.']);

    const note = { text: 'Late', outlook: '', doing: '', version: 1 };
    answers = [saved('amber', 1, { kind: 'judged', asksReason: true, note: note as unknown as Row['note'] })];
    sheet.typeNote(KEY, { text: 'Late' });
    await sheet.save(KEY, 'note');
    expect(sent).toMatchObject([{ typed: 'amber', version: 0, note: { text: 'Late', version: 0 } }]);
    expect([line().figure.state, line().note.state, line().note.version]).toEqual(['same', 'same', 1]);
});

test('parts are sent together; a conflict keeps them, or takes what stands there', async () => {
    const parts = (mains: string, hydrants: string): Partial<Row> => ({
        parts: [
            { part: 'mains', typed: mains },
            { part: 'hydrants', typed: hydrants },
        ],
    });
    const { sheet, line } = opened(row('5', 1, parts('3', '2')));
    answers = [
        { status: 409, error: { detail: 'Tom entered 7.', current: { text: '7', parts: { mains: '7' }, version: 4, by: 'Tom' } } },
        saved('6.0', 5, parts('4', '2')),
    ]; // prettier-ignore
    sheet.typePart(KEY, 'mains', '4');
    await sheet.save(KEY, 'parts');
    expect([sent[0], line().parts.state]).toEqual([
        { typed: '', parts: { mains: '4', hydrants: '2' }, version: 1 },
        'conflict',
    ]);
    await sheet.settle(KEY, 'parts', true);
    expect(sent[1]).toMatchObject({ parts: { mains: '4', hydrants: '2' }, version: 4 });
    expect(line().parts).toMatchObject({ state: 'same', version: 5 });
    expect(line().figure).toMatchObject({ value: '6.0', version: 5, state: 'same' });
});
