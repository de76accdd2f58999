const PLURALS: Record<string, string> = { department: 'departments', works: 'works', zone: 'zones' };

/** Several units of a kind, as they are called. */
export const unitsOfKind = (kind: string): string => PLURALS[kind] ?? 'units';
