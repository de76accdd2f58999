/** How much of a course is drawn: three steps on course, and two and two thirds beyond its limit. */
const BEST = -3;
const WORST = 2.67;

/** Where the limits of a course lie on the strip, from the left: off course, drifting, on course. */
const share = (place: number): number => ((WORST - place) / (WORST - BEST)) * 100;
export const LIMITS = { amber: share(1), green: share(0) } as const;

export interface Mark {
    /** from the left, in percent of the strip */
    at: number;
    /** whether it lies beyond the strip, and is drawn at its end */
    beyond: boolean;
}

/** Where a place on the course is drawn; better is always further right. */
export function mark(place: number | null | undefined): Mark | null {
    return place == null
        ? null
        : { at: share(Math.min(WORST, Math.max(BEST, place))), beyond: place < BEST || place > WORST };
}

/** Where something lies between the lowest and the highest. */
export const within = (place: number | null | undefined): Mark | null =>
    place == null ? null : { at: place * 100, beyond: false };

/** The colour of the part of the strip that a place lies in. */
export const colourAt = (place: number): 'green' | 'amber' | 'red' =>
    place <= 0 ? 'green' : place <= 1 ? 'amber' : 'red';
