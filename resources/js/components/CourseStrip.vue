<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';

/**
 * A thin track in the KPI's own zones: a bar for the actual, a tick for the target, an open diamond for last year.
 * The ends of the scale are chosen so that every mark fits, and are told on hover.
 */
const props = defineProps<{ row: Schemas['ScorecardRow']; hideTarget?: boolean; hidePrior?: boolean }>();

const { plain, figure } = useNumbers();

/** Room beside the outermost marks, as a share of their spread. */
const ROOM = 0.28;

const scale = computed(() => {
    const { actual, target, prior, zones } = props.row;
    const marks = [
        actual?.exact,
        props.hideTarget ? undefined : target?.exact,
        props.hidePrior ? undefined : prior?.exact,
        zones?.green,
        zones?.amber,
        zones?.greenLow,
        zones?.amberLow,
    ]
        .filter((mark) => mark !== undefined && mark !== null)
        .map(Number);
    if (marks.length === 0) {
        return null;
    }
    const low = Math.min(...marks);
    const high = Math.max(...marks);
    const room = (high - low) * ROOM || Math.abs(high) * 0.2 || 1;
    // Figures that are never negative are not given a negative end.
    return { low: low >= 0 ? Math.max(0, low - room) : low - room, high: high + room };
});

const at = (exact: string | number): number => {
    const { low, high } = scale.value ?? { low: 0, high: 1 };
    return ((Number(exact) - low) / (high - low)) * 100;
};

/** From nothing to the figure; where nothing is not on the scale, from the end that is nearer to it. */
const bar = computed(() => {
    if (scale.value === null || props.row.actual === null) {
        return null;
    }
    const ends = [at(Math.max(scale.value.low, Math.min(scale.value.high, 0))), at(props.row.actual.exact)];
    return { from: Math.min(...ends), to: Math.max(...ends) };
});

const zones = computed(() => {
    const limits = props.row.zones;
    if (scale.value === null || limits === null) {
        return [{ from: 0, to: 100, fill: 'fill-fill' }];
    }
    const [green, amber] = [at(limits.green), at(limits.amber)];
    if (limits.greenLow !== null && limits.amberLow !== null) {
        const [greenLow, amberLow] = [at(limits.greenLow), at(limits.amberLow)];
        return [
            { from: 0, to: amberLow, fill: 'fill-red-zone' },
            { from: amberLow, to: greenLow, fill: 'fill-amber-zone' },
            { from: greenLow, to: green, fill: 'fill-green-zone' },
            { from: green, to: amber, fill: 'fill-amber-zone' },
            { from: amber, to: 100, fill: 'fill-red-zone' },
        ];
    }
    return limits.higherIsBetter
        ? [
              { from: 0, to: amber, fill: 'fill-red-zone' },
              { from: amber, to: green, fill: 'fill-amber-zone' },
              { from: green, to: 100, fill: 'fill-green-zone' },
          ]
        : [
              { from: 0, to: green, fill: 'fill-green-zone' },
              { from: green, to: amber, fill: 'fill-amber-zone' },
              { from: amber, to: 100, fill: 'fill-red-zone' },
          ];
});

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
            <rect
                v-for="zone in zones.filter(({ from, to }) => to > from)"
                :key="zone.from"
                :x="`${zone.from}%`"
                :width="`${zone.to - zone.from}%`"
                y="8.5"
                height="9"
                :class="zone.fill"
            />
            <rect v-if="bar" :x="`${bar.from}%`" :width="`${bar.to - bar.from}%`" y="11" height="4" class="fill-ink" />
            <svg v-if="row.target && !hideTarget" :x="`${at(row.target.exact)}%`" overflow="visible">
                <rect x="-1" y="3" width="2" height="20" class="fill-ink" />
            </svg>
            <svg v-if="row.prior && !hidePrior" :x="`${at(row.prior.exact)}%`" overflow="visible">
                <path d="M0 7 L5.5 13 L0 19 L-5.5 13Z" class="fill-sheet stroke-ink" stroke-width="1.2" />
            </svg>
        </template>
    </svg>
</template>
