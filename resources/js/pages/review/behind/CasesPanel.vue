<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useAddress } from '@/composables/useAddress';
import { useNumbers } from '@/composables/useNumbers';
import { longMonth } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import { SPAN_PHRASES, STATUSES } from '@/words';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import CaseLane from './CaseLane.vue';
import { casesScale, goalOf } from './cases';

/** Each record a dot over its value, in rows by a field or by the steps of each; the goal can be moved. */
const props = defineProps<{ measurement: number; code: string; mayDefine: boolean }>();
const emit = defineEmits<{ records: [] }>();
const { period, span, query } = useView();
const { atMost, plain } = useNumbers();
const by = useAddress('by', '');
const goal = ref('');
const asked = refDebounced(goal, 150);
watch([() => props.measurement, period, span], () => (goal.value = ''));

const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => ['cases', props.measurement, period.value, span.value, by.value, asked.value]),
    queryFn: () =>
        read(
            api.GET('/api/measurements/{measurement}/cases', {
                params: {
                    path: { measurement: props.measurement },
                    query: { period: period.value, span: span.value, by: by.value, goal: asked.value },
                },
            }),
        ),
    placeholderData: keepPreviousData,
    retry: false,
});
const fading = useWaiting(isPlaceholderData);
const refused = computed(() => error.value instanceof ApiError && error.value.status === 422);

const value = computed(() =>
    data.value?.goal == null ? null : goalOf(goal.value === '' ? data.value.goal : goal.value),
);
/** One scale for all rows of one value; each step has its own. */
const ends = (rows: readonly Schemas['CaseRow'][]): [number, number] => casesScale(rows, value.value);
const scaleOf = (row: Schemas['CaseRow']): [number, number] =>
    by.value === 'steps' ? ends([row]) : ends(data.value?.rows ?? []);

const slider = computed(() => {
    const row = data.value?.rows.find((each) => each.goal);
    const now = data.value?.goal;
    if (row === undefined || now == null) {
        return null;
    }
    const [low, high] = ends([row]);
    const step = (high - low) / 100 > 0.5 ? 1 : (high - low) / 100 > 0.05 ? 0.1 : 0.01;
    return { low, high, step, now: goalOf(now) };
});
const moved = computed(() => goal.value !== '' && data.value?.goal !== null && goal.value !== data.value?.goal);
const tried = computed(() => (moved.value ? data.value?.tried : null));
const when = computed(() => (span.value === 'month' ? longMonth(period.value) : SPAN_PHRASES[span.value]));
const COLOUR: Record<string, string> = { green: 'text-green', amber: 'text-amber-text', red: 'text-red-text' };
const words = (text: string): string => text.replaceAll('_', ' ');
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <section v-else-if="data" aria-label="Cases" :class="{ waiting: fading }">
        <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule pb-2 text-[14.5px]">
            <p class="text-ink-soft">
                Each dot is one of the {{ data.noun }}, over its {{ words(data.of)
                }}<template v-if="data.measure"> in {{ data.measure }}</template
                >.
            </p>
            <span class="ml-auto flex flex-wrap gap-x-4" role="group" aria-label="Rows">
                <button type="button" class="tab py-0!" :aria-pressed="by === ''" @click="by = ''">together</button>
                <button
                    v-if="data.steps"
                    type="button"
                    class="tab py-0!"
                    :aria-pressed="by === 'steps'"
                    @click="by = 'steps'"
                >
                    by step
                </button>
                <button
                    v-for="field in data.fields"
                    :key="field"
                    type="button"
                    class="tab py-0!"
                    :aria-pressed="by === field"
                    @click="by = field"
                >
                    by {{ words(field) }}
                </button>
            </span>
        </div>
        <p v-if="data.rows.length === 0" class="py-6 text-ink-soft">
            <template v-if="data.masked">What these {{ data.noun }} are measured by is sensitive.</template>
            <template v-else>These {{ data.noun }} have no value by which they could be laid out.</template>
        </p>
        <CaseLane
            v-for="row in data.rows"
            :key="row.name ?? ''"
            :row="row"
            :ends="scaleOf(row)"
            :goal="row.goal ? value : null"
            :good-below="data.atMost"
            :measure="data.measure"
            :title="row.name === null ? (by === '' ? `All ${data.noun}` : 'Nothing stands there') : words(row.name)"
            :tall="data.rows.length === 1"
            @pick="emit('records')"
        />
        <div
            v-if="slider && data.goal !== null"
            class="mt-4 flex flex-wrap items-center gap-x-9 gap-y-3 border border-rule bg-sheet px-[18px] py-4"
        >
            <p class="min-w-[300px] grow basis-[420px] text-[15px]">
                <template v-if="refused"
                    ><span class="error">{{ error?.message }}</span></template
                >
                <template v-else-if="tried">
                    <b class="font-[650]">If the goal were {{ tried.goal }} {{ data.measure }},</b>
                    {{ atMost(tried.met, 0) }} of {{ atMost(tried.cases, 0) }} {{ data.noun }}
                    <template v-if="tried.share !== null"> ({{ plain(Number(tried.share)) }} %)</template>
                    would meet it<template v-if="data.now?.share != null">
                        instead of {{ plain(Number(data.now.share)) }} %</template
                    >; {{ when }} would be
                    <b :class="COLOUR[tried.status]" class="font-[650]">{{ STATUSES[tried.status] }}</b><template
                        v-if="tried.periods > 0"
                        >, and so would {{ tried.alike }} of the last {{ tried.periods }} periods</template
                    >.
                </template>
                <template v-else-if="data.now">
                    {{ atMost(data.now.met, 0) }} of {{ atMost(data.now.cases, 0) }} {{ data.noun }}
                    <template v-if="data.now.share !== null"> ({{ plain(Number(data.now.share)) }} %)</template> meet
                    the goal of {{ data.goal }} {{ data.measure }}. Move it to see what another would mean.
                </template>
            </p>
            <div class="w-[290px] max-w-full">
                <input
                    class="w-full accent-brass"
                    type="range"
                    :min="slider.low"
                    :max="slider.high"
                    :step="slider.step"
                    :value="value ?? slider.now"
                    aria-label="The goal"
                    @input="goal = ($event.target as HTMLInputElement).value"
                />
                <p class="flex items-baseline justify-between text-[12.5px] text-ink-faint">
                    <span>{{ plain(slider.low) }}</span>
                    <label class="text-ink"
                        ><span class="sr-only">The goal, typed</span>
                        <input
                            v-model="goal"
                            class="field min-h-[26px] w-[74px] py-0 text-center text-[13.5px]"
                            inputmode="decimal"
                            autocomplete="off"
                            :placeholder="data.goal"
                    /></label>
                    <button v-if="moved" type="button" class="quiet-link" @click="goal = ''">
                        now {{ data.goal }}
                    </button>
                    <span>{{ plain(slider.high) }}</span>
                </p>
            </div>
        </div>
        <p class="mt-3 text-[13.5px] text-ink-faint">
            Moving the goal changes nothing until it is saved in the
            <RouterLink v-if="mayDefine" class="quiet-link" :to="{ name: 'kpi', params: { code }, query: query() }"
                >register</RouterLink
            ><template v-else>register</template>. Brass: the goal. Dark line: the mean.
        </p>
    </section>
</template>
