<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import { shortMonthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import {
    Combobox,
    ComboboxInput,
    ComboboxOption,
    ComboboxOptions,
    Dialog,
    DialogPanel,
    DialogTitle,
} from '@headlessui/vue';
import { useQuery } from '@tanstack/vue-query';
import { refDebounced, useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRouter, type RouteLocationRaw } from 'vue-router';

/** Finds KPIs, units and screens by any part of a name or a code, notes and actions by the words in them. */
interface Found {
    key: string;
    kind: string;
    name: string;
    beside: string;
    to: RouteLocationRaw;
}

const SHOWN = 12;

const router = useRouter();
const { unit, query } = useView();
const { session, units, user, path } = useSession();
const open = ref(false);
const words = ref('');
const apple = navigator.userAgent.includes('Mac OS');

const register = useQuery({ queryKey: ['register'], queryFn: () => read(api.GET('/api/kpis')), enabled: open });

const everything = computed<Found[]>(() => [
    ...[
        { name: 'Scorecard', to: 'scorecard' },
        { name: 'Exceptions', to: 'exceptions' },
        { name: 'Matrix', to: 'matrix' },
        { name: 'Compare', to: 'compare' },
        { name: 'Logbook', to: 'logbook' },
        { name: 'Year grid', to: 'year-grid' },
        { name: 'Register', to: 'register' },
        { name: 'Periods', to: 'periods' },
        { name: 'Changes', to: 'changes' },
        ...(user.value?.defines ? [{ name: 'Define a KPI', to: 'define' }] : []),
    ].map(({ name, to }) => ({ key: to, kind: 'Screen', name, beside: '', to: { name: to, query: query() } })),
    ...(session.value?.units ?? []).map((unit) => ({
        key: `unit ${unit.code}`,
        kind: 'Unit',
        name: unit.name,
        beside: path(unit.code).slice(0, -1).at(-1)?.name ?? '',
        to: { name: 'scorecard', query: query({ unit: unit.code }) },
    })),
    ...(register.data.value?.kpis ?? []).map((kpi) => ({
        key: `kpi ${kpi.code}`,
        kind: 'KPI',
        name: kpi.name,
        beside: `${kpi.code} · ${units.value.get(kpi.department)?.name ?? ''}`,
        to: place(kpi),
    })),
]);

/** The page of a KPI in the chosen unit, or where it is measured; its definition where it is measured nowhere. */
function place(kpi: Schemas['RegisterLine']): RouteLocationRaw {
    const at = kpi.units.find((code) => code === unit.value.code) ?? kpi.units.find((code) => units.value.has(code));
    return at === undefined
        ? { name: 'kpi', params: { code: kpi.code }, query: query() }
        : { name: 'course', params: { code: kpi.code }, query: query({ unit: at }) };
}

const looked = refDebounced(words, 200);
const texts = useQuery({
    queryKey: computed(() => ['texts', looked.value]),
    queryFn: () => read(api.GET('/api/texts', { params: { query: { words: looked.value.trim() } } })),
    enabled: computed(() => open.value && looked.value.trim().length >= 3),
});
const inTexts = computed<Found[]>(() =>
    looked.value.trim().length < 3
        ? []
        : (texts.data.value ?? []).map((text, index) => ({
              key: `text ${index} ${text.kind} ${text.code}`,
              kind: text.kind === 'note' ? 'Note' : 'Action',
              name: text.text,
              beside: `${text.name}, ${units.value.get(text.unit)?.name ?? text.unit}, ${shortMonthAndYear(text.month)}`,
              to: {
                  name: 'course',
                  params: { code: text.code },
                  query: query({ unit: text.unit, period: text.month }),
              },
          })),
);

const found = computed(() => {
    const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = everything.value.filter(({ name, beside }) =>
        wanted.every((word) => `${name} ${beside}`.toLowerCase().includes(word)),
    );
    const starts = (each: Found): number => (each.name.toLowerCase().startsWith(wanted[0] ?? '') ? 0 : 1);
    return [...fits.sort((one, other) => starts(one) - starts(other)).slice(0, SHOWN), ...inTexts.value];
});

useEventListener('keydown', (event: KeyboardEvent) => {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        open.value = true;
    }
});

function go(choice: Found | null): void {
    if (choice !== null) {
        close();
        void router.push(choice.to);
    }
}

function close(): void {
    open.value = false;
    words.value = '';
}
</script>

<template>
    <div>
        <button
            type="button"
            class="flex items-center gap-2.5 rounded-[4px] border border-sea-edge px-2.5 py-[5px] text-[14px] text-on-sea-soft hover:text-on-sea focus-visible:outline-brass-bright lg:w-[300px]"
            @click="open = true"
        >
            <svg width="13" height="13" viewBox="0 0 13 13" aria-hidden="true">
                <circle cx="5.4" cy="5.4" r="4" class="fill-none stroke-current" stroke-width="1.4" />
                <path d="M8.4 8.4 L12 12" class="stroke-current" stroke-width="1.4" stroke-linecap="round" />
            </svg>
            <span class="hidden lg:inline">Find a KPI, unit or screen</span><span class="lg:hidden">Find</span>
            <kbd class="ml-auto hidden rounded-[3px] border border-sea-edge px-1.5 font-sans text-[12px] lg:inline">{{
                apple ? '⌘ K' : 'Ctrl K'
            }}</kbd>
        </button>
        <Dialog :open="open" class="relative z-30" @close="close" @keydown.escape.capture.stop.prevent="close">
            <div class="fixed inset-0 bg-veil" aria-hidden="true" />
            <div class="fixed inset-x-0 top-[8vh] flex justify-center p-4">
                <DialogPanel
                    class="w-full max-w-xl rounded-[5px] border border-rule bg-sheet text-ink shadow-[0_14px_48px_rgb(0_0_0/.28)]"
                >
                    <DialogTitle class="sr-only">Find a KPI, unit or screen</DialogTitle>
                    <Combobox :model-value="null" nullable @update:model-value="go">
                        <ComboboxInput
                            class="w-full border-b border-rule bg-transparent px-5 py-3.5 text-[17px] outline-none"
                            placeholder="Any part of a name or a code"
                            aria-label="Find"
                            autocomplete="off"
                            @change="words = $event.target.value"
                        />
                        <ComboboxOptions static class="max-h-[60vh] overflow-y-auto py-2" aria-label="Found">
                            <ComboboxOption
                                v-for="each in found"
                                :key="each.key"
                                v-slot="{ active }"
                                :value="each"
                                as="template"
                            >
                                <li
                                    class="flex cursor-pointer items-baseline gap-3 px-5 py-1.5"
                                    :class="{ 'bg-brass-tint': active }"
                                >
                                    <span class="w-14 shrink-0 text-[12.5px] text-ink-soft">{{ each.kind }}</span>
                                    <span class="line-clamp-2 min-w-0 font-medium">{{ each.name }}</span>
                                    <span class="max-w-[45%] shrink-0 truncate text-[13px] text-ink-soft">{{
                                        each.beside
                                    }}</span>
                                </li>
                            </ComboboxOption>
                        </ComboboxOptions>
                        <p v-if="found.length === 0" class="px-5 pb-5 text-ink-soft">
                            {{ register.isPending.value ? 'Reading the register …' : `Nothing is called “${words}”.` }}
                        </p>
                    </Combobox>
                </DialogPanel>
            </div>
        </Dialog>
    </div>
</template>
