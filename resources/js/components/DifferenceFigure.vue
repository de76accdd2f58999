<script setup lang="ts">
import type { Schemas, Status } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';

/** A difference with its sign. Adverse ones are coloured as the status is; favourable ones stay quiet. */
const props = defineProps<{
    difference: Schemas['Difference'] | null;
    measure: string;
    status: Status;
    /** it is told from a band, inside which there is no difference */
    band?: boolean;
}>();

const { signed, percent, betterOrWorse } = useNumbers();

const tone = computed(() => {
    if (props.difference?.effect !== 'adverse') {
        return 'text-ink-soft';
    }
    return {
        red: 'font-semibold text-red-text',
        amber: 'font-semibold text-amber-text',
        green: 'text-ink',
        'not-judged': 'text-ink',
        'no-data': 'text-ink',
    }[props.status];
});
const below = computed(() =>
    props.difference === null
        ? ''
        : props.difference.points
          ? 'points'
          : props.difference.percent === null
            ? ''
            : percent(props.difference.percent),
);
</script>

<template>
    <span v-if="difference && band && difference.effect === 'none'" class="text-[15px] text-ink-soft">in band</span>
    <span v-else-if="difference" class="block leading-[1.2] whitespace-nowrap" :title="difference.difference.exact">
        <span class="text-[15px]" :class="tone">{{ signed(difference.difference, measure) }}</span>
        <span class="sr-only">{{ betterOrWorse(difference.effect) }}</span>
        <span class="block text-[12px] leading-[1.1] text-ink-faint">{{ below }}</span>
    </span>
</template>
