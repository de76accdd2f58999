<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useNumbers } from '@/composables/useNumbers';
import { dayAndMonth, moment } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed } from 'vue';
import { broughtWords, WAYS } from './words';

/** Record sets: what is counted comes from them. */
useTitle('Sources · Kybernet');
const { user } = useSession();
const { query } = useView();
const { atMost } = useNumbers();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['sources'],
    queryFn: () => read(api.GET('/api/record-sets')),
    staleTime: 0,
});
const number = (count: number): string => atMost(count, 0);
const year = (day: string): string => `${dayAndMonth(day)} ${day.slice(0, 4)}`;
const records = computed(() => data.value?.reduce((sum, set) => sum + set.records, 0) ?? 0);
const troubled = computed(() => data.value?.filter(({ last }) => last?.state === 'failed') ?? []);
</script>

<template>
    <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">Sources</h1>
            <p v-if="data && data.length > 0" class="mt-[5px] text-[17px]">
                {{ number(records) }} records in {{ data.length === 1 ? 'one set' : `${data.length} sets` }}; the
                figures of {{ data.reduce((sum, { kpis }) => sum + kpis, 0) }} KPIs are counted from them.
                <span v-if="troubled.length > 0" class="text-red-text"
                    >The latest load of {{ troubled.map(({ name }) => name).join(' and ') }} did not come in.</span
                >
            </p>
        </div>
        <RouterLink v-if="user?.defines" class="button" :to="{ name: 'source-new', query: query() }"
            >Make a record set</RouterLink
        >
    </div>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <StateNote v-else-if="data && data.length === 0" title="Figures that count themselves">
        Jobs, cases, invoices, samples: where they are recorded already, nobody needs to type their sum. Bring a file of
        them, say what its columns are, and count KPIs from it.
    </StateNote>
    <table v-else-if="data" class="w-full border-collapse text-left text-[15px] max-md:block">
        <thead class="max-md:sr-only">
            <tr class="text-[12.5px] text-ink-faint [&>th]:pt-3 [&>th]:pb-1 [&>th]:font-medium">
                <th scope="col">Records</th>
                <th scope="col" class="text-right">How many</th>
                <th scope="col" class="pl-8">Complete</th>
                <th scope="col">Came in last</th>
                <th scope="col" class="text-right">KPIs</th>
            </tr>
        </thead>
        <tbody class="max-md:block">
            <tr
                v-for="set in data"
                :key="set.code"
                class="border-t border-rule-soft align-top max-md:block max-md:py-2 [&>td]:md:py-[9px]"
                :class="{ 'text-ink-faint': set.retired }"
            >
                <td class="pr-4 max-md:block">
                    <RouterLink
                        class="font-semibold hover:text-brass"
                        :to="{ name: 'source', params: { code: set.code }, query: query() }"
                        >{{ set.name }}</RouterLink
                    >
                    <span class="block text-[13px] text-ink-faint"
                        >{{ set.code }} · {{ set.unit }}{{ set.retired ? ' · retired' : '' }}</span
                    >
                </td>
                <td class="text-right max-md:inline max-md:pr-1">{{ number(set.records) }}</td>
                <td class="md:pl-8 max-md:block">
                    <template v-if="set.coversFrom && set.coversTo">
                        {{ year(set.coversFrom) }} – {{ year(set.coversTo) }}
                    </template>
                    <span v-else class="text-ink-faint">not said</span>
                </td>
                <td class="pr-4 max-md:block">
                    <template v-if="set.last">
                        <span :class="{ 'text-red-text': set.last.state === 'failed' }">{{
                            set.last.state === 'failed' ? 'did not come in' : moment(set.last.at)
                        }}</span>
                        <span class="block text-[13px] text-ink-faint">{{
                            set.last.state === 'failed'
                                ? set.last.problem
                                : `${WAYS[set.last.way]}: ${broughtWords(set.last, number)}`
                        }}</span>
                    </template>
                    <span v-else class="text-ink-faint">nothing yet</span>
                </td>
                <td class="text-right max-md:hidden">{{ set.kpis || '' }}</td>
            </tr>
        </tbody>
    </table>
</template>
