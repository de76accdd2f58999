/** Months as text (2026-08), stepped and named. How they are grouped into years and spans is the server's to say. */
export function step(period: string, months: number): string {
    const [year = 0, month = 1] = period.split('-').map(Number);
    const ordinal = year * 12 + month - 1 + months;
    return `${String(Math.floor(ordinal / 12)).padStart(4, '0')}-${String((ordinal % 12) + 1).padStart(2, '0')}`;
}

const date = (period: string): Date => new Date(`${period}-01T00:00:00Z`);

/** Words are English as the interface is; only numbers follow the reader's setting. */
const format = (options: Intl.DateTimeFormatOptions) => {
    const names = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', ...options });
    return (period: string): string => (period === '' ? '' : names.format(date(period)));
};

export const shortMonth = (period: string): string => format({ month: 'short' })(period).slice(0, 3);
export const longMonth = format({ month: 'long' });
export const monthAndYear = format({ month: 'long', year: 'numeric' });
export const shortMonthAndYear = (period: string): string => `${shortMonth(period)} ${period.slice(0, 4)}`;
