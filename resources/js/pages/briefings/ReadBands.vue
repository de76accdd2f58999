<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { computed, ref } from 'vue';
import PageBands from './PageBands.vue';
import { providePage } from './usePage';

/** The bands of a page for who reads it without an account: what is chosen in one piece stands out in the others, and no more. */
const props = defineProps<{ page: Schemas['BriefingPage'] }>();
const answers = computed(() => new Map(props.page.answers.map((answer) => [answer.id, answer])));
const own = () => {
    const kept = ref('');
    return computed({ get: () => kept.value, set: (to: string) => (kept.value = to) });
};
const follow = own();
providePage({
    isPublic: true,
    home: computed(() => props.page.unit),
    unit: computed(() => props.page.unit),
    period: computed(() => props.page.period),
    colour: own(),
    part: own(),
    follow,
    chooseUnit: (code) => (follow.value = follow.value === code ? '' : code),
});
</script>

<template>
    <PageBands :bands="page.bands" :answers="answers" />
</template>
