<script setup lang="ts">
import type { Draft } from '@/components/grid/useDrafts';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';

/** One cell of the year grid. */
const props = defineProps<{
    text: string;
    status: string;
    lock: string;
    marks: string;
    draft: Draft | undefined;
    kind: string;
    active: boolean;
    selected: boolean;
}>();

const BARS: Record<string, string> = { g: 'bg-green', a: 'bg-amber', r: 'bg-red' };
const WORDS: Record<string, string> = { g: 'on course', a: 'drifting', r: 'off course' };
const COLOURS = ['green', 'amber', 'red'] as const;

const colour = computed(() => (props.kind === 'judged' ? COLOURS.find((each) => each === props.text) : undefined));
const bad = computed(() => props.draft?.state === 'refused' || props.draft?.state === 'conflict');
const status = computed(() => (props.draft === undefined ? props.status : props.draft.status));
const ground = computed(() =>
    bad.value
        ? 'bg-red-zone/40'
        : props.draft !== undefined
          ? 'bg-brass-tint'
          : props.lock !== ''
            ? 'bg-paper text-ink-soft'
            : 'bg-field',
);
const { setApart } = useNumbers();
const shown = computed(() => setApart(props.text));
/** What a screen reader adds to the figure. */
const said = computed(() =>
    [
        WORDS[status.value] ?? '',
        props.draft === undefined ? '' : bad.value ? props.draft.words : 'not saved yet',
        props.marks.includes('n') ? 'has a note' : '',
        props.marks.includes('p') ? 'provisional' : '',
        props.lock === '' ? '' : `cannot be typed in: ${props.lock}`,
    ]
        .filter((each) => each !== '')
        .join(', '),
);
</script>

<template>
    <div
        class="relative flex h-full items-center justify-end border-l border-rule-soft pr-[9px] pl-2 select-none"
        :class="[
            ground,
            selected && !active
                ? 'shadow-[inset_0_0_0_999px_color-mix(in_srgb,var(--color-brass)_13%,transparent)]'
                : '',
            active ? 'z-10 outline-2 -outline-offset-2 outline-brass' : '',
        ]"
    >
        <span
            v-if="BARS[status] && kind !== 'judged' && !bad"
            class="absolute top-[7px] bottom-[7px] left-[4px] w-[4px] rounded-full"
            :class="BARS[status]"
        />
        <Needle v-if="colour" :status="colour" size="s" decorative />
        <span
            v-else
            class="truncate"
            :class="{
                italic: kind === 'formula',
                'text-red-text': bad,
                'border-b-2 border-dotted border-brass leading-[1.15]': marks.includes('n'),
            }"
            >{{ shown }}</span
        >
        <span v-if="marks.includes('p')" class="ml-[2px] -mt-2 text-[11px] text-ink-faint" aria-hidden="true">°</span>
        <span v-if="said" class="sr-only">, {{ said }}</span>
    </div>
</template>
