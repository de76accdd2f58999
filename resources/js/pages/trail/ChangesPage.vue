<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { moment, periodWords } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { useInfiniteQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** The trail: who changed what and when, from what to what. The filters live in the address. */
const { unit, query } = useView();
const route = useRoute();
const router = useRouter();
useTitle('Changes · Kybernet');

const SUBJECTS = {
    reading: 'readings',
    target: 'targets',
    note: 'notes',
    call: 'calls',
    definition: 'definitions',
    closing: 'closing',
    import: 'imports',
    source: 'sources',
    list: 'lists',
    unit: 'units',
    briefing: 'briefings',
    person: 'people',
    settings: 'settings',
} as const;
const asked = (name: string): string => (typeof route.query[name] === 'string' ? route.query[name] : '');
const filters = computed(() => ({
    kpi: asked('kpi'),
    subject: asked('subject'),
    person: asked('person'),
    month: asked('month'),
}));
const filtered = computed(() => Object.values(filters.value).some(Boolean));
const everywhere = computed(() => unit.value.parent === null || filters.value.kpi !== '');

const set = (change: Record<string, string>): void => {
    const next = { ...filters.value, ...change };
    void router.replace({
        query: { ...query(), ...Object.fromEntries(Object.entries(next).filter(([, value]) => value !== '')) },
    });
};

const { data, error, isPending, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: computed(() => ['changes', unit.value.code, filters.value]),
    initialPageParam: 0,
    queryFn: ({ pageParam }) => {
        const { kpi, subject, person, month } = filters.value;
        return read(
            api.GET('/api/changes', {
                params: {
                    query: {
                        ...(kpi === '' ? {} : { kpi }),
                        ...(subject === '' ? {} : { subject: subject as keyof typeof SUBJECTS }),
                        ...(person === '' ? {} : { person: Number(person) }),
                        ...(month === '' ? {} : { month }),
                        ...(everywhere.value ? {} : { unit: unit.value.code }),
                        ...(pageParam === 0 ? {} : { before: pageParam }),
                    },
                },
            }),
        );
    },
    getNextPageParam: (last: Schemas['ChangesPage']) => (last.more ? last.changes.at(-1)?.id : undefined),
});

const people = computed(() => data.value?.pages[0]?.people ?? []);
/** Days with their changes, newest first. */
const days = computed(() => {
    const found: { day: string; changes: Schemas['Change'][] }[] = [];
    for (const change of data.value?.pages.flatMap(({ changes }) => changes) ?? []) {
        const day = moment(change.at).split(',')[0] ?? '';
        if (found.at(-1)?.day !== day) {
            found.push({ day, changes: [] });
        }
        found.at(-1)?.changes.push(change);
    }
    return found;
});

const DONE = {
    made: { plain: 'entered', other: 'added' },
    removed: { plain: 'took back', other: 'removed' },
    changed: { plain: 'changed', other: 'changed' },
} as const;
const FIGURES = ['reading', 'target', 'year target'];
const verb = ({ how, what }: Schemas['Change']): string =>
    what === 'closing'
        ? how === 'removed'
            ? 'reopened'
            : 'closed'
        : DONE[how][FIGURES.includes(what) ? 'plain' : 'other'];
const fieldWords = ({ field, before, after }: Schemas['ChangedField']): string => {
    const name = field === '' ? '' : `${field} `;
    return before === '' ? `${name}${after}` : after === '' ? `${name}${before}` : `${name}${before} → ${after}`;
};
</script>

<template>
    <div class="border-b border-rule pb-3">
        <h1 class="text-[28px] leading-[1.15]">
            What was changed{{
                filters.kpi ? `: ${days[0]?.changes[0]?.name ?? filters.kpi}` : everywhere ? '' : ` in ${unit.name}`
            }}
        </h1>
        <p class="mt-[5px] text-[17px] text-ink-soft">
            Every change of a definition, figure, note, closing, person or setting, with what stood there before.
        </p>
    </div>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2 py-[9px] text-[13.5px]">
        <label class="flex items-center gap-2">
            <span class="text-ink-soft">What</span>
            <select
                class="field min-h-[28px] py-[2px]"
                :value="filters.subject"
                @change="set({ subject: ($event.target as HTMLSelectElement).value })"
            >
                <option value="">everything</option>
                <option v-for="(name, value) in SUBJECTS" :key="value" :value="value">{{ name }}</option>
            </select>
        </label>
        <label class="flex items-center gap-2">
            <span class="text-ink-soft">Who</span>
            <select
                class="field min-h-[28px] py-[2px]"
                :value="filters.person"
                @change="set({ person: ($event.target as HTMLSelectElement).value })"
            >
                <option value="">anybody</option>
                <option v-for="person in people" :key="person.id" :value="String(person.id)">{{ person.name }}</option>
            </select>
        </label>
        <label class="flex items-center gap-2">
            <span class="text-ink-soft">Figures of</span>
            <input
                type="month"
                class="field min-h-[28px] py-[2px]"
                :value="filters.month"
                @change="set({ month: ($event.target as HTMLInputElement).value })"
            />
        </label>
        <label class="flex items-center gap-2">
            <span class="text-ink-soft">KPI</span>
            <input
                class="field min-h-[28px] w-[130px] py-[2px]"
                placeholder="code"
                autocomplete="off"
                :value="filters.kpi"
                @change="set({ kpi: ($event.target as HTMLInputElement).value.trim() })"
            />
        </label>
        <button
            v-if="filtered"
            type="button"
            class="quiet-link"
            @click="set({ kpi: '', subject: '', person: '', month: '' })"
        >
            Show all
        </button>
    </div>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error" :error="error" @retry="refetch" />
    <StateNote v-else-if="days.length === 0 && filtered" title="No change fits"
        >Show all, or look for something else.</StateNote
    >
    <StateNote v-else-if="days.length === 0" title="Nothing was changed yet"
        >As soon as somebody changes a definition, a figure or a note, it stands here with what stood there
        before.</StateNote
    >
    <template v-else>
        <section v-for="{ day, changes } in days" :key="day" class="mt-3 mb-5">
            <h2 class="mb-1 text-[17px]">{{ day }}</h2>
            <ul>
                <li
                    v-for="change in changes"
                    :key="change.id"
                    class="grid grid-cols-[52px_130px_minmax(0,1fr)] gap-x-3 border-t border-rule-soft py-[6px] max-md:grid-cols-[52px_minmax(0,1fr)]"
                >
                    <time class="text-[13.5px] text-ink-faint" :datetime="change.at">{{
                        moment(change.at).split(', ')[1]
                    }}</time>
                    <span class="truncate text-ink-soft max-md:hidden"
                        >{{ change.by ?? 'a command'
                        }}{{ change.standingFor === null ? '' : `, for ${change.standingFor}` }}</span
                    >
                    <div class="min-w-0">
                        {{ verb(change) }}
                        <span v-if="change.what !== 'closing'" class="text-ink-soft">the {{ change.what }}</span>
                        <template v-if="change.name">
                            of
                            <RouterLink
                                class="font-semibold hover:text-brass"
                                :to="{ name: 'kpi', params: { code: change.code }, query: query() }"
                                >{{ change.name }}</RouterLink
                            >
                        </template>
                        <span v-if="change.unit" class="text-ink-soft">{{
                            change.what === 'closing' ? ` ${change.unit}` : ` in ${change.unit}`
                        }}</span>
                        <span v-if="change.period" class="text-ink-soft">, {{ periodWords(change.period) }}</span>
                        <span v-if="change.fields.length > 0 && change.what !== 'closing'"
                            >:
                            <span v-for="(field, index) in change.fields" :key="field.field"
                                ><template v-if="index > 0">; </template
                                ><span :title="`${field.before} → ${field.after}`">{{ fieldWords(field) }}</span></span
                            ></span
                        >
                        <span v-if="change.reason" class="block text-[13.5px] text-ink-soft"
                            >“{{ change.reason }}”</span
                        >
                    </div>
                </li>
            </ul>
        </section>
        <button
            v-if="hasNextPage"
            type="button"
            class="button button-quiet"
            :disabled="isFetchingNextPage"
            @click="fetchNextPage()"
        >
            {{ isFetchingNextPage ? 'Reading …' : 'Older changes' }}
        </button>
    </template>
</template>
