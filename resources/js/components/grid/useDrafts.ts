import { computed, ref, shallowReactive } from 'vue';

/** A cell that is not saved yet. What was typed stays until it is saved or put back. */
export interface Draft {
    text: string;
    /** what stood there when it was typed, so that nobody overwrites what they have not seen */
    was: string;
    state: 'typed' | 'sound' | 'refused' | 'sending' | 'conflict';
    status: string;
    /** why it is refused, who was faster, or what is unusual about it */
    words: string;
}

/** What the server says of a cell: how it reads and judges it, or what became of it. */
interface Verdict {
    typed: string;
    refused: string;
    status: string;
    question: string;
}
interface Outcome {
    outcome: 'saved' | 'same' | 'refused' | 'conflict';
    /** what stands there now */
    typed: string;
    reason: string;
}

const isOpen = ({ state }: Draft): boolean => state !== 'sending' && state !== 'conflict';

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

    const typed = (text: string, was: string): Draft => ({ text, was, state: 'typed', status: '', words: '' });

    function set(key: string, text: string): void {
        const draft = drafts.get(key);
        if (text === base(key)) {
            drafts.delete(key);
        } else {
            // Who types over a conflict has been told what stands there now.
            const was = draft === undefined || draft.state === 'conflict' ? base(key) : draft.was;
            drafts.set(key, typed(text, was));
        }
    }

    /** A verdict counts while the draft is the one that was judged, and nothing has become of it yet. */
    function judge(key: string, judged: Draft, verdict: Verdict): void {
        if (drafts.get(key) !== judged || !isOpen(judged)) {
            return;
        }
        if (verdict.refused !== '') {
            drafts.set(key, { ...judged, state: 'refused', status: verdict.status, words: verdict.refused });
        } else if (verdict.typed === base(key)) {
            drafts.delete(key);
        } else {
            const { typed: text, status, question: words } = verdict;
            drafts.set(key, { ...judged, text, state: 'sound', status, words });
        }
    }

    let leaving: Step[] = [];

    /** Drafts that go to the server. Until they land no verdict on them counts. */
    function depart(): [string, Draft][] {
        leaving = [...past.value];
        const sent = [...drafts]
            .filter(([, draft]) => isOpen(draft) && draft.state !== 'refused')
            .map(([key, draft]): [string, Draft] => [key, { ...draft, state: 'sending' }]);
        sent.forEach(([key, draft]) => drafts.set(key, draft));
        return sent;
    }

    /** What became of a sent draft. What was typed, or put back, while it was on its way stays to be saved next. */
    function land(key: string, sent: Draft, { outcome, typed: stands, reason: words }: Outcome): void {
        const now = drafts.get(key);
        if (outcome === 'saved' || outcome === 'same') {
            // The first that is saved marks the steps for all.
            leaving.splice(0).forEach((step) => (step.saved = true));
            const text = now === sent ? stands : (now?.text ?? sent.was);
            if (text === stands) {
                drafts.delete(key);
            } else {
                drafts.set(key, typed(text, stands));
            }
        } else if (now !== undefined && (now === sent || outcome === 'conflict')) {
            drafts.set(key, { ...now, state: outcome, words });
        }
    }

    /** Sent drafts that did not arrive are as they were typed. */
    function comeBack(sent: [string, Draft][]): void {
        sent.filter(([key, draft]) => drafts.get(key) === draft).forEach(([key, { text, was }]) =>
            drafts.set(key, typed(text, was)),
        );
    }

    /** After a conflict: what was typed here goes over what the other person entered, or gives way to it. */
    function settle(key: string, mine: boolean): void {
        const draft = drafts.get(key);
        if (draft !== undefined && mine) {
            drafts.set(key, { ...draft, was: base(key), state: 'sound', words: '' });
        } else {
            drafts.delete(key);
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
        apply,
        undo: () => move(past, future, 'before'),
        redo: () => move(future, past, 'after'),
        last: computed(() => past.value.at(-1) ?? null),
        undone: computed(() => future.value.at(-1) ?? null),
        judge,
        depart,
        land,
        comeBack,
        settle,
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
