<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import StateNote from '@/components/StateNote.vue';
import { useNumbers } from '@/composables/useNumbers';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';

/** A figure in its parts: each with its share, how that moved, and how far it is from the share that it should have. */
const props = defineProps<{ measurement: number; measure: string; compact?: boolean }>();
const { period, span } = useView();
const { figure, plain, unitOf } = useNumbers();
const FIRST = 8;
const FIRST_COMPACT = 3;
const first = computed(() => (props.compact ? FIRST_COMPACT : FIRST));
/** On a month sheet it is the month that counts, whatever span other screens show. */
const shownSpan = computed(() => (props.compact ? 'month' : span.value));

const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => ['splits', props.measurement, period.value, shownSpan.value]),
    queryFn: () =>
        read(
            api.GET('/api/measurements/{measurement}/splits', {
                params: {
                    path: { measurement: props.measurement },
                    query: { period: period.value, span: shownSpan.value },
                },
            }),
        ),
    placeholderData: keepPreviousData,
});
const fading = useWaiting(isPlaceholderData);
const all = ref<string[]>([]);
const shown = (split: Schemas['SplitView']) =>
    all.value.includes(split.code) ? split.parts : split.parts.slice(0, first.value);
/** What is not shown is put together. */
const rest = (split: Schemas['SplitView']) => {
    const left = all.value.includes(split.code) ? [] : split.parts.slice(first.value);
    return left.length === 0
        ? null
        : { count: left.length, share: left.reduce((sum, part) => sum + Number(part.share ?? 0), 0) };
};
const most = (split: Schemas['SplitView']): number =>
    Math.max(1, ...split.parts.flatMap((part) => [Number(part.share ?? 0), Number(part.target ?? 0)]));
const signed = (points: string): string => {
    const value = Number(points);
    return `${value > 0 ? '+' : value < 0 ? '−' : '±'}${plain(Math.abs(value))}`;
};
const before = computed(() => (shownSpan.value === 'month' ? 'against the month before' : 'against a year earlier'));
const hasTargets = (split: Schemas['SplitView']): boolean => split.parts.some(({ target }) => target !== null);
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <StateNote v-else-if="data && data.length === 0" title="It is not split">
        A counted KPI can be split by a field of its records, or by bands of a number, and one that is entered into
        parts: in the register, under how it comes about.
    </StateNote>
    <div
        v-else-if="data"
        class="grid gap-x-10"
        :class="[compact ? 'gap-y-4' : 'gap-y-8 xl:grid-cols-2', { waiting: fading }]"
    >
        <section v-for="split in data" :key="split.code" :aria-label="split.name">
            <component
                :is="compact ? 'h3' : 'h2'"
                class="first-letter:uppercase"
                :class="compact ? 'font-sans text-[13.5px] font-semibold' : 'text-[18px]'"
                >{{ split.name }}</component
            >
            <p v-if="split.wanted !== null && Number(split.wanted) !== 100" class="text-[13px] text-amber-text">
                The shares that parts should have come to {{ plain(Number(split.wanted)) }} %, not 100.
            </p>
            <table class="mt-1 w-full text-[14.5px]">
                <thead>
                    <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                        <th class="text-left" scope="col">part</th>
                        <th class="pr-4 text-right" scope="col">figure</th>
                        <th class="text-left" scope="col">share</th>
                        <th class="text-right" scope="col">%</th>
                        <th class="pl-3 text-right" scope="col" :title="`in points, ${before}`">moved</th>
                        <th v-if="hasTargets(split)" class="pl-3 text-right" scope="col">should be</th>
                        <th v-if="hasTargets(split)" class="w-8"><span class="sr-only">status</span></th>
                    </tr>
                </thead>
                <tbody>
                    <tr
                        v-for="part in shown(split)"
                        :key="part.part ?? ''"
                        class="[&>td]:border-t [&>td]:border-rule-soft [&>td]:py-[5px]"
                    >
                        <td class="max-w-[160px] truncate pr-3" :class="{ italic: part.part === null }">
                            {{ part.part ?? 'nothing stands there' }}
                        </td>
                        <td class="pr-4 text-right font-semibold whitespace-nowrap" :title="part.actual?.exact">
                            {{ part.actual ? figure(part.actual, measure) : '' }}
                        </td>
                        <td class="w-[32%]">
                            <span class="relative block h-[10px] bg-fill">
                                <span
                                    class="absolute inset-y-0 left-0 bg-line opacity-70"
                                    :style="{ width: `${(Number(part.share ?? 0) / most(split)) * 100}%` }"
                                />
                                <span
                                    v-if="part.target !== null"
                                    class="absolute -inset-y-[3px] w-[2px] bg-brass"
                                    :style="{ left: `calc(${(Number(part.target) / most(split)) * 100}% - 1px)` }"
                                />
                            </span>
                        </td>
                        <td class="pl-2 text-right whitespace-nowrap">
                            {{ part.share === null ? '' : plain(Number(part.share)) }}
                        </td>
                        <td class="pl-3 text-right whitespace-nowrap text-ink-soft">
                            {{ part.moved === null ? '' : signed(part.moved) }}
                        </td>
                        <td v-if="hasTargets(split)" class="pl-3 text-right whitespace-nowrap text-ink-soft">
                            {{ part.target === null ? '' : plain(Number(part.target)) }}
                        </td>
                        <td v-if="hasTargets(split)" class="pl-2">
                            <Needle v-if="part.target !== null" :status="part.status" size="s" />
                        </td>
                    </tr>
                    <tr
                        v-if="rest(split)"
                        class="text-ink-soft [&>td]:border-t [&>td]:border-rule-soft [&>td]:py-[5px]"
                    >
                        <td colspan="3">
                            <button type="button" class="quiet-link" @click="all = [...all, split.code]">
                                {{ rest(split)!.count }} more
                            </button>
                        </td>
                        <td class="text-right">{{ plain(Number(rest(split)!.share.toFixed(1))) }}</td>
                        <td colspan="3" />
                    </tr>
                </tbody>
            </table>
            <p v-if="!compact" class="mt-1 text-[12.5px] text-ink-faint">
                {{
                    split.adds
                        ? `They add up to the figure${unitOf(measure) ? ` in ${unitOf(measure)}` : ''}.`
                        : 'Shares are of the records that count.'
                }}
                Moved: in points, {{ before }}.<template v-if="hasTargets(split)">
                    Brass: the share it should have.</template
                >
            </p>
        </section>
    </div>
</template>
