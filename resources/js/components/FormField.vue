<script setup lang="ts">
/** A field with what it is called above it, and below it what is wrong with it or helps to fill it. */
defineProps<{ label: string; problem?: string | undefined; hint?: string | undefined }>();
</script>

<template>
    <label class="block"
        ><span class="mb-1 block text-[14px] text-ink-soft">{{ label }}</span
        ><slot /><span v-if="problem" class="error block" role="alert">{{ problem }}</span
        ><span v-else-if="hint" class="mt-0.5 block text-[13px] text-ink-faint">{{ hint }}</span></label
    >
</template>
