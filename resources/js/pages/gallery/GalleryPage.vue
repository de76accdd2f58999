<script setup lang="ts">
import { ApiError, type Schemas, type Shown, type Status } from '@/api/client';
import ActionMark from '@/components/ActionMark.vue';
import ChoiceRow from '@/components/ChoiceRow.vue';
import CourseStrip from '@/components/CourseStrip.vue';
import DifferenceFigure from '@/components/DifferenceFigure.vue';
import Knot from '@/components/Knot.vue';
import Needle from '@/components/Needle.vue';
import NoteList from '@/components/NoteList.vue';
import NoteMark from '@/components/NoteMark.vue';
import StateNote from '@/components/StateNote.vue';
import Wake from '@/components/Wake.vue';
import Wordmark from '@/components/Wordmark.vue';
import { STATUSES } from '@/words';
import { useTitle } from '@vueuse/core';
import { reactive } from 'vue';

/** All components side by side, in both palettes: what a change of a colour or a size does is seen here first. */
useTitle('Components · Kybernet');

const PALETTES = { light: 'scheme-light', dark: 'scheme-dark' } as const;
const SIZES = ['s', 'm', 'l'] as const;
const CHOICES = { first: 'evenly', second: 'by shape', third: 'by weights' } as const;
const chosen = reactive<Record<keyof typeof PALETTES, keyof typeof CHOICES>>({ light: 'first', dark: 'second' });

const shown = (digits: string): Shown => ({ exact: digits, digits, suffix: '' });
const zones = (green: string, amber: string, higherIsBetter: boolean, low: [string, string] | null = null) => ({
    green,
    amber,
    higherIsBetter,
    greenLow: low?.[0] ?? null,
    amberLow: low?.[1] ?? null,
});
type Places = [now: number | null, before: number | null, prior: number | null, target: number | null];
const row = (
    [actual, target, prior]: [string | null, string | null, string | null],
    of: Schemas['Zones'] | null,
    [now, before, year, aim]: Places,
    track: Schemas['Track'] | null = null,
) =>
    ({
        measure: 'Ml/d',
        actual: actual === null ? null : shown(actual),
        target: target === null ? null : shown(target),
        prior: prior === null ? null : shown(prior),
        zones: of,
        course: of === null ? null : { now, before, prior: year, target: aim },
        track,
    }) as Schemas['ScorecardRow'];
const STRIPS: [string, Schemas['ScorecardRow']][] = [
    ['lower is better', row(['56.9', '55', '57.7'], zones('55', '57.75', false), [0.7, 0.35, 0.98, 0])],
    ['higher is better', row(['96.4', '95', '93.2'], zones('94', '90', true), [-0.6, 0.1, 0.2, -0.25])],
    ['inside a band', row(['21.5', '20', '19'], zones('22', '24', false, ['18', '16']), [-0.25, -0.5, -0.5, null])],
    ['far beyond', row(['12.4', '5', '3'], zones('5', '7', false), [3.7, 2.2, -1, 0])],
    ['hardly moved', row(['55', '55', '54'], zones('55', '57.75', false), [0, 0, -0.36, 0])],
    [
        'only counted',
        row(['4120', null, '3980'], null, [null, null, null, null], {
            low: shown('3800'),
            high: shown('4600'),
            now: 0.4,
            before: 0.55,
            prior: 0.22,
        }),
    ],
    ['no reading', row([null, '55', '57'], zones('55', '57.75', false), [null, null, 0.73, 0])],
];
const difference = (
    size: string,
    percent: string | null,
    effect: Schemas['Difference']['effect'],
): Schemas['Difference'] => ({ difference: shown(size), percent, points: false, effect });
const DIFFERENCES: [Status, Schemas['Difference']][] = [
    ['red', difference('8.1', '14.7', 'adverse')],
    ['amber', difference('2.2', '4', 'adverse')],
    ['green', difference('-1.4', '-2.5', 'favourable')],
    ['not-judged', difference('140', '3.5', 'none')],
];
const course = ['57', '58', null, '60', '59', '62', '61', '63.1'].map((actual, index) => ({
    period: `2026-0${index + 1}`,
    actual,
    target: '55',
}));
const NOTES = [
    {
        period: '2026-08',
        text: 'Trunk main at the works; repaired on the 24th.',
        outlook: 'Back on course in October.',
        doing: 'A third crew on nights.',
        by: 'Ines Kallweit',
        at: '2026-09-04T08:12:00Z',
        version: 1,
    },
] as unknown as Schemas['Note'][];
const offline = new ApiError(0, 'No connection', 'The server cannot be reached just now.');
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">Components</h1>
    <p class="mt-[5px] mb-4 text-[17px] text-ink-soft">Each in both palettes, as the screens are made of them.</p>
    <div class="grid gap-5 lg:grid-cols-2">
        <section
            v-for="(scheme, palette) in PALETTES"
            :key="palette"
            :aria-label="`The ${palette} palette`"
            class="rounded-[4px] border border-rule bg-paper p-5 text-ink"
            :class="scheme"
        >
            <div class="-m-5 mb-4 flex items-center gap-4 rounded-t-[4px] bg-sea px-5 py-3 text-on-sea">
                <Wordmark /><span class="ml-auto text-on-sea-soft">{{ palette }}</span>
            </div>

            <h2 class="text-[17px]">Status</h2>
            <table class="my-2 text-[14px]">
                <tbody>
                    <tr v-for="(words, status) in STATUSES" :key="status">
                        <th scope="row" class="w-[120px] py-1 text-left font-normal text-ink-soft">{{ words }}</th>
                        <td v-for="size in SIZES" :key="size" class="px-2"><Needle :status="status" :size="size" /></td>
                        <td class="px-2"><Needle :status="status" called /></td>
                        <td class="px-2"><Needle v-if="status === 'green'" :status="status" stretched /></td>
                    </tr>
                </tbody>
            </table>

            <h2 class="mt-4 text-[17px]">Strips, differences, wakes</h2>
            <table class="my-2 w-full text-[14px]">
                <tbody>
                    <tr v-for="[name, strip] in STRIPS" :key="name" class="border-t border-rule-soft">
                        <th scope="row" class="w-[140px] py-2 text-left font-normal text-ink-soft">{{ name }}</th>
                        <td><CourseStrip :row="strip" /></td>
                    </tr>
                </tbody>
            </table>
            <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
                <DifferenceFigure
                    v-for="[status, gap] in DIFFERENCES"
                    :key="status"
                    :difference="gap"
                    measure="Ml/d"
                    :status="status"
                />
                <Wake v-for="[status] in DIFFERENCES" :key="status" :points="course" :status="status" />
            </div>

            <h2 class="mt-5 text-[17px]">Marks and notes</h2>
            <p class="my-2 flex items-center gap-5">
                <Knot label="closed" /> <NoteMark /> <ActionMark /> <ActionMark overdue />
            </p>
            <NoteList :notes="NOTES" />

            <h2 class="mt-5 text-[17px]">What one presses and types in</h2>
            <p class="my-2 flex flex-wrap items-center gap-3">
                <button type="button" class="button">Save 12</button>
                <button type="button" class="button button-quiet">Undo</button>
                <button type="button" class="button" disabled>Save</button>
                <button type="button" class="quiet-link">Show all rows</button>
                <button type="button" class="tab" aria-pressed="true">Month sheet</button>
                <button type="button" class="tab" aria-pressed="false">Year grid</button>
            </p>
            <p class="my-3 flex flex-wrap items-center gap-3">
                <input class="field w-[112px] text-right font-semibold" value="63.1" aria-label="A figure" />
                <input class="field w-[112px]" placeholder="type" aria-label="An empty field" />
                <input class="field w-[112px]" value="6o" aria-invalid="true" aria-label="A figure that is refused" />
                <span class="error">This is not a number.</span>
            </p>
            <ChoiceRow v-model="chosen[palette]" :label="`A choice, ${palette}`" :choices="CHOICES" />

            <h2 class="mt-5 text-[17px]">Instead of a screen</h2>
            <StateNote loading />
            <StateNote title="Nothing is measured here">Choose another unit in the path above.</StateNote>
            <StateNote :error="offline" />
        </section>
    </div>
</template>
