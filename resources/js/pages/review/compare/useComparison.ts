import { api, read, type Schemas } from '@/api/client';
import { useAddress, useSwitch } from '@/composables/useAddress';
import { maskedName } from '@/composables/unitKinds';
import { step } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { findIn, ordered } from '@/graphics/peers';
import { number } from '@/graphics/scale';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed, inject, provide, reactive, type InjectionKey } from 'vue';

export type ComparedKpi = Schemas['CompareKpi'];
export const VIEWS = { figures: 'Figures', ranks: 'Ranks', time: 'Ranks over time', two: 'Two months' } as const;
export type CompareView = keyof typeof VIEWS;
export const MOST_KPIS = 8;

/**
 * What is compared and how it is looked at. All of it is in the address: the view can be linked, and table and graphics
 * follow one unit, light up the same ones, and call them by the same names.
 */
function compare() {
    const { unit, period, span } = useView();
    const { units: known } = useSession();

    const kind = useAddress('kind', '');
    const chosen = useAddress('kpis', '');
    const amongThem = useAddress('with', '');
    const view = useAddress<CompareView>('as', 'figures', Object.keys(VIEWS) as CompareView[]);
    const order = useAddress('order', '');
    const bestFirst = useSwitch('best');
    const find = useAddress('find', '');
    const only = useSwitch('only');
    const plain = useSwitch('plain');
    const masked = useSwitch('masked');
    const follow = useAddress('follow', '');
    const across = useAddress('across', '');
    const up = useAddress('up', '');
    const large = useAddress('large', '');
    const level = useAddress<'median' | 'quarter' | 'target'>('level', 'median', ['median', 'quarter', 'target']);
    const against = useAddress('against', '');
    const lastThree = useSwitch('last');

    const other = computed(() => (/^\d{4}-\d{2}$/.test(against.value) ? against.value : step(period.value, -12)));
    const query = computed(() => ({
        period: period.value,
        span: span.value,
        kind: kind.value,
        kpis: chosen.value,
        kpi: amongThem.value,
        ...(view.value === 'two' ? { against: other.value } : {}),
    }));
    const asked = useQuery({
        queryKey: computed(() => ['comparison', unit.value.code, query.value]),
        queryFn: () =>
            read(
                api.GET('/api/units/{unit}/comparison', {
                    params: { path: { unit: unit.value.code }, query: query.value },
                }),
            ),
        placeholderData: keepPreviousData,
    });
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
        query,
        error: asked.error,
        isPending: asked.isPending,
        isPlaceholder: asked.isPlaceholderData,
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

export type ComparisonView = ReturnType<typeof compare>;
const COMPARED: InjectionKey<ComparisonView> = Symbol('compared');

/** For the page, which shares it with its table and graphics. */
export function useComparison(): ComparisonView {
    const view = compare();
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
