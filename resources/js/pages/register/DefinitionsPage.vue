<script setup lang="ts">
import { ApiError, api, ofFile, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';
import FileDrop from '@/components/FileDrop.vue';

/** A file of definitions: what it would change, line by line, then all of it or nothing. */
type Preview = Schemas['DefinitionPreview'];
const OUTCOMES = { new: 'new', changed: 'changed', same: 'the same', refused: 'refused' } as const;

const { query } = useView();
const { user } = useSession();
const renew = useFreshness();
useTitle('Definitions from a file · Kybernet');

const preview = ref<Preview | null>(null);
const busy = ref(false);
const problem = ref('');

async function run(request: () => Promise<Preview>): Promise<void> {
    busy.value = true;
    problem.value = '';
    try {
        preview.value = await request();
        if (preview.value.applied) {
            await renew();
        }
    } catch (failure) {
        problem.value =
            failure instanceof ApiError ? (Object.values(failure.fields)[0] ?? failure.detail) : String(failure);
    } finally {
        busy.value = false;
    }
}
const send = (file: File) => run(() => read(api.POST('/api/definitions', ofFile(file))));
const apply = () =>
    run(() =>
        read(api.POST('/api/definitions/{upload}', { params: { path: { upload: preview.value?.upload ?? '' } } })),
    );

const count = (outcome: keyof typeof OUTCOMES): number =>
    preview.value?.rows.filter((row) => row.outcome === outcome).length ?? 0;
const total = computed(() => count('new') + count('changed'));
const sorted = computed(() => {
    const order = ['refused', 'new', 'changed', 'same'];
    return [...(preview.value?.rows ?? [])].sort(
        (one, other) => order.indexOf(one.outcome) - order.indexOf(other.outcome) || one.line - other.line,
    );
});
</script>

<template>
    <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">Definitions from a file</h1>
            <p class="mt-[5px] text-[17px]" role="status">
                <template v-if="preview?.applied"
                    >{{ preview.file }} is applied: {{ total }}
                    {{ total === 1 ? 'definition' : 'definitions' }} changed.</template
                >
                <template v-else-if="preview"
                    >{{ preview.file }}: {{ count('new') }} new, {{ count('changed') }} changed, {{ count('same') }} the
                    same<b v-if="count('refused') > 0" class="font-[650] text-red-text"
                        >, {{ count('refused') }} refused: nothing can be applied until they are corrected</b
                    >.</template
                >
                <template v-else>A table with a row a KPI, or a workbook. Figures stay as they are.</template>
            </p>
        </div>
        <div class="ml-auto flex items-center gap-3">
            <RouterLink class="quiet-link text-[13.5px] text-ink-soft" :to="{ name: 'register', query: query() }"
                >All KPIs</RouterLink
            >
            <template v-if="preview">
                <button type="button" class="quiet-link text-[14px] text-ink-soft" @click="preview = null">
                    Another file
                </button>
                <button
                    v-if="!preview.applied"
                    type="button"
                    class="button"
                    :disabled="busy || total === 0 || count('refused') > 0"
                    @click="apply"
                >
                    Apply {{ total }}
                </button>
            </template>
        </div>
    </div>
    <p v-if="problem" class="error py-3 text-[14.5px]" role="alert">{{ problem }}</p>
    <StateNote v-if="user && !user.definesAll" title="Defining is the analyst's work"
        >Your account reads the register.</StateNote
    >
    <FileDrop
        v-else-if="preview === null"
        class="mt-4"
        :busy="busy"
        accept=".csv,.txt,.tsv,.xlsx,.ods,.json"
        hint="CSV, XLSX or ODS with the columns of an exported register, or a workbook. KPIs are recognised by their code; columns that are not there stay as they are."
        @file="send"
    />
    <table v-else class="mt-3 w-full table-fixed border-collapse text-left text-[14px]">
        <colgroup>
            <col class="w-[56px]" />
            <col class="w-[130px]" />
            <col class="w-[28%]" />
            <col class="w-[84px]" />
            <col />
        </colgroup>
        <thead>
            <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                <th>line</th>
                <th>code</th>
                <th>name</th>
                <th />
                <th>what changes, or why not</th>
            </tr>
        </thead>
        <tbody>
            <tr
                v-for="row in sorted"
                :key="row.line"
                class="[&>td]:border-t [&>td]:border-rule-soft [&>td]:py-1.5 [&>td]:pr-3 [&>td]:align-top"
                :class="{ 'text-ink-faint': row.outcome === 'same' }"
            >
                <td class="text-ink-faint">{{ row.line }}</td>
                <td class="truncate font-semibold">{{ row.code }}</td>
                <td class="truncate">{{ row.name }}</td>
                <td
                    :class="{
                        'text-red-text': row.outcome === 'refused',
                        'text-brass': row.outcome === 'new' || row.outcome === 'changed',
                    }"
                >
                    {{ OUTCOMES[row.outcome] }}
                </td>
                <td :class="{ 'text-red-text': row.outcome === 'refused' }">{{ row.words.join('; ') }}</td>
            </tr>
        </tbody>
    </table>
</template>
