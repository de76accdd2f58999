import type { Schemas } from '@/api/client';
import type { Kind } from './words';

export type Piece = Schemas['Piece'];
export type Band = Piece[];

export const TWELFTHS = 12;
export const MOST_IN_A_BAND = 4;
const LEAST = 2;

/** An identity that no other piece of the page has. */
export function freshId(bands: readonly Band[]): string {
    const taken = new Set(bands.flat().map(({ id }) => id));
    for (let next = taken.size + 1; ; next++) {
        if (!taken.has(`p${next}`)) {
            return `p${next}`;
        }
    }
}

export const newPiece = (id: string, kind: Kind, width: number): Piece => ({
    ...{
        id,
        kind,
        width,
        title: '',
        line: '',
        kpis: [],
        unit: '',
        span: '',
        of: '',
        choices: {},
        parts: null,
        text: '',
    },
    picture: null,
});

/** Makes room: the widest pieces give a twelfth each until the band fits the page. The one that was just set keeps its width as long as it can. */
function fitted(band: Band, kept = ''): Band {
    const widths = band.map(({ width }) => width);
    const sum = (): number => widths.reduce((all, width) => all + width, 0);
    while (sum() > TWELFTHS) {
        const others = widths.map((width, at) => (band[at]?.id === kept ? -1 : width));
        const widest =
            Math.max(...others) > LEAST ? others.indexOf(Math.max(...others)) : widths.indexOf(Math.max(...widths));
        widths[widest] = (widths[widest] ?? LEAST) - 1;
    }
    return band.map((piece, at) => ({ ...piece, width: widths[at] ?? piece.width }));
}

const placeOf = (bands: readonly Band[], id: string): [number, number] => {
    const row = bands.findIndex((band) => band.some((piece) => piece.id === id));
    return [row, bands[row]?.findIndex((piece) => piece.id === id) ?? -1];
};

const without = (bands: readonly Band[], id: string): Band[] => bands.map((band) => band.filter((piece) => piece.id !== id)).filter((band) => band.length > 0); // prettier-ignore

/** Within its band, or into the one beside where it stands at its end. */
export function moved(bands: readonly Band[], id: string, way: 'left' | 'right' | 'up' | 'down'): Band[] {
    const [row, at] = placeOf(bands, id);
    const band = bands[row];
    const piece = band?.[at];
    if (band === undefined || piece === undefined) {
        return [...bands];
    }
    if (way === 'left' || way === 'right') {
        const to = at + (way === 'left' ? -1 : 1);
        if (to < 0 || to >= band.length) {
            return [...bands];
        }
        const turned = [...band];
        turned.splice(at, 1);
        turned.splice(to, 0, piece);
        return bands.map((each, index) => (index === row ? turned : each));
    }
    const step = way === 'up' ? -1 : 1;
    if (band.length === 1) {
        // A band of its own: it goes into the next one where there is room, or past it.
        const next = bands[row + step];
        if (next === undefined) {
            return [...bands];
        }
        const rest = bands.filter((_, index) => index !== row);
        const place = rest.indexOf(next);
        return next.length < MOST_IN_A_BAND && next.reduce((sum, { width }) => sum + width, piece.width) <= TWELFTHS
            ? rest.map((each, index) => (index === place ? [...each, piece] : each))
            : [
                  ...rest.slice(0, way === 'up' ? place : place + 1),
                  [piece],
                  ...rest.slice(way === 'up' ? place : place + 1),
              ];
    }
    // Out of its band: a band of its own above or below.
    const left = bands.map((each, index) => (index === row ? each.filter((other) => other.id !== id) : [...each]));
    left.splice(way === 'up' ? row : row + 1, 0, [piece]);
    return left.filter((each) => each.length > 0);
}

/** To beside another piece, or to a band of its own before the one with that place. */
export function dropped(
    bands: readonly Band[],
    id: string,
    to: { beside: string; after: boolean } | { band: number },
): Band[] {
    const piece = bands.flat().find((each) => each.id === id);
    if (piece === undefined || ('beside' in to && to.beside === id)) {
        return [...bands];
    }
    if ('band' in to) {
        const marked = bands.map((band) => band.filter((each) => each.id !== id));
        marked.splice(to.band, 0, [piece]);
        return marked.filter((band) => band.length > 0);
    }
    const rest = without(bands, id);
    const [row, at] = placeOf(rest, to.beside);
    const band = rest[row];
    if (band === undefined || band.length >= MOST_IN_A_BAND) {
        return [...bands];
    }
    const into = [...band];
    into.splice(to.after ? at + 1 : at, 0, piece);
    return rest.map((each, index) => (index === row ? fitted(into) : each));
}

export const removed = without;

export function changed(bands: readonly Band[], id: string, change: Partial<Piece>): Band[] {
    return bands.map((band) =>
        band.some((piece) => piece.id === id)
            ? fitted(
                  band.map((piece) => (piece.id === id ? { ...piece, ...change } : piece)),
                  id,
              )
            : band,
    );
}

export function copied(bands: readonly Band[], id: string): { bands: Band[]; id: string } {
    const [row, at] = placeOf(bands, id);
    const piece = bands[row]?.[at];
    if (piece === undefined) {
        return { bands: [...bands], id };
    }
    const copy = { ...piece, id: freshId(bands) };
    const band = bands[row] ?? [];
    const fits =
        band.length < MOST_IN_A_BAND && band.reduce((sum, { width }) => sum + width, 0) + piece.width <= TWELFTHS;
    return {
        id: copy.id,
        bands: fits
            ? bands.map((each, index) =>
                  index === row ? [...each.slice(0, at + 1), copy, ...each.slice(at + 1)] : each,
              )
            : [...bands.slice(0, row + 1), [copy], ...bands.slice(row + 1)],
    };
}

/**
 * Puts the figures that weigh least behind a head of their own at the end, until no more are left than a reader takes in.
 *
 * @param weights of the KPIs of figures, by piece
 */
export function appended(
    bands: readonly Band[],
    most: number,
    ofFigures: (piece: Piece) => boolean,
    weights: ReadonlyMap<string, number>,
): Band[] {
    const figures = bands.flat().filter(ofFigures);
    const last = new Map(figures.map(({ id }, at) => [id, at]));
    // Of equal weight the later one goes first.
    const weakest = [...figures]
        .sort(
            (one, other) =>
                (weights.get(one.id) ?? 1) - (weights.get(other.id) ?? 1) ||
                (last.get(other.id) ?? 0) - (last.get(one.id) ?? 0),
        )
        .slice(0, Math.max(0, figures.length - most))
        .map(({ id }) => id);
    if (weakest.length === 0) {
        return [...bands];
    }
    const left = bands.map((band) => band.filter(({ id }) => !weakest.includes(id))).filter((band) => band.length > 0);
    const moving = figures.filter(({ id }) => weakest.includes(id));
    const head = {
        ...newPiece(freshId(bands), 'text', TWELFTHS),
        title: 'Appendix',
        text: 'Figures that stand behind the page.',
    };
    const rows: Band[] = [];
    for (let at = 0; at < moving.length; at += MOST_IN_A_BAND) {
        rows.push(fitted(moving.slice(at, at + MOST_IN_A_BAND)));
    }
    return [...left, [head], ...rows];
}
