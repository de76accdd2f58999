<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { colourAt, LIMITS, mark, within } from '@/graphics/course';
import { COLOURS } from '@/words';
import { computed } from 'vue';

/**
 * Where a KPI lies on its own limits: red at the left, green at the right, the limit of on course at the same place in
 * every row, so that it runs down the page as one line. An arrow leads from the month before to now; an open diamond is
 * last year; a tick the target where it is not on the line. What is only counted lies between its lowest and highest.
 */
const props = defineProps<{
    row: Pick<Schemas['ScorecardRow'], 'measure' | 'actual' | 'target' | 'prior' | 'zones' | 'course' | 'track'>;
    hideTarget?: boolean;
    hidePrior?: boolean;
    /** for a phone: a thin line without the row's height */
    short?: boolean;
}>();

const { figure, atMost, withMeasure } = useNumbers();

const course = computed(() => props.row.course);
const track = computed(() => props.row.track);
const isCounted = computed(() => course.value === null && track.value !== null);
const height = computed(() => (props.short ? 14 : 42));
const middle = computed(() => height.value / 2);

const now = computed(() => (isCounted.value ? within(track.value?.now) : mark(course.value?.now)));
const before = computed(() => (isCounted.value ? within(track.value?.before) : mark(course.value?.before)));
const prior = computed(() =>
    props.hidePrior ? null : isCounted.value ? within(track.value?.prior) : mark(course.value?.prior),
);
const target = computed(() => {
    const found = props.hideTarget ? null : mark(course.value?.target);
    return found === null || Math.abs(found.at - LIMITS.green) < 0.1 ? null : found;
});
/** Which way it went since the month before; what hardly moved has no way. */
const way = computed(() => {
    const moved = (now.value?.at ?? 0) - (before.value?.at ?? now.value?.at ?? 0);
    return Math.abs(moved) < 0.05 ? 'still' : moved > 0 ? 'right' : 'left';
});
const HEADS = { right: 'M0 0 L-11 -6 L-11 6Z', left: 'M0 0 L11 -6 L11 6Z', still: 'M0 -5 L5 0 L0 5 L-5 0Z' };
const FILLS = { green: 'fill-green', amber: 'fill-amber', red: 'fill-red' };
const STROKES = { green: 'stroke-green', amber: 'stroke-amber', red: 'stroke-red' };
/** What was computed, also under a person's call. */
const colour = computed(() => (course.value?.now == null ? null : colourAt(course.value.now)));
const fill = computed(() => (colour.value === null ? 'fill-ink' : FILLS[colour.value]));
const stroke = computed(() => (colour.value === null ? 'stroke-ink' : STROKES[colour.value]));

const limits = computed(() => {
    const { zones, measure } = props.row;
    if (zones === null) {
        return '';
    }
    const value = (text: string): string => withMeasure(atMost(Number(text), 4), measure);
    return zones.greenLow !== null && zones.amberLow !== null
        ? `on course from ${value(zones.greenLow)} to ${value(zones.green)}, drifting from ${value(zones.amberLow)} to ${value(zones.amber)}`
        : `on course ${zones.higherIsBetter ? 'from' : 'up to'} ${value(zones.green)}, drifting ${zones.higherIsBetter ? 'from' : 'up to'} ${value(zones.amber)}`;
});
const words = computed(() => {
    const { actual, target: aim, prior: year, measure } = props.row;
    return [
        actual === null
            ? 'no reading'
            : `now ${figure(actual, measure)}${colour.value === null ? '' : `, ${COLOURS[colour.value]}`}`,
        now.value?.beyond === true ? 'beyond the strip' : '',
        course.value !== null && before.value !== null
            ? { right: 'better than', left: 'worse than', still: 'as' }[way.value] + ' a month before'
            : '',
        aim === null || props.hideTarget ? '' : `target ${figure(aim, measure)}`,
        year === null || props.hidePrior ? '' : `last year ${figure(year, measure)}`,
        isCounted.value && track.value !== null
            ? `only counted, from ${figure(track.value.low, measure)} to ${figure(track.value.high, measure)} in 25 periods`
            : limits.value,
    ]
        .filter((part) => part !== '')
        .join('; ');
});
</script>

<template>
    <svg :height="height" class="block w-full overflow-visible" role="img" :aria-label="words">
        <title>{{ words }}</title>
        <rect v-if="isCounted" width="100%" :y="middle - 4.5" height="9" class="fill-fill" />
        <template v-else-if="course !== null || row.zones !== null || row.target !== null">
            <rect :width="`${LIMITS.amber}%`" :y="middle - 4.5" height="9" class="fill-red-zone" />
            <rect
                :x="`${LIMITS.amber}%`"
                :width="`${LIMITS.green - LIMITS.amber}%`"
                :y="middle - 4.5"
                height="9"
                class="fill-amber-zone"
            />
            <rect
                :x="`${LIMITS.green}%`"
                :width="`${100 - LIMITS.green}%`"
                :y="middle - 4.5"
                height="9"
                class="fill-green-zone"
            />
            <rect
                :x="`${LIMITS.green}%`"
                :y="short ? 0 : -1"
                width="1.6"
                :height="short ? height : height + 2"
                class="fill-ink"
                shape-rendering="crispEdges"
            />
        </template>
        <svg v-if="target" :x="`${target.at}%`" :y="middle" overflow="visible">
            <rect x="-1" y="-9" width="2" height="18" class="fill-brass" />
        </svg>
        <template v-if="now">
            <line
                v-if="before && way !== 'still'"
                :x1="`${before.at}%`"
                :x2="`${now.at}%`"
                :y1="middle"
                :y2="middle"
                :class="stroke"
                stroke-width="2"
            />
            <svg :x="`${now.at}%`" :y="middle" overflow="visible">
                <circle v-if="isCounted" r="4.5" class="fill-ink" />
                <path v-else :d="HEADS[way]" :class="fill" />
                <!-- It lies further out than the strip goes. -->
                <rect v-if="now.beyond" :x="now.at > 50 ? 2 : -4" y="-6" width="2" height="12" :class="fill" />
            </svg>
        </template>
        <svg v-if="prior && !short" :x="`${prior.at}%`" :y="middle" overflow="visible">
            <path d="M0 -6 L5.5 0 L0 6 L-5.5 0Z" class="fill-sheet stroke-ink" fill-opacity="0.7" stroke-width="1.3" />
        </svg>
        <template v-if="isCounted && !short">
            <text x="0" :y="middle + 15" class="fill-ink-faint text-[11px]">lowest of 25 periods</text>
            <text x="100%" :y="middle + 15" text-anchor="end" class="fill-ink-faint text-[11px]">highest</text>
        </template>
    </svg>
</template>
