<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';
import { POLARITIES, ACCUMULATIONS } from './words';

const { unit, query } = useView();
const { session, user, path } = useSession();
const words = ref('');

const { data, error, isPending, refetch } = useQuery({
    queryKey: ['register'],
    queryFn: () => read(api.GET('/api/kpis')),
});
useTitle('Register · Kybernet');

/** A works or a zone has no definitions of its own: they belong to its department. */
const place = computed(() => path(unit.value.code)[1] ?? unit.value);
const isWhole = computed(() => place.value.parent === null);

const groups = computed(() => {
    const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = (text: string): boolean => wanted.every((word) => text.toLowerCase().includes(word));
    return (session.value?.units ?? [])
        .filter((each) => isWhole.value || each.code === place.value.code)
        .map((each) => ({
            unit: each,
            kpis: (data.value?.kpis ?? []).filter(
                (kpi) =>
                    kpi.department === each.code &&
                    fits(`${kpi.code} ${kpi.name} ${kpi.theme ?? ''} ${kpi.owner ?? ''} ${kpi.measure}`),
            ),
        }))
        .filter(({ kpis }) => kpis.length > 0);
});
const count = computed(() => groups.value.reduce((sum, { kpis }) => sum + kpis.length, 0));
const open = computed(() => groups.value.flatMap(({ kpis }) => kpis).filter((kpi) => kpi.lacksLimits).length);
</script>

<template>
    <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">What {{ place.name }} tracks</h1>
            <p class="mt-[5px] text-[17px]">
                {{ count }} {{ count === 1 ? 'KPI' : 'KPIs'
                }}<template v-if="isWhole">
                    in {{ groups.length }} {{ groups.length === 1 ? 'part' : 'parts' }} of the organisation</template
                >;
                <b v-if="open > 0" class="font-[650] text-amber-text">{{ open }} without limits yet</b>
                <template v-else>each that is judged has its limits</template>.
            </p>
        </div>
        <div class="ml-auto flex flex-wrap items-center gap-3">
            <input
                v-model="words"
                type="search"
                class="field w-[220px]"
                placeholder="Filter by any word"
                aria-label="Filter"
            />
            <RouterLink v-if="user?.defines" class="button" :to="{ name: 'define', query: query() }"
                >Define a KPI</RouterLink
            >
        </div>
    </div>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error" :error="error" @retry="refetch" />
    <StateNote v-else-if="groups.length === 0 && words !== ''" title="No KPI fits">
        No code, name, theme or owner has “{{ words }}” in it.
        <button type="button" class="quiet-link" @click="words = ''">Show all again</button>
    </StateNote>
    <StateNote v-else-if="groups.length === 0" title="Nothing is defined yet">
        <template v-if="user?.defines">
            Begin with one figure that {{ place.name }} can measure today.
            <RouterLink class="quiet-link" :to="{ name: 'define', query: query() }">Define a KPI</RouterLink>
        </template>
        <template v-else>A performance analyst can define KPIs for {{ place.name }}.</template>
    </StateNote>
    <table v-else class="w-full table-fixed border-collapse text-left max-md:block">
        <colgroup>
            <col class="md:w-[30%]" />
            <col class="w-[92px] md:w-[11%]" />
            <col class="hidden md:table-column" />
            <col class="hidden md:table-column" />
            <col class="hidden lg:table-column" />
            <col class="hidden lg:table-column" />
            <col class="hidden lg:table-column" />
        </colgroup>
        <thead class="max-md:sr-only">
            <tr class="text-[12.5px] text-ink-faint [&>th]:pt-3 [&>th]:pb-1 [&>th]:font-medium">
                <th>KPI</th>
                <th>measured in</th>
                <th class="hidden md:table-cell">better when</th>
                <th class="hidden md:table-cell">over time</th>
                <th class="hidden lg:table-cell">theme</th>
                <th class="hidden lg:table-cell">where</th>
                <th class="hidden lg:table-cell">owner</th>
            </tr>
        </thead>
        <tbody v-for="group in groups" :key="group.unit.code" class="max-md:block">
            <tr class="max-md:block">
                <th scope="rowgroup" colspan="7" class="h-[44px] max-md:block border-t border-rule pt-2.5 font-normal">
                    <h2 class="inline text-[17px]">{{ group.unit.name }}</h2>
                    <span class="ml-2.5 text-[13px] text-ink-soft">{{ group.kpis.length }}</span>
                </th>
            </tr>
            <tr
                v-for="kpi in group.kpis"
                :key="kpi.code"
                class="text-ink-soft hover:bg-sheet max-md:grid max-md:grid-cols-[minmax(0,1fr)_92px] [&>td]:max-md:content-center [&>td]:h-[34px] [&>td]:truncate [&>td]:border-t [&>td]:border-rule-soft [&>td]:pr-3"
            >
                <td>
                    <RouterLink
                        class="font-semibold text-ink hover:text-brass"
                        :to="{ name: 'kpi', params: { code: kpi.code }, query: query() }"
                        >{{ kpi.name }}</RouterLink
                    >
                    <span class="ml-2 text-[12.5px] text-ink-faint">{{ kpi.code }}</span>
                </td>
                <td>{{ kpi.measure }}</td>
                <td class="hidden md:table-cell">
                    {{ kpi.kind === 'judged' ? 'a person judges' : POLARITIES[kpi.polarity] }}
                    <span v-if="kpi.lacksLimits" class="text-amber-text">· no limits yet</span>
                </td>
                <td class="hidden md:table-cell">{{ ACCUMULATIONS[kpi.accumulation] }}</td>
                <td class="hidden lg:table-cell">{{ kpi.theme ?? '' }}</td>
                <td class="hidden lg:table-cell">{{ kpi.units === 1 ? 'one unit' : `${kpi.units} units` }}</td>
                <td class="hidden lg:table-cell">{{ kpi.owner ?? '' }}</td>
            </tr>
        </tbody>
    </table>
</template>
