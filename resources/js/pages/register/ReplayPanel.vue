<script setup lang="ts">
import type { Definition } from './useDraft';
import { ApiError, api, read, type Schemas } from '@/api/client';
import ReplayDrawing from '@/components/ReplayDrawing.vue';
import { useLatest } from '@/composables/useLatest';
import { periodWords } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useDebounceFn } from '@vueuse/core';
import { ref, watch } from 'vue';

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

const ask = useLatest<Schemas['Replay']>(
    (answer) => {
        replay.value = answer;
        problem.value = '';
    },
    (failure) => {
        problem.value = failure instanceof ApiError ? (Object.values(failure.fields)[0] ?? failure.detail) : '';
    },
);
const load = useDebounceFn(() => {
    const { polarity, accumulation, rule, targets, targetFormula, lowFormula, highFormula } = props.draft;
    return ask(() =>
        read(
            api.POST('/api/replay', {
                params: { query: { period: period.value } },
                body: {
                    code: props.saved.code,
                    unit: unit.value,
                    polarity,
                    accumulation,
                    rule,
                    targets: targets[unit.value] ?? {},
                    targetFormula,
                    lowFormula,
                    highFormula,
                },
            }),
        ),
    );
}, 120);
watch(
    () =>
        JSON.stringify([
            props.draft.polarity,
            props.draft.accumulation,
            props.draft.rule,
            props.draft.targets[unit.value],
            props.draft.targetFormula,
            props.draft.lowFormula,
            props.draft.highFormula,
            unit.value,
            period.value,
        ]),
    load,
    { immediate: true },
);
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
            <ReplayDrawing :replay="replay" tried="typed" />
            <p class="mt-1.5 text-[13px] text-ink-faint">
                {{ replay.periods.length }} {{ draft.frequency }}s to
                {{ periodWords(replay.periods.at(-1)?.period ?? period) }}; shaded: the limits as typed, as if they had
                always held. Dashed: the target.
            </p>
        </template>
    </div>
</template>
