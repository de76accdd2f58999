<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FileDrop from '@/components/FileDrop.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useNumbers } from '@/composables/useNumbers';
import { moment } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { broughtWords, isAtWork, MODES, stateWords, WAYS } from './words';

/** What came in, and a file that is to come: read, shown, and brought in when somebody says so. */
const props = defineProps<{ page: Schemas['SourcePage'] }>();
const { atMost } = useNumbers();
const number = (count: number): string => atMost(count, 0);
const renew = useFreshness();
const { busy, said, send } = useSending();
const coversTo = ref('');
const mode = ref<Schemas['LoadLine']['mode'] | ''>('');

/** The load that is looked at: one that waits for somebody, or is being worked at. */
const current = computed(() =>
    props.page.loads.find((load) => ['mapping', 'reading', 'ready', 'applying', 'undoing'].includes(load.state)),
);
const { data: preview } = useQuery({
    queryKey: computed(() => ['load', current.value?.id, current.value?.state]),
    queryFn: () =>
        read(api.GET('/api/record-loads/{recordLoad}', { params: { path: { recordLoad: current.value?.id ?? 0 } } })),
    enabled: computed(() => current.value?.state === 'ready'),
    staleTime: 0,
});

async function take(file: File): Promise<void> {
    await send(async () => {
        await read(
            api.POST('/api/record-sets/{recordSet}/loads', {
                params: { path: { recordSet: props.page.code } },
                body: { file: file.name },
                bodySerializer: () => {
                    const form = new FormData();
                    form.set('file', file);
                    if (coversTo.value !== '') {
                        form.set('coversTo', coversTo.value);
                    }
                    if (mode.value !== '') {
                        form.set('mode', mode.value);
                    }
                    return form;
                },
            }),
        );
        await renew();
    });
}
const at = (load: Schemas['LoadLine']) => ({ params: { path: { recordLoad: load.id } } });
const bringIn = (load: Schemas['LoadLine']) =>
    send(async () => {
        await read(api.POST('/api/record-loads/{recordLoad}/application', at(load)));
        await renew();
    });
async function takeBack(load: Schemas['LoadLine']): Promise<void> {
    if (!window.confirm(`Take back ${load.file}? What it brought goes, and what it changed is as it was before.`)) {
        return;
    }
    await send(async () => {
        await read(api.DELETE('/api/record-loads/{recordLoad}/application', at(load)));
        await renew();
    });
}
const told = computed(() => preview.value?.refusals ?? []);
</script>

<template>
    <p v-if="said" class="error pb-2 text-[14.5px]" role="alert">{{ said }}</p>
    <section v-if="current" class="mb-6 border border-rule bg-sheet px-5 py-4" aria-labelledby="current">
        <h2 id="current" class="text-[19px]">{{ current.file }}</h2>
        <p v-if="isAtWork(current)" class="mt-1 text-[15px] text-ink-soft" role="status">
            It {{ stateWords(current)
            }}{{
                current.progress > 0 && current.state === 'reading'
                    ? `: ${number(current.progress)} ${page.noun} so far`
                    : ''
            }}
            …
        </p>
        <template v-else>
            <p class="mt-1 text-[15px]">
                <span v-if="current.problem" class="text-red-text">{{ current.problem }}</span>
                <template v-else
                    >Of {{ number(current.brought) }} {{ page.noun }}:
                    <b class="font-[650]">{{ broughtWords(current, number) }}</b>. Nothing is brought in yet.</template
                >
            </p>
            <table v-if="told.length > 0" class="mt-3 w-full max-w-[900px] text-left text-[14px]">
                <caption class="pb-1 text-left text-[13px] text-ink-faint">
                    Refused{{
                        current.refused > told.length ? `, the first ${told.length} of ${number(current.refused)}` : ''
                    }}
                </caption>
                <tbody>
                    <tr
                        v-for="refusal in told.slice(0, 12)"
                        :key="refusal.line"
                        class="border-t border-rule-soft [&>td]:py-1 [&>td]:pr-4"
                    >
                        <td class="whitespace-nowrap text-ink-faint">line {{ refusal.line }}</td>
                        <td class="whitespace-nowrap">{{ refusal.field }}</td>
                        <td class="max-w-[200px] truncate font-semibold">{{ refusal.typed }}</td>
                        <td class="text-red-text">{{ refusal.reason }}</td>
                    </tr>
                </tbody>
            </table>
            <div v-if="preview && preview.rows.length > 0" class="mt-3 overflow-x-auto">
                <table class="text-left text-[13.5px]">
                    <caption class="pb-1 text-left text-[13px] text-ink-faint">
                        The first of them, as they are understood
                    </caption>
                    <thead>
                        <tr class="text-[12.5px] text-ink-faint [&>th]:pr-5 [&>th]:font-medium">
                            <th v-for="field in preview.fields" :key="field" scope="col">{{ field }}</th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr
                            v-for="(row, index) in preview.rows"
                            :key="index"
                            class="border-t border-rule-soft [&>td]:max-w-[180px] [&>td]:truncate [&>td]:py-1 [&>td]:pr-5 [&>td]:whitespace-nowrap"
                        >
                            <td v-for="(value, place) in row" :key="place">{{ value }}</td>
                        </tr>
                    </tbody>
                </table>
            </div>
            <p class="mt-4 flex gap-3">
                <button
                    type="button"
                    class="button"
                    :disabled="busy || current.brought === current.refused"
                    @click="bringIn(current)"
                >
                    Bring it in
                </button>
            </p>
        </template>
    </section>
    <section
        v-if="!page.retired"
        class="grid gap-x-9 gap-y-4 lg:grid-cols-[minmax(0,1fr)_300px]"
        aria-label="Bring records in"
    >
        <FileDrop
            :busy="busy"
            accept=".csv,.xlsx,.ods,.json,.jsonl,text/csv"
            :hint="`A file with the columns that the set remembers. It ${MODES[mode === '' ? page.mode : mode]}; first you see what it would do.`"
            @file="take"
        />
        <div class="space-y-3 text-[14.5px]">
            <label class="block"
                ><span class="mb-1 block text-ink-soft">A load</span>
                <select v-model="mode" class="field w-full">
                    <option value="">{{ MODES[page.mode] }}</option>
                    <option v-for="(words, each) in MODES" v-show="each !== page.mode" :key="each" :value="each">
                        {{ words }}
                    </option>
                </select></label
            >
            <label v-if="page.coversByLoads" class="block"
                ><span class="mb-1 block text-ink-soft">With it the set is complete up to</span>
                <input v-model="coversTo" type="date" class="field" />
            </label>
        </div>
    </section>
    <div class="mt-7 flex items-baseline gap-3">
        <h2 class="text-[19px]">History</h2>
        <span v-if="page.records > 0" class="ml-auto text-[13.5px] text-ink-soft">
            all {{ number(page.records) }} {{ page.noun }} as
            <a class="quiet-link" :href="`/api/record-sets/${page.code}/file?format=csv`" download>CSV</a>,
            <a class="quiet-link" :href="`/api/record-sets/${page.code}/file?format=xlsx`" download>XLSX</a>
        </span>
    </div>
    <p v-if="page.loads.length === 0" class="mt-1 text-ink-soft">Nothing has come in yet.</p>
    <table v-else class="mt-1 w-full border-collapse text-left text-[15px] max-md:block">
        <tbody class="max-md:block">
            <tr
                v-for="load in page.loads"
                :key="load.id"
                class="border-t border-rule-soft align-top max-md:block max-md:py-2 [&>td]:md:py-[8px] [&>td]:md:pr-5"
            >
                <td class="whitespace-nowrap text-ink-soft max-md:block">{{ moment(load.at) }}</td>
                <td class="max-md:block">
                    <b class="font-semibold">{{ load.file }}</b>
                    <span class="block text-[13px] text-ink-faint"
                        >{{ WAYS[load.way] }}{{ load.by ? `, ${load.by}` : '' }}</span
                    >
                </td>
                <td class="max-md:block">
                    {{ load.state === 'mapping' || load.state === 'reading' ? '' : broughtWords(load, number) }}
                    <span
                        v-if="stateWords(load)"
                        class="block text-[13px]"
                        :class="load.state === 'failed' ? 'text-red-text' : 'text-ink-faint'"
                        >{{ stateWords(load) }}</span
                    >
                    <span v-if="load.problem" class="block text-[13px] text-red-text">{{ load.problem }}</span>
                </td>
                <td class="md:text-right">
                    <button
                        v-if="load.undoable && load.state === 'applied'"
                        type="button"
                        class="quiet-link min-h-6 text-[14px]"
                        :disabled="busy"
                        @click="takeBack(load)"
                    >
                        Take it back
                    </button>
                </td>
            </tr>
        </tbody>
    </table>
</template>
