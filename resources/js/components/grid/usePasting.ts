import { computed, ref } from 'vue';
import { formatBlock, frame, parseBlock, spreadOut, transpose, type Block } from './clipboard';
import type { Area, Place, useSelection } from './useSelection';

/** What a grid can do with its cells, whatever they are. */
interface Cells {
    text(place: Place): string;
    /** why it cannot be typed in; blank where it can */
    lock(place: Place): string;
    /** types into cells that can be typed in, as one step */
    change(name: string, changes: [Place, string][]): void;
}

/** The step by which a block is put into a grid. */
export const PASTING = 'pasting';

/** Copies, cuts and pastes the selected cells of a grid. What comes with months and names is understood, and said. */
export function usePasting(selection: ReturnType<typeof useSelection>, cells: Cells, isTyping: () => boolean) {
    const pasted = ref<{ block: Block; at: Place; note: string } | null>(null);

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
        const whole = parseBlock(event.clipboardData?.getData('text/plain') ?? '');
        const { rows, columns, months } = frame(whole);
        const figures = whole.slice(rows).map((row) => row.slice(columns));
        const turned = months === 'down' && rows + columns > 0;
        const left = [rows > 0 ? 'a header row' : '', columns > 0 ? 'a column of names' : ''].filter((each) => each);
        const notes = [left.length > 0 ? `${left.join(' and ')} left out` : '', turned ? 'turned on its side' : ''];
        const { top, left: column } = selection.area.value;
        put(turned ? transpose(figures) : figures, { row: top, column }, notes);
    }

    function put(block: Block, at: Place, notes: string[]): void {
        const { cells: found, beyond } = spreadOut(block, at, [...selection.places()], selection.last.value);
        const [height, width] = [block.length, block[0]?.length ?? 0];
        if (height * width > 1) {
            selection.go(at.row, at.column);
            selection.go(at.row + height - 1, at.column + width - 1, true);
        }
        const isLocked = ([to]: [Place, string]): boolean => cells.lock(to) !== '';
        const locked = found.filter((each) => isLocked(each) && each[1] !== '' && each[1] !== cells.text(each[0]));
        cells.change(
            PASTING,
            found.filter((each) => !isLocked(each)),
        );
        const note = [
            ...notes,
            locked.length > 0 ? `${locked.length} cannot be typed in` : '',
            beyond > 0 ? `${beyond} lie beyond the grid` : '',
        ];
        pasted.value = { block, at, note: note.filter((each) => each !== '').join(', ') };
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
        note: computed(() => pasted.value?.note ?? ''),
        /** A block that is as high as it is wide would land on the same cells. */
        canTurn: computed(() => {
            const block = pasted.value?.block ?? [];
            const width = block[0]?.length ?? 0;
            return block.length * width > 1 && block.length !== width;
        }),
    };
}
