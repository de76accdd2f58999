import { ApiError, api, read, type Schemas } from '@/api/client';
import { useQueryClient } from '@tanstack/vue-query';
import { computed, ref, type Ref } from 'vue';

type Input = Schemas['KpiInput'];

/** What the editor can hold of a definition. */
export type Definition = Omit<Schemas['KpiDefinition'], 'polarity' | 'accumulation' | 'rule'> &
    Required<Pick<Input, 'polarity' | 'accumulation'>> & { rule: NonNullable<Input['rule']> | null };

export const PARTS = ['What and why', 'How it is counted', 'What good looks like', 'Where'] as const;
export type Part = (typeof PARTS)[number];

/** Which part of the editor shows a field that the server names. */
const PART_OF: Record<string, Part> = {
    code: 'What and why',
    name: 'What and why',
    purpose: 'What and why',
    department: 'What and why',
    theme: 'What and why',
    level: 'What and why',
    measure: 'How it is counted',
    decimals: 'How it is counted',
    scaled: 'How it is counted',
    accumulation: 'How it is counted',
    owner: 'How it is counted',
    polarity: 'What good looks like',
    rule: 'What good looks like',
    targets: 'What good looks like',
    units: 'Where',
};

const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

export const blank = (department: string, period: string): Definition => ({
    code: '',
    name: '',
    purpose: '',
    measure: '',
    decimals: 1,
    scaled: false,
    department,
    theme: null,
    level: 'departmental',
    polarity: 'higher',
    accumulation: 'mean',
    rule: { from: period, reference: 'target', measure: 'percent', green: '0', amber: '5' },
    owner: null,
    units: department === '' ? [] : [department],
    targets: {},
    fitsEditor: true,
    version: 0,
});

/** A definition while it is edited: compared with what is saved, sent, and marked where the server refuses it. */
export function useDraft(period: Ref<string>) {
    const queries = useQueryClient();
    const saved = ref<Definition>(blank('', period.value));
    const draft = ref<Definition>(blank('', period.value));
    const problem = ref<ApiError | null>(null);
    const busy = ref(false);

    const changed = computed(() => JSON.stringify(draft.value) !== JSON.stringify(saved.value));

    function start(definition: Definition): void {
        saved.value = copy(definition);
        draft.value = copy(definition);
        problem.value = null;
    }

    /** The message beside a field; any below it where `within` is set. */
    function error(pointer: string, within = false): string | undefined {
        const fields = problem.value?.fields ?? {};
        return (
            fields[pointer] ??
            (within ? Object.entries(fields).find(([field]) => field.startsWith(`${pointer}/`))?.[1] : undefined)
        );
    }

    const faultyParts = computed(
        () =>
            new Set(
                Object.keys(problem.value?.fields ?? {}).flatMap((field) => PART_OF[field.split('/')[1] ?? ''] ?? []),
            ),
    );

    /** The definition as it was saved; null when it was refused, with the reasons in place. */
    async function save(code: string | null): Promise<Definition | null> {
        busy.value = true;
        problem.value = null;
        const query = { period: period.value };
        const { polarity, rule } = draft.value;
        const body = { ...draft.value, rule: polarity === 'none' ? null : rule };
        try {
            const definition = await read(
                code === null
                    ? api.POST('/api/kpis', { params: { query }, body })
                    : api.PUT('/api/kpis/{kpi}', { params: { path: { kpi: code }, query }, body }),
            );
            const held = definition as Definition;
            start(held);
            await queries.invalidateQueries();
            return held;
        } catch (reason) {
            if (!(reason instanceof ApiError)) {
                throw reason;
            }
            problem.value = reason;
            return null;
        } finally {
            busy.value = false;
        }
    }

    return { draft, changed, problem, busy, faultyParts, start, error, save, putBack: () => start(saved.value) };
}
