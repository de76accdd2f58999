<script setup lang="ts">
/** A label, what is filled in, and beside it what is wrong with it. */
defineProps<{ label: string; for?: string; error?: string | undefined; hint?: string | undefined }>();
</script>

<template>
    <div class="grid items-baseline gap-x-4 sm:grid-cols-[140px_minmax(0,1fr)]">
        <component :is="$props.for ? 'label' : 'span'" :for="$props.for" class="text-ink-soft">{{ label }}</component>
        <div>
            <slot />
            <span v-if="error" class="error mt-1 block" role="alert">{{ error }}</span>
            <span v-else-if="hint" class="mt-0.5 block text-[13px] text-ink-faint">{{ hint }}</span>
        </div>
    </div>
</template>
