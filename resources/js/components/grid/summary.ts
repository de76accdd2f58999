/** Mean and sum of the figures among texts, written with a decimal separator; null where there is none. */
export function summary(texts: Iterable<string>, separator: string): { mean: number; sum: number } | null {
    let sum = 0;
    let count = 0;
    for (const text of texts) {
        const plain = text.replace(separator, '.');
        if (plain !== '' && Number.isFinite(Number(plain))) {
            sum += Number(plain);
            count++;
        }
    }
    return count === 0 ? null : { mean: sum / count, sum };
}
