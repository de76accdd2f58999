import { computed, ref } from 'vue';
import { formatBlock, frame, parseBlock, periodOf, spreadOut, transpose, type Block } from './clipboard';
import type { Area, Place, useSelection } from './useSelection';

/** What a grid can do with its cells, whatever they are. */
interface Cells {
    text(place: Place): string;
    /** why it cannot be typed in; blank where it can */
    lock(place: Place): string;
    /** the row of a KPI by its name or code; null where there is none, or more than one */
    rowOf(name: string): number | null;
    /** the column of a period; null where it is not shown */
    columnOf(period: string): number | null;
    /** types into cells that can be typed in, as one step */
    change(name: string, changes: [Place, string][]): void;
}

/** The step by which a block is put into a grid. */
export const PASTING = 'pasting';

/** Copies, cuts and pastes the selected cells of a grid. What comes with months and names is understood, and said. */
export function usePasting(selection: ReturnType<typeof useSelection>, cells: Cells, isTyping: () => boolean) {
    const pasted = ref<{ block: Block; at: Place; note: string } | null>(null);

    const asked = ref<{ block: Block; at: Place } | null>(null);

    const texts = ({ top, bottom, left, right }: Area): Block =>
        Array.from({ length: bottom - top + 1 }, (_, row) =>
            Array.from({ length: right - left + 1 }, (_, column) =>
                cells.text({ row: top + row, column: left + column }),
            ),
        );

    function copy(event: ClipboardEvent): void {
        if (!isTyping()) {
            event.clipboardData?.setData('text/plain', formatBlock(texts(selection.area.value)));
            event.preventDefault();
        }
    }

    function clear(): void {
        const open = [...selection.places()].filter((place) => cells.lock(place) === '');
        cells.change(
            'clearing',
            open.map((place) => [place, '']),
        );
    }

    function cut(event: ClipboardEvent): void {
        if (!isTyping()) {
            copy(event);
            clear();
        }
    }

    function paste(event: ClipboardEvent): void {
        if (isTyping()) {
            return;
        }
        event.preventDefault();
        asked.value = null;
        const whole = parseBlock(event.clipboardData?.getData('text/plain') ?? '');
        const { rows, columns, months } = frame(whole);
        const { top, left } = selection.area.value;
        const turned = months === 'down';
        // What stands around the figures, as it is after turning: periods across, names down.
        const plain = turned ? transpose(whole) : whole;
        const [above, before] = turned ? [columns, rows] : [rows, columns];
        const figures = plain.slice(above).map((row) => row.slice(before));
        const headings = above > 0 && months !== 'unknown' ? (plain[0] ?? []).slice(before) : null;
        const names = before > 0 ? plain.slice(above).map((row) => row[0] ?? '') : null;
        const notes = turned ? ['turned on its side'] : [];
        if (headings === null && names === null) {
            put(figures, { row: top, column: left }, above > 0 ? ['a header row left out', ...notes] : notes);
            return;
        }
        place(figures, names, headings, { row: top, column: left }, notes);
    }

    /** Names and periods say where a block belongs; it is never put anywhere else unless somebody asks for that. */
    function place(block: Block, names: string[] | null, headings: string[] | null, at: Place, notes: string[]): void {
        const rows = names?.map((name) => cells.rowOf(name)) ?? block.map((_, index) => at.row + index);
        const columns =
            headings?.map((heading) => {
                const period = periodOf(heading);
                return period === null ? null : cells.columnOf(period);
            }) ?? (block[0] ?? []).map((_, index) => at.column + index);
        const unknown = [
            ...(names ?? []).filter((name, index) => rows[index] === null && name.trim() !== ''),
            ...(headings ?? []).filter((heading, index) => columns[index] === null && heading.trim() !== ''),
        ];
        const found = block.flatMap((row, down) =>
            row.flatMap((text, across): [Place, string][] => {
                const [to, column] = [rows[down] ?? null, columns[across] ?? null];
                return to === null ||
                    column === null ||
                    to > selection.last.value.row ||
                    column > selection.last.value.column
                    ? []
                    : [[{ row: to, column }, text.trim()]];
            }),
        );
        const what = `${names === null ? '' : 'by name'}${names !== null && headings !== null ? ' and ' : ''}${headings === null ? '' : 'by period'}`;
        asked.value = unknown.length > 0 && found.length === 0 ? { block, at } : null;
        if (asked.value !== null) {
            pasted.value = { block, at, note: `Nothing is pasted: none of ${listed(unknown)} is here.` };
            return;
        }
        // What names and periods have placed cannot be turned.
        type(found, [], at, [`put ${what}`, ...notes, unknown.length > 0 ? `not here: ${listed(unknown)}` : '']);
    }

    const listed = (all: string[]): string =>
        all.length > 3 ? `${all.slice(0, 3).join(', ')} and ${all.length - 3} more` : all.join(', ');

    function type(found: [Place, string][], block: Block, at: Place, notes: string[]): void {
        const isLocked = ([to]: [Place, string]): boolean => cells.lock(to) !== '';
        const locked = found.filter((each) => isLocked(each) && each[1] !== '' && each[1] !== cells.text(each[0]));
        cells.change(
            PASTING,
            found.filter((each) => !isLocked(each)),
        );
        const note = [...notes, locked.length > 0 ? `${locked.length} cannot be typed in` : ''];
        pasted.value = { block, at, note: note.filter((each) => each !== '').join(', ') };
    }

    function put(block: Block, at: Place, notes: string[]): void {
        const { cells: found, beyond } = spreadOut(block, at, [...selection.places()], selection.last.value);
        const [height, width] = [block.length, block[0]?.length ?? 0];
        if (height * width > 1) {
            selection.go(at.row, at.column);
            selection.go(at.row + height - 1, at.column + width - 1, true);
        }
        type(found, block, at, [...notes, beyond > 0 ? `${beyond} lie beyond the grid` : '']);
    }

    /** Puts a block whose names are not here where the selection is, because somebody said so. */
    function putAnyway(): void {
        if (asked.value !== null) {
            put(asked.value.block, asked.value.at, []);
            asked.value = null;
        }
    }

    /** Puts the block that was pasted last in again, with its rows as columns. */
    function turn(): void {
        if (pasted.value !== null) {
            put(transpose(pasted.value.block), pasted.value.at, ['turned on its side']);
        }
    }

    return {
        copy,
        cut,
        clear,
        paste,
        turn,
        putAnyway,
        /** whether a block waits for a word on where it belongs */
        isAsking: computed(() => asked.value !== null),
        note: computed(() => pasted.value?.note ?? ''),
        /** A block that is as high as it is wide would land on the same cells. */
        canTurn: computed(() => {
            const block = pasted.value?.block ?? [];
            const width = block[0]?.length ?? 0;
            return block.length * width > 1 && block.length !== width;
        }),
    };
}
