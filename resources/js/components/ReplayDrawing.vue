<script setup lang="ts">
import type { Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { periodWords, shortMonth } from '@/composables/usePeriods';
import { course } from '@/graphics/lines';
import { spanned } from '@/graphics/plane';
import { number } from '@/graphics/scale';
import { DOT_FILLS, limits, ZONE_FILLS, zonesBetween } from '@/graphics/zones';
import { computed } from 'vue';

/** The latest periods twice: as they were judged, and as they would have been under what is tried. */
const props = defineProps<{
    replay: Schemas['Replay'];
    /** what is tried, in a word: `typed` */
    tried: string;
}>();

type Side = 'asIs' | 'asTyped';
const titles = computed(() => ({ asIs: 'as it is', asTyped: `as ${props.tried}` }));
const halves = computed(() => {
    const all = props.replay.periods;
    return [all.slice(0, 12), all.slice(12)].filter((half) => half.length > 0);
});
const label = (key: string): string =>
    key.includes('W')
        ? key.slice(6)
        : key.includes('Q')
          ? key.slice(-2)
          : key.startsWith('FY')
            ? key.slice(4)
            : shortMonth(key).slice(0, 1);
const counts = (side: Side): string => {
    const of = props.replay[side];
    return `${of.green} on · ${of.amber} drifting · ${of.red} off`;
};

// --- the small chart, on the zones as typed -----------------------------------------------------------------------

const WIDTH = 394;
const HEIGHT = 100;
/** Room above and below, as a share of what is shown. */
const ROOM = 0.12;

const chart = computed(() => {
    const periods = props.replay.periods;
    const zones = props.replay.zones;
    const actuals = periods.map(({ actual }) => number(actual));
    const targets = periods.map(({ target }) => number(target));
    const known = [...actuals, ...targets].filter((each) => each !== null);
    if (known.length < 2) {
        return null;
    }
    const least = Math.min(...known, ...limits(zones));
    const most = Math.max(...known, ...limits(zones));
    const room = (most - least) * ROOM || 1;
    const [low, high] = [least - room, most + room];
    const plane = spanned({ left: 4, right: WIDTH - 4, top: 0, floor: HEIGHT, low, high, count: periods.length });
    return {
        stripes: zonesBetween(zones, low, high).map(({ status, from, to }) => ({
            y: plane.y(to),
            height: plane.y(from) - plane.y(to),
            fill: ZONE_FILLS[status],
        })),
        lines: course(plane, actuals).lines,
        targets: course(plane, targets).lines,
        dots: periods.flatMap(({ asTyped, period: key }, index) => {
            const actual = actuals[index] ?? null;
            return actual === null ? [] : [{ x: plane.x(index), y: plane.y(actual), fill: DOT_FILLS[asTyped], key }];
        }),
    };
});
</script>

<template>
    <div>
        <section v-for="side in ['asIs', 'asTyped'] as const" :key="side" class="mt-3">
            <div class="flex justify-between text-[14px]">
                <h3 class="font-sans font-normal text-ink-soft">{{ titles[side] }}</h3>
                <b class="font-[650]">{{ counts(side) }}</b>
            </div>
            <ol v-for="(half, index) in halves" :key="index" class="mt-1.5 grid grid-cols-12">
                <li
                    v-for="each in half"
                    :key="each.period"
                    class="flex flex-col items-center text-[11.5px] text-ink-faint"
                    :title="periodWords(each.period)"
                >
                    <span
                        class="rounded-[8px] border-2 p-[2px]"
                        :class="side === 'asTyped' && each.changes ? 'border-brass' : 'border-transparent'"
                    >
                        <Needle :status="each[side]" size="s" />
                    </span>
                    <span aria-hidden="true">{{ label(each.period) }}</span>
                </li>
            </ol>
        </section>
        <svg
            v-if="chart"
            :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
            class="mt-3 block w-full"
            role="img"
            :aria-label="`The figures of the last ${replay.periods.length} periods on the new limits`"
        >
            <rect
                v-for="stripe in chart.stripes"
                :key="stripe.y"
                x="0"
                :width="WIDTH"
                :y="stripe.y"
                :height="stripe.height"
                :class="stripe.fill"
            />
            <polyline
                v-for="line in chart.targets"
                :key="line"
                :points="line"
                class="fill-none stroke-ink"
                stroke-dasharray="3 3"
                stroke-width="1"
            />
            <polyline
                v-for="line in chart.lines"
                :key="line"
                :points="line"
                class="fill-none stroke-ink"
                stroke-width="1.5"
            />
            <circle v-for="dot in chart.dots" :key="dot.key" :cx="dot.x" :cy="dot.y" r="3" :class="dot.fill" />
        </svg>
    </div>
</template>
