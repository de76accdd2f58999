<script setup lang="ts">
/** Names every mark of the course strip. */
defineProps<{ withStep: boolean }>();
const hideTargets = defineModel<boolean>('hideTargets', { required: true });
const hidePrior = defineModel<boolean>('hidePrior', { required: true });
const showStep = defineModel<boolean>('showStep', { required: true });
</script>

<template>
    <div class="flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-rule py-[7px] text-[13.5px] text-ink-soft">
        <span class="hidden items-center gap-1.5 md:flex">
            <svg width="26" height="14" aria-hidden="true">
                <path d="M1 7 H16" class="stroke-ink" stroke-width="2" />
                <path d="M25 7 L14 1.5 L14 12.5Z" class="fill-ink" /></svg
            >now, and from where
        </span>
        <span v-if="!hidePrior" class="hidden items-center gap-1.5 md:flex">
            <svg width="13" height="14" viewBox="0 0 13 14" aria-hidden="true">
                <path d="M6.5 1 L12 7 L6.5 13 L1 7Z" class="fill-sheet stroke-ink" stroke-width="1.3" /></svg
            >last year
        </span>
        <span class="hidden items-center gap-1.5 md:flex">
            <svg width="8" height="16" aria-hidden="true"><rect x="3" width="2" height="16" class="fill-ink" /></svg>on
            course from here
        </span>
        <span v-if="!hideTargets" class="hidden items-center gap-1.5 md:flex">
            <svg width="8" height="14" aria-hidden="true"><rect x="3" width="2" height="14" class="fill-brass" /></svg
            >target
        </span>
        <span class="ml-auto flex gap-5 print:hidden">
            <button
                v-if="withStep"
                type="button"
                class="quiet-link max-md:hidden"
                :aria-pressed="showStep"
                @click="showStep = !showStep"
            >
                {{ showStep ? 'Hide the month before' : 'Show the month before' }}
            </button>
            <button
                type="button"
                class="quiet-link max-md:hidden"
                :aria-pressed="hidePrior"
                @click="hidePrior = !hidePrior"
            >
                {{ hidePrior ? 'Show last year' : 'Hide last year' }}
            </button>
            <button type="button" class="quiet-link" :aria-pressed="hideTargets" @click="hideTargets = !hideTargets">
                {{ hideTargets ? 'Show targets' : 'Hide targets' }}
            </button>
        </span>
    </div>
</template>
