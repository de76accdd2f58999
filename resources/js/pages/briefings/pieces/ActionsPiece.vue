<script setup lang="ts">
import { dayAndMonth } from '@/composables/usePeriods';
import { computed } from 'vue';
import AndMore from '../AndMore.vue';
import PieceKpi from '../PieceKpi.vue';
import type { PieceProps } from '../usePage';

/** What is being done, the earliest due first. */
const props = defineProps<PieceProps>();
const actions = computed(() => props.answer.actions ?? []);
const more = computed(() => (props.answer.total ?? 0) - actions.value.length);
</script>

<template>
    <ul class="mt-0.5 text-[14px] leading-snug">
        <li v-for="action in actions" :key="action.id" class="border-b border-rule-soft py-[5px] last:border-0">
            <b class="font-[650]">{{ action.what }}</b><span class="text-ink-soft">, {{ action.who }}, </span>
            <b v-if="action.overdue" class="font-[650] text-red-text">overdue since {{ dayAndMonth(action.due) }}</b>
            <span v-else class="text-ink-soft">{{ dayAndMonth(action.due) }}</span>
            <PieceKpi class="block text-[13px] text-ink-faint" :code="action.code" :unit="action.unit">{{
                action.name
            }}</PieceKpi>
        </li>
    </ul>
    <p v-if="actions.length === 0" class="py-3 text-ink-soft">
        {{
            piece.choices['which'] === 'overdue' ? 'Nothing is overdue.' : 'Nothing has been agreed that is still open.'
        }}
    </p>
    <AndMore v-else :more="more" :answer="answer" />
</template>
