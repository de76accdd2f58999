import { api, read } from '@/api/client';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';

/** Every unit, as deep as it stands, for a list that is chosen from. Who administers need not see any figure of them. */
export function usePlaces() {
    const { data } = useQuery({ queryKey: ['units'], queryFn: () => read(api.GET('/api/units')), staleTime: 0 });
    return {
        places: computed(() =>
            (data.value ?? []).map(({ code, name, depth }) => ({ code, name: `${'\u2003'.repeat(depth)}${name}` })),
        ),
        names: computed(() => new Map((data.value ?? []).map(({ code, name }) => [code, name]))),
        root: computed(() => data.value?.[0]?.code ?? ''),
    };
}
