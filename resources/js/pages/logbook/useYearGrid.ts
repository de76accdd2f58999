import { ApiError, api, read, type Schemas } from '@/api/client';
import { useDrafts, type Draft } from '@/components/grid/useDrafts';
import { useFreshness } from '@/composables/useFreshness';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { useEventListener } from '@vueuse/core';
import { computed, reactive, ref, watch, type Ref } from 'vue';

export type Layer = Schemas['GridPage']['layer'];
type Row = Schemas['GridRow'];

const STORE = 'kybernet:grid';
const TRIAL_MS = 160;

interface Kept {
    [view: string]: Record<string, { text: string; was: string }>;
}

/** The year grid: what the server holds, what is typed over it, and how the one becomes the other. */
export function useYearGrid(layer: Ref<Layer>, weekly: Ref<boolean>) {
    const { unit, period } = useView();
    const { user } = useSession();
    const queries = useQueryClient();
    const renew = useFreshness();

    const columns = computed<'week' | 'month'>(() => (weekly.value ? 'week' : 'month'));
    const key = computed(() => ['grid', unit.value.code, period.value, layer.value, columns.value]);
    const view = computed(() => ({ period: period.value, layer: layer.value, columns: columns.value }));
    const path = computed(() => ({ unit: unit.value.code }));
    const { data, error, isPending, refetch } = useQuery({
        queryKey: key,
        queryFn: () => read(api.GET('/api/units/{unit}/grid', { params: { path: path.value, query: view.value } })),
    });

    const rows = computed(() => new Map((data.value?.rows ?? []).map((row) => [row.id, row])));
    const written = computed<'target' | 'actual'>(() => (layer.value === 'target' ? 'target' : 'actual'));

    /** `52/4`: the KPI in its unit, and the column. */
    const split = (cell: string): [number, number] => cell.split('/').map(Number) as [number, number];
    const base = (cell: string): string => {
        const [id, column] = split(cell);
        return rows.value.get(id)?.typed[column] ?? '';
    };
    const periodOf = (row: Row, column: number): string =>
        row.periods?.[column] ?? data.value?.columns[column]?.period ?? '';

    const edits = useDrafts(base);
    /** Why a colour was given, by cell, until it is saved with it. */
    const reasons = reactive(new Map<string, string>());
    const busy = ref(false);
    const offline = ref(false);
    const message = ref<{ text: string; bad: string } | null>(null);

    // What is typed survives a reload; it belongs to the person, the unit, the year and the layer.
    const place = computed(() =>
        [user.value?.name, unit.value.code, data.value?.year, layer.value, columns.value].join('/'),
    );
    const kept = (): Kept => {
        try {
            return JSON.parse(localStorage.getItem(STORE) ?? '{}') as Kept;
        } catch {
            return {};
        }
    };
    function keep(): void {
        const others = Object.fromEntries(Object.entries(kept()).filter(([name]) => name !== place.value));
        const own = Object.fromEntries([...edits.drafts].map(([cell, { text, was }]) => [cell, { text, was }]));
        localStorage.setItem(
            STORE,
            JSON.stringify(edits.drafts.size === 0 ? others : { ...others, [place.value]: own }),
        );
    }

    const cells = (of: Iterable<[string, Draft]>) =>
        [...of].flatMap(([cell, draft]) => {
            const [id, column] = split(cell);
            const row = rows.value.get(id);
            return row === undefined
                ? []
                : [
                      {
                          cell,
                          draft,
                          sent: {
                              measurement: id,
                              period: periodOf(row, column),
                              typed: draft.text,
                              was: draft.was,
                              reason: reasons.get(cell) ?? '',
                          },
                      },
                  ];
        });

    let timer = 0;
    const waiting = new Set<string>();

    /** Typed cells are read and judged by the server, together where many come at once. */
    function trialSoon(of: string[]): void {
        of.forEach((cell) => waiting.add(cell));
        keep();
        window.clearTimeout(timer);
        timer = window.setTimeout(() => {
            const now = [...waiting];
            waiting.clear();
            void trial(now);
        }, TRIAL_MS);
    }

    async function trial(of: string[]): Promise<void> {
        const sent = cells(
            of.flatMap((cell): [string, Draft][] => {
                const draft = edits.drafts.get(cell);
                return draft?.state === 'typed' ? [[cell, draft]] : [];
            }),
        );
        if (sent.length === 0) {
            return;
        }
        try {
            const verdicts = await read(
                api.POST('/api/units/{unit}/cells', {
                    params: { path: path.value, query: { period: period.value } },
                    body: { layer: written.value, cells: sent.map((each) => each.sent) },
                }),
            );
            offline.value = false;
            sent.forEach(({ cell, draft }, index) => {
                const verdict = verdicts[index];
                if (verdict !== undefined) {
                    edits.judge(cell, draft, verdict);
                }
            });
            keep();
        } catch (reason) {
            offline.value = reason instanceof ApiError && reason.isOffline;
        }
    }

    /** Saves what is typed and not refused. */
    async function save(): Promise<void> {
        if (busy.value || edits.sound.value === 0) {
            return;
        }
        busy.value = true;
        const gone = edits.depart();
        const sent = cells(gone);
        const [from, cached] = [place.value, key.value];
        try {
            const saved = await read(
                api.PUT('/api/units/{unit}/cells', {
                    params: { path: path.value, query: view.value },
                    body: { layer: written.value, cells: sent.map((each) => each.sent) },
                }),
            );
            offline.value = false;
            const again = new Map(saved.rows.map((row) => [row.id, row]));
            queries.setQueryData<Schemas['GridPage']>(cached, (page) =>
                page === undefined ? page : { ...page, rows: page.rows.map((row) => again.get(row.id) ?? row) },
            );
            void renew('grid');
            // The reader has gone on to another layer or unit. What was refused here waits where it was typed.
            if (place.value !== from) {
                return;
            }
            sent.forEach(({ cell, draft }, index) => {
                const outcome = saved.outcomes[index];
                if (outcome !== undefined) {
                    edits.land(cell, draft, outcome);
                    if (outcome.outcome === 'saved') {
                        reasons.delete(cell);
                    }
                }
            });
            trialSoon(sent.map(({ cell }) => cell));
            const done = saved.outcomes.filter(({ outcome }) => outcome === 'saved' || outcome === 'same').length;
            const conflicts = edits.conflicts.value;
            message.value = {
                text: done === 0 ? 'Nothing is saved.' : `${done} ${done === 1 ? 'cell is' : 'cells are'} saved.`,
                bad:
                    conflicts > 0
                        ? `${conflicts} changed by somebody else in the meantime.`
                        : edits.refused.value > 0
                          ? `${edits.refused.value} refused.`
                          : '',
            };
        } catch (reason) {
            if (!(reason instanceof ApiError)) {
                throw reason;
            }
            offline.value = reason.isOffline;
            message.value = reason.isOffline
                ? { text: 'No connection.', bad: `${sent.length} typed cells are kept here and sent when it is back.` }
                : { text: '', bad: `${reason.detail} What was typed is kept.` };
        } finally {
            busy.value = false;
            if (place.value === from) {
                edits.comeBack(gone);
                keep();
            }
        }
    }

    /** A colour that was refused for want of its reason is tried again with it. */
    function giveReason(cell: string, text: string): void {
        reasons.set(cell, text);
        const draft = edits.drafts.get(cell);
        if (draft?.state === 'refused') {
            edits.drafts.set(cell, { ...draft, state: 'typed', words: '' });
            trialSoon([cell]);
        }
    }

    function settle(cell: string, mine: boolean): void {
        edits.settle(cell, mine);
        keep();
    }

    function discard(): void {
        edits.clear();
        message.value = null;
        keep();
    }

    let opened = '';
    watch(
        data,
        (page) => {
            if (page === undefined || opened === place.value) {
                return;
            }
            opened = place.value;
            edits.clear();
            message.value = null;
            const waiting = kept()[place.value] ?? {};
            for (const [cell, { text, was }] of Object.entries(waiting)) {
                if (rows.value.has(split(cell)[0]) && text !== base(cell)) {
                    edits.drafts.set(cell, { text, was, state: 'typed', status: '', words: '' });
                }
            }
            if (edits.drafts.size > 0) {
                message.value = {
                    text: `${edits.drafts.size} ${edits.drafts.size === 1 ? 'cell typed before is' : 'cells typed before are'} still here.`,
                    bad: '',
                };
                void trial([...edits.drafts.keys()]);
            }
        },
        { immediate: true },
    );

    useEventListener('online', () => {
        if (offline.value) {
            void save();
        }
    });
    useEventListener(window, 'beforeunload', (event) => {
        if (edits.drafts.size > 0) {
            event.preventDefault();
        }
    });

    return {
        data,
        error,
        isPending,
        refetch,
        base,
        edits,
        reasons,
        busy,
        offline,
        message,
        periodOf,
        trialSoon,
        save,
        settle,
        giveReason,
        discard,
    };
}
