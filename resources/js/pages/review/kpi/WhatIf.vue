<script setup lang="ts">
import { ApiError, type Schemas } from '@/api/client';
import ChoiceRow from '@/components/ChoiceRow.vue';
import ReplayDrawing from '@/components/ReplayDrawing.vue';
import StateNote from '@/components/StateNote.vue';
import { useLatest } from '@/composables/useLatest';
import { periodWords } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { askWhatIf, triedIn, triedQuery, triesAnything, type Tried } from '@/composables/useTried';
import { useView } from '@/composables/useView';
import { EACH, limitWords, REFERENCES } from '@/words';
import { useDebounceFn } from '@vueuse/core';
import { computed, reactive, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** The latest periods under limits and targets that somebody tries out: nothing of it is kept, and a link shows it. */
const props = defineProps<{ page: Schemas['KpiPage'] }>();

const route = useRoute();
const router = useRouter();
const { unit, period, query } = useView();
const { user } = useSession();

const BEGIN = { set: 'as they are', moved: 'moved', same: 'all the same' } as const;
const answer = ref<Schemas['WhatIf'] | null>(null);
const failure = ref<Error | null>(null);
const tried = reactive<Tried>(triedIn(route.query).tried);
/** The setting in which the fields are written: that of the address until what it says has been read. */
let as = triedIn(route.query).as;
const aim = ref<keyof typeof BEGIN>(tried.same !== '' ? 'same' : tried.moved !== '' ? 'moved' : 'set');
const copied = ref(false);

const LIMITS = computed(() =>
    answer.value === null
        ? []
        : answer.value.polarity === 'band' && answer.value.measure === 'level'
          ? ([
                { name: 'low', words: 'On course from' },
                { name: 'high', words: 'to' },
                { name: 'marginLow', words: 'drifting' },
                { name: 'marginHigh', words: 'and' },
            ] as const)
          : ([
                { name: 'green', words: 'On course' },
                { name: 'amber', words: 'drifting' },
            ] as const),
);
const after = (name: string): string => {
    if (answer.value === null) {
        return '';
    }
    return (
        { low: '', high: `${props.page.measure},`, marginLow: 'below', marginHigh: 'above' }[name] ??
        limitWords(answer.value.measure, answer.value.polarity, props.page.measure).unit
    );
};
const before = computed(() =>
    answer.value === null || LIMITS.value.length > 2
        ? ''
        : limitWords(answer.value.measure, answer.value.polarity, props.page.measure).reach,
);
/** Limits as they are, for whoever wonders what was moved. */
const was = (name: keyof Schemas['TriedLimits']): string => {
    const now = String(answer.value?.now[name] ?? '');
    return now !== '' && now !== tried[name] ? `now ${now}` : '';
};
const aimed = computed(() => answer.value !== null && ['target', 'year-target'].includes(answer.value.reference));

/** Only what differs from what is in force is tried, and stands in the address. */
const different = (): Tried =>
    Object.fromEntries(
        Object.entries(tried).map(([name, text]) => [
            name,
            String(answer.value?.now[name as keyof Schemas['TriedLimits']] ?? '') === text ? '' : text,
        ]),
    ) as Tried;

const ask = useLatest<Schemas['WhatIf']>(
    (got) => {
        const isFirst = answer.value === null;
        answer.value = got;
        failure.value = null;
        if (isFirst) {
            // From here on everything is written as this person does.
            as = user.value?.locale ?? '';
            const { periods, ...limits } = got.tried;
            Object.assign(tried, limits, {
                periods: periods === null ? '' : String(periods),
                moved: got.moved,
                same: got.same,
            });
        }
    },
    (reason) => (failure.value = reason instanceof Error ? reason : new Error(String(reason))),
);
const load = () => ask(() => askWhatIf(unit.value.code, props.page.code, period.value, different(), as));
const soon = useDebounceFn(load, 160);

watch(
    () => [props.page.id, period.value],
    () => {
        answer.value = null;
        void load();
    },
    { immediate: true },
);
watch(tried, () => {
    if (answer.value !== null) {
        copied.value = false;
        void router.replace({ query: { ...route.query, ...triedQuery(different(), as) } });
        void soon();
    }
});
watch(aim, (now) => {
    tried.moved = now === 'moved' ? tried.moved : '';
    tried.same = now === 'same' ? tried.same : '';
});

function putBack(): void {
    aim.value = 'set';
    for (const name of Object.keys(tried) as (keyof Tried)[]) {
        tried[name] = String(answer.value?.now[name as keyof Schemas['TriedLimits']] ?? '');
    }
}

async function copy(): Promise<void> {
    await navigator.clipboard.writeText(window.location.href);
    copied.value = true;
}

const changed = computed(() => triesAnything({ tried: different() }));
const problems = computed(() => (failure.value instanceof ApiError ? failure.value.fields : {}));
const wrong = (name: string): string | undefined => problems.value[`/${name}`] ?? problems.value[name];
const place = computed(() => ({
    name: 'kpi',
    params: { code: props.page.code },
    query: { ...query(), ...triedQuery(different(), as) },
}));
</script>

<template>
    <section aria-labelledby="what-if" class="border-t border-rule pt-3">
        <h2 id="what-if" class="text-[18px]">What if …</h2>
        <StateNote v-if="answer === null && failure" :error="failure" @retry="load" />
        <StateNote v-else-if="answer === null" loading />
        <div v-else class="grid gap-x-[34px] gap-y-5 lg:grid-cols-[minmax(0,1fr)_420px]">
            <form class="text-[15px]" @submit.prevent>
                <p class="text-ink-soft">
                    Against
                    {{
                        answer.polarity === 'band' && answer.reference === 'target'
                            ? 'the band'
                            : REFERENCES[answer.reference]
                    }}<template v-if="answer.own">, with limits of {{ unit.name }} alone</template>. Nothing of this is
                    kept; the address of the page shows it to whoever opens it.
                </p>
                <p v-if="answer.reference === 'recent'" class="mt-3 flex flex-wrap items-center gap-2">
                    <label for="if-periods">Compared with the mean of the previous</label>
                    <input
                        id="if-periods"
                        v-model="tried.periods"
                        class="field w-[66px] text-right font-semibold"
                        inputmode="numeric"
                        autocomplete="off"
                        :aria-invalid="!!wrong('periods')"
                    />
                    {{ EACH[page.frequency] }}s
                    <span class="text-[13.5px] text-ink-faint">{{ was('periods') }}</span>
                    <span v-if="wrong('periods')" class="error" role="alert">{{ wrong('periods') }}</span>
                </p>
                <div class="mt-3 flex flex-wrap items-center gap-x-2 gap-y-2">
                    <template v-for="limit in LIMITS" :key="limit.name">
                        <label :for="`if-${limit.name}`">{{ limit.words }} {{ before }}</label>
                        <input
                            :id="`if-${limit.name}`"
                            v-model="tried[limit.name]"
                            class="field w-[88px] text-right font-semibold"
                            inputmode="decimal"
                            autocomplete="off"
                            :aria-invalid="!!wrong(limit.name)"
                        />
                        <span class="mr-2"
                            >{{ after(limit.name) }}
                            <span class="text-[13.5px] text-ink-faint">{{ was(limit.name) }}</span></span
                        >
                    </template>
                </div>
                <template v-for="limit in LIMITS" :key="limit.name">
                    <p v-if="wrong(limit.name)" class="error mt-1" role="alert">{{ wrong(limit.name) }}</p>
                </template>
                <div v-if="aimed" class="mt-3 flex flex-wrap items-center gap-2">
                    <span>Targets</span>
                    <ChoiceRow v-model="aim" label="Targets" :choices="BEGIN" />
                    <template v-if="aim === 'moved'">
                        <label for="if-moved">by</label>
                        <input
                            id="if-moved"
                            v-model="tried.moved"
                            class="field w-[74px] text-right font-semibold"
                            inputmode="decimal"
                            autocomplete="off"
                            placeholder="5"
                            :aria-invalid="!!wrong('moved')"
                        />
                        %
                    </template>
                    <template v-else-if="aim === 'same'">
                        <label for="if-same">each {{ EACH[page.frequency] }}</label>
                        <input
                            id="if-same"
                            v-model="tried.same"
                            class="field w-[112px] text-right font-semibold"
                            inputmode="decimal"
                            autocomplete="off"
                            :placeholder="answer.polarity === 'band' ? '2 – 3' : ''"
                            :aria-invalid="!!wrong('same')"
                        />
                        {{ page.measure }}
                    </template>
                </div>
                <p v-if="wrong('moved') ?? wrong('same')" class="error mt-1" role="alert">
                    {{ wrong('moved') ?? wrong('same') }}
                </p>
                <p v-else-if="failure && Object.keys(problems).length === 0" class="error mt-1" role="alert">
                    {{ failure instanceof ApiError ? failure.detail : 'This cannot be worked out at the moment.' }}
                </p>
                <p class="mt-4 min-h-[44px] max-w-[46em]" role="status">
                    <b class="font-[650]">{{ answer.replay.words }}</b> {{ answer.replay.latest }}
                </p>
                <p class="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[14.5px]">
                    <button v-if="changed" type="button" class="quiet-link text-brass" @click="putBack">
                        Put back
                    </button>
                    <button v-if="changed" type="button" class="quiet-link text-brass" @click="copy">
                        {{ copied ? 'The link is copied' : 'Copy the link' }}
                    </button>
                    <RouterLink v-if="user?.defines && changed && !failure" class="quiet-link text-brass" :to="place"
                        >Take it to the register</RouterLink
                    >
                </p>
            </form>
            <div>
                <ReplayDrawing :replay="answer.replay" tried="tried" />
                <p class="mt-1.5 text-[13px] text-ink-faint">
                    {{ answer.replay.periods.length }} {{ EACH[page.frequency] }}s to
                    {{ periodWords(answer.replay.periods.at(-1)?.period ?? period) }}; shaded: the limits as tried, as
                    if they had always held. Dashed: the target.
                </p>
            </div>
        </div>
    </section>
</template>
