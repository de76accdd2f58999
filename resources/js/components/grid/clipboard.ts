import type { Place } from './useSelection';

/** Blocks of cells as spreadsheets put them on the clipboard: tabs between cells, quotes around cells with line breaks. */
export type Block = string[][];

export function parseBlock(text: string): Block {
    const rows: Block = [];
    let row: string[] = [];
    let cell = '';
    let quoted = false;
    const plain = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
    for (let at = 0; at < plain.length; at++) {
        const sign = plain.charAt(at);
        if (quoted) {
            if (sign === '"' && plain[at + 1] === '"') {
                cell += '"';
                at++;
            } else if (sign === '"') {
                quoted = false;
            } else {
                cell += sign;
            }
        } else if (sign === '"' && cell === '') {
            quoted = true;
        } else if (sign === '\t' || sign === '\n') {
            row.push(cell);
            cell = '';
            if (sign === '\n') {
                rows.push(row);
                row = [];
            }
        } else {
            cell += sign;
        }
    }
    rows.push([...row, cell]);
    const width = Math.max(...rows.map((each) => each.length));
    return rows.map((each) => [...each, ...Array<string>(width - each.length).fill('')]);
}

/** A cell that a spreadsheet would take for a formula goes out as text. */
const safe = (cell: string): string => (/^[=+@]|^-(?![\d.,]+$)/.test(cell) ? `'${cell}` : cell);

export const formatBlock = (block: Block): string =>
    block
        .map((row) =>
            row.map((cell) => (/["\t\n]/.test(cell) ? `"${cell.replace(/"/g, '""')}"` : safe(cell))).join('\t'),
        )
        .join('\n');

export const transpose = (block: Block): Block =>
    (block[0] ?? []).map((_, column) => block.map((row) => row[column] ?? ''));

const MONTH =
    /^(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?( |-|\/|'|$)|^\d{4}-(\d{2}|w\d{2})$|^\d{1,2}[./]\d{4}$/i;
const isPeriod = (cell: string): boolean => MONTH.test(cell.trim());
const isWord = (cell: string): boolean => cell.trim() !== '' && !/\d/.test(cell);

/** What stands around the figures of a block: a row of months above them, names or months before them. */
export function frame(block: Block): { rows: number; columns: number; months: 'across' | 'down' | 'unknown' } {
    const first = block[0] ?? [];
    const lead = block.map((row) => row[0] ?? '');
    const above =
        block.length > 1 &&
        first.filter((cell) => isPeriod(cell) || isWord(cell)).length * 2 >
            first.filter((cell) => cell.trim() !== '').length;
    const below = above ? lead.slice(1) : lead;
    const before =
        first.length > 1 &&
        below.filter((cell) => isPeriod(cell) || isWord(cell)).length * 2 >
            below.filter((cell) => cell.trim() !== '').length;
    const across = above && first.some(isPeriod);
    const down = before && below.some(isPeriod);
    return { rows: above ? 1 : 0, columns: before ? 1 : 0, months: across ? 'across' : down ? 'down' : 'unknown' };
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** The period that a heading names, as far as it says: `2026-08`, `2026-W34`, or the month alone, `-08`. */
export function periodOf(heading: string): string | null {
    const text = heading.trim().toLowerCase();
    const week = /^(\d{4})-?w(\d{1,2})$/.exec(text);
    if (week !== null) {
        return `${week[1]}-W${(week[2] ?? '').padStart(2, '0')}`;
    }
    const plain = /^(\d{4})-(\d{1,2})$/.exec(text);
    if (plain !== null) {
        return `${plain[1]}-${(plain[2] ?? '').padStart(2, '0')}`;
    }
    const turned = /^(\d{1,2})[./-](\d{4})$/.exec(text);
    if (turned !== null) {
        return `${turned[2]}-${(turned[1] ?? '').padStart(2, '0')}`;
    }
    const named = /^([a-z]{3})[a-z]*\.?[ '/-]*(\d{4}|\d{2})?$/.exec(text);
    const month = MONTHS.indexOf(named?.[1] ?? '') + 1;
    const year = named?.[2] ?? '';
    return month === 0 ? null : `${year.length === 2 ? `20${year}` : year}-${String(month).padStart(2, '0')}`;
}

/**
 * Where the cells of a block land, put with its first one at a place. One value alone fills all that is selected; cells
 * with something in them that lie beyond the last place are counted.
 */
export function spreadOut(
    block: Block,
    at: Place,
    selected: Place[],
    last: Place,
): { cells: [Place, string][]; beyond: number } {
    if (block.length === 1 && block[0]?.length === 1) {
        const text = block[0][0]?.trim() ?? '';
        return { cells: selected.map((place) => [place, text]), beyond: 0 };
    }
    const all = block.flatMap((row, down) =>
        row.map((text, across): [Place, string] => [{ row: at.row + down, column: at.column + across }, text.trim()]),
    );
    const isInside = ([{ row, column }]: [Place, string]): boolean => row <= last.row && column <= last.column;
    return {
        cells: all.filter(isInside),
        beyond: all.filter((each) => !isInside(each) && each[1] !== '').length,
    };
}
