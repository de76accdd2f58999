import type { Schemas } from '@/api/client';
import { ordinal, useNumbers } from '@/composables/useNumbers';
import type { ComparedKpi } from './useComparison';

type Cell = Schemas['CompareCell'];

/** What a cell of a comparison says, for the eye and for the ear. */
export function useWords() {
    const { figure, signed, withMeasure, unitOf } = useNumbers();

    const aim = (cell: Cell, measure: string): string =>
        cell.target !== null
            ? figure(cell.target, measure)
            : cell.low !== null && cell.high !== null
              ? `${figure(cell.low)} to ${figure(cell.high)}`
              : '';
    const written = (kpi: ComparedKpi, cell: Cell | null | undefined): string =>
        cell?.actual ? withMeasure(figure(cell.actual), kpi.measure) : (cell?.instead ?? 'not measured');
    const tenth = (cell: Cell): string =>
        cell.tenth === 'worst' ? ', among the worst tenth' : cell.tenth === 'best' ? ', among the best tenth' : '';

    /** What a figure by itself does not say. */
    function beyond(kpi: ComparedKpi, cell: Cell): string {
        const target = cell.actual === null ? '' : aim(cell, kpi.measure);
        return [
            target === '' ? '' : `, should be ${target}`,
            cell.rank === null ? '' : `, ${ordinal(cell.rank)} of ${kpi.figures}${tenth(cell)}`,
            cell.then === null ? '' : `, then ${figure(cell.then, kpi.measure)}`,
        ].join('');
    }

    return {
        aim,
        written,
        change: (kpi: ComparedKpi, cell: Cell): string =>
            cell.change === null ? '' : `${signed(cell.change.difference, kpi.measure)} ${unitOf(kpi.measure)}`.trim(),
        beyond,
        said: (name: string, kpi: ComparedKpi, cell: Cell | null): string =>
            `${name}, ${kpi.name}: ${written(kpi, cell)}${cell === null ? '' : beyond(kpi, cell)}`,
    };
}
