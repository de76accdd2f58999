<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import { counted } from '@/composables/useNumbers';
import { useLatest } from '@/composables/useLatest';
import { useSending } from '@/composables/useSending';
import { ROLES } from '@/words';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { usePlaces } from './usePlaces';

/** Many people from a list or a file that was exported here. Nobody is invited before one says so. */
const emit = defineEmits<{ taken: [links: { email: string; link: Schemas['EntryLink'] }[]] }>();
const { names } = usePlaces();
const { busy, send, said } = useSending();
const list = ref('');
const people = ref<Schemas['ListedPerson'][]>([]);
const trouble = ref('');
const STATES = { new: 'is invited', changed: 'is changed', same: 'as it is', refused: 'refused' } as const;

const ask = useLatest<Schemas['ListedPerson'][]>(
    (answer) => {
        people.value = answer;
        trouble.value = '';
    },
    (reason) => {
        people.value = [];
        trouble.value =
            reason instanceof ApiError
                ? (Object.values(reason.fields)[0] ?? reason.detail)
                : 'The list could not be read.';
    },
);
const preview = useDebounceFn(() => {
    if (list.value.trim() === '') {
        people.value = [];
        trouble.value = '';
    } else {
        void ask(() => read(api.POST('/api/people-lists/preview', { body: { list: list.value } })));
    }
}, 200);
watch(list, preview);

const count = (what: Schemas['ListedPerson']['what']): number =>
    people.value.filter((each) => each.what === what).length;
const title = computed(() => {
    const parts = [
        ...(count('new') > 0 ? [`invite ${counted(count('new'))}`] : []),
        ...(count('changed') > 0 ? [`change ${counted(count('changed'))}`] : []),
    ].join(', ');
    return parts === '' ? 'Take the list' : parts.charAt(0).toUpperCase() + parts.slice(1);
});

async function readFile(event: Event): Promise<void> {
    const file = (event.target as HTMLInputElement).files?.[0];
    if (file !== undefined) {
        list.value = await file.text();
    }
}

async function take(): Promise<void> {
    let links: { email: string; link: Schemas['EntryLink'] }[] = [];
    const done = await send(async () => {
        links = await read(api.POST('/api/people-lists', { body: { list: list.value } }));
    });
    if (done) {
        list.value = '';
        people.value = [];
        emit('taken', links);
    }
}
</script>

<template>
    <section class="mt-4 border-y border-rule py-4" aria-label="Many at once">
        <p class="mb-2.5 text-[14.5px] text-ink-soft">
            A line for each person: name, e-mail address, what they come to do, and for which unit, in any order. Who
            comes to do two things has two lines. Copied from a sheet, typed with semicolons, or
            <label class="quiet-link cursor-pointer focus-within:outline-2 focus-within:outline-brass"
                >a CSV file<input type="file" accept=".csv,.txt,.tsv" class="sr-only" @change="readFile" /></label
            >.
        </p>
        <div class="grid gap-x-[26px] gap-y-4 xl:grid-cols-[420px_minmax(0,1fr)]">
            <textarea
                v-model="list"
                class="field block h-[200px] w-full text-[14px] leading-[1.55]"
                spellcheck="false"
                aria-label="The list of people"
                placeholder="Nia Holt; nia.holt@example.org; department head; NORTH"
            />
            <div>
                <p v-if="people.length === 0 && !trouble" class="text-[14.5px] text-ink-faint">
                    They appear here as they would be invited.
                </p>
                <table v-else-if="people.length > 0" class="w-full border-collapse text-[14.5px]">
                    <caption class="sr-only">
                        The people as they would be invited or changed
                    </caption>
                    <tbody>
                        <tr v-for="(person, at) in people" :key="at" class="border-b border-rule-soft align-top">
                            <td class="py-[5px] pr-3">
                                <b class="font-semibold">{{ person.name }}</b>
                                <span class="block text-[13px] text-ink-faint">{{ person.email }}</span>
                                <span v-if="person.problem" class="error block" role="alert">{{ person.problem }}</span>
                            </td>
                            <td class="py-[5px] pr-3 text-[13.5px] text-ink-soft">
                                <span v-for="(held, index) in person.roles" :key="index" class="block"
                                    >{{ ROLES[held.role] }}, {{ names.get(held.unit) ?? held.unit }}</span
                                >
                            </td>
                            <td
                                class="w-[90px] py-[5px] text-[13.5px]"
                                :class="
                                    person.what === 'refused'
                                        ? 'text-red-text'
                                        : person.what === 'same'
                                          ? 'text-ink-faint'
                                          : 'text-green'
                                "
                            >
                                {{ STATES[person.what] }}
                            </td>
                        </tr>
                    </tbody>
                </table>
                <p v-if="trouble" class="error mt-1.5" role="alert">{{ trouble }}</p>
            </div>
        </div>
        <p v-if="said" class="error mt-3" role="alert">{{ said }}</p>
        <p class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
            <button
                type="button"
                class="button"
                :disabled="busy || count('refused') > 0 || count('new') + count('changed') === 0"
                @click="take"
            >
                {{ title }}
            </button>
            <span class="text-[14.5px] text-ink-soft">Each new one gets a link of their own.</span>
        </p>
    </section>
</template>
