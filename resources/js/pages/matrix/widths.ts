/** What a needle takes of a column with figures, in pixels, with the room around it. */
export const NEEDLE_WIDE = 40;
