import { computed, shallowRef } from 'vue';

/** Months as text (2026-08), stepped and named. How they are grouped into years and spans is the server's to say. */
export function step(period: string, months: number): string {
    const [year = 0, month = 1] = period.split('-').map(Number);
    const ordinal = year * 12 + month - 1 + months;
    return `${String(Math.floor(ordinal / 12)).padStart(4, '0')}-${String((ordinal % 12) + 1).padStart(2, '0')}`;
}

const date = (period: string): Date => new Date(`${period}-01T00:00:00Z`);

/** In which the reader has months and days written; sentences are English as the interface is. */
const language = shallowRef('en-GB');
export const writeDatesIn = (chosen: string): void => {
    language.value = chosen;
};

const written = (options: Intl.DateTimeFormatOptions) => {
    const names = computed(() => new Intl.DateTimeFormat(language.value, options));
    return (moment: Date): string => names.value.format(moment);
};
const format = (options: Intl.DateTimeFormatOptions) => {
    const write = written({ timeZone: 'UTC', ...options });
    return (period: string): string => (period === '' ? '' : write(date(period)));
};

const abbreviated = format({ month: 'short' });
/** Three letters, four where three do not tell June from July. */
export const shortMonth = (period: string): string =>
    abbreviated(period)
        .replace('.', '')
        .slice(0, language.value.startsWith('fr') ? 4 : 3);
export const longMonth = format({ month: 'long' });
export const monthAndYear = format({ month: 'long', year: 'numeric' });
export const shortMonthAndYear = (period: string): string => `${shortMonth(period)} ${period.slice(0, 4)}`;

/** Any period as it is said: `August 2026`, `week 34 of 2026`, `quarter 2 of FY2026`, `FY2026`. */
export function periodWords(period: string): string {
    const [, year = '', part = ''] = /^(?:FY)?(\d{4})(?:-(?:W|Q)?(\d+))?$/.exec(period) ?? [];
    if (period.includes('W')) {
        return `week ${Number(part)} of ${year}`;
    }
    if (period.includes('Q')) {
        return `quarter ${part} of FY${year}`;
    }
    return period.startsWith('FY') ? period : monthAndYear(period);
}

/** The same where the year is plain: `August`, `week 34`, `quarter 2`. */
export function shortPeriodWords(period: string): string {
    return period.startsWith('FY') || period.includes('W')
        ? periodWords(period).replace(/ of .*/, '')
        : longMonth(period);
}

/** Any period where there is little room: `Aug 2026`, `week 34 of 2026`. */
export const periodLabel = (period: string): string =>
    period.startsWith('FY') || period.includes('W') ? periodWords(period) : shortMonthAndYear(period);

const writeMoment = written({
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
});
/** A moment in the reader's own time: `12 Nov 2026, 14:02`. */
export const moment = (iso: string): string => writeMoment(new Date(iso));

const writeDay = written({ day: 'numeric', month: 'long', timeZone: 'UTC' });
/** A day: `12 November`. */
export const dayAndMonth = (day: string): string => writeDay(new Date(`${day}T00:00:00Z`));
