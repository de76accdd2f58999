<script setup lang="ts">
import { computed } from 'vue';
import type { PieceProps } from '../usePage';

/** Words that stay as they are, or a picture. */
const props = defineProps<PieceProps>();
const words = computed(() => (props.answer.text ?? []).map((part) => part.words).join('').split(/\n\s*\n/).filter(Boolean)); // prettier-ignore
</script>

<template>
    <p v-for="(each, at) in words" :key="at" class="mt-1 max-w-[68em] text-[15px] leading-[1.42] whitespace-pre-line">
        {{ each }}
    </p>
    <img
        v-if="answer.picture"
        :src="answer.picture.source"
        :width="answer.picture.width"
        :height="answer.picture.height"
        :alt="piece.title || piece.line || 'Picture'"
        class="mt-1.5 h-auto max-w-full"
    />
    <p v-if="words.length === 0 && !answer.picture" class="py-2 text-ink-faint">Nothing is written yet.</p>
</template>
