import { api, read, type Schemas } from '@/api/client';
import { useFreshness } from '@/composables/useFreshness';
import { useSending } from '@/composables/useSending';
import { computed, ref, type Ref } from 'vue';

export type Definition = Schemas['KpiDefinition'];
export type Rule = Schemas['Rule'];

export const PARTS = ['What and why', 'How it is counted', 'What good looks like', 'Where'] as const;
export type Part = (typeof PARTS)[number];

/** Which part of the editor shows a field that the server names. */
const PART_OF: Record<string, Part> = {
    code: 'What and why',
    name: 'What and why',
    purpose: 'What and why',
    department: 'What and why',
    theme: 'What and why',
    objective: 'What and why',
    level: 'What and why',
    source: 'What and why',
    dataAvailable: 'What and why',
    definitionAgreed: 'What and why',
    kind: 'How it is counted',
    measure: 'How it is counted',
    decimals: 'How it is counted',
    scaled: 'How it is counted',
    formula: 'How it is counted',
    counted: 'How it is counted',
    parts: 'How it is counted',
    splits: 'How it is counted',
    frequency: 'How it is counted',
    accumulation: 'How it is counted',
    min: 'How it is counted',
    max: 'How it is counted',
    materiality: 'How it is counted',
    gather: 'How it is counted',
    weightedBy: 'How it is counted',
    dueDay: 'How it is counted',
    noteRequired: 'How it is counted',
    polarity: 'What good looks like',
    rule: 'What good looks like',
    texts: 'What good looks like',
    targets: 'What good looks like',
    targetFormula: 'What good looks like',
    lowFormula: 'What good looks like',
    highFormula: 'What good looks like',
    yearTargets: 'What good looks like',
    units: 'Where',
    drivers: 'Where',
};

const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

export const blankRule = (from: string): Rule => ({
    from,
    reference: 'target',
    measure: 'percent',
    green: '0',
    amber: '5',
    periods: null,
    pace: 'whole',
    stretch: '',
    low: '',
    high: '',
    marginLow: '',
    marginHigh: '',
});

export const blankPlace = (unit: string): Schemas['Measurement'] => ({
    unit,
    weight: 1,
    owner: null,
    from: null,
    to: null,
    gathered: false,
    rule: null,
});

export const blank = (department: string, period: string, defaults?: Schemas['KpiDefaults']): Definition => ({
    code: '',
    editable: true,
    name: '',
    purpose: '',
    objective: null,
    level: 'departmental',
    theme: null,
    department,
    source: '',
    dueDay: defaults?.dueDay ?? null,
    dataAvailable: false,
    definitionAgreed: false,
    noteRequired: defaults?.noteRequired ?? false,
    kind: 'entered',
    measure: '',
    decimals: 1,
    scaled: false,
    frequency: 'month',
    accumulation: 'mean',
    formula: '',
    counted: null,
    parts: [],
    splits: [],
    targetFormula: '',
    lowFormula: '',
    highFormula: '',
    min: '',
    max: '',
    materiality: defaults?.materiality ?? '',
    gather: '',
    weightedBy: null,
    polarity: 'higher',
    rule: {
        ...blankRule(period),
        ...(defaults === undefined ? {} : { green: defaults.green, amber: defaults.amber }),
    },
    texts: {
        green: defaults?.textGreen ?? '',
        amber: defaults?.textAmber ?? '',
        red: defaults?.textRed ?? '',
    },
    units: department === '' ? [] : [blankPlace(department)],
    drivers: [],
    periods: [],
    targets: {},
    yearTargets: {},
    closed: {},
    history: [],
    openQuestions: [],
    version: 0,
});

/** A definition while it is edited: compared with what is saved, sent, and marked where the server refuses it. */
export function useDraft(period: Ref<string>) {
    const renew = useFreshness();
    const saved = ref<Definition>(blank('', period.value));
    const draft = ref<Definition>(blank('', period.value));
    const { busy, problem, send } = useSending();

    const changed = computed(() => JSON.stringify(draft.value) !== JSON.stringify(saved.value));

    /** Begins with a definition; `untouched` is what counts as not changed yet, itself where it is left out. */
    function start(definition: Definition, untouched = definition): void {
        saved.value = copy(untouched);
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
        const query = { period: period.value };
        const { kind, polarity, rule } = draft.value;
        const body = {
            ...draft.value,
            rule: polarity === 'none' || kind === 'judged' ? null : rule,
            seenTargets: saved.value.targets,
            seenYearTargets: saved.value.yearTargets,
        };
        let definition: Definition | null = null;
        await send(async () => {
            definition = await read(
                code === null
                    ? api.POST('/api/kpis', { params: { query }, body })
                    : api.PUT('/api/kpis/{kpi}', { params: { path: { kpi: code }, query }, body }),
            );
            start(definition);
            await renew();
        });
        return definition;
    }

    /** Takes it away; false where it stays, with the reason in place. */
    const discard = (): Promise<boolean> =>
        send(async () => {
            await read(api.DELETE('/api/kpis/{kpi}', { params: { path: { kpi: saved.value.code } } }));
            await renew();
        });

    return {
        draft,
        saved,
        changed,
        problem,
        busy,
        faultyParts,
        start,
        error,
        save,
        discard,
        putBack: () => start(saved.value),
    };
}
