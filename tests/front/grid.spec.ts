import { formatBlock, frame, parseBlock, periodOf, spreadOut, transpose } from '@/components/grid/clipboard';
import { usePasting } from '@/components/grid/usePasting';
import { summary } from '@/components/grid/summary';
import { useDrafts } from '@/components/grid/useDrafts';
import { useSelection, type Place } from '@/components/grid/useSelection';
import { describe, expect, test } from 'vitest';
import { ref } from 'vue';

/* What a person does in the entry grid, without the grid. */

describe('a block with names and periods', () => {
    const NAMES = ['Leakage', 'Bursts', 'Pressure'];
    const PERIODS = ['2026-04', '2026-05', '2026-06', '2026-07'];

    /** Pastes a text with the second cell of the second row selected, and tells what is typed where. */
    function pasted(text: string) {
        const typed: Record<string, string> = {};
        const selection = useSelection(ref(NAMES.length), ref(PERIODS.length));
        selection.go(1, 1);
        const pasting = usePasting(
            selection,
            {
                text: () => '',
                lock: () => '',
                rowOf: (name) => (NAMES.includes(name) ? NAMES.indexOf(name) : null),
                columnOf: (wanted) => {
                    const found = PERIODS.findIndex((each) => each.endsWith(wanted));
                    return found < 0 ? null : found;
                },
                change: (_, changes) =>
                    changes.forEach(([{ row, column }, value]) => (typed[`${NAMES[row]} ${PERIODS[column]}`] = value)),
            },
            () => false,
        );
        const clipboardData = { getData: () => text } as unknown as DataTransfer;
        pasting.paste({ clipboardData, preventDefault: () => undefined } as unknown as ClipboardEvent);
        return { typed, pasting };
    }

    for (const [name, text, typed, note] of [
        ['by both, in any order', 'KPI\tJul\tMay 2026\nPressure\t1\t2\nLeakage\t3\t4', { 'Pressure 2026-07': '1', 'Pressure 2026-05': '2', 'Leakage 2026-07': '3', 'Leakage 2026-05': '4' }, 'put by name and by period'], // prettier-ignore
        ['by name, from the selected column on', 'Pressure\t1\nLeakage\t2', { 'Pressure 2026-05': '1', 'Leakage 2026-05': '2' }, 'put by name'], // prettier-ignore
        ['by period, in the selected row', '06/2026\t2026-04\n5\t6', { 'Bursts 2026-06': '5', 'Bursts 2026-04': '6' }, 'put by period'], // prettier-ignore
        ['turned, where periods stand down', '\tLeakage\nApr\t7\nJun\t8', { 'Leakage 2026-04': '7', 'Leakage 2026-06': '8' }, 'put by name and by period, turned on its side'], // prettier-ignore
        ['and says what is not here', 'Leakage\t1\nSmells\t2', { 'Leakage 2026-05': '1' }, 'put by name, not here: Smells'], // prettier-ignore
    ] as [string, string, Record<string, string>, string][]) {
        test(`is put ${name}`, () => {
            const { typed: found, pasting } = pasted(text);
            expect(found).toEqual(typed);
            expect(pasting.note.value).toBe(note);
        });
    }

    test('is not put anywhere by position unless somebody says so', () => {
        const { typed, pasting } = pasted('Smells\t1\nTastes\t2');
        expect(typed).toEqual({});
        expect(pasting.note.value).toBe('Nothing is pasted: none of Smells, Tastes is here.');
        pasting.putAnyway();
        expect(typed).toEqual({ 'Bursts 2026-05': '1', 'Pressure 2026-05': '2' });
    });

    for (const [heading, period] of [
        ['Aug 2026', '2026-08'],
        ['August', '-08'],
        ["sep '26", '2026-09'],
        ['8/2026', '2026-08'],
        ['2026-W7', '2026-W07'],
        ['Total', null],
    ] as [string, string | null][]) {
        test(`knows ${heading}`, () => expect(periodOf(heading)).toBe(period));
    }
});

describe('a block from the clipboard', () => {
    for (const [name, text, block] of [
        ['cells and rows', '1\t2\n3\t4', [['1', '2'], ['3', '4']]], // prettier-ignore
        ['a last line break that spreadsheets add', '1\t2\r\n', [['1', '2']]],
        ['an empty cell at an end', '1\t\n\t4', [['1', ''], ['', '4']]], // prettier-ignore
        ['rows of several lengths', '1\n2\t3', [['1', ''], ['2', '3']]], // prettier-ignore
        ['a line break and quotes inside of a cell', '"a\nb ""c"""\t2', [['a\nb "c"', '2']]],
        ['a quote that is not the first sign', '5" pipe\t2', [['5" pipe', '2']]],
        ['nothing', '', [['']]],
    ] as [string, string, string[][]][]) {
        test(`is read with ${name}`, () => expect(parseBlock(text)).toEqual(block));
    }

    test('comes back as it went, whatever is in it', () => {
        const signs = ['1', '-2.5', 'a', '"', '\t', '\n', ' ', '£'];
        let seed = 7;
        const next = (most: number): number => (seed = (seed * 48271) % 2147483647) % most;
        for (let time = 0; time < 200; time++) {
            const cell = (): string => Array.from({ length: next(5) }, () => signs[next(signs.length)]).join('');
            const block = Array.from({ length: 1 + next(4) }, () => ['x', cell(), cell()]);
            expect(parseBlock(formatBlock(block))).toEqual(block.map((row) => row.map(unfooled)));
        }
    });
    /** What a spreadsheet would take for a formula goes out as text. */
    const unfooled = (cell: string): string =>
        /^-(?![\d.,]+$)/.test(cell) && !/["\t\n]/.test(cell) ? `'${cell}` : cell;

    for (const [cell, out] of [
        ['=1+1', "'=1+1"],
        ['@home', "'@home"],
        ['-5', '-5'],
        ['-1,250.5', '-1,250.5'],
        ['-now', "'-now"],
    ] as [string, string][]) {
        test(`hands ${cell} out as ${out}`, () => expect(formatBlock([[cell]])).toBe(out));
    }

    for (const [name, text, found] of [
        ['figures alone', '1\t2\n3\t4', { rows: 0, columns: 0, months: 'unknown' }],
        ['months above', 'Apr\tMay 2026\n1\t2', { rows: 1, columns: 0, months: 'across' }],
        [
            'months above and names before',
            'KPI\t2026-04\t2026-05\nLeakage\t1\t2',
            { rows: 1, columns: 1, months: 'across' },
        ],
        ['months before', '04/2026\t1\n05/2026\t2', { rows: 0, columns: 1, months: 'down' }],
        ['names before', 'Leakage\t1\nBursts\t2', { rows: 0, columns: 1, months: 'unknown' }],
        ['one figure', '1', { rows: 0, columns: 0, months: 'unknown' }],
    ] as [string, string, ReturnType<typeof frame>][]) {
        test(`knows ${name}`, () => expect(frame(parseBlock(text))).toEqual(found));
    }

    test('is turned', () => expect(transpose([['1', '2', '3'], ['4', '5', '6']])).toEqual([['1', '4'], ['2', '5'], ['3', '6']])); // prettier-ignore
});

describe('a block that is put into a grid', () => {
    const last = { row: 2, column: 2 };
    const at = { row: 1, column: 1 };
    const selected = [at, last];
    const landed = (block: string[][]) => {
        const { cells, beyond } = spreadOut(block, at, selected, last);
        return `${cells.map(([to, text]) => `${to.row}${to.column}:${text}`).join(' ')} | ${beyond}`;
    };

    for (const [name, block, found] of [
        [
            'lands beside its first cell',
            [
                ['1', ' 2 '],
                ['3', ''],
            ],
            '11:1 12:2 21:3 22: | 0',
        ],
        ['fills the selection when it is one value', [[' 7']], '11:7 22:7 | 0'],
        [
            'is cut off at the ends, and what is lost is counted',
            [
                ['1', '2', '3', ''],
                ['4', '5', '', '6'],
            ],
            '11:1 12:2 21:4 22:5 | 2',
        ],
    ] as [string, string[][], string][]) {
        // prettier-ignore
        test(name, () => expect(landed(block)).toBe(found));
    }

    test('is summed up: figures only', () => {
        expect(summary(['1,5', '', 'amber', '-2'], ',')).toEqual({ mean: -0.25, sum: -0.5 });
        expect(summary(['', 'amber'], '.')).toBeNull();
    });
});

describe('what is typed and not saved yet', () => {
    test('is undone and done again in whole steps', () => {
        const saved = new Map([['a', '1'], ['b', '2']]); // prettier-ignore
        const edits = useDrafts((key) => saved.get(key) ?? '');
        expect(edits.apply('Paste', [['a', '10'], ['b', '2'], ['c', '3']])).toEqual(['a', 'c']); // prettier-ignore
        edits.apply('Type', [['a', '11']]);
        expect([edits.shown('a'), edits.shown('b'), edits.shown('c')]).toEqual(['11', '2', '3']);

        expect(edits.undo()?.name).toBe('Type');
        expect(edits.undo()?.name).toBe('Paste');
        expect(edits.drafts.size).toBe(0);
        expect(edits.undo()).toBeNull();
        edits.redo();
        expect(edits.shown('a')).toBe('10');
        expect(edits.undone.value?.name).toBe('Type');

        edits.apply('Clear', [['a', '']]);
        expect(edits.redo()).toBeNull();
    });

    test('remembers what stood there when it was typed, not what stands there now', () => {
        let stands = '1';
        const edits = useDrafts(() => stands);
        edits.apply('Type', [['a', '5']]);
        stands = '2';
        edits.apply('Type', [['a', '6']]);
        expect(edits.drafts.get('a')?.was).toBe('1');
        edits.apply('Type', [['a', '1']]);
        expect(edits.drafts.has('a')).toBe(true);
        edits.apply('Type', [['a', '2']]);
        expect(edits.drafts.has('a')).toBe(false);
    });
});

describe('a cell on its way to the server', () => {
    const START = '1';
    /** Types 5 over 1, sends it, does something meanwhile, and lands with the outcome. */
    function sendAndLand(
        meanwhile: (edits: ReturnType<typeof useDrafts>) => void,
        outcome: 'saved' | 'refused' | 'conflict',
        stands: string,
    ) {
        // prettier-ignore
        let held = START;
        const edits = useDrafts(() => held);
        edits.apply('Type', [['a', '5']]);
        const sent = edits.depart();
        meanwhile(edits);
        held = outcome === 'refused' ? held : stands;
        sent.forEach(([key, draft]) => edits.land(key, draft, { outcome, typed: stands, reason: 'so it is' }));
        return edits;
    }
    const nothing = (): void => undefined;
    const type = (text: string) => (edits: ReturnType<typeof useDrafts>) => void edits.apply('Type', [['a', text]]);

    for (const [name, meanwhile, outcome, stands, shown, state, was] of [
        ['is saved', nothing, 'saved', '5', '5', undefined, undefined],
        ['is refused', nothing, 'refused', '5', '5', 'refused', '1'],
        ['was changed by somebody else', nothing, 'conflict', '7', '5', 'conflict', '1'],
        ['is saved, and typed again meanwhile', type('6'), 'saved', '5', '6', 'typed', '5'],
        ['is saved, and put back meanwhile', type('1'), 'saved', '5', '1', 'typed', '5'],
        ['is saved, and undone meanwhile', (edits) => void edits.undo(), 'saved', '5', '1', 'typed', '5'],
        ['is refused, and typed again meanwhile', type('6'), 'refused', '5', '6', 'typed', '1'],
        ['is refused, and put back meanwhile', type('1'), 'refused', '5', '1', undefined, undefined],
        ['was changed elsewhere, and typed again', type('6'), 'conflict', '7', '6', 'conflict', '1'],
        ['was changed elsewhere, and put back', type('1'), 'conflict', '7', '7', undefined, undefined],
    ] as [
        string,
        Parameters<typeof sendAndLand>[0],
        'saved' | 'refused' | 'conflict',
        string,
        string,
        string?,
        string?,
    ][]) {
        // prettier-ignore
        test(name, () => {
            const edits = sendAndLand(meanwhile, outcome, stands);
            expect(edits.shown('a')).toBe(shown);
            expect(edits.drafts.get('a')?.state).toBe(state);
            expect(edits.drafts.get('a')?.was).toBe(was);
        });
    }

    test('is not taken for sound by a verdict that comes late', () => {
        const verdict = { typed: '5.0', refused: '', status: 'g', question: '' };
        const judge = (edits: ReturnType<typeof useDrafts>, judged = edits.drafts.get('a')): unknown => {
            if (judged !== undefined) {
                edits.judge('a', judged, verdict);
            }
            return edits.drafts.get('a');
        };
        expect(judge(sendAndLand(nothing, 'conflict', '7'))).toMatchObject({ state: 'conflict' });

        const edits = useDrafts(() => START);
        type('5')(edits);
        const before = edits.drafts.get('a');
        const sent = edits.depart();
        expect(judge(edits, before)).toMatchObject({ state: 'sending' });
        expect(judge(edits)).toMatchObject({ state: 'sending' });
        edits.comeBack(sent);
        expect(edits.drafts.get('a')).toEqual(before);
        expect(judge(edits)).toEqual({ text: '5.0', was: '1', state: 'sound', status: 'g', words: '' });
    });

    test('goes over what the other entered, or gives way to it', () => {
        const mine = sendAndLand(nothing, 'conflict', '7');
        mine.settle('a', true);
        expect(mine.drafts.get('a')).toMatchObject({ text: '5', was: '7', state: 'sound' });
        const theirs = sendAndLand(nothing, 'conflict', '7');
        theirs.settle('a', false);
        expect(theirs.shown('a')).toBe('7');
        const typed = sendAndLand(nothing, 'conflict', '7');
        type('6')(typed);
        expect(typed.drafts.get('a')).toMatchObject({ text: '6', was: '7', state: 'typed' });
    });

    test('takes with it only the steps that were done before', () => {
        const edits = sendAndLand((edits) => void edits.apply('Fill', [['b', '9']]), 'saved', '5');
        expect(edits.last.value).toMatchObject({ name: 'Fill', saved: false });
        edits.undo();
        expect(edits.last.value).toMatchObject({ name: 'Type', saved: true });
    });
});

describe('a selection', () => {
    const key = (name: string, held: Partial<KeyboardEvent> = {}) =>
        ({ key: name, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, preventDefault: () => undefined, ...held }) as KeyboardEvent; // prettier-ignore
    // Filled are the first three rows of the first column, and the first row.
    const isFilled = ({ row, column }: Place): boolean => (column === 0 && row < 3) || row === 0;

    for (const [name, keys, active, size] of [
        ['goes by arrows and stops at the ends', [key('ArrowUp'), key('ArrowRight'), key('ArrowDown')], [1, 1], 1],
        ['reaches by Shift', [key('ArrowDown', { shiftKey: true }), key('ArrowRight', { shiftKey: true })], [1, 1], 4],
        ['jumps by Ctrl to the end of a run', [key('ArrowDown', { ctrlKey: true })], [2, 0], 1],
        [
            'jumps over what is empty',
            [key('End'), key('ArrowDown', { ctrlKey: true }), key('ArrowLeft', { ctrlKey: true })],
            [4, 0],
            1,
        ],
        [
            'jumps to the next that is filled',
            [key('ArrowDown'), key('End'), key('ArrowLeft', { ctrlKey: true })],
            [1, 0],
            1,
        ],
        [
            'jumps to the last one where it stands alone',
            [key('ArrowDown', { ctrlKey: true }), key('ArrowDown', { ctrlKey: true })],
            [4, 0],
            1,
        ],
        ['stays where there is nothing beyond', [key('ArrowUp', { ctrlKey: true })], [0, 0], 1],
        ['takes the row by Shift and End', [key('End', { shiftKey: true })], [0, 2], 3],
        ['goes on in the next row by Tab', [key('End'), key('Tab')], [1, 0], 1],
        ['comes back by Shift and Tab', [key('ArrowDown'), key('Tab', { shiftKey: true })], [0, 2], 1],
        ['goes down by Enter', [key('Enter'), key('Enter'), key('Enter', { shiftKey: true })], [1, 0], 1],
        ['goes by pages', [key('PageDown'), key('PageDown'), key('PageUp')], [2, 0], 1],
        ['takes all', [key('a', { ctrlKey: true })], [4, 2], 15],
    ] as [string, KeyboardEvent[], [number, number], number][]) {
        test(name, () => {
            const selection = useSelection(ref(5), ref(3));
            keys.forEach((each) => expect(selection.onKey(each, 2, isFilled)).toBe(true));
            expect([selection.active.row, selection.active.column]).toEqual(active);
            expect(selection.size.value).toBe(size);
            expect([...selection.places()]).toHaveLength(size);
        });
    }

    test('lets the focus out at its ends, and other keys through', () => {
        const selection = useSelection(ref(5), ref(3));
        expect(selection.onKey(key('Tab', { shiftKey: true }), 2, isFilled)).toBe(false);
        expect(selection.onKey(key('x'), 2, isFilled)).toBe(false);
        selection.go(4, 2);
        expect(selection.onKey(key('Tab'), 2, isFilled)).toBe(false);
    });
});
