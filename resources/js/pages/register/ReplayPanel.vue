<script setup lang="ts">
import type { Definition } from './useDraft';
import { ApiError, api, read, type Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { periodWords, shortMonth } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
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

const load = useDebounceFn(async () => {
    const { polarity, accumulation, rule, targets } = props.draft;
    try {
        replay.value = await read(
            api.POST('/api/replay', {
                params: { query: { period: period.value } },
                body: {
                    code: props.saved.code,
                    unit: unit.value,
                    polarity,
                    accumulation,
                    rule,
                    targets: targets[unit.value] ?? {},
                },
            }),
        );
        problem.value = '';
    } catch (error) {
        problem.value = error instanceof ApiError ? (Object.values(error.fields)[0] ?? error.detail) : '';
    }
}, 120);
watch(
    () =>
        JSON.stringify([
            props.draft.polarity,
            props.draft.accumulation,
            props.draft.rule,
            props.draft.targets[unit.value],
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
const DOT = {
    green: 'fill-green',
    amber: 'fill-amber',
    red: 'fill-red',
    'not-judged': 'fill-hollow',
    'no-data': 'fill-hollow',
} as const;

const chart = computed(() => {
    const periods = replay.value?.periods ?? [];
    const zones = replay.value?.zones ?? null;
    const known = periods.flatMap(({ actual, target }) => [actual, target].filter((each) => each !== null).map(Number));
    if (known.length < 2) {
        return null;
    }
    const ends =
        zones === null
            ? []
            : [zones.green, zones.amber, zones.greenLow, zones.amberLow].filter((each) => each !== null).map(Number);
    const low = Math.min(...known, ...ends);
    const high = Math.max(...known, ...ends);
    const room = (high - low) * 0.12 || 1;
    const y = (value: number): number => HEIGHT - ((value - low + room) / (high - low + 2 * room)) * HEIGHT;
    const x = (index: number): number => 4 + (index * (WIDTH - 8)) / Math.max(1, periods.length - 1);
    const stripes = (() => {
        if (zones === null) {
            return [];
        }
        const stripe = (from: number, to: number, fill: string) => ({
            y: Math.max(0, Math.min(from, to)),
            height: Math.min(HEIGHT, Math.max(from, to)) - Math.max(0, Math.min(from, to)),
            fill,
        });
        const [green, amber] = [y(Number(zones.green)), y(Number(zones.amber))];
        if (zones.greenLow !== null && zones.amberLow !== null) {
            const [greenLow, amberLow] = [y(Number(zones.greenLow)), y(Number(zones.amberLow))];
            return [
                stripe(0, amber, 'fill-red-zone'),
                stripe(amber, green, 'fill-amber-zone'),
                stripe(green, greenLow, 'fill-green-zone'),
                stripe(greenLow, amberLow, 'fill-amber-zone'),
                stripe(amberLow, HEIGHT, 'fill-red-zone'),
            ];
        }
        return zones.higherIsBetter
            ? [
                  stripe(0, green, 'fill-green-zone'),
                  stripe(green, amber, 'fill-amber-zone'),
                  stripe(amber, HEIGHT, 'fill-red-zone'),
              ]
            : [
                  stripe(0, amber, 'fill-red-zone'),
                  stripe(amber, green, 'fill-amber-zone'),
                  stripe(green, HEIGHT, 'fill-green-zone'),
              ];
    })();
    const runs = (values: (string | null)[]): string[] => {
        const found: string[][] = [[]];
        values.forEach((value, index) =>
            value === null
                ? found.push([])
                : found.at(-1)?.push(`${x(index).toFixed(1)},${y(Number(value)).toFixed(1)}`),
        );
        return found.filter((run) => run.length > 1).map((run) => run.join(' '));
    };
    return {
        stripes: stripes.filter(({ height }) => height > 0),
        lines: runs(periods.map(({ actual }) => actual)),
        targets: runs(periods.map(({ target }) => target)),
        dots: periods.flatMap(({ actual, asTyped, period: key }, index) =>
            actual === null ? [] : [{ x: x(index), y: y(Number(actual)), fill: DOT[asTyped], key }],
        ),
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
