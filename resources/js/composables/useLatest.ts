/**
 * A question that is asked again before the answer is there. Answers and failures of earlier ones are dropped, in
 * whatever order they come: they are about what is no longer asked.
 *
 * @returns asks; whether the answer was the latest one
 */
export function useLatest<T>(take: (answer: T) => void, fail: (reason: unknown) => void) {
    let asked = 0;
    return async (request: () => Promise<T>): Promise<boolean> => {
        const mine = ++asked;
        try {
            const answer = await request();
            if (mine === asked) {
                take(answer);
            }
        } catch (reason) {
            if (mine === asked) {
                fail(reason);
            }
        }
        return mine === asked;
    };
}
