<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { number, ticks } from '@/graphics/scale';
import { limits, ZONE_FILLS, zonesBetween } from '@/graphics/zones';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { choiceOf, type PieceProps } from '../usePage';
import { useWritten } from '../useWritten';
import { spread } from '@/graphics/labels';

/** A figure on the scale of its own measure: where it is acceptable, where it was, where it should be. Every mark has its name. */
const props = defineProps<PieceProps>();
const { plain } = useNumbers();
const { written } = useWritten(props);

const row = computed(() => props.answer.rows?.[0] ?? null);
const isArc = computed(() => choiceOf(props.piece, 'form', 'straight') === 'arc');
const shows = (part: string): boolean => (props.piece.parts ?? ['before', 'goal', 'ranges']).includes(part);

interface Mark {
    name: string;
    value: number;
    text: string;
    kind: 'now' | 'before' | 'goal' | 'year';
}
const marks = computed<Mark[]>(() => {
    const found = row.value;
    if (found === null) {
        return [];
    }
    // Single periods are kept beside it: on a longer span the one before is another span's figure, and says nothing here.
    const earlier = props.answer.span === 'month' || found.week !== null ? found.wake.at(-2) : undefined;
    const before = earlier?.actual ?? null;
    const name = earlier === undefined ? '' : earlier.period.includes('W') ? 'the week before' : earlier.period.startsWith('FY') ? 'the period before' : 'the month before'; // prettier-ignore
    const now = number(found.actual?.exact);
    const [then, goal, year] = [number(before), number(found.target?.exact), number(found.prior?.exact)];
    const shown = (value: number): string => plain(value);
    return [
        ...(now === null || found.actual === null ? [] : [{ name: 'now', value: now, text: written(found.actual, found.measure), kind: 'now' as const }]), // prettier-ignore
        ...(!shows('before') || then === null ? [] : [{ name, value: then, text: shown(then), kind: 'before' as const }]), // prettier-ignore
        ...(!shows('goal') || goal === null || found.target === null ? [] : [{ name: 'goal', value: goal, text: written(found.target, found.measure), kind: 'goal' as const }]), // prettier-ignore
        ...(!shows('lastYear') || year === null || found.prior === null ? [] : [{ name: 'last year', value: year, text: written(found.prior, found.measure), kind: 'year' as const }]), // prettier-ignore
    ];
});
const scale = computed(() => {
    const values = [...marks.value.map(({ value }) => value), ...limits(row.value?.zones ?? null)];
    const [least, most] = [Math.min(...values), Math.max(...values)];
    const room = (most - least || Math.abs(most) || 1) * 0.18;
    const steps = ticks(least - room, most + room, 4);
    return { low: steps[0] ?? least, high: steps.at(-1) ?? most, steps };
});
const share = (value: number): number => (value - scale.value.low) / (scale.value.high - scale.value.low || 1);
const zones = computed(() => (shows('ranges') ? zonesBetween(row.value?.zones ?? null, scale.value.low, scale.value.high) : [])); // prettier-ignore

const frame = useTemplateRef<HTMLElement>('frame');
const { width: measured } = useElementSize(frame);
const width = computed(() => Math.max(180, Math.round(measured.value) || 260));
const INSET = 16;
const x = (value: number): number => INSET + share(value) * (width.value - 2 * INSET);
/** Names above the bar, apart from each other. */
const named = computed(() => {
    const above = marks.value.filter(({ kind }) => kind === 'now' || kind === 'goal');
    const below = marks.value.filter(({ kind }) => kind !== 'now' && kind !== 'goal');
    const placed = (those: Mark[], top: number): { mark: Mark; at: number; top: number }[] => {
        return spread(those.map((mark) => ({ mark, y: x(mark.value) })), 84, 40, width.value - 40).map(({ mark, y }) => ({ mark, at: y, top })); // prettier-ignore
    };
    return [...placed(above, 14), ...placed(below, 92)];
});

const RADIUS = 84;
const centre = computed(() => ({ x: width.value / 2, y: 112 }));
const angle = (value: number): number => Math.PI * (1 - Math.max(0, Math.min(1, share(value))));
const on = (value: number, radius: number): { x: number; y: number } => ({
    x: centre.value.x + Math.cos(angle(value)) * radius,
    y: centre.value.y - Math.sin(angle(value)) * radius,
});
const arc = (from: number, to: number): string => {
    const [a, b, c, d] = [on(from, RADIUS), on(to, RADIUS), on(to, RADIUS - 16), on(from, RADIUS - 16)];
    return `M${a.x} ${a.y}A${RADIUS} ${RADIUS} 0 0 1 ${b.x} ${b.y}L${c.x} ${c.y}A${RADIUS - 16} ${RADIUS - 16} 0 0 0 ${d.x} ${d.y}Z`;
};
const said = computed(() => marks.value.map(({ name, text }) => `${name} ${text}`).join(', '));
</script>

<template>
    <div v-if="row" ref="frame" class="mt-1">
        <p v-if="marks.length === 0" class="py-4 text-ink-faint">{{ row.instead }}</p>
        <svg
            v-else-if="!isArc"
            :width="width"
            height="112"
            class="block overflow-visible"
            role="img"
            :aria-label="said"
        >
            <rect
                v-if="zones.length === 0"
                :x="INSET"
                :width="width - 2 * INSET"
                y="44"
                height="14"
                class="fill-fill"
            />
            <rect
                v-for="zone in zones"
                :key="zone.from"
                :x="x(zone.from)"
                :width="x(zone.to) - x(zone.from)"
                y="44"
                height="14"
                :class="ZONE_FILLS[zone.status]"
            />
            <text
                v-for="step in scale.steps"
                :key="step"
                :x="x(step)"
                y="73"
                text-anchor="middle"
                class="fill-ink-faint text-[11.5px]"
            >
                {{ plain(step) }}
            </text>
            <template v-for="{ mark, at, top } in named" :key="mark.kind">
                <line
                    :x1="at"
                    :x2="x(mark.value)"
                    :y1="top < 50 ? 31 : 80"
                    :y2="top < 50 ? 40 : 62"
                    class="stroke-ink-faint"
                    stroke-width="1"
                />
                <path v-if="mark.kind === 'now'" :d="`M${x(mark.value)} 58l-6 -16h12z`" class="fill-ink" />
                <rect
                    v-else-if="mark.kind === 'goal'"
                    :x="x(mark.value) - 1.2"
                    y="40"
                    width="2.4"
                    height="22"
                    class="fill-brass"
                />
                <path
                    v-else
                    :d="`M${x(mark.value)} 45l5 6l-5 6l-5 -6z`"
                    class="fill-sheet stroke-ink"
                    stroke-width="1.3"
                />
                <text
                    :x="at"
                    :y="top"
                    text-anchor="middle"
                    class="text-[12px]"
                    :class="mark.kind === 'goal' ? 'fill-brass' : mark.kind === 'now' ? 'fill-ink' : 'fill-ink-soft'"
                >
                    <tspan>{{ mark.name }}</tspan>
                    <tspan :x="at" dy="13" class="font-[650]">{{ mark.text }}</tspan>
                </text>
            </template>
        </svg>
        <svg v-else :width="width" height="150" class="block overflow-visible" role="img" :aria-label="said">
            <path v-if="zones.length === 0" :d="arc(scale.low, scale.high)" class="fill-fill" />
            <path
                v-for="zone in zones"
                :key="zone.from"
                :d="arc(zone.from, zone.to)"
                :class="ZONE_FILLS[zone.status]"
            />
            <text
                :x="centre.x - RADIUS + 8"
                :y="centre.y + 16"
                text-anchor="middle"
                class="fill-ink-faint text-[11.5px]"
            >
                {{ plain(scale.low) }}
            </text>
            <text
                :x="centre.x + RADIUS - 8"
                :y="centre.y + 16"
                text-anchor="middle"
                class="fill-ink-faint text-[11.5px]"
            >
                {{ plain(scale.high) }}
            </text>
            <template v-for="mark in marks" :key="mark.kind">
                <line
                    v-if="mark.kind === 'now'"
                    :x1="on(mark.value, 26).x"
                    :y1="on(mark.value, 26).y"
                    :x2="on(mark.value, RADIUS - 20).x"
                    :y2="on(mark.value, RADIUS - 20).y"
                    class="stroke-ink"
                    stroke-width="4"
                    stroke-linecap="round"
                />
                <line
                    v-else
                    :x1="on(mark.value, RADIUS - 18).x"
                    :y1="on(mark.value, RADIUS - 18).y"
                    :x2="on(mark.value, RADIUS + 4).x"
                    :y2="on(mark.value, RADIUS + 4).y"
                    :class="mark.kind === 'goal' ? 'stroke-brass' : 'stroke-ink-soft'"
                    :stroke-width="mark.kind === 'goal' ? 2.6 : 1.6"
                />
            </template>
            <text
                :x="centre.x"
                :y="centre.y + 4"
                text-anchor="middle"
                class="fill-ink font-serif text-[24px] font-semibold"
            >
                {{ marks[0]?.text }}
            </text>
            <text :x="centre.x" :y="centre.y + 34" text-anchor="middle" class="fill-ink-soft text-[12.5px]">
                <tspan
                    v-for="(mark, index) in marks.slice(1)"
                    :key="mark.kind"
                    :class="{ 'fill-brass': mark.kind === 'goal' }"
                >
                    {{ index > 0 ? ' · ' : '' }}{{ mark.name }} {{ mark.text }}
                </tspan>
            </text>
        </svg>
    </div>
</template>
