import type { Schemas, Status } from '@/api/client';

export type Zones = Schemas['Zones'];

export const ZONE_FILLS = { green: 'fill-green-zone', amber: 'fill-amber-zone', red: 'fill-red-zone' } as const;

export const DOT_FILLS: Record<Status, string> = {
    green: 'fill-green',
    amber: 'fill-amber',
    red: 'fill-red',
    'not-judged': 'fill-hollow',
    'no-data': 'fill-hollow',
};

export interface Zone {
    status: keyof typeof ZONE_FILLS;
    from: number;
    to: number;
}

/** Where colours change. */
export const limits = (zones: Zones | null): number[] =>
    zones === null
        ? []
        : [zones.green, zones.amber, zones.greenLow, zones.amberLow].filter((each) => each !== null).map(Number);

/** The colours between two values, from the lower to the higher one; what lies beyond them is cut off. */
export function zonesBetween(zones: Zones | null, low: number, high: number): Zone[] {
    if (zones === null) {
        return [];
    }
    const [green, amber] = [Number(zones.green), Number(zones.amber)];
    let colours: Zone['status'][];
    let edges: number[];
    if (zones.greenLow !== null && zones.amberLow !== null) {
        colours = ['red', 'amber', 'green', 'amber', 'red'];
        edges = [Number(zones.amberLow), Number(zones.greenLow), green, amber];
    } else if (zones.higherIsBetter) {
        colours = ['red', 'amber', 'green'];
        edges = [amber, green];
    } else {
        colours = ['green', 'amber', 'red'];
        edges = [green, amber];
    }
    const ends = [low, ...edges.map((edge) => Math.max(low, Math.min(high, edge))), high];
    return colours
        .map((status, index) => ({ status, from: ends[index] ?? low, to: ends[index + 1] ?? high }))
        .filter(({ from, to }) => to > from);
}
