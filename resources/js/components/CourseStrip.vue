<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { stripBar, stripScale } from '@/graphics/strip';
import { ZONE_FILLS, zonesBetween } from '@/graphics/zones';
import { computed } from 'vue';

/**
 * A thin track in the KPI's own zones: a bar for the actual, a tick for the target, an open diamond for last year.
 * The ends of the scale are chosen so that every mark fits, and are told on hover.
 */
const props = defineProps<{ row: Schemas['ScorecardRow']; hideTarget?: boolean; hidePrior?: boolean }>();

const { plain, figure } = useNumbers();

const number = (exact: string | undefined): number | null => (exact === undefined ? null : Number(exact));
const marks = computed(() => ({
    actual: number(props.row.actual?.exact),
    target: props.hideTarget ? null : number(props.row.target?.exact),
    prior: props.hidePrior ? null : number(props.row.prior?.exact),
}));
const scale = computed(() => stripScale(marks.value, props.row.zones));
const bar = computed(() => stripBar(scale.value, marks.value.actual));

const at = (value: number): string => {
    const { low, high } = scale.value ?? { low: 0, high: 1 };
    return `${((value - low) / (high - low)) * 100}%`;
};
const wide = ({ from, to }: { from: number; to: number }): string => {
    const { low, high } = scale.value ?? { low: 0, high: 1 };
    return `${((to - from) / (high - low)) * 100}%`;
};
const zones = computed(() =>
    scale.value === null ? [] : zonesBetween(props.row.zones, scale.value.low, scale.value.high),
);

const words = computed(() => {
    const { actual, target, prior, measure } = props.row;
    const parts = [
        actual === null ? 'no reading' : `actual ${figure(actual, measure)}`,
        target === null || props.hideTarget ? '' : `target ${figure(target, measure)}`,
        prior === null || props.hidePrior ? '' : `last year ${figure(prior, measure)}`,
        scale.value === null ? '' : `scale from ${plain(scale.value.low)} to ${plain(scale.value.high)}`,
    ];
    return parts.filter((part) => part !== '').join(', ');
});
</script>

<template>
    <svg height="26" class="block w-full overflow-visible" role="img" :aria-label="words">
        <title>{{ words }}</title>
        <template v-if="scale !== null">
            <rect v-if="row.zones === null" width="100%" y="8.5" height="9" class="fill-fill" />
            <rect
                v-for="zone in zones"
                :key="zone.from"
                :x="at(zone.from)"
                :width="wide(zone)"
                y="8.5"
                height="9"
                :class="ZONE_FILLS[zone.status]"
            />
            <rect v-if="bar" :x="at(bar.from)" :width="wide(bar)" y="11" height="4" class="fill-ink" />
            <svg v-if="marks.target !== null" :x="at(marks.target)" overflow="visible">
                <rect x="-1" y="3" width="2" height="20" class="fill-ink" />
            </svg>
            <svg v-if="marks.prior !== null" :x="at(marks.prior)" overflow="visible">
                <path d="M0 7 L5.5 13 L0 19 L-5.5 13Z" class="fill-sheet stroke-ink" stroke-width="1.2" />
            </svg>
        </template>
    </svg>
</template>
