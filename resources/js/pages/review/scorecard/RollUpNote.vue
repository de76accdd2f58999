<script setup lang="ts">
import type { Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';

/** How the status of the unit follows from what is directly under it. */
const props = defineProps<{ page: Schemas['ScorecardPage']; unit: string }>();
const { plain } = useNumbers();
const weight = computed(() => props.page.rollUp.members.reduce((sum, member) => sum + Number(member.weight), 0));
const coverage = computed(() =>
    props.page.rollUp.coverage === null
        ? ''
        : `${plain(Math.round(props.page.rollUp.coverage * 1000) / 10)} % of the weight is judged`,
);
</script>

<template>
    <section class="rounded-[3px] border border-rule bg-sheet px-4 py-3 text-[14.5px]" aria-label="How it adds up">
        <p class="flex items-start gap-3">
            <Needle :status="page.status" class="mt-px" />
            <span
                >{{ page.rollUp.method }}
                <template v-if="page.rollUp.score !== null"
                    >{{ ' ' }}The score of {{ unit }} is
                    <b class="font-[650]">{{ plain(Math.round(page.rollUp.score * 100) / 100) }}</b><template
                        v-if="coverage"
                        >; {{ coverage }}</template
                    >.</template
                >{{ ' ' }}Below 50 % it would have no reading.</span
            >
        </p>
        <ul class="mt-2 grid gap-x-8 md:grid-cols-2 xl:grid-cols-3">
            <li
                v-for="member in page.rollUp.members"
                :key="`${member.isUnit} ${member.name}`"
                class="flex items-center gap-2 border-t border-rule-soft py-[3px]"
            >
                <Needle :status="member.status" size="s" />
                <span class="min-w-0 grow truncate" :class="{ 'font-semibold': member.isUnit }">{{ member.name }}</span>
                <span class="text-[13px] text-ink-soft"
                    >weight {{ plain(Number(member.weight)) }} of {{ plain(weight) }}</span
                >
            </li>
        </ul>
    </section>
</template>
