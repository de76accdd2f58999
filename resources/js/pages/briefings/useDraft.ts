import { ApiError, api, read, type Schemas } from '@/api/client';
import { useEventListener } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { TWELFTHS, type Band } from './draft';

/** So many steps can be taken back. */
const STEPS = 200;
const KEEP_AFTER = 900;
const LOOK_AFTER = 90;

/**
 * A page as it is being written: every step can be taken back, what is written is kept as one goes, and what changed is
 * looked at anew, nothing else.
 */
export function useDraft(
    code: string,
    page: Schemas['BriefingPage'],
    view: { period: () => string; span: () => string },
) {
    const bands = shallowRef<Band[]>(page.bands as Band[]);
    const name = ref(page.name);
    const answers = shallowRef(new Map(page.answers.map((answer) => [answer.id, answer])));
    const version = ref(page.version);
    const keptAt = ref(page.keptAt);
    const state = ref<'kept' | 'waiting' | 'keeping' | 'offline' | 'refused' | 'conflict'>('kept');
    const problem = ref('');
    const fields = ref<Record<string, string>>({});

    const past = shallowRef<string[]>([]);
    const future = shallowRef<string[]>([]);
    const now = (): string => JSON.stringify({ name: name.value, bands: bands.value });

    let keeping: Promise<void> | null = null;
    let keepTimer = 0;
    let lookTimer = 0;
    let isStale = false;

    const asked = new Map<string, string>();
    /** Title, line and width change nothing of what it shows. */
    function needsAnswer(piece: Schemas['Piece']): boolean {
        const key = JSON.stringify({ ...piece, width: 0, title: '', line: '' });
        const isKnown = asked.get(piece.id) === key && answers.value.has(piece.id);
        asked.set(piece.id, key);
        return !isKnown;
    }
    bands.value.flat().forEach(needsAnswer);

    async function look(): Promise<void> {
        const wanted = bands.value.flat().filter(needsAnswer);
        if (wanted.length === 0) {
            return;
        }
        const next = new Map<string, Schemas['PieceAnswer']>();
        try {
            const found = await read(
                api.POST('/api/briefings/{briefing}/preview', {
                    params: { path: { briefing: code } },
                    body: {
                        period: view.period(),
                        span: view.span(),
                        bands: wanted.map((piece) => [{ ...piece, width: TWELFTHS }]),
                    },
                }),
            );
            found.forEach((answer) => next.set(answer.id, answer));
        } catch (error) {
            const words =
                error instanceof ApiError
                    ? (Object.values(error.fields)[0] ?? error.message)
                    : 'It cannot be looked at just now.';
            for (const piece of wanted) {
                next.set(piece.id, emptyAnswer(piece.id, words));
                asked.delete(piece.id);
            }
        }
        answers.value = new Map([...answers.value, ...next]);
    }

    async function keep(): Promise<void> {
        if (keeping !== null) {
            isStale = true;
            return keeping;
        }
        keeping = (async () => {
            for (let again = true; again; again = isStale) {
                isStale = false;
                state.value = 'keeping';
                try {
                    const answer = await read(
                        api.PUT('/api/briefings/{briefing}/draft', {
                            params: { path: { briefing: code } },
                            body: { name: name.value, version: version.value, bands: bands.value },
                        }),
                    );
                    version.value = answer.version;
                    keptAt.value = new Date().toISOString();
                    [state.value, problem.value, fields.value] = ['kept', '', {}];
                } catch (error) {
                    const known = error instanceof ApiError ? error : null;
                    state.value = known?.status === 409 ? 'conflict' : known?.status === 422 ? 'refused' : 'offline';
                    problem.value =
                        known === null
                            ? 'It cannot be kept just now.'
                            : (Object.values(known.fields)[0] ?? known.message);
                    fields.value = known?.fields ?? {};
                    isStale = false;
                    if (state.value === 'offline') {
                        keepTimer = window.setTimeout(() => void keep(), 4000);
                    }
                }
            }
        })();
        await keeping;
        keeping = null;
    }

    function soon(): void {
        state.value = state.value === 'conflict' ? 'conflict' : 'waiting';
        window.clearTimeout(keepTimer);
        window.clearTimeout(lookTimer);
        if (state.value !== 'conflict') {
            keepTimer = window.setTimeout(() => void keep(), KEEP_AFTER);
        }
        lookTimer = window.setTimeout(() => void look(), LOOK_AFTER);
    }

    let lastOf = '';
    /** One step. Steps of the same thing, such as letters of a title, are one together. */
    function change(to: Band[], of = ''): void {
        const before = now();
        bands.value = to;
        remember(before, of);
    }
    function rename(to: string): void {
        const before = now();
        name.value = to;
        remember(before, 'name');
    }
    function remember(before: string, of: string): void {
        if (before === now()) {
            return;
        }
        if (of === '' || of !== lastOf) {
            past.value = [...past.value.slice(1 - STEPS), before];
        }
        lastOf = of;
        future.value = [];
        soon();
    }
    function turn(from: typeof past, to: typeof past): void {
        const step = from.value.at(-1);
        if (step === undefined) {
            return;
        }
        to.value = [...to.value, now()];
        from.value = from.value.slice(0, -1);
        const found = JSON.parse(step) as { name: string; bands: Band[] };
        [name.value, bands.value] = [found.name, found.bands];
        lastOf = '';
        soon();
    }

    useEventListener(window, 'beforeunload', (event) => {
        if (state.value !== 'kept') {
            event.preventDefault();
        }
    });

    return {
        bands,
        name,
        answers,
        version,
        keptAt,
        state,
        problem,
        fields,
        change,
        rename,
        undo: (): void => turn(past, future),
        redo: (): void => turn(future, past),
        mayUndo: computed(() => past.value.length > 0),
        mayRedo: computed(() => future.value.length > 0),
        /** Everything that is written is kept, or it is said why not. */
        async finish(): Promise<boolean> {
            window.clearTimeout(keepTimer);
            if (state.value !== 'kept' || keeping !== null) {
                await keep();
            }
            return state.value === 'kept';
        },
        /** What somebody else kept in the meantime is written over. */
        async insist(current: number): Promise<void> {
            version.value = current;
            await keep();
        },
    };
}

const emptyAnswer = (id: string, problem: string): Schemas['PieceAnswer'] => ({
    ...{
        id,
        unit: '',
        unitName: '',
        span: 'month',
        problem,
        rows: null,
        since: null,
        course: null,
        yearEnd: null,
        matrix: null,
    },
    ...{
        comparison: null,
        ranks: null,
        split: null,
        cases: null,
        offered: null,
        exceptions: null,
        actions: null,
        total: null,
    },
    ...{ drivers: null, regions: null, text: null, picture: null },
});
