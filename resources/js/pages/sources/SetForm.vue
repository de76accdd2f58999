<script setup lang="ts">
import { api, read } from '@/api/client';
import FormLine from '@/components/FormLine.vue';
import { useLatest } from '@/composables/useLatest';
import { useSession } from '@/composables/useSession';
import { useDebounceFn } from '@vueuse/core';
import { useQuery } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import FieldsTable from './FieldsTable.vue';
import type { DraftSet } from './useSet';
import { MODES } from './words';

/** What a record set is called, whose it is, what its fields are, and how complete it is. */
const props = defineProps<{
    error: (pointer: string) => string | undefined;
    fixed: boolean;
    upload: string | null;
    known: string | null;
}>();
const draft = defineModel<DraftSet>({ required: true });
const { session } = useSession();
const units = computed(() => session.value?.units ?? []);
const { data: register } = useQuery({ queryKey: ['register'], queryFn: () => read(api.GET('/api/kpis')) });

const values = ref<Record<string, { values: (string | null)[]; problem: string }>>({});
const ask = useLatest(
    (found: { field: string; values: (string | null)[]; problem: string }[]) =>
        (values.value = Object.fromEntries(found.map((each) => [each.field, each]))),
    () => undefined,
);
const reload = useDebounceFn(() => {
    if (!draft.value.fields.some(({ type }) => type === null)) {
        return;
    }
    void ask(() =>
        read(
            api.POST('/api/record-values', {
                body: {
                    fields: draft.value.fields.map((field) => ({ ...field, column: field.column || field.name })),
                    upload: props.upload,
                    set: props.known,
                },
            }),
        ),
    );
}, 200);
watch(() => JSON.stringify(draft.value.fields), reload, { immediate: true });

const people = computed(() => register.value?.people ?? []);
const owner = computed({
    get: () => String(draft.value.owners[0] ?? ''),
    set: (id: string) =>
        (draft.value.owners =
            id === '' ? [] : [Number(id), ...draft.value.owners.slice(1).filter((each) => each !== Number(id))]),
});
</script>

<template>
    <div class="space-y-6">
        <div class="grid gap-x-[40px] gap-y-[13px] xl:grid-cols-2">
            <div class="space-y-[13px]">
                <FormLine label="Called" for="set-name" :error="error('/name')">
                    <input
                        id="set-name"
                        v-model="draft.name"
                        class="field w-full max-w-[340px]"
                        maxlength="120"
                        autocomplete="off"
                        :aria-invalid="!!error('/name')"
                    />
                </FormLine>
                <FormLine label="Short code" for="set-code" :error="error('/code')">
                    <input
                        id="set-code"
                        v-model="draft.code"
                        class="field w-[180px]"
                        maxlength="64"
                        autocomplete="off"
                        spellcheck="false"
                        :aria-invalid="!!error('/code')"
                    />
                </FormLine>
                <FormLine
                    label="Several of them"
                    for="set-noun"
                    :error="error('/noun')"
                    hint="As a sentence says it: 310 of 330 jobs."
                >
                    <input
                        id="set-noun"
                        v-model="draft.noun"
                        class="field w-[180px]"
                        maxlength="40"
                        autocomplete="off"
                        placeholder="jobs"
                        :aria-invalid="!!error('/noun')"
                    />
                </FormLine>
                <FormLine label="Whose they are" for="set-unit" :error="error('/unit')">
                    <select
                        id="set-unit"
                        v-model="draft.unit"
                        class="field max-w-full"
                        :aria-invalid="!!error('/unit')"
                    >
                        <option v-for="unit in units" :key="unit.code" :value="unit.code">{{ unit.name }}</option>
                    </select>
                </FormLine>
            </div>
            <div class="space-y-[13px]">
                <FormLine
                    label="Complete from"
                    for="covers-from"
                    :error="error('/coversFrom') ?? error('/coversTo')"
                    hint="Inside, no record means none; outside, it means not known."
                >
                    <input id="covers-from" v-model="draft.coversFrom" type="date" class="field" /> to
                    <input v-model="draft.coversTo" type="date" class="field" aria-label="Complete up to" />
                </FormLine>
                <FormLine label="Goes on">
                    <label class="flex items-center gap-2.5"
                        ><input v-model="draft.coversByLoads" type="checkbox" class="size-4 accent-brass" /> Each load
                        says up to when it is complete</label
                    >
                </FormLine>
                <FormLine label="A load" for="set-mode">
                    <select id="set-mode" v-model="draft.mode" class="field max-w-full">
                        <option v-for="(words, mode) in MODES" :key="mode" :value="mode">{{ words }}</option>
                    </select>
                </FormLine>
                <FormLine
                    label="Brought in by"
                    for="set-owner"
                    hint="Besides the analysts: they see what is sensitive, and bring records in."
                >
                    <select id="set-owner" v-model="owner" class="field">
                        <option value="">the analysts</option>
                        <option v-for="person in people" :key="person.id" :value="String(person.id)">
                            {{ person.name }}
                        </option>
                    </select>
                </FormLine>
            </div>
        </div>
        <section aria-labelledby="fields-title">
            <h2 id="fields-title" class="mb-2 text-[19px]">Fields</h2>
            <FieldsTable
                v-model="draft.fields"
                v-model:key-field="draft.key"
                v-model:unit-field="draft.unitField"
                :error="error"
                :fixed="fixed"
                :values="values"
            />
        </section>
    </div>
</template>
