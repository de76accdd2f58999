<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useAddress } from '@/composables/useAddress';
import { useFreshness } from '@/composables/useFreshness';
import { useNumbers } from '@/composables/useNumbers';
import { dayAndMonth } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useView } from '@/composables/useView';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, watch } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';
import SetForm from './SetForm.vue';
import SourceLoads from './SourceLoads.vue';
import UnitNames from './UnitNames.vue';
import WayPanel from './WayPanel.vue';
import { useSet } from './useSet';
import { isAtWork } from './words';

/** One record set: what came in, what its fields are, which units its records name. */
const props = defineProps<{ code: string }>();
const { query } = useView();
const { atMost } = useNumbers();
const renew = useFreshness();
const number = (count: number): string => atMost(count, 0);
const year = (day: string): string => `${dayAndMonth(day)} ${day.slice(0, 4)}`;

const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['source', props.code]),
    queryFn: () => read(api.GET('/api/record-sets/{recordSet}', { params: { path: { recordSet: props.code } } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
    retry: false,
    refetchInterval: (found) => (isAtWork(found.state.data?.loads[0]) ? 700 : false),
});
useTitle(computed(() => `${data.value?.name ?? props.code} · Sources · Kybernet`));
const part = useAddress<'loads' | 'fields' | 'units' | 'way'>('part', 'loads', ['loads', 'fields', 'units', 'way']);
const set = useSet();
watch(
    data,
    (page) => {
        if (page !== undefined && !set.changed.value) {
            set.fromPage(page);
        }
    },
    { immediate: true },
);
/** The worker has ended: the figures may be others. */
watch(
    () => data.value?.loads[0]?.state,
    async (now, before) => {
        if (before !== undefined && now !== before) {
            await renew();
        }
    },
);

const PARTS = computed(() => ({
    loads: 'What came in',
    fields: 'What it holds',
    ...(data.value?.unitField ? { units: 'Whose they are' } : {}),
    ...(data.value?.changes ? { way: 'How they come in' } : {}),
}));
const unknown = computed(() => data.value?.unknown.reduce((sum, { records }) => sum + records, 0) ?? 0);
const { busy, said, send } = useSending();
async function retire(page: Schemas['SourcePage']): Promise<void> {
    if (
        !page.retired &&
        !window.confirm(`Retire ${page.name}? It takes no records any more; what is counted from it stays.`)
    ) {
        return;
    }
    await send(async () => {
        const request = { params: { path: { recordSet: page.code } } };
        await read(
            page.retired
                ? api.DELETE('/api/record-sets/{recordSet}/retirement', request)
                : api.PUT('/api/record-sets/{recordSet}/retirement', request),
        );
        await renew();
    });
}
onBeforeRouteLeave(
    () => !set.changed.value || window.confirm('This record set has changes that are not saved. Leave it?'),
);
const missing = computed(() => error.value instanceof ApiError && error.value.status === 404);
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="missing" :title="`There is no record set ${code} here`">
        <RouterLink class="quiet-link" :to="{ name: 'sources', query: query() }">All sources</RouterLink>
    </StateNote>
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
            <div class="min-w-0">
                <h1 class="text-[28px] leading-[1.15]">{{ data.name }}</h1>
                <p class="mt-1 text-[15px] text-ink-soft">
                    {{ [data.code, data.unitName, `${number(data.records)} ${data.noun}`].join(' · ')
                    }}<template v-if="data.coversFrom && data.coversTo">
                        · complete from {{ year(data.coversFrom) }} to {{ year(data.coversTo) }}</template
                    ><template v-if="data.retired"> · retired</template>
                </p>
            </div>
            <p class="ml-auto flex items-center gap-2.5">
                <RouterLink
                    class="quiet-link mr-2 text-[13.5px] text-ink-soft"
                    :to="{ name: 'sources', query: query() }"
                    >All sources</RouterLink
                >
                <button
                    v-if="data.changes"
                    type="button"
                    class="quiet-link mr-2 text-[13.5px] text-ink-soft"
                    :disabled="busy"
                    @click="retire(data)"
                >
                    {{ data.retired ? 'Bring it back' : 'Retire' }}
                </button>
                <template v-if="data.changes && part === 'fields'">
                    <button
                        type="button"
                        class="button button-quiet"
                        :disabled="!set.changed.value || set.busy.value"
                        @click="set.fromPage(data)"
                    >
                        Put back
                    </button>
                    <button
                        type="button"
                        class="button"
                        :disabled="!set.changed.value || set.busy.value"
                        @click="set.change()"
                    >
                        Save
                    </button>
                </template>
            </p>
        </div>
        <p v-if="said || set.trouble.value" class="error pt-2 text-[14.5px]" role="alert">
            {{ said || set.trouble.value }}
        </p>
        <nav class="flex flex-wrap gap-x-6 pt-2.5 pb-5" aria-label="Parts of the record set">
            <button
                v-for="(words, each) in PARTS"
                :key="each"
                type="button"
                class="tab"
                :aria-pressed="part === each"
                @click="part = each as typeof part"
            >
                {{ words
                }}<span v-if="each === 'units' && unknown > 0" class="ml-1.5 text-[13px] text-amber-text"
                    >{{ number(unknown) }} not known</span
                >
            </button>
        </nav>
        <SourceLoads v-if="part === 'loads'" :page="data" />
        <fieldset v-else-if="part === 'fields'" :disabled="!data.changes || set.busy.value" class="min-w-0">
            <legend class="sr-only">Record set</legend>
            <SetForm
                v-model="set.draft"
                :error="set.message"
                :fixed="data.records > 0"
                :upload="null"
                :known="data.code"
            />
        </fieldset>
        <WayPanel v-else-if="part === 'way'" :page="data" />
        <UnitNames v-else :page="data" />
        <p v-if="data.kpis.length > 0" class="mt-8 border-t border-rule pt-2 text-[14px] text-ink-soft">
            Counted from it:
            <template v-for="(kpi, index) in data.kpis" :key="kpi.code"
                ><template v-if="index > 0">, </template
                ><RouterLink class="quiet-link" :to="{ name: 'kpi', params: { code: kpi.code }, query: query() }">{{
                    kpi.name
                }}</RouterLink></template
            >.
        </p>
    </template>
</template>
