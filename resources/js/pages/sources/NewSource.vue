<script setup lang="ts">
import { ApiError, api, ofFile, read, type Schemas } from '@/api/client';
import FileDrop from '@/components/FileDrop.vue';
import { useSending } from '@/composables/useSending';
import { useView } from '@/composables/useView';
import { useTitle } from '@vueuse/core';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import SetForm from './SetForm.vue';
import { useSet } from './useSet';

/** A record set from a sample file: what its columns hold is guessed, and put right. */
useTitle('A new record set · Kybernet');
const router = useRouter();
const { unit, query } = useView();
const sample = ref<Schemas['RecordSample'] | null>(null);
const { busy, problem, send } = useSending();
const set = useSet();

async function take(file: File): Promise<void> {
    await send(async () => {
        const found = await read(api.POST('/api/record-samples', ofFile(file)));
        sample.value = found;
        const name = file.name
            .replace(/\.[^.]*$/, '')
            .replace(/[_-]+/g, ' ')
            .trim();
        set.begin(
            {
                ...set.blank(),
                code: name
                    .toUpperCase()
                    .replace(/[^A-Z0-9]+/g, '-')
                    .replace(/^[^A-Z]+/, '')
                    .slice(0, 20),
                name: name.charAt(0).toUpperCase() + name.slice(1),
                unit: unit.value.code,
                key: found.key ?? '',
                unitField: found.unitField,
                coversFrom: found.first ?? '',
                coversTo: found.last ?? '',
                fields: found.fields.map((field) => ({ ...field, was: null })),
            },
            0,
        );
    });
}

async function make(): Promise<void> {
    const page = await set.make(sample.value?.upload ?? null, sample.value?.file ?? null);
    if (page !== null) {
        await router.replace({ name: 'source', params: { code: page.code }, query: { ...query(), part: 'loads' } });
    }
}
const message = (): string =>
    problem.value instanceof ApiError ? (Object.values(problem.value.fields)[0] ?? problem.value.detail) : '';
</script>

<template>
    <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">A new record set</h1>
            <p class="mt-1 text-[15px] text-ink-soft">
                <template v-if="sample"
                    >{{ sample.file }}: put right what was understood wrongly. Nothing is brought in yet.</template
                >
                <template v-else>Begin with a file of records as they leave the system that keeps them.</template>
            </p>
        </div>
        <p class="ml-auto flex items-center gap-2.5">
            <RouterLink class="quiet-link mr-2 text-[13.5px] text-ink-soft" :to="{ name: 'sources', query: query() }"
                >All sources</RouterLink
            >
            <template v-if="sample">
                <button type="button" class="button button-quiet" @click="sample = null">Another file</button>
                <button type="button" class="button" :disabled="set.busy.value" @click="make">
                    Make it and read the file
                </button>
            </template>
        </p>
    </div>
    <p v-if="set.trouble.value" class="error pt-2 text-[14.5px]" role="alert">{{ set.trouble.value }}</p>
    <div v-if="sample === null" class="mt-5 max-w-[760px]">
        <FileDrop
            :busy="busy"
            accept=".csv,.xlsx,.ods,.json,.jsonl,text/csv"
            hint="CSV, XLSX, ODS or JSON lines: one record a line, the names of the columns above. The first 2,000 records are looked at."
            @file="take"
        />
        <p v-if="problem" class="error mt-2" role="alert">{{ message() }}</p>
    </div>
    <SetForm
        v-else
        v-model="set.draft"
        class="mt-5"
        :error="set.message"
        :fixed="false"
        :upload="sample.upload"
        :known="null"
    />
</template>
