import type { Schemas, Status } from '@/api/client';

type Row = Schemas['ScorecardRow'];
type Group = Schemas['ScorecardGroup'];

export type Order = 'register' | 'seriousness' | 'movement' | 'variance';

export interface Filter {
    text: string;
    status: '' | Status;
    level: string;
    theme: string;
    owner: string;
}

const SERIOUS: Status[] = ['red', 'amber', 'no-data', 'green', 'not-judged'];
const MOVES: Row['movement'][] = ['worse', 'recovered', 'better', 'none'];

/** How far a row is on the wrong side of its target, in %; what is better counts below nothing. */
function distance({ variance }: Row): number {
    if (variance?.percent == null) {
        return -Infinity;
    }
    const size = Math.abs(Number(variance.percent));
    return variance.effect === 'adverse' ? size : -size;
}

const KEYS: Record<Exclude<Order, 'register'>, (row: Row) => number[]> = {
    seriousness: (row) => [SERIOUS.indexOf(row.status), -distance(row)],
    movement: (row) => [MOVES.indexOf(row.movement), SERIOUS.indexOf(row.status)],
    variance: (row) => [-distance(row)],
};

function compare(one: number[], other: number[]): number {
    const at = one.findIndex((each, index) => each !== other[index]);
    return at < 0 ? 0 : (one[at] ?? 0) - (other[at] ?? 0);
}

const fits = (row: Row, filter: Filter): boolean =>
    (filter.text === '' || `${row.name} ${row.code}`.toLowerCase().includes(filter.text.toLowerCase())) &&
    (filter.status === '' || row.status === filter.status) &&
    (filter.level === '' || row.level === filter.level) &&
    (filter.theme === '' || row.theme === filter.theme) &&
    (filter.owner === '' || row.owner === filter.owner);

/** The groups with the rows that fit, each in the order asked for; a group without any goes. */
export function arrange(groups: readonly Group[], order: Order, filter: Filter): Group[] {
    return groups
        .map((group) => {
            const rows = group.rows.filter((row) => fits(row, filter));
            const key = order === 'register' ? null : KEYS[order];
            return { ...group, rows: key === null ? rows : rows.sort((one, other) => compare(key(one), key(other))) };
        })
        .filter(({ rows }) => rows.length > 0);
}
