<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { chanceWords, COLOURS, EACH } from '@/words';
import { computed } from 'vue';

/** The chart in words: where it is heading, what chance does not explain, how the year ends. */
const props = defineProps<{ page: Schemas['KpiPage'] }>();

const { figure, plain, withMeasure } = useNumbers();

const each = computed(() => EACH[props.page.frequency]);
/** A size in the KPI's measure; shares differ by points. */
const sized = (size: number): string => {
    const { measure } = props.page;
    return measure === '%' ? `${plain(size)} points` : withMeasure(plain(size), measure);
};

const trend = computed(() => {
    const line = props.page.trend;
    if (line === null) {
        return null;
    }
    const last = `over the last 12 ${each.value}s`;
    if (line.direction === 'steady') {
        return { strong: 'No clear direction', rest: `${last}: what there is could be chance (p ${chance(line.p)}).` };
    }
    const worth = { improving: ', for the better', worsening: ', for the worse', steady: '' }[line.meaning ?? 'steady'];
    return {
        strong: `${line.direction === 'rising' ? 'Rising' : 'Falling'} by about ${sized(Number(Math.abs(line.slope).toPrecision(2)))} a ${each.value}`,
        rest: `${last}${worth}; unlikely to be chance (p ${chance(line.p)}).`,
    };
});
const chance = (p: number): string => (p < 0.001 ? 'below 0.001' : String(Number(p.toPrecision(2))));

const signals = computed(() => {
    const latest = props.page.control?.signals.filter(({ period }) => period === props.page.latest) ?? [];
    const said = latest.map(({ words }) => words).join(', ');
    return said === '' ? '' : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
});

const METHODS = {
    seasonal: "At last year's seasonal shape",
    'run-rate': 'At the pace so far',
    'trend-line': 'Along its trend',
    'last-value': 'If it stays as it is,',
    'so-far': 'As it stands',
    operands: 'With each of its parts projected',
};
const yearEnd = computed(() => {
    const projection = props.page.projection;
    if (projection?.value == null) {
        return null;
    }
    const status = (COLOURS as Partial<Record<string, string>>)[projection.status];
    return {
        method: METHODS[projection.method],
        strong: `${figure(projection.value, props.page.measure)}${status === undefined ? '' : `, ${status}`}`,
    };
});
/** Between what it ends four times in five, and how likely on target. */
const range = computed(() => {
    const projection = props.page.projection;
    if (projection?.low == null || projection.high === null) {
        return '';
    }
    const { measure } = props.page;
    const chance = projection.chance === null ? '' : `, with ${chanceWords(projection.chance)} to end on target`;
    return `Four times in five it ends between ${figure(projection.low, measure)} and ${figure(projection.high, measure)}${chance}.`;
});
const isCost = computed(() => props.page.polarity === 'lower');
const required = computed(() => {
    const projection = props.page.projection;
    if (projection?.required == null || projection.left === 0) {
        return null;
    }
    const isTotal = props.page.accumulation === 'sum';
    const left = projection.left === 1 ? `the one ${each.value} left` : `the ${projection.left} ${each.value}s left`;
    return {
        words: isTotal
            ? `to ${isCost.value ? 'stay within' : 'reach'} the year target of ${projection.yearTarget ? figure(projection.yearTarget, props.page.measure) : ''}, ${projection.left === 1 ? left : `each of ${left}`} ${isCost.value ? 'can take' : 'needs'}`
            : `to end on target ${left} must average`,
        figure: figure(projection.required, props.page.measure),
    };
});
const progress = computed(() => {
    const projection = props.page.projection;
    return projection?.progress == null
        ? ''
        : `${plain(Number(projection.progress))} % of the year target is reached, with ${plain(Number(projection.elapsed))} % of the year gone.`;
});
</script>

<template>
    <p class="max-w-[64em] text-[16px] leading-[1.45]">
        <template v-if="trend">
            <b class="font-[650]">{{ trend.strong }}</b> {{ trend.rest }}{{ ' ' }}
        </template>
        <template v-else-if="page.kind === 'judged'"
            >A person judges this KPI: there are no figures to follow.{{ ' ' }}</template
        >
        <template v-else>Too few readings yet to tell a direction.{{ ' ' }}</template>
        <template v-if="signals">{{ signals }}{{ ' ' }}</template>
        <template v-if="yearEnd">
            {{ yearEnd.method }} the year ends near <b class="font-[650]">{{ yearEnd.strong }}</b><template
                v-if="required"
                >; {{ required.words }} <b class="font-[650]">{{ required.figure }}</b></template
            >.{{ ' ' }}
        </template>
        {{ range }} {{ progress }}
    </p>
</template>
