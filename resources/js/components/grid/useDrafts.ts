import { computed, ref, shallowReactive } from 'vue';

/** A cell that is not saved yet. What was typed stays until it is saved or put back. */
export interface Draft {
    text: string;
    /** what stood there when it was typed, so that nobody overwrites what they have not seen */
    was: string;
    state: 'typed' | 'sound' | 'refused' | 'conflict';
    status: string;
    /** why it is refused, who was faster, or what is unusual about it */
    words: string;
}

interface Step {
    name: string;
    cells: { key: string; before: string; after: string }[];
    saved: boolean;
}

/**
 * The changes of a grid before they are saved: texts by cell, and the steps that led there, so that each can be undone
 * and done again as a whole.
 */
export function useDrafts(base: (key: string) => string) {
    const drafts = shallowReactive(new Map<string, Draft>());
    const past = ref<Step[]>([]);
    const future = ref<Step[]>([]);

    const shown = (key: string): string => drafts.get(key)?.text ?? base(key);

    function set(key: string, text: string): void {
        const was = drafts.get(key)?.was ?? base(key);
        if (text === was && text === base(key)) {
            drafts.delete(key);
        } else {
            drafts.set(key, { text, was, state: 'typed', status: '', words: '' });
        }
    }

    /** Changes cells in one step; those that would stay the same are left out. */
    function apply(name: string, changes: Iterable<[string, string]>): string[] {
        const cells = [...changes]
            .map(([key, after]) => ({ key, before: shown(key), after }))
            .filter(({ before, after }) => before !== after);
        if (cells.length > 0) {
            cells.forEach(({ key, after }) => set(key, after));
            past.value.push({ name, cells, saved: false });
            future.value = [];
        }
        return cells.map(({ key }) => key);
    }

    function move(from: typeof past, to: typeof past, text: 'before' | 'after'): Step | null {
        const step = from.value.pop() ?? null;
        if (step !== null) {
            step.cells.forEach((cell) => set(cell.key, cell[text]));
            to.value.push(step);
        }
        return step;
    }

    return {
        drafts,
        shown,
        set,
        apply,
        undo: () => move(past, future, 'before'),
        redo: () => move(future, past, 'after'),
        last: computed(() => past.value.at(-1) ?? null),
        undone: computed(() => future.value.at(-1) ?? null),
        /** What was done so far is saved now. */
        settle: () => past.value.forEach((step) => (step.saved = true)),
        /** Everything unsaved goes, and with it the steps. */
        clear: (): void => {
            drafts.clear();
            past.value = [];
            future.value = [];
        },
        sound: computed(
            () => [...drafts.values()].filter(({ state }) => state !== 'refused' && state !== 'conflict').length,
        ),
        refused: computed(() => [...drafts.values()].filter(({ state }) => state === 'refused').length),
        conflicts: computed(() => [...drafts.values()].filter(({ state }) => state === 'conflict').length),
    };
}
