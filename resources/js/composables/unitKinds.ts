import type { Schemas } from '@/api/client';
import { capital } from './useNumbers';

const PLURALS: Record<string, string> = { works: 'works', '': 'units' };

/** Several units of a kind, as they are called: `zones`, `works`, `meter models`. */
export const unitsOfKind = (kind: string): string =>
    PLURALS[kind] ??
    (/[^aeiou]y$/.test(kind) ? `${kind.slice(0, -1)}ies` : /(s|x|ch|sh)$/.test(kind) ? `${kind}es` : `${kind}s`);

/** What a unit is called where names are hidden: the same letters everywhere. */
export const maskedName = (unit: Schemas['Unit'] | undefined): string =>
    unit === undefined ? '' : `${capital(unit.kind)} ${unit.letter}`;
