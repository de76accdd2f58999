import { useQueryClient, type Query } from '@tanstack/vue-query';

/**
 * After something was changed: a figure may be on any screen, so all that was loaded is old. What is on the screen is
 * loaded again now, the rest when it is looked at.
 *
 * @returns to be called with the names of those that hold the change already; they too are old when one comes back
 */
export function useFreshness() {
    const queries = useQueryClient();
    return async (...known: string[]): Promise<void> => {
        const isKnown = ({ queryKey }: Query): boolean => known.includes(String(queryKey[0]));
        await Promise.all([
            queries.invalidateQueries({ predicate: isKnown, refetchType: 'none' }),
            queries.invalidateQueries({ predicate: (query) => !isKnown(query) }),
        ]);
    };
}
