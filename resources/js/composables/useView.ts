import { SPANS } from '@/words';
import type { Schemas, Span } from '@/api/client';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { monthAndYear } from './usePeriods';
import { useSession } from './useSession';

const WEEK = /^\d{4}-W\d{2}$/;
const MONTH = /^\d{4}-(0[1-9]|1[0-2])$/;

/** The unit, month and span that are looked at. They live in the address, so that any view can be linked. */
export function useView() {
    const route = useRoute();
    const router = useRouter();
    const { session, user, units } = useSession();

    const asked = (name: string): string => {
        const value = route.query[name];
        return typeof value === 'string' ? value : '';
    };

    const unit = computed<Schemas['Unit']>(() => {
        const found = units.value.get(asked('unit')) ?? units.value.get(user.value?.unit ?? '');
        return found ?? { code: '', name: '', kind: '', parent: null, letter: '' };
    });
    const period = computed(() => (MONTH.test(asked('period')) ? asked('period') : (session.value?.period ?? '')));
    const span = computed<Span>(() => (Object.keys(SPANS) as Span[]).find((each) => each === asked('span')) ?? 'month');

    /** A week of the month, where one is looked at; blank otherwise. */
    const week = computed(() => (WEEK.test(asked('week')) ? asked('week') : ''));

    /** What the address asks for and cannot have, in sentences: what is shown in its place is not passed off as it. */
    const mistaken = computed(() => [
        ...(asked('unit') !== '' && !units.value.has(asked('unit'))
            ? [`There is no unit ${asked('unit')}: this is ${unit.value.name}.`]
            : []),
        ...(asked('period') !== '' && !MONTH.test(asked('period'))
            ? [`${asked('period')} is not a month such as 2026-08: this is ${monthAndYear(period.value)}.`]
            : []),
    ]);

    /** The query of a link that changes some of the view and keeps the rest. */
    const query = (change: Partial<{ unit: string; period: string; span: Span; week: string }> = {}) => {
        // A week belongs to its month and to no longer span.
        const kept = change.period === undefined && change.span === undefined ? week.value : '';
        const of = change.week ?? kept;
        return {
            unit: change.unit ?? unit.value.code,
            period: change.period ?? period.value,
            span: change.span ?? span.value,
            week: of === '' ? undefined : of,
        };
    };

    return {
        unit,
        period,
        span,
        week,
        mistaken,
        query,
        /** The same screen, with its order, filters and switches, for another part of the view. */
        here: (change: Parameters<typeof query>[0]) => ({ ...route.query, ...query(change) }),
        show: (change: Parameters<typeof query>[0]) => router.push({ query: { ...route.query, ...query(change) } }),
    };
}
