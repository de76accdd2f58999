import { STATUSES } from '@/words';
import type { Schemas } from '@/api/client';
import { capital, useNumbers } from '@/composables/useNumbers';
import { dayAndMonth, periodWords } from '@/composables/usePeriods';
import type { Layers, Mode, Point } from './chart';

/** What a point of the chart says in words, for the eye beside it and for the ear. */
export function useReading(props: { page: Pick<Schemas['KpiPage'], 'measure'>; mode: Mode; layers: Layers }) {
    const { figure, signed, percent, unitOf } = useNumbers();

    const title = ({ period }: Point): string =>
        ({
            gathered: `Year to date, ${periodWords(period)}`,
            quarters: `Quarter to ${periodWords(period)}`,
            months: capital(periodWords(period)),
        })[props.mode];

    function goal({ target, upper }: Point): string {
        if (target === null) {
            return '';
        }
        return upper === null ? figure(target, props.page.measure) : `${figure(target)} to ${figure(upper)}`;
    }

    const variance = (of: Point['variance']): string =>
        of === null
            ? ''
            : `${signed(of.difference)}${of.percent !== null && !of.points ? ` (${percent(of.percent)})` : ''}`;

    /** Names and values; the status is always said, what does not exist is not. */
    const lines = (point: Point, signals: string[]): { name: string; value: string }[] => {
        const { measure } = props.page;
        return [
            {
                name: STATUSES[point.status],
                value: point.actual === null ? '' : `${figure(point.actual, measure)} ${unitOf(measure)}`.trim(),
            },
            { name: 'target', value: goal(point) },
            { name: 'to target', value: variance(point.variance) },
            {
                name: 'last year',
                value: point.prior !== null && props.layers.prior ? figure(point.prior, measure) : '',
            },
            { name: 'as of', value: point.asOf === null ? '' : dayAndMonth(point.asOf) },
            { name: 'signal', value: signals.join('; ') },
        ].filter(({ value }, place) => value !== '' || place === 0);
    };

    return { title, lines };
}
