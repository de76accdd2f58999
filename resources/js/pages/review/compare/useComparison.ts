import { api, read, type Schemas } from '@/api/client';
import { useAddress, useSwitch } from '@/composables/useAddress';
import { maskedName } from '@/composables/unitKinds';
import { step } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { findIn, ordered } from '@/graphics/peers';
import { number } from '@/graphics/scale';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import {
    computed,
    inject,
    provide,
    reactive,
    ref,
    toRefs,
    type InjectionKey,
    type Ref,
    type WritableComputedRef,
} from 'vue';

export type ComparedKpi = Schemas['CompareKpi'];
export const VIEWS = { figures: 'Figures', ranks: 'Ranks', time: 'Ranks over time', two: 'Two months' } as const;
export type CompareView = keyof typeof VIEWS;
export const MOST_KPIS = 8;

/** How a comparison is looked at: in the address on its own screen, for itself on another page. */
function choicesInAddress() {
    return {
        kind: useAddress('kind', ''),
        chosen: useAddress('kpis', ''),
        view: useAddress<CompareView>('as', 'figures', Object.keys(VIEWS) as CompareView[]),
        order: useAddress('order', ''),
        bestFirst: useSwitch('best'),
        find: useAddress('find', ''),
        only: useSwitch('only'),
        plain: useSwitch('plain'),
        masked: useSwitch('masked'),
        follow: useAddress('follow', ''),
        across: useAddress('across', ''),
        up: useAddress('up', ''),
        large: useAddress('large', ''),
        level: useAddress<'median' | 'quarter' | 'target'>('level', 'median', ['median', 'quarter', 'target']),
        against: useAddress('against', ''),
        lastThree: useSwitch('last'),
    };
}
type Choices = ReturnType<typeof choicesInAddress>;

interface Answer {
    data: Ref<Schemas['ComparePage'] | undefined>;
    error: Ref<Error | null>;
    isPending: Ref<boolean>;
    isPlaceholder: Ref<boolean>;
    refetch: () => unknown;
}

/**
 * What is compared and how it is looked at: table and graphics follow one unit, light up the same ones, and call them by
 * the same names.
 */
function compared(choices: Choices, asked: Answer, ranks: Ref<Schemas['RanksOverTime'] | null>, bare: boolean) {
    const { period } = useView();
    const { units: known } = useSession();
    const { kind, chosen, view, order, bestFirst, find, only, plain, masked, follow, across, up, large, level, against, lastThree } = choices; // prettier-ignore
    const other = computed(() => otherMonth(against.value, period.value));
    const page = computed(() => asked.data.value ?? null);
    const kpis = computed<ComparedKpi[]>(() => page.value?.kpis ?? []);
    const units = computed(() => page.value?.units ?? []);
    const kpiOf = (code: string): ComparedKpi | null => kpis.value.find((each) => each.code === code) ?? null;

    const names = computed(() =>
        units.value.map(({ code, name }) => (masked.value ? maskedName(known.value.get(code)) : name)),
    );
    const followed = computed(() => units.value.findIndex(({ code }) => code === follow.value));

    /** Figures as numbers, for drawing alone, by KPI and unit. */
    const values = computed(() => kpis.value.map(({ cells }) => cells.map((cell) => number(cell?.actual?.exact))));

    const lit = computed(() => {
        const found = names.value.map((name) => findIn(name, find.value));
        return { some: found.some((each) => each !== null), found };
    });
    const sortedBy = computed(() => kpiOf(order.value));
    const places = computed(() => {
        const kpi = sortedBy.value;
        if (kpi === null) {
            return units.value.map((_, at) => at);
        }
        if (view.value === 'two' && kpi.moved !== null) {
            const moved = bestFirst.value ? kpi.moved.toReversed() : kpi.moved;
            return [...moved, ...units.value.map((_, at) => at).filter((at) => !moved.includes(at))];
        }
        return kpi.polarity === 'none'
            ? ordered(values.value[kpis.value.indexOf(kpi)] ?? [], !bestFirst.value)
            : ordered(
                  kpi.cells.map((cell) => cell?.rank ?? null),
                  !bestFirst.value,
              );
    });
    /** Places of the rows that are shown, in their order. */
    const rows = computed(() =>
        only.value && lit.value.some ? places.value.filter((at) => lit.value.found[at] !== null) : places.value,
    );

    /** Two KPIs as the axes: those that were chosen, else the two that go together most closely. */
    const axes = computed<[ComparedKpi, ComparedKpi] | null>(() => {
        const [first, second] = kpis.value;
        if (first === undefined || second === undefined) {
            return null;
        }
        const closest = (page.value?.pairs ?? []).reduce<Schemas['ComparePair'] | null>(
            (best, pair) => (best === null || Math.abs(pair.pearson) > Math.abs(best.pearson) ? pair : best),
            null,
        );
        const x = kpiOf(across.value) ?? kpiOf(closest?.one ?? '') ?? first;
        const free = (kpi: ComparedKpi | null): ComparedKpi | null => (kpi === x ? null : kpi);
        const y = free(kpiOf(up.value)) ?? free(kpiOf(closest?.other ?? '')) ?? (first === x ? second : first);
        return [x, y];
    });

    return reactive({
        ...{
            kind,
            chosen,
            view,
            order,
            bestFirst,
            find,
            only,
            plain,
            masked,
            follow,
            level,
            lastThree,
            against,
            other,
        },
        ...{ page, kpis, units, names, values, followed, lit, rows, sortedBy, axes, large },
        ranks,
        /** it stands on another page, which says what it is */
        bare,
        error: asked.error,
        isPending: asked.isPending,
        isPlaceholder: asked.isPlaceholder,
        refetch: asked.refetch,
        kpiOf,
        /** Follows a unit everywhere; the one that is followed no longer. */
        toFollow(at: number): void {
            const code = units.value[at]?.code ?? '';
            follow.value = follow.value === code ? '' : code;
        },
        /** The last two that were chosen are the axes: the new one lies across, the one before stands up. */
        chooseAxis(code: string): void {
            const now = axes.value;
            if (now === null || now[0].code === code) {
                return;
            }
            [across.value, up.value] = [code, now[0].code];
        },
        /** Worst first, then best first, then as in the register. */
        turnOrder(code: string): void {
            if (order.value !== code) {
                [order.value, bestFirst.value] = [code, false];
            } else if (!bestFirst.value) {
                bestFirst.value = true;
            } else {
                [order.value, bestFirst.value] = ['', false];
            }
        },
        asInRegister(): void {
            [order.value, bestFirst.value] = ['', false];
        },
    });
}

export type ComparisonView = ReturnType<typeof compared>;
const COMPARED: InjectionKey<ComparisonView> = Symbol('compared');

const otherMonth = (against: string, period: string): string =>
    /^\d{4}-\d{2}$/.test(against) ? against : step(period, -12);

/** For the page, which shares it with its table and graphics. */
export function useComparison() {
    const { unit, period, span } = useView();
    const choices = choicesInAddress();
    const amongThem = useAddress('with', '');
    const query = computed(() => ({
        period: period.value,
        span: span.value,
        kind: choices.kind.value,
        kpis: choices.chosen.value,
        kpi: amongThem.value,
        ...(choices.view.value === 'two' ? { against: otherMonth(choices.against.value, period.value) } : {}),
    }));
    const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
        queryKey: computed(() => ['comparison', unit.value.code, query.value]),
        queryFn: () =>
            read(
                api.GET('/api/units/{unit}/comparison', {
                    params: { path: { unit: unit.value.code }, query: query.value },
                }),
            ),
        placeholderData: keepPreviousData,
    });
    const view = compared(
        choices,
        { data, error, isPending, isPlaceholder: isPlaceholderData, refetch },
        ref(null),
        false,
    );
    provide(COMPARED, view);
    return reactive({ ...toRefs(view), query });
}

/** For a drawing of a comparison on another page, with what it shows. */
export function useGivenComparison(
    page: () => Schemas['ComparePage'] | null,
    ranks: () => Schemas['RanksOverTime'] | null,
    follow: WritableComputedRef<string>,
): ComparisonView {
    const own = <Value>(value: Value): WritableComputedRef<Value> => {
        const kept = ref(value) as Ref<Value>;
        return computed({ get: () => kept.value, set: (to) => (kept.value = to) });
    };
    const answer: Answer = {
        data: computed(() => page() ?? undefined),
        error: ref(null),
        isPending: ref(false),
        isPlaceholder: ref(false),
        refetch: () => undefined,
    };
    const view = compared(
        {
            ...{
                kind: own(''),
                chosen: own(''),
                view: own<CompareView>('figures'),
                order: own(''),
                bestFirst: own(false),
            },
            ...{ find: own(''), only: own(false), plain: own(false), masked: own(false), follow, across: own(''), up: own('') }, // prettier-ignore
            ...{ large: own(''), level: own<'median' | 'quarter' | 'target'>('median'), against: own(''), lastThree: own(false) }, // prettier-ignore
        },
        answer,
        computed(ranks),
        true,
    );
    provide(COMPARED, view);
    return view;
}

/** For what stands on that page. */
export function useCompared(): ComparisonView {
    const view = inject(COMPARED);
    if (view === undefined) {
        throw new Error('Nothing is compared here.');
    }
    return view;
}
