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

    return {
        aim,
        written,
        change: (kpi: ComparedKpi, cell: Cell): string =>
            cell.change === null ? '' : `${signed(cell.change.difference, kpi.measure)} ${unitOf(kpi.measure)}`.trim(),
        said: (name: string, kpi: ComparedKpi, cell: Cell | null): string => {
            if (cell === null) {
                return `${name}, ${kpi.name}: not measured`;
            }
            const target = aim(cell, kpi.measure);
            const rank = cell.rank === null ? '' : `, ${ordinal(cell.rank)} of ${kpi.figures}${tenth(cell)}`;
            const then = cell.then === null ? '' : `, then ${figure(cell.then, kpi.measure)}`;
            return `${name}, ${kpi.name}: ${written(kpi, cell)}${target === '' || cell.actual === null ? '' : `, should be ${target}`}${rank}${then}`;
        },
    };
}
