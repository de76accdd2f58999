// @vitest-environment happy-dom
import type { Schemas } from '@/api/client';
import YearGrid from '@/pages/logbook/YearGrid.vue';
import { beforeEach, expect, test } from 'vitest';
import { answer, asked, expectSound, Problem, soon, visit } from './mounting';

/* The year grid, worked by keyboard. */

const MONTHS = ['04', '05', '06', '07', '08'].map((month) => `2026-${month}`);
const row = (id: number, name: string, change: Partial<Schemas['GridRow']> = {}): Schemas['GridRow'] => ({
    id, code: name.toUpperCase(), name, measure: 'Ml/d', unit: 'Network', theme: 'Water', kind: 'entered', formula: '', asksReason: false,
    mine: true, periods: null, typed: ['1', '2', '3', '', ''], following: null, targetFormula: '', statuses: ['g', 'a', 'r', '', ''], locks: ['closed', '', '', '', 'future'],
    marks: ['', 'n', '', '', ''], total: null, ...change,
}); // prettier-ignore
const page = (rows: Schemas['GridRow'][]): Schemas['GridPage'] =>
    ({ year: 'FY2026', layer: 'actual', hasWeeks: false, columns: MONTHS.map((month) => ({ period: month, month, closed: month === '2026-04' })), rows }) as unknown as Schemas['GridPage']; // prettier-ignore

beforeEach(() => {
    localStorage.clear();
    // The grid draws what is in view; a document without a window has no height of its own.
    Object.defineProperties(HTMLElement.prototype, {
        clientHeight: { configurable: true, value: 600 },
        clientWidth: { configurable: true, value: 900 },
    });
    answer('POST /api/units/{unit}/cells', ({ body }) =>
        (body as { cells: { measurement: number; period: string; typed: string }[] }).cells.map((cell) => ({
            ...cell,
            status: 'g',
            refused: cell.typed === 'x' ? 'This is not a number.' : '',
            question: '',
        })),
    );
    answer('GET /api/units/{unit}/grid', () => page([row(1, 'Leakage'), row(2, 'Bursts'), row(3, 'Ratio', { kind: 'formula', formula: 'A / B', mine: false, locks: Array<'formula'>(5).fill('formula') })])); // prettier-ignore
});

async function grid() {
    const { wrapper } = await visit(YearGrid, '/year-grid?unit=NET&period=2026-06');
    await soon(30);
    const table = wrapper.get('[role=grid]');
    const press = async (key: string, more: KeyboardEventInit = {}) => {
        const editor = table.find('input');
        await (editor.exists() ? editor : table).trigger('keydown', { key, ...more });
        await soon(5);
    };
    const cell = () => wrapper.find(`#${table.attributes('aria-activedescendant') ?? ''}`);
    return { wrapper, table, press, cell };
}

test('is a grid of named rows and columns that begins at the chosen month', async () => {
    const { wrapper, table, cell } = await grid();

    expect(table.attributes()).toMatchObject({
        'aria-label': 'Figures FY2026, for Network',
        'aria-rowcount': '4',
        'aria-colcount': '7',
        'aria-activedescendant': 'cell-0-2',
    });
    expect(wrapper.findAll('[role=rowheader]').map((head) => head.text())).toEqual([
        'LeakageMl/d',
        'BurstsMl/d',
        'RatioMl/d',
    ]);
    expect(cell().attributes('aria-label')).toBe('3, off course');
    expect(wrapper.get('#cell-0-0').attributes()).toMatchObject({ 'aria-readonly': 'true', 'aria-label': '1, on course, cannot be typed in: closed' }); // prettier-ignore
    expect(wrapper.get('#cell-2-1').attributes('aria-label')).toContain('cannot be typed in: worked out: A / B');
    await expectSound(wrapper.element as Element);
});

test('moves by arrows and selects with them, and stays inside', async () => {
    const { table, press, wrapper } = await grid();
    await press('ArrowDown');
    await press('ArrowLeft');
    expect(table.attributes('aria-activedescendant')).toBe('cell-1-1');
    await press('ArrowRight', { shiftKey: true });
    expect(wrapper.findAll('[aria-selected=true]').map((each) => each.attributes('id'))).toEqual([
        'cell-1-1',
        'cell-1-2',
    ]);
    for (let step = 0; step < 9; step++) {
        await press('ArrowDown');
    }
    expect(table.attributes('aria-activedescendant')).toBe('cell-2-2');
});

test('a figure is typed over, tried by the server, and nothing is saved before it is said', async () => {
    const { press, table, cell, wrapper } = await grid();
    await press('4');
    await table.get('input').setValue('42');
    await press('Enter');
    await soon();

    expect(table.attributes('aria-activedescendant')).toBe('cell-1-2');
    expect(wrapper.get('#cell-0-2').attributes('aria-label')).toContain('not saved yet');
    expect(wrapper.get('[role=status]').text()).toContain('1 cell: 1 to save');
    expect(asked.filter(({ method }) => method !== 'GET').map(({ method, body }) => [method, body])).toMatchObject([
        ['POST', { cells: [{ measurement: 1, period: '2026-06', typed: '42' }] }],
    ]);
    expect(cell().exists()).toBe(true);
});

test('a bad figure is marked with its reason and kept, and undone', async () => {
    const { press, wrapper } = await grid();
    await press('x');
    await press('Enter');
    await soon();
    expect(wrapper.get('#cell-0-2').attributes('aria-label')).toContain('This is not a number.');
    expect(wrapper.get('[role=status]').text()).toContain('1 refused');

    await press('z', { ctrlKey: true });
    expect(wrapper.get('[role=status]').text()).toContain('Undone: typing, 1 cell.');
    expect(wrapper.get('#cell-0-2').attributes('aria-label')).toBe('3, off course');
});

test('locked cells take neither keys nor fills', async () => {
    const { press, table, wrapper } = await grid();
    await press('Home', { ctrlKey: true });
    await press('7');
    expect(table.find('input').exists()).toBe(false);

    await press('ArrowRight');
    await press('ArrowRight', { shiftKey: true });
    await press('ArrowRight', { shiftKey: true });
    await press('ArrowRight', { shiftKey: true });
    await press('r', { ctrlKey: true });
    await soon();
    // From May to July; August has not begun.
    expect([1, 2, 3, 4].map((column) => wrapper.get(`#cell-0-${column}`).text())).toEqual(['2', '2', '2', '']);
});

test('an empty filter says so, and leads back', async () => {
    const { wrapper } = await grid();
    await wrapper.get('input[type=search]').setValue('nothing');
    expect(wrapper.text()).toContain('No row has that name');
    await wrapper
        .findAll('button')
        .find((each) => each.text() === 'Show all rows')
        ?.trigger('click');
    await soon(30);
    expect(wrapper.findAll('[role=rowheader]')).toHaveLength(3);
});

test('a unit where nothing is measured says what to do; a broken server offers another try', async () => {
    answer('GET /api/units/{unit}/grid', () => page([]));
    const empty = await visit(YearGrid, '/year-grid?unit=NET&period=2026-06');
    expect(empty.wrapper.text()).toContain('Nothing is measured here');

    answer('GET /api/units/{unit}/grid', () => new Problem(500, 'The server could not finish this.'));
    const broken = await visit(YearGrid, '/year-grid?unit=WST&period=2026-06');
    expect(broken.wrapper.text()).toContain('The server could not finish this.');
    expect(broken.wrapper.findAll('button').map((each) => each.text())).toContain('Try again');
});
