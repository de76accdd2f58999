<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import WriteBands from './WriteBands.vue';

/** The draft of a page and what pieces there are, for who writes it. */
const props = defineProps<{ code: string }>();
const { period, span } = useView();

const kinds = useQuery({
    queryKey: ['briefing-kinds'],
    queryFn: () => read(api.GET('/api/briefing-kinds')),
    staleTime: Infinity,
});
const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['briefing-draft', props.code, period.value, span.value]),
    queryFn: () =>
        read(
            api.GET('/api/briefings/{briefing}', {
                params: {
                    path: { briefing: props.code },
                    query: { period: period.value, span: span.value, draft: '1' },
                },
            }),
        ),
    gcTime: 0,
    // What is being written is not written over by what is read again.
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
});
const all = computed(() =>
    data.value?.shows === 'draft' && kinds.data.value !== undefined
        ? { page: data.value, kinds: kinds.data.value }
        : null,
);
</script>

<template>
    <StateNote v-if="isPending || kinds.isPending.value" loading />
    <StateNote v-else-if="error ?? kinds.error.value" :error="error ?? kinds.error.value" @retry="refetch()" />
    <StateNote v-else-if="all === null" title="You read this page, and do not write it">
        Analysts of its unit write it.
    </StateNote>
    <WriteBands v-else :key="`${code} ${period} ${span}`" :page="all.page" :kinds="all.kinds" @again="refetch()" />
</template>
