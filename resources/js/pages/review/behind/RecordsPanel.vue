<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useAddress } from '@/composables/useAddress';
import { useNumbers } from '@/composables/useNumbers';
import { shortMonth } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { refDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';

/** The very records that a figure counts. */
const props = defineProps<{ measurement: number }>();
const { period, span } = useView();
const { atMost } = useNumbers();
const PAGE = 50;

const sort = useAddress('sort', '');
const down = useAddress<'up' | 'down'>('order', 'down', ['up', 'down']);
const page = ref(1);
const typed = ref('');
const search = refDebounced(typed, 200);
watch([sort, down, search, period, span], () => (page.value = 1));
const asked = computed(() => ({
    period: period.value,
    span: span.value,
    sort: sort.value,
    down: down.value === 'down',
    search: search.value,
    page: page.value,
}));
const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => ['records-behind', props.measurement, asked.value]),
    queryFn: () =>
        read(
            api.GET('/api/measurements/{measurement}/records', {
                params: {
                    path: { measurement: props.measurement },
                    query: { ...asked.value, down: (asked.value.down ? 1 : 0) as unknown as boolean },
                },
            }),
        ),
    placeholderData: keepPreviousData,
    retry: false,
});
const fading = useWaiting(isPlaceholderData);
const pages = computed(() => Math.max(1, Math.ceil((data.value?.total ?? 0) / PAGE)));
const number = (count: number): string => atMost(count, 0);

function order(name: string): void {
    if (sort.value === name) {
        down.value = down.value === 'down' ? 'up' : 'down';
    } else {
        sort.value = name;
    }
}
const heading = (name: string): string => (name === '=' ? 'counted' : name.replaceAll('_', ' '));
function cell(text: string | null | undefined, type: string): string {
    if (text === null || text === undefined) {
        return '';
    }
    if (type === 'number') {
        return Number.isNaN(Number(text)) ? text : atMost(Number(text), 2);
    }
    return /^\d{4}-\d\d-\d\d/.test(text)
        ? `${Number(text.slice(8, 10))} ${shortMonth(text.slice(0, 7))} ${text.slice(0, 4)}${text.slice(10)}`
        : text;
}
const file = computed(
    () =>
        `/api/measurements/${props.measurement}/records/file?${new URLSearchParams({ period: period.value, span: span.value, sort: sort.value, down: down.value === 'down' ? '1' : '0', search: search.value }).toString()}`,
);
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <section v-else-if="data" aria-label="The records">
        <div class="flex flex-wrap items-center gap-x-5 gap-y-2 pb-2">
            <p class="text-[15px]">
                <b class="font-[650]">{{ number(data.counted ?? data.total) }} {{ data.noun }}</b>
                <template v-if="data.share && data.met !== null">, of which {{ number(data.met) }} meet it</template>
                <template v-if="search"> · {{ number(data.total) }} found</template>
                <span v-if="!search && data.counted !== null && data.counted !== data.total" class="text-amber-text">
                    · {{ number(data.total) }} by now: the month is closed, and its figure stays</span
                >
                <span class="text-ink-faint"> · {{ data.set }}</span>
            </p>
            <input
                v-model="typed"
                type="search"
                class="field ml-auto w-[200px]"
                placeholder="Find in the records"
                aria-label="Find in the records"
            />
            <span class="text-[14px] text-ink-soft"
                >as <a class="quiet-link" :href="`${file}&format=csv`" download>CSV</a>,
                <a class="quiet-link" :href="`${file}&format=xlsx`" download>XLSX</a></span
            >
        </div>
        <p v-if="data.rows.length === 0" class="border-t border-rule py-6 text-ink-soft">
            {{ search ? 'None of them says that.' : 'No record counts here.' }}
        </p>
        <div v-else class="overflow-x-auto" :class="{ waiting: fading }">
            <table class="w-full border-collapse text-left text-[14px]">
                <thead>
                    <tr
                        class="border-b border-rule text-[12.5px] text-ink-faint [&>th]:pr-4 [&>th]:pb-1 [&>th]:font-medium"
                    >
                        <th
                            v-for="column in data.columns"
                            :key="column.name"
                            scope="col"
                            :title="column.meaning || undefined"
                            :class="{ 'text-right': column.type === 'number' }"
                            :aria-sort="
                                sort === column.name ? (down === 'down' ? 'descending' : 'ascending') : undefined
                            "
                        >
                            <button
                                type="button"
                                class="whitespace-nowrap hover:text-brass disabled:hover:text-ink-faint"
                                :class="{ 'font-[650] text-ink': sort === column.name }"
                                :disabled="column.masked"
                                @click="order(column.name)"
                            >
                                {{ heading(column.name)
                                }}<span v-if="sort === column.name" aria-hidden="true">{{
                                    down === 'down' ? ' ↓' : ' ↑'
                                }}</span>
                            </button>
                        </th>
                    </tr>
                </thead>
                <tbody>
                    <tr
                        v-for="(row, index) in data.rows"
                        :key="index"
                        class="border-b border-rule-soft [&>td]:max-w-[220px] [&>td]:truncate [&>td]:py-[5px] [&>td]:pr-4 [&>td]:whitespace-nowrap"
                    >
                        <td
                            v-for="(column, at) in data.columns"
                            :key="column.name"
                            :class="[
                                column.type === 'number' ? 'text-right' : '',
                                at === 0 ? 'font-semibold' : '',
                                column.masked ? 'text-ink-faint' : '',
                                column.value ? 'font-semibold' : '',
                                column.value && data.share && row.at(-1) !== 'met' ? 'text-red-text' : '',
                            ]"
                        >
                            {{ cell(row[at], column.type)
                            }}<span v-if="column.value && data.share" class="sr-only">{{
                                row.at(-1) === 'met' ? ' (meets it)' : ' (does not meet it)'
                            }}</span>
                        </td>
                    </tr>
                </tbody>
            </table>
        </div>
        <p v-if="pages > 1" class="flex items-center gap-4 pt-3 text-[14px] text-ink-soft">
            <button type="button" class="quiet-link disabled:opacity-50" :disabled="page === 1" @click="page--">
                ← Before
            </button>
            {{ page }} of {{ number(pages) }}
            <button type="button" class="quiet-link disabled:opacity-50" :disabled="page >= pages" @click="page++">
                Next →
            </button>
        </p>
    </section>
</template>
