import { api, read, type Schemas } from '@/api/client';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import type { Definition, Rule } from './useDraft';

type Reference = Rule['reference'];
type Measure = Schemas['Pairing']['measures'][number];

/** What a KPI can be compared with, and how the difference is measured then: the server knows what goes with what. */
export function usePairings(draft: () => Definition) {
    const { data } = useQuery({
        queryKey: ['pairings'],
        queryFn: () => read(api.GET('/api/pairings')),
        staleTime: Infinity,
    });
    const own = computed(
        () =>
            new Map<Reference, Measure[]>(
                (data.value ?? [])
                    .filter(
                        ({ polarity, accumulation }) =>
                            polarity === draft().polarity && accumulation === draft().accumulation,
                    )
                    .map(({ reference, measures }) => [reference, measures]),
            ),
    );
    const measuresOf = (reference: Reference): readonly Measure[] => own.value.get(reference) ?? [];
    return { isPossible: (reference: Reference): boolean => own.value.has(reference), measuresOf };
}
