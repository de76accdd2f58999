<script setup lang="ts">
import KpiChart from '@/pages/review/kpi/KpiChart.vue';
import { pointsOf, type Layers, type Mode } from '@/pages/review/kpi/chart';
import { computed } from 'vue';
import { choiceOf, usePage, type PieceProps } from '../usePage';

/** A KPI over time, on its own zones, as on its page. */
const props = defineProps<PieceProps>();
const page = usePage();

const asked = computed(() => choiceOf(props.piece, 'mode', 'months'));
const mode = computed<Mode>(() => (asked.value === 'years' ? 'months' : (asked.value as Mode)));
const shows = (part: string): boolean => (props.piece.parts ?? ['zones', 'projection']).includes(part);
const layers = computed<Layers>(() => ({
    zones: shows('zones'),
    prior: shows('lastYear') || asked.value === 'years',
    average: shows('average'),
    trend: shows('trend'),
    control: shows('control'),
    projection: shows('projection'),
}));
const points = computed(() => {
    const course = props.answer.course;
    if (course === null) {
        return [];
    }
    const all = pointsOf(course, mode.value, choiceOf(props.piece, 'reach', 'year') === 'three');
    const first = course.gathered[0]?.period ?? '';
    return asked.value === 'years' && course.frequency === 'month' ? course.history.filter(({ period }) => period >= first) : all; // prettier-ignore
});
const chosen = computed(() => {
    const course = props.answer.course;
    return mode.value === 'months'
        ? (course?.latest ?? '')
        : mode.value === 'gathered'
          ? page.period.value
          : (course?.quarters.find(({ period }) => period >= page.period.value)?.period ?? '');
});
</script>

<template>
    <KpiChart
        v-if="answer.course && points.length > 0"
        :page="answer.course"
        :points="points"
        :mode="mode"
        :layers="layers"
        :chosen="chosen"
        :tall="250"
    />
    <p v-else class="py-6 text-ink-faint">There is nothing to draw yet.</p>
</template>
