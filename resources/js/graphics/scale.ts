export const number = (text: string | null | undefined): number | null =>
    text === null || text === undefined ? null : Number(text);

/** With so many decimals; nothing has no sign. */
export const rounded = (value: number, decimals: number): string =>
    (Number(value.toFixed(decimals)) || 0).toFixed(decimals);

/** Round steps that divide the range into about so many parts, and the ends that they reach. */
export function ticks(low: number, high: number, parts = 5): number[] {
    const span = high - low || Math.abs(high) || 1;
    const rough = span / parts;
    const power = 10 ** Math.floor(Math.log10(rough));
    const step = ([1, 2, 2.5, 5, 10].find((each) => each * power >= rough) ?? 10) * power;
    const first = Math.floor(low / step + 1e-9);
    const last = Math.ceil(high / step - 1e-9);
    return Array.from({ length: Math.max(2, last - first + 1) }, (_, index) =>
        Number(((first + index) * step).toPrecision(12)),
    );
}
