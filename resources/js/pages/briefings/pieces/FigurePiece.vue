<script setup lang="ts">
import { unbroken, useNumbers } from '@/composables/useNumbers';
import { longMonth, monthAndYear, shortPeriodWords } from '@/composables/usePeriods';
import CourseStrip from '@/components/CourseStrip.vue';
import { mark, within } from '@/graphics/course';
import { number } from '@/graphics/scale';
import { computed } from 'vue';
import { choiceOf, type PieceProps } from '../usePage';
import { useWritten } from '../useWritten';

/** One figure: how much, where it lies on its own limits, and how far from what it should be. */
const props = defineProps<PieceProps>();
const { unitOf, atMost } = useNumbers();
const { written, difference } = useWritten(props);

const row = computed(() => props.answer.rows?.[0] ?? null);
const shows = (part: string): boolean => (props.piece.parts ?? ['needle', 'course', 'target', 'since']).includes(part);
const tone = computed(() =>
    row.value?.variance?.effect === 'adverse'
        ? { red: 'text-red-text font-[650]', amber: 'text-amber-text font-[650]', green: '', 'not-judged': '', 'no-data': '' }[row.value.status]
        : 'font-[650]',
); // prettier-ignore
const since = computed(() => {
    const step = row.value?.week ? row.value.step : null;
    if (row.value?.week) {
        return step === null ? '' : `${difference(step.difference, row.value.measure)} since the week before`;
    }
    const { month, change } = props.answer.since ?? { month: '', change: null };
    return change === null
        ? ''
        : `${difference(change.difference, row.value?.measure)}${change.points ? ' points' : ''} since ${choiceOf(props.piece, 'since', 'period') === 'year' ? monthAndYear(month) : longMonth(month)}`; // prettier-ignore
});
/** A sign stays with its figure. */
const kept = (text: string): string => text.replace(/ /, '\u00a0').replace(/^([+−])/, '$1\u2060');
const pace = computed(() => {
    const end = props.answer.yearEnd;
    return end?.progress == null ? '' : unbroken(`${atMost(Number(end.progress), 0)} % of the year’s target with ${atMost(Number(end.elapsed), 0)} % of it gone`); // prettier-ignore
});
const yearEnd = computed(() => {
    const end = props.answer.yearEnd;
    const measure = row.value?.measure ?? '';
    return end?.value == null ? '' : `year end about ${written(end.value, measure)}${end.low && end.high ? `, ${written(end.low, measure)} to ${written(end.high, measure)} four times in five` : ''}`; // prettier-ignore
});
/** The words under the course stand at their marks, as far as the two leave each other room. */
const legend = computed(() => {
    const { course, track } = row.value ?? { course: null, track: null };
    const now = course === null ? within(track?.now) : mark(course.now);
    const year = course === null ? within(track?.prior) : mark(course.prior);
    if (now === null) {
        return [];
    }
    const words = [{ text: 'now', at: now.at, strong: true }, ...(year === null ? [] : [{ text: 'last year', at: year.at, strong: false }])]; // prettier-ignore
    const [first, second] = words;
    if (first !== undefined && second !== undefined && Math.abs(first.at - second.at) < 26) {
        const middle = Math.max(18, Math.min(76, (first.at + second.at) / 2));
        const left = first.at <= second.at ? first : second;
        for (const word of words) {
            word.at = word === left ? middle - 13 : middle + 13;
        }
    }
    return words.map((word) => ({ ...word, at: Math.max(5, Math.min(word.strong ? 95 : 88, word.at)) }));
});
const columns = computed(() => {
    const values = (row.value?.wake ?? []).map(({ period, actual }) => ({ period, value: number(actual) }));
    const known = values.flatMap(({ value }) => (value === null ? [] : [value]));
    if (known.length === 0) {
        return [];
    }
    const [least, most] = [Math.min(...known), Math.max(...known)];
    // From zero where that can be seen; otherwise from somewhat below the least, which the words say.
    const floor = least >= 0 && least < 0.6 * most ? 0 : least - (most - least || Math.abs(most) || 1) * 0.35;
    return values.map(({ period, value }, at) => ({ period, at, height: value === null ? 0 : Math.max(1.5, ((value - floor) / (most - floor || 1)) * 36) })); // prettier-ignore
});
</script>

<template>
    <template v-if="row">
        <p class="mt-0.5 font-serif text-[34px] leading-[1.12] font-semibold whitespace-nowrap">
            <template v-if="row.actual"
                ><span :title="row.actual.exact">{{ written(row.actual, row.measure) }}</span> {{ ' '
                }}<small v-if="unitOf(row.measure)" class="font-sans text-[15px] font-normal text-ink-faint">{{
                    unitOf(row.measure)
                }}</small></template
            >
            <span v-else class="font-sans text-[18px] font-normal text-ink-faint">{{ row.instead }}</span>
        </p>
        <div v-if="shows('course')" class="mt-1">
            <CourseStrip :row="row" class="h-[30px]! [&]:my-[-4px]" />
            <p v-if="row.course" class="relative h-[16px] text-[12px]" aria-hidden="true">
                <span
                    v-for="word in legend"
                    :key="word.text"
                    class="absolute -translate-x-1/2 whitespace-nowrap"
                    :class="
                        word.strong
                            ? {
                                  red: 'font-[650] text-red-text',
                                  amber: 'font-[650] text-amber-text',
                                  green: 'font-[650] text-green-text',
                                  'not-judged': '',
                                  'no-data': '',
                              }[row.status]
                            : 'text-ink-faint'
                    "
                    :style="{ left: `${word.at}%` }"
                    >{{ word.text }}</span
                >
            </p>
        </div>
        <svg
            v-if="shows('columns') && columns.length > 0"
            class="mt-1.5 block w-full"
            height="40"
            viewBox="0 0 244 40"
            preserveAspectRatio="none"
            role="img"
            :aria-label="`The last ${columns.length}, to ${shortPeriodWords(columns.at(-1)?.period ?? '')}`"
        >
            <rect
                v-for="column in columns"
                :key="column.period"
                :x="column.at * 18.8"
                :y="40 - column.height"
                width="14"
                :height="column.height"
                :class="column.at === columns.length - 1 ? 'fill-ink' : 'fill-fill-strong'"
            >
                <title>{{ shortPeriodWords(column.period) }}</title>
            </rect>
        </svg>
        <p class="mt-1 text-[13.5px] leading-snug text-ink-soft">
            <template v-if="shows('target') && row.variance"
                ><span :class="tone">{{ kept(difference(row.variance.difference, row.measure)) }}</span
                >{{ row.variance.points ? ' points' : '' }} to target</template
            ><template v-if="shows('target') && row.variance && shows('since') && since"> · </template
            ><template v-if="shows('since')">{{ kept(since) }}</template>
            <template v-if="shows('lastYear') && row.prior">
                <span class="block">{{ written(row.prior, row.measure) }} last year</span></template
            >
            <span v-if="shows('pace') && pace" class="block">{{ pace }}</span>
            <span v-if="shows('yearEnd') && yearEnd" class="block">{{ yearEnd }}</span>
            <span v-if="row.asOf" class="block">as of {{ row.asOf }}</span>
        </p>
    </template>
</template>
