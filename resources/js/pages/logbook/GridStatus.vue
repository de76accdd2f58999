<script setup lang="ts">
import { summary } from '@/components/grid/summary';
import { useNumbers } from '@/composables/useNumbers';
import type { Draft } from '@/components/grid/useDrafts';
import { computed } from 'vue';

/** What stands below the grid: how much is shown and selected, and what is to be said of the cell that is worked on. */
const props = defineProps<{
    rows: number;
    all: number;
    /** how many cells are selected, and what stands in them */
    selected: number;
    texts: string[];
    /** the cell that is worked on */
    where: string;
    draft: Draft | undefined;
    /** why it cannot be typed in */
    lock: string;
    isOffline: boolean;
    /** the reason of a colour that is typed and has none yet; null where none is asked for */
    reason: string | null;
    /** whether something is typed that can be put back */
    hasDrafts: boolean;
}>();
const emit = defineEmits<{ settle: [mine: boolean]; discard: []; reason: [text: string] }>();

const { separator, atMost } = useNumbers();

const selection = computed(() => {
    const found = summary(props.texts, separator.value);
    return `Selected ${props.selected}${found === null ? '' : `: mean ${atMost(found.mean, 2)}, sum ${atMost(found.sum, 2)}`}`;
});

const word = computed(() => {
    const said = props.draft?.words ?? '';
    if (said !== '') {
        const isBad = props.draft?.state === 'refused' || props.draft?.state === 'conflict';
        return {
            text: `${props.where}: ${said}`,
            tone: `font-semibold ${isBad ? 'text-red-text' : 'text-amber-text'}`,
        };
    }
    return { text: props.lock === '' ? props.where : `${props.where}: ${props.lock}`, tone: 'text-ink-soft' };
});
</script>

<template>
    <div class="flex flex-wrap items-baseline gap-x-6 gap-y-1 pt-2 text-[13px] text-ink-soft print:hidden">
        <span>{{ rows }} of {{ all }} rows</span>
        <span v-if="selected > 1">{{ selection }}</span>
        <span :class="word.tone" aria-live="polite">{{ word.text }}</span>
        <label v-if="reason !== null" class="flex grow items-baseline gap-2 font-semibold text-ink">
            Why?
            <input
                class="field min-w-[220px] grow py-[2px] font-normal"
                maxlength="2000"
                placeholder="A colour is saved with its reason"
                :value="reason"
                @input="emit('reason', ($event.target as HTMLInputElement).value)"
                @keydown.stop
            />
        </label>
        <span v-if="draft?.state === 'conflict'" class="flex gap-2">
            <button type="button" class="quiet-link" @click="emit('settle', true)">Keep mine</button>
            <button type="button" class="quiet-link" @click="emit('settle', false)">Take theirs</button>
        </span>
        <span v-if="isOffline" class="font-semibold text-amber-text">No connection: what is typed is kept here</span>
        <button v-if="hasDrafts" type="button" class="quiet-link" @click="emit('discard')">Put everything back</button>
        <span v-else class="ml-auto hidden text-ink-faint xl:inline"
            >arrows move · F2 edits · Shift extends · Ctrl D fills down · Ctrl R right · Ctrl Z undoes · Ctrl S
            saves</span
        >
    </div>
</template>
