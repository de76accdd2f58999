<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { longMonth, monthAndYear, shortMonth, step } from '@/composables/usePeriods';
import { api, read } from '@/api/client';
import { shortPeriodWords } from '@/composables/usePeriods';
import { useRibbon } from '@/composables/useRibbon';
import { useQuery } from '@tanstack/vue-query';
import { useView } from '@/composables/useView';
import { useEventListener } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import Knot from './Knot.vue';
import Needle from './Needle.vue';
import SpanSwitch from './SpanSwitch.vue';

/** The financial year as one strip: what has arrived, how the unit stands, and which month is looked at. */
const route = useRoute();
const { unit, period, span, week, show, here } = useView();
const { data } = useRibbon();

const STEPS: Record<string, number> = { '[': -1, ']': 1, '{': -12, '}': 12 };

const months = computed(() => data.value?.months ?? []);
const withSpan = computed(() =>
    ['scorecard', 'course', 'exceptions', 'matrix', 'compare', 'briefing'].includes(String(route.name)),
);

/** The month that is looked at opens into its weeks, where anything is measured by the week and a page can show one. */
const mayOpen = computed(
    () => span.value === 'month' && ['scorecard', 'course', 'briefing'].includes(String(route.name)),
);
const { data: weeks } = useQuery({
    queryKey: computed(() => ['weeks', unit.value.code, period.value]),
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/weeks', {
                params: { path: { unit: unit.value.code }, query: { period: period.value } },
            }),
        ),
    enabled: mayOpen,
});
const weekWords = (each: Schemas['RibbonWeek']): string =>
    `${shortPeriodWords(each.week)}, ${each.reported === 0 ? 'no readings' : `${each.reported} of ${each.expected} readings are in`}`;

const fill = (month: Schemas['RibbonMonth']): string =>
    month.expected === 0 ? '0' : `${Math.round((month.reported / month.expected) * 100)}%`;

const words = (month: Schemas['RibbonMonth']): string =>
    month.reported === 0
        ? `${monthAndYear(month.period)}, no readings`
        : `${monthAndYear(month.period)}, ${month.reported} of ${month.expected} readings are in${month.closed ? '; closed' : ''}`;

useEventListener('keydown', (event: KeyboardEvent) => {
    const target = event.target as HTMLElement;
    const typing = target.matches('input, textarea, select, [contenteditable]');
    const months = STEPS[event.key];
    if (months !== undefined && !typing && !event.ctrlKey && !event.metaKey && !event.altKey) {
        event.preventDefault();
        void show({ period: step(period.value, months) });
    }
});
</script>

<template>
    <section
        class="flex flex-wrap items-stretch border-b border-rule bg-paper md:h-[74px] md:flex-nowrap md:pl-[22px]"
        aria-label="Period"
    >
        <div
            class="flex w-full items-center gap-3 px-4 pt-2 md:w-[150px] md:shrink-0 md:flex-col md:items-start md:justify-center md:gap-0 md:p-0"
        >
            <div class="flex items-center gap-1 font-serif text-[21px] leading-[1.1] font-semibold">
                {{ data?.year ?? '' }}
                <span class="flex text-ink-faint">
                    <button
                        type="button"
                        class="size-6 text-[17px] leading-none hover:text-brass"
                        aria-label="Year before"
                        title="Year before ( { )"
                        @click="show({ period: step(period, -12) })"
                    >
                        ‹
                    </button>
                    <button
                        type="button"
                        class="size-6 text-[17px] leading-none hover:text-brass"
                        aria-label="Year after"
                        title="Year after ( } )"
                        @click="show({ period: step(period, 12) })"
                    >
                        ›
                    </button>
                </span>
            </div>
            <div :title="unit.name" class="max-w-full truncate text-[13px] text-ink-soft">
                {{ unit.name }} · {{ longMonth(period) }}
            </div>
        </div>
        <ol class="flex min-w-0 grow overflow-x-auto">
            <li
                v-for="month in months"
                :key="month.period"
                class="min-w-[38px] flex-1 border-l border-rule-soft last:border-r"
            >
                <RouterLink
                    :to="{ query: here({ period: month.period }) }"
                    class="relative flex h-[60px] flex-col items-center justify-end gap-[3px] pb-[7px] md:h-full"
                    :class="month.period === period ? 'bg-sheet shadow-[inset_0_3px_0_var(--color-brass)]' : ''"
                    :aria-current="month.period === period ? 'date' : undefined"
                    :title="words(month)"
                >
                    <svg
                        class="absolute inset-x-0 bottom-0 h-[22px] w-full"
                        preserveAspectRatio="none"
                        viewBox="0 0 10 100"
                        aria-hidden="true"
                    >
                        <rect
                            x="0"
                            width="10"
                            :y="100 - parseInt(fill(month))"
                            :height="parseInt(fill(month))"
                            :class="month.period === period ? 'fill-brass-tint' : 'fill-fill'"
                        />
                    </svg>
                    <Knot v-if="month.closed" class="absolute top-[7px] right-[7px]" />
                    <Needle v-if="month.reported > 0" :status="month.status" size="s" class="relative" />
                    <span
                        class="relative text-[13.5px]"
                        :class="
                            month.period === period
                                ? 'font-bold text-ink'
                                : month.reported > 0
                                  ? 'text-ink-soft'
                                  : 'text-ink-faint'
                        "
                    >
                        {{ shortMonth(month.period) }}<span class="sr-only">: {{ words(month) }}</span>
                    </span>
                </RouterLink>
            </li>
        </ol>
        <ol
            v-if="mayOpen && weeks && weeks.length > 0"
            class="flex w-full items-stretch border-rule-soft bg-sheet md:w-auto md:border-r"
            :aria-label="`Weeks of ${longMonth(period)}`"
        >
            <li v-for="each in weeks" :key="each.week" class="min-w-[36px] flex-1">
                <RouterLink
                    :to="{ query: here({ week: each.week === week ? '' : each.week }) }"
                    class="relative flex h-[44px] flex-col items-center justify-end gap-[3px] pb-[7px] md:h-full"
                    :class="each.week === week ? 'shadow-[inset_0_3px_0_var(--color-brass)]' : ''"
                    :aria-current="each.week === week ? 'date' : undefined"
                    :title="each.week === week ? 'The whole month again' : weekWords(each)"
                >
                    <svg
                        class="absolute inset-x-0 bottom-0 h-[22px] w-full"
                        preserveAspectRatio="none"
                        viewBox="0 0 10 100"
                        aria-hidden="true"
                    >
                        <rect
                            x="0"
                            width="10"
                            :y="100 - (each.reported / Math.max(1, each.expected)) * 100"
                            :height="(each.reported / Math.max(1, each.expected)) * 100"
                            :class="each.week === week ? 'fill-brass-tint' : 'fill-fill'"
                        />
                    </svg>
                    <Needle v-if="each.reported > 0" :status="each.status" size="s" class="relative" />
                    <span
                        class="relative text-[12.5px]"
                        :class="each.week === week ? 'font-bold text-ink' : 'text-ink-soft'"
                        >W{{ Number(each.week.slice(6)) }}<span class="sr-only">: {{ weekWords(each) }}</span></span
                    >
                </RouterLink>
            </li>
        </ol>
        <SpanSwitch v-if="withSpan" class="w-full md:w-auto" />
    </section>
</template>
