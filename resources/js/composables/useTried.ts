import { api, read, type Schemas } from '@/api/client';
import type { LocationQuery } from 'vue-router';

/** What can be tried on the page of a KPI, as it stands in the address: `if.green=2&if.as=en-GB`. */
const TRIED = ['green', 'amber', 'low', 'high', 'marginLow', 'marginHigh', 'periods', 'moved', 'same'] as const;
export type Tried = Record<(typeof TRIED)[number], string>;

const PREFIX = 'if.';

/** The number setting that the figures of an address are written in. */
const SETTING = `${PREFIX}as`;

const text = (query: LocationQuery, name: string): string => {
    const value = query[name];
    return typeof value === 'string' ? value : '';
};

/** What an address tries, and the number setting in which it does; blank where it tries nothing. */
export const triedIn = (query: LocationQuery): { tried: Tried; as: string } => ({
    tried: Object.fromEntries(TRIED.map((name) => [name, text(query, PREFIX + name)])) as Tried,
    as: text(query, SETTING),
});

export const triesAnything = ({ tried }: { tried: Tried }): boolean => TRIED.some((name) => tried[name] !== '');

/** The part of an address that tries it; nothing where it tries nothing. */
export const triedQuery = (tried: Partial<Tried>, as: string): Record<string, string | undefined> => {
    const some = TRIED.some((name) => (tried[name] ?? '') !== '');
    return {
        ...Object.fromEntries(TRIED.map((name) => [PREFIX + name, tried[name] === '' ? undefined : tried[name]])),
        [SETTING]: some ? as : undefined,
    };
};

/** What the latest periods would have been. */
export function askWhatIf(
    unit: string,
    kpi: string,
    period: string,
    tried: Tried,
    as: string,
): Promise<Schemas['WhatIf']> {
    const some = Object.fromEntries(TRIED.flatMap((name) => (tried[name] === '' ? [] : [[name, tried[name]]])));
    return read(
        api.GET('/api/units/{unit}/kpis/{kpi}/what-if', {
            params: {
                path: { unit, kpi },
                query: { period, ...some, ...(as === '' ? {} : { as }) },
            },
        }),
    );
}
