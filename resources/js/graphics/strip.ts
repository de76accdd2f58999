import { limits, type Zones } from './zones';

/** The values that a course strip marks; null where there is none, or where it is not shown. */
export interface Marks {
    actual: number | null;
    target: number | null;
    prior: number | null;
}

/** Room beside the outermost marks, as a share of their spread. */
const ROOM = 0.28;

/** The ends of a strip: every mark and every limit lies on it. Null where there is nothing to mark. */
export function stripScale(
    { actual, target, prior }: Marks,
    zones: Zones | null,
): { low: number; high: number } | null {
    const values = [...[actual, target, prior].filter((each) => each !== null), ...limits(zones)];
    if (values.length === 0) {
        return null;
    }
    const low = Math.min(...values);
    const high = Math.max(...values);
    const room = (high - low) * ROOM || Math.abs(high) * 0.2 || 1;
    // Figures that are never negative are not given a negative end.
    return { low: low >= 0 ? Math.max(0, low - room) : low - room, high: high + room };
}

/** From nothing to the figure; where nothing is not on the scale, from the end that is nearer to it. */
export function stripBar(
    scale: { low: number; high: number } | null,
    actual: number | null,
): { from: number; to: number } | null {
    if (scale === null || actual === null) {
        return null;
    }
    const start = Math.max(scale.low, Math.min(scale.high, 0));
    return { from: Math.min(start, actual), to: Math.max(start, actual) };
}
