<script setup lang="ts">
import type { Definition } from './useDraft';
import { ApiError, api, read, type Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { useLatest } from '@/composables/useLatest';
import { periodWords, shortMonth } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { course } from '@/graphics/lines';
import { spanned } from '@/graphics/plane';
import { number } from '@/graphics/scale';
import { DOT_FILLS, limits, ZONE_FILLS, zonesBetween } from '@/graphics/zones';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';

/** The last 24 periods under the rule as it is and as it is being typed: what people look at while they agree. */
const props = defineProps<{ draft: Definition; saved: Definition }>();

const { period } = useView();
const { units } = useSession();
const unit = ref(props.saved.units[0]?.unit ?? '');
watch(
    () => props.saved.code,
    () => (unit.value = props.saved.units[0]?.unit ?? ''),
);

const replay = ref<Schemas['Replay'] | null>(null);
const problem = ref('');

const ask = useLatest<Schemas['Replay']>(
    (answer) => {
        replay.value = answer;
        problem.value = '';
    },
    (failure) => {
        problem.value = failure instanceof ApiError ? (Object.values(failure.fields)[0] ?? failure.detail) : '';
    },
);
const load = useDebounceFn(() => {
    const { polarity, accumulation, rule, targets, targetFormula, lowFormula, highFormula } = props.draft;
    return ask(() =>
        read(
            api.POST('/api/replay', {
                params: { query: { period: period.value } },
                body: {
                    code: props.saved.code,
                    unit: unit.value,
                    polarity,
                    accumulation,
                    rule,
                    targets: targets[unit.value] ?? {},
                    targetFormula,
                    lowFormula,
                    highFormula,
                },
            }),
        ),
    );
}, 120);
watch(
    () =>
        JSON.stringify([
            props.draft.polarity,
            props.draft.accumulation,
            props.draft.rule,
            props.draft.targets[unit.value],
            props.draft.targetFormula,
            props.draft.lowFormula,
            props.draft.highFormula,
            unit.value,
            period.value,
        ]),
    load,
    { immediate: true },
);

type Side = 'asIs' | 'asTyped';
const TITLES = { asIs: 'as it is', asTyped: 'as typed' } as const;
const halves = computed(() => {
    const all = replay.value?.periods ?? [];
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
    const of = replay.value?.[side];
    return of === undefined ? '' : `${of.green} on · ${of.amber} drifting · ${of.red} off`;
};

// --- the small chart, on the zones as typed -----------------------------------------------------------------------

const WIDTH = 394;
const HEIGHT = 100;
/** Room above and below, as a share of what is shown. */
const ROOM = 0.12;

const chart = computed(() => {
    const periods = replay.value?.periods ?? [];
    const zones = replay.value?.zones ?? null;
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
        <div class="flex items-baseline justify-between gap-3">
            <h2 class="text-[19px]">What it would have meant</h2>
            <select
                v-if="saved.units.length > 1"
                v-model="unit"
                class="field min-h-[27px] max-w-[150px] py-[1px] text-[13.5px]"
                aria-label="Unit of the replay"
            >
                <option v-for="place in saved.units" :key="place.unit" :value="place.unit">
                    {{ units.get(place.unit)?.name ?? place.unit }}
                </option>
            </select>
        </div>
        <p class="mt-1 min-h-[42px] text-[14.5px] text-ink-soft" role="status">
            <span v-if="problem" class="error">{{ problem }}</span>
            <template v-else-if="replay">
                <b class="font-[650] text-ink">{{ replay.words }}</b> {{ replay.latest }}
            </template>
        </p>
        <template v-if="replay">
            <section v-for="side in ['asIs', 'asTyped'] as const" :key="side" class="mt-3">
                <div class="flex justify-between text-[14px]">
                    <h3 class="font-sans font-normal text-ink-soft">{{ TITLES[side] }}</h3>
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
            <p class="mt-1.5 text-[13px] text-ink-faint">
                {{ replay.periods.length }} {{ draft.frequency }}s to
                {{ periodWords(replay.periods.at(-1)?.period ?? period) }}; shaded: the limits as typed, as if they had
                always held. Dashed: the target.
            </p>
        </template>
    </div>
</template>
