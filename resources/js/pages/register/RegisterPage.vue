<script setup lang="ts">
import { api, read } from '@/api/client';
import ExportMenu from '@/components/ExportMenu.vue';
import StateNote from '@/components/StateNote.vue';
import { useAddress } from '@/composables/useAddress';
import { monthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';
import BulkBar from './BulkBar.vue';
import { ACCUMULATIONS, FREQUENCIES, KINDS, LEVELS, POLARITIES } from '@/words';

const { unit, query } = useView();
const { session, user, path } = useSession();
const words = useAddress('words', '');

const { data, error, isPending, refetch } = useQuery({
    queryKey: ['register'],
    queryFn: () => read(api.GET('/api/kpis')),
});
useTitle('Register · Kybernet');

/** A works or a zone has no definitions of its own: they belong to its department. */
const place = computed(() => path(unit.value.code).find(({ kind }) => kind === 'department') ?? unit.value);
const isWhole = computed(() => place.value.parent === null);

// What the list is narrowed to; each is one of a few, or everything.
const level = useAddress('level', '');
const kind = useAddress('kind', '');
const theme = useAddress('theme', '');
const mark = useAddress('mark', '');
const FILTERS = { open: 'with open questions', limits: 'without limits', retired: 'retired' } as const;
const narrowed = computed(() =>
    [words.value, level.value, kind.value, theme.value, mark.value].some((each) => each !== ''),
);
function showAll(): void {
    [words, level, kind, theme, mark].forEach((each) => (each.value = ''));
}

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
                    (level.value === '' || kpi.level === level.value) &&
                    (kind.value === '' || kpi.kind === kind.value) &&
                    (theme.value === '' || kpi.theme === theme.value) &&
                    (mark.value === 'retired') === (kpi.retired !== null && mark.value === 'retired') &&
                    (mark.value !== 'open' || kpi.open.length > 0) &&
                    (mark.value !== 'limits' || kpi.lacksLimits) &&
                    fits(
                        `${kpi.code} ${kpi.name} ${kpi.theme ?? ''} ${kpi.objective ?? ''} ${kpi.owners.join(' ')} ${kpi.measure} ${kpi.units.join(' ')}`,
                    ),
            ),
        }))
        .filter(({ kpis }) => kpis.length > 0);
});
const listed = computed(() => groups.value.flatMap(({ kpis }) => kpis));
const count = computed(() => listed.value.length);
const lacking = computed(() => listed.value.filter((kpi) => kpi.lacksLimits).length);
const questions = computed(() => listed.value.filter((kpi) => kpi.open.length > 0).length);

const chosen = ref(new Set<string>());
function toggle(code: string): void {
    const next = new Set(chosen.value);
    if (!next.delete(code)) {
        next.add(code);
    }
    chosen.value = next;
}
const isAll = (codes: string[]): boolean => codes.every((code) => chosen.value.has(code));
function toggleAll(codes: string[]): void {
    const next = new Set(chosen.value);
    const remove = isAll(codes);
    codes.forEach((code) => (remove ? next.delete(code) : next.add(code)));
    chosen.value = next;
}
</script>

<template>
    <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">What {{ place.name }} tracks</h1>
            <p class="mt-[5px] text-[17px]">
                {{ count }} {{ count === 1 ? 'KPI' : 'KPIs'
                }}<template v-if="isWhole && groups.length > 1">
                    in {{ groups.length }} parts of the organisation</template
                >;
                <b v-if="lacking > 0" class="font-[650] text-amber-text">{{ lacking }} without limits yet</b>
                <template v-else>each that is judged has its limits</template
                ><template v-if="questions > 0"
                    >; <b class="font-[650] text-amber-text">{{ questions }} with an open question</b></template
                >.
            </p>
        </div>
        <div class="ml-auto flex flex-wrap items-center gap-3">
            <RouterLink v-if="user?.defines" class="button" :to="{ name: 'define', query: query() }"
                >Define a KPI</RouterLink
            >
        </div>
    </div>
    <div class="flex flex-wrap items-center gap-x-3 gap-y-2 py-[9px] text-[13.5px] text-ink-soft">
        <input
            v-model="words"
            type="search"
            class="field min-h-[28px] w-[150px] py-[2px]"
            placeholder="Filter by any word"
            aria-label="Filter"
        />
        <select v-model="level" class="field min-h-[28px] w-[116px] py-[2px]" aria-label="Level">
            <option value="">every level</option>
            <option v-for="(name, value) in LEVELS" :key="value" :value="value">{{ name }}</option>
        </select>
        <select v-model="kind" class="field min-h-[28px] w-[116px] py-[2px]" aria-label="Kind">
            <option value="">every kind</option>
            <option v-for="(name, value) in KINDS" :key="value" :value="value">{{ name }}</option>
        </select>
        <select v-model="theme" class="field min-h-[28px] w-[122px] py-[2px]" aria-label="Theme">
            <option value="">every theme</option>
            <option v-for="each in data?.themes ?? []" :key="each.name" :value="each.name">{{ each.name }}</option>
        </select>
        <select v-model="mark" class="field min-h-[28px] w-[116px] py-[2px]" aria-label="Marked">
            <option value="">all of them</option>
            <option v-for="(name, value) in FILTERS" :key="value" :value="value">{{ name }}</option>
        </select>
        <button v-if="narrowed" type="button" class="quiet-link" @click="showAll">Show all</button>
        <span class="ml-auto flex flex-wrap gap-x-[15px] gap-y-1">
            <template v-if="user?.defines">
                <RouterLink class="quiet-link" :to="{ name: 'starters', query: query() }">Common measures</RouterLink>
                <RouterLink class="quiet-link" :to="{ name: 'plan', query: query() }">Plan targets</RouterLink>
                <template v-if="user.definesAll">
                    <RouterLink class="quiet-link" :to="{ name: 'lists', query: query() }"
                        >Themes and objectives</RouterLink
                    >
                    <RouterLink class="quiet-link" :to="{ name: 'import-definitions', query: query() }"
                        >Import</RouterLink
                    >
                    <ExportMenu
                        path="/api/definitions"
                        :formats="{ csv: 'CSV', xlsx: 'XLSX', ods: 'ODS', json: 'Workbook' }"
                    />
                </template>
            </template>
        </span>
    </div>
    <BulkBar
        v-if="user?.definesAll && chosen.size > 0"
        :codes="[...chosen]"
        :register="data"
        @done="chosen = new Set()"
    />
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error" :error="error" @retry="refetch" />
    <StateNote v-else-if="groups.length === 0 && narrowed" title="No KPI fits">
        No code, name, theme, owner or unit fits what you ask for.
        <button type="button" class="quiet-link" @click="showAll">Show all again</button>
    </StateNote>
    <StateNote v-else-if="groups.length === 0" title="Nothing is defined yet">
        <template v-if="user?.defines">
            Begin with one figure that {{ place.name }} can measure today.
            <RouterLink class="quiet-link" :to="{ name: 'define', query: query() }">Define a KPI</RouterLink>, or choose
            from <RouterLink class="quiet-link" :to="{ name: 'starters', query: query() }">common measures</RouterLink>.
        </template>
        <template v-else>A performance analyst can define KPIs for {{ place.name }}.</template>
    </StateNote>
    <table v-else class="w-full table-fixed border-collapse text-left max-md:block">
        <colgroup>
            <col v-if="user?.definesAll" class="w-8" />
            <col class="md:w-[31%]" />
            <col class="w-[92px] md:w-[11%]" />
            <col class="hidden md:table-column" />
            <col class="hidden md:table-column" />
            <col class="hidden lg:table-column" />
            <col class="hidden w-[8%] lg:table-column" />
            <col class="hidden lg:table-column" />
        </colgroup>
        <thead class="max-md:sr-only">
            <tr class="text-[12.5px] text-ink-faint [&>th]:pt-1 [&>th]:pb-1 [&>th]:font-medium">
                <th v-if="user?.definesAll"><span class="sr-only">Chosen</span></th>
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
                <th v-if="user?.definesAll" class="border-t border-rule pt-2.5 max-md:hidden">
                    <input
                        type="checkbox"
                        class="size-4 accent-brass"
                        :aria-label="`All of ${group.unit.name}`"
                        :checked="isAll(group.kpis.map(({ code }) => code))"
                        @change="toggleAll(group.kpis.map(({ code }) => code))"
                    />
                </th>
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
                <td v-if="user?.definesAll" class="max-md:!hidden">
                    <input
                        type="checkbox"
                        class="size-4 accent-brass"
                        :aria-label="kpi.name"
                        :checked="chosen.has(kpi.code)"
                        @change="toggle(kpi.code)"
                    />
                </td>
                <td>
                    <RouterLink
                        class="font-semibold text-ink hover:text-brass"
                        :to="{ name: 'kpi', params: { code: kpi.code }, query: query() }"
                        >{{ kpi.name }}</RouterLink
                    >
                    <span class="ml-2 text-[12.5px] text-ink-faint">{{ kpi.code }}</span>
                    <span v-if="kpi.open.length > 0" class="ml-2 font-bold text-amber-text" :title="kpi.open.join(' ')"
                        >?<span class="sr-only"> {{ kpi.open.join(' ') }}</span></span
                    >
                    <span v-if="kpi.retired" class="ml-2 text-[12.5px]">until {{ monthAndYear(kpi.retired) }}</span>
                </td>
                <td>{{ kpi.measure }}</td>
                <td class="hidden md:table-cell">
                    {{ kpi.kind === 'judged' ? 'a person judges' : POLARITIES[kpi.polarity] }}
                    <span v-if="kpi.lacksLimits" class="text-amber-text">· no limits yet</span>
                </td>
                <td class="hidden md:table-cell">
                    {{ kpi.frequency === 'month' ? '' : `${FREQUENCIES[kpi.frequency]}, `
                    }}{{ ACCUMULATIONS[kpi.accumulation] }}
                </td>
                <td class="hidden lg:table-cell">{{ kpi.theme ?? '' }}</td>
                <td class="hidden lg:table-cell">
                    {{ kpi.units.length === 1 ? 'one unit' : `${kpi.units.length} units` }}
                </td>
                <td class="hidden lg:table-cell" :title="kpi.owners.join(', ')">
                    {{ kpi.kind === 'formula' ? 'worked out' : kpi.owners.join(', ') }}
                </td>
            </tr>
        </tbody>
    </table>
</template>
