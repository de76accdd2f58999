<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { stretches, through, type Spot } from '@/graphics/lines';
import { columned } from '@/graphics/plane';
import { number, ticks } from '@/graphics/scale';
import { DOT_FILLS, limits, ZONE_FILLS, zonesBetween, type Zones } from '@/graphics/zones';
import { computed } from 'vue';
import type { Charted, Point } from './chart';

/**
 * How far the sums of a year lie from their targets, under the sums themselves and on a scale of its own: a hundredth of
 * a year's total is nothing to be seen beside it, and may still be off course.
 */
const props = defineProps<{
    page: Charted;
    points: readonly Point[];
    /** the point that is looked at */
    at: number;
    /** from the last sum to the year end */
    projected: readonly Spot[] | null;
    /** from the last sum to the two ends of the range */
    range: readonly Spot[] | null;
    zones: boolean;
    left: number;
    right: number;
    column: number;
    top: number;
    floor: number;
    /** writes a step of the scale */
    tick: (value: number) => string;
}>();

const { signed } = useNumbers();

const targets = computed(() => props.points.map((point) => number(point.target?.exact)));
const distances = computed(() => props.points.map((point) => number(point.variance?.difference.exact)));
const beside = (spots: readonly Spot[] | null): Spot[] =>
    (spots ?? []).flatMap(({ at, value }) => {
        const target = targets.value[at];
        return target === null || target === undefined ? [] : [{ at, value: value - target }];
    });
/** The way from now to the year end begins where the last sum stands. */
const ahead = computed(() => beside(props.projected));
const reach = computed(() => beside(props.range));
const shifted = (point: Point): Zones | null => {
    const target = number(point.target?.exact);
    const { zones } = point;
    return zones === null || target === null
        ? null
        : {
              ...zones,
              green: String(Number(zones.green) - target),
              amber: String(Number(zones.amber) - target),
          };
};
const zoned = computed(() => props.points.map(shifted));

const scale = computed(() => {
    const shown = [0, ...distances.value, ...ahead.value.map(({ value }) => value), ...reach.value.map(({ value }) => value)].filter((value) => value !== null); // prettier-ignore
    let low = Math.min(...shown);
    let high = Math.max(...shown);
    const spread = high - low || 1;
    if (props.zones) {
        for (const end of zoned.value.flatMap((zones) => limits(zones))) {
            if (end > low - spread && end < high + spread) {
                low = Math.min(low, end);
                high = Math.max(high, end);
            }
        }
    }
    // Both sides of the target are to be seen, also where everything lies on one of them.
    const room = (high - low || 1) * 0.14;
    [low, high] = [low - room, high + room];
    return { low, high, ticks: ticks(low, high, 3).filter((step) => step >= low && step <= high) };
});
const plane = computed(() =>
    columned({ ...scale.value, left: props.left, column: props.column, top: props.top, floor: props.floor }),
);
const stripes = computed(() =>
    !props.zones
        ? []
        : zoned.value.flatMap((zones, index) =>
              zonesBetween(zones, scale.value.low, scale.value.high).map(({ status, from, to }) => ({
                  x: plane.value.x(index - 0.5),
                  y: plane.value.y(to),
                  height: plane.value.y(from) - plane.value.y(to),
                  fill: ZONE_FILLS[status],
              })),
          ),
);
const latest = computed(() => props.points[props.at]?.variance ?? null);
const STROKES: Record<string, string> = { red: 'stroke-red', amber: 'stroke-amber', green: 'stroke-green' };
</script>

<template>
    <g>
        <text :x="left" :y="top - 9" class="fill-ink-soft text-[12.5px]">distance to target</text>
        <g opacity="0.62">
            <rect
                v-for="(stripe, index) in stripes"
                :key="index"
                :x="stripe.x"
                :y="stripe.y"
                :width="column"
                :height="stripe.height"
                :class="stripe.fill"
                shape-rendering="crispEdges"
            />
        </g>
        <g v-for="value in scale.ticks" :key="value">
            <line
                :x1="left"
                :x2="right"
                :y1="plane.y(value)"
                :y2="plane.y(value)"
                :class="value === 0 ? 'stroke-ink' : stripes.length > 0 ? 'stroke-paper' : 'stroke-rule-soft'"
                :stroke-width="value === 0 ? 1.4 : 1"
            />
            <text :x="left - 8" :y="plane.y(value) + 4" text-anchor="end" class="fill-ink-faint">
                {{ value === 0 ? 'target' : tick(value) }}
            </text>
        </g>
        <polygon v-if="reach.length > 2" :points="through(plane, reach)" class="fill-ink" opacity="0.1" />
        <polyline
            v-if="ahead.length > 1"
            :points="through(plane, ahead)"
            class="fill-none"
            :class="STROKES[page.projection?.status ?? ''] ?? 'stroke-hollow'"
            stroke-width="1.8"
            stroke-dasharray="1.5 4"
            stroke-linecap="round"
        />
        <polyline
            v-for="(run, index) in stretches(distances)"
            :key="`l${index}`"
            :points="through(plane, run)"
            class="fill-none stroke-ink"
            stroke-width="2"
            stroke-linejoin="round"
        />
        <template v-for="(value, index) in distances" :key="`d${index}`">
            <circle
                v-if="value !== null"
                :cx="plane.x(index)"
                :cy="plane.y(value)"
                :r="index === at ? 5.2 : 3.6"
                :class="DOT_FILLS[points[index]!.status]"
                class="stroke-paper"
                stroke-width="1.4"
            />
        </template>
        <text
            v-if="latest && distances[at] != null"
            :x="plane.x(at) + 9"
            :y="plane.y(distances[at]!) + (distances[at]! > (scale.low + scale.high) / 2 ? 14 : -6)"
            class="fill-ink stroke-paper text-[13.5px] font-bold"
            stroke-width="3"
            paint-order="stroke"
        >
            {{ signed(latest.difference, page.measure) }}
        </text>
    </g>
</template>
