<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { usePage } from './usePage';

/** How many are not shown, and where they are. */
defineProps<{ more: number; answer: Schemas['PieceAnswer'] }>();
const page = usePage();
</script>

<template>
    <p v-if="more > 0" class="text-[13px] text-ink-faint">
        <RouterLink
            v-if="!page.isPublic"
            class="quiet-link"
            :to="{
                name: 'exceptions',
                query: { unit: answer.unit, period: page.period.value, span: answer.span },
            }"
            >and {{ more }} more</RouterLink
        >
        <template v-else>and {{ more }} more</template>
    </p>
</template>
