<script setup lang="ts">
import type { Schemas } from '@/api/client';
import ActionMark from '@/components/ActionMark.vue';
import CourseStrip from '@/components/CourseStrip.vue';
import DifferenceFigure from '@/components/DifferenceFigure.vue';
import KpiLink from '@/components/KpiLink.vue';
import Needle from '@/components/Needle.vue';
import NoteMark from '@/components/NoteMark.vue';
import Wake from '@/components/Wake.vue';
import { useNumbers } from '@/composables/useNumbers';
import { dayAndMonth, shortPeriodWords } from '@/composables/usePeriods';
import { computed, defineAsyncComponent } from 'vue';

const RowDetail = defineAsyncComponent(() => import('./RowDetail.vue'));

const props = defineProps<{
    row: Schemas['ScorecardRow'];
    hideTargets: boolean;
    hidePrior: boolean;
    showStep: boolean;
    /** how many there are, for what spans them all */
    columns: number;
    opened: boolean;
}>();
defineEmits<{ toggle: [] }>();

const { figure, unitOf } = useNumbers();
/** Which way is better, in words: on the strip it is always to the right. */
const better = computed(() => {
    const { zones, track } = props.row;
    return zones === null
        ? track === null
            ? ''
            : 'only counted'
        : zones.greenLow !== null
          ? 'inside a band'
          : `${zones.higherIsBetter ? 'higher' : 'lower'} is better`;
});
</script>

<template>
    <tr
        class="cursor-pointer text-right max-md:grid max-md:grid-cols-[34px_minmax(0,1fr)_auto_minmax(76px,auto)_28px] max-md:gap-x-1.5 [&>td]:max-md:content-center [&>td]:max-md:py-1 [&>td]:max-md:min-h-[43px] [&>td]:md:h-[43px] border-rule-soft max-md:border-t [&>td]:border-rule-soft [&>td]:md:border-t [&>td]:align-middle"
        :class="opened ? 'bg-sheet' : 'hover:bg-sheet'"
        @click="$emit('toggle')"
    >
        <td class="text-left"><Needle :status="row.status" :stretched="row.stretched" :called="row.called" /></td>
        <td class="pr-3 pl-[2px] text-left">
            <KpiLink
                data-row
                class="block max-w-full text-left text-[15.5px] max-md:line-clamp-2 md:truncate leading-tight font-semibold hover:text-brass"
                :title="row.name"
                :code="row.code"
                :unit="row.unit"
                @click.stop
                @keydown.space.prevent="$emit('toggle')"
                >{{ row.name }}</KpiLink
            >
            <span class="block truncate text-[12.5px] leading-[1.15] text-ink-faint"
                >{{ [row.measure, better].filter(Boolean).join(' · ')
                }}<span v-if="row.owner" class="max-md:hidden"
                    >{{ row.measure || better ? ' · ' : '' }}{{ row.owner }}</span
                ></span
            >
            <CourseStrip class="mt-1 max-w-[116px] md:hidden" :row="row" :hide-target="hideTargets" hide-prior short />
        </td>
        <td class="hidden overflow-hidden pr-4 pl-4 md:table-cell">
            <CourseStrip :row="row" :hide-target="hideTargets" :hide-prior="hidePrior" />
        </td>
        <td>
            <span v-if="row.actual" class="text-[18px] font-semibold whitespace-nowrap" :title="row.actual.exact"
                >{{ figure(row.actual, row.measure)
                }}<span
                    v-if="unitOf(row.measure).length <= 4"
                    class="ml-[3px] text-[12.5px] font-normal text-ink-faint"
                    >{{ unitOf(row.measure) }}</span
                ></span
            >
            <span v-else class="text-[14px] text-ink-faint">{{ row.instead }}</span>
            <span
                v-if="row.actual && row.reported < row.expected"
                class="block text-[12px] leading-[1.1] text-ink-faint"
                >{{ row.reported }} of {{ row.expected }} readings</span
            >
            <span v-if="row.week" class="block text-[12px] leading-[1.1] text-ink-faint">{{
                shortPeriodWords(row.week)
            }}</span>
            <span
                v-if="row.asOf"
                class="block text-[12px] leading-[1.1] text-amber-text"
                :title="`Provisional: the period is not over; it counts up to ${dayAndMonth(row.asOf)}`"
                >as of {{ dayAndMonth(row.asOf) }}</span
            >
        </td>
        <td v-if="!hideTargets">
            <DifferenceFigure
                :band="row.zones?.greenLow != null"
                :difference="row.variance"
                :measure="row.measure"
                :status="row.status"
            />
        </td>
        <td v-if="!hidePrior" class="hidden md:table-cell">
            <DifferenceFigure :difference="row.change" :measure="row.measure" :status="row.status" />
        </td>
        <td v-if="showStep" class="hidden md:table-cell">
            <DifferenceFigure :difference="row.step" :measure="row.measure" :status="row.status" />
        </td>
        <td class="max-md:hidden lg:pl-[22px] print:pl-[18px]">
            <Wake
                class="max-lg:hidden print:block"
                :points="row.wake"
                :status="row.monthStatus"
                :hide-target="hideTargets"
            />
        </td>
        <td>
            <span class="flex items-center justify-end gap-1"
                ><ActionMark v-if="row.action !== 'none'" :overdue="row.action === 'overdue'" /><NoteMark
                    v-if="row.hasNote"
                />
                <button
                    type="button"
                    class="size-6 shrink-0 text-[15px] leading-none text-ink-faint hover:text-brass print:hidden"
                    :aria-expanded="opened"
                    :aria-label="`Open ${row.name} here`"
                    @click.stop="$emit('toggle')"
                >
                    <span class="inline-block transition-transform" :class="{ 'rotate-90': opened }" aria-hidden="true"
                        >›</span
                    >
                </button></span
            >
        </td>
    </tr>
    <tr v-if="opened" class="bg-sheet max-md:block">
        <td :colspan="columns" class="pr-3 pb-5 max-md:block md:pl-[36px]"><RowDetail :row="row" /></td>
    </tr>
</template>
