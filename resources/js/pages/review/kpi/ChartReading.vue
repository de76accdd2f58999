<script setup lang="ts">
/** What a point of the chart says: its figures, why it stands out, what was noted. */
defineProps<{
    title: string;
    lines: { name: string; value: string }[];
    marks: { words: string }[];
}>();
</script>

<template>
    <div
        class="pointer-events-none absolute top-6 z-10 min-w-[168px] rounded-[3px] border border-rule bg-sheet px-3 py-2 text-[13.5px] shadow-[0_3px_14px_rgb(0_0_0/.12)]"
    >
        <p class="mb-1 font-serif text-[15px] font-semibold">{{ title }}</p>
        <p v-for="each in lines" :key="each.name" class="flex justify-between gap-4">
            <span class="text-ink-soft">{{ each.name }}</span>
            <b class="max-w-[230px] text-right font-semibold">{{ each.value }}</b>
        </p>
        <p
            v-for="mark in marks"
            :key="mark.words"
            class="mt-1 line-clamp-3 max-w-[260px] border-t border-rule-soft pt-1 text-ink-soft"
        >
            {{ mark.words }}
        </p>
    </div>
</template>
