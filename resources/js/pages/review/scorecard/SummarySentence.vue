<script setup lang="ts">
import { SPAN_PHRASES } from '@/words';
import type { Schemas } from '@/api/client';
import { capital, counted } from '@/composables/useNumbers';
import { longMonth, monthAndYear, step } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { computed } from 'vue';

/** The page in one breath: how many are judged, how they stand, what moved, what is missing. */
const props = defineProps<{ page: Schemas['ScorecardPage'] }>();

const { session } = useSession();
const { here } = useView();
const newest = computed(() => session.value?.period ?? '');

/** Where the month has nothing at all, that is said before anything else. */
const nothing = computed(() => {
    const { period, span, counts, groups } = props.page;
    if (counts.judged > 0 || groups.some((group) => group.rows.some((row) => row.actual !== null))) {
        return null;
    }
    const when = span === 'month' ? monthAndYear(period) : `${SPAN_PHRASES[span]}, ${monthAndYear(period)}`;
    const begun = period <= (session.value?.runningPeriod ?? period);
    return `No KPI here has a reading for ${when}${begun ? '' : ', which has not begun'}.`;
});

const rest = computed(() => {
    const { moved, missing, period } = props.page;
    const moves = [
        moved.worse > 0 ? `${counted(moved.worse)} got worse since ${longMonth(step(period, -1))}` : '',
        moved.recovered > 0 ? `${counted(moved.recovered)} recovered` : '',
    ].filter((part) => part !== '');
    const absent =
        missing === 0
            ? 'no reading is missing'
            : missing === 1
              ? 'one reading is missing'
              : `${counted(missing)} readings are missing`;
    return `${capital([moves.length > 0 ? moves.join(', ') : `nothing moved since ${longMonth(step(period, -1))}`, absent].join('; '))}.`;
});
</script>

<template>
    <p class="text-[17px]">
        <template v-if="page.counts.judged > 0">
            Of {{ page.counts.judged }} judged,
            <b class="font-[650]">{{ page.counts.green }} {{ page.counts.green === 1 ? 'is' : 'are' }} on course</b>,
            <b class="font-[650]" :class="{ 'text-amber-text': page.counts.amber > 0 }"
                >{{ page.counts.amber }} drifting</b
            >,
            <b class="font-[650]" :class="{ 'text-red-text': page.counts.red > 0 }">{{ page.counts.red }} off course</b
            >. {{ rest }}
        </template>
        <template v-else-if="nothing !== null">
            {{ nothing }}
            <RouterLink v-if="newest !== page.period" :to="{ query: here({ period: newest }) }" class="quiet-link"
                >Go to {{ monthAndYear(newest) }}, the newest with readings</RouterLink
            >
        </template>
        <template v-else-if="page.counts.noData > 0"
            >Nothing can be judged yet: {{ counted(page.counts.noData) }} of the KPIs here
            {{ page.counts.noData === 1 ? 'has' : 'have' }} no reading.</template
        >
        <template v-else>Nothing here is judged: these KPIs are tracked, or have no limits in force yet.</template>
    </p>
</template>
