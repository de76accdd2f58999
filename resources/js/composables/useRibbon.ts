import { api, read } from '@/api/client';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { useView } from './useView';

/** The year ribbon of the chosen unit, and how many readings wait there for this user. */
export function useRibbon() {
    const { unit, period } = useView();

    return useQuery({
        queryKey: computed(() => ['ribbon', unit.value.code, period.value]),
        queryFn: () =>
            read(
                api.GET('/api/units/{unit}/ribbon', {
                    params: { path: { unit: unit.value.code }, query: { period: period.value } },
                }),
            ),
        placeholderData: keepPreviousData,
    });
}
