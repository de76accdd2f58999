<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import { useSending } from '@/composables/useSending';
import { ROLE_MEANS, ROLES } from '@/words';
import { nextTick, onMounted, reactive, useTemplateRef, watch } from 'vue';
import { usePlaces } from './usePlaces';

/** Who somebody is and what they come to do: several roles, each for a part of the tree. */
const props = defineProps<{ person: Schemas['PersonLine'] | null }>();
const emit = defineEmits<{ saved: [made: Schemas['EntryLink'] | null, name: string]; close: [] }>();
const { places, root } = usePlaces();
const { busy, message, send, trouble } = useSending();

const draft = reactive<Schemas['PersonInput']>({
    name: props.person?.name ?? '',
    email: props.person?.email ?? '',
    roles: props.person?.roles.map((held) => ({ ...held })) ?? [{ role: 'owner', unit: '' }],
});
const first = useTemplateRef<HTMLInputElement>('first');
const roles = useTemplateRef<HTMLSelectElement[]>('roles');
onMounted(() => first.value?.focus());
// The tree may arrive after the form; until somebody chooses, a role is for the whole.
watch(
    root,
    (code) => {
        draft.roles.filter(({ unit }) => unit === '').forEach((held) => (held.unit = code));
    },
    { immediate: true },
);

async function add(): Promise<void> {
    draft.roles.push({ role: 'reader', unit: draft.roles.at(-1)?.unit ?? root.value });
    await nextTick();
    roles.value?.at(-1)?.focus();
}

async function save(): Promise<void> {
    const body = { ...draft, roles: draft.roles.map(({ role, unit }) => ({ role, unit })) };
    let made: Schemas['EntryLink'] | null = null;
    const done = await send(async () => {
        if (props.person === null) {
            made = await read(api.POST('/api/people', { body }));
        } else {
            await read(api.PUT('/api/people/{person}', { params: { path: { person: props.person.id } }, body }));
        }
    });
    if (done) {
        emit('saved', made, draft.name);
    }
}
</script>

<template>
    <form class="mt-4 border-y border-rule py-4" novalidate @submit.prevent="save">
        <div class="grid gap-x-5 gap-y-3 md:grid-cols-2 lg:max-w-[760px]">
            <FormField label="Name" :problem="message('/name')"
                ><input
                    ref="first"
                    v-model="draft.name"
                    class="field w-full"
                    maxlength="120"
                    autocomplete="off"
                    :aria-invalid="message('/name') !== undefined"
            /></FormField>
            <FormField
                label="E-mail address"
                :problem="message('/email')"
                :hint="person === null ? undefined : 'An address stays: it is what they sign in with.'"
                ><input
                    v-model="draft.email"
                    type="email"
                    class="field w-full"
                    maxlength="190"
                    autocomplete="off"
                    :readonly="person !== null"
                    :aria-invalid="message('/email') !== undefined"
            /></FormField>
        </div>
        <fieldset class="mt-3">
            <legend class="mb-1 text-[14px] text-ink-soft">Comes as</legend>
            <div v-for="(held, at) in draft.roles" :key="at" class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1.5">
                <select ref="roles" v-model="held.role" class="field w-[190px]" :aria-label="`Role ${at + 1}`">
                    <option v-for="(words, role) in ROLES" :key="role" :value="role">{{ words }}</option>
                </select>
                <template v-if="held.role !== 'administrator'">
                    <span class="text-[14px] text-ink-faint">for</span>
                    <select v-model="held.unit" class="field w-[230px]" :aria-label="`Unit of role ${at + 1}`">
                        <option :value="root">the whole organisation</option>
                        <option v-for="place in places.slice(1)" :key="place.code" :value="place.code">
                            {{ place.name }}
                        </option>
                    </select>
                </template>
                <button
                    v-if="draft.roles.length > 1"
                    type="button"
                    class="quiet-link min-h-6 text-[14px]"
                    :aria-label="`Take role ${at + 1} away`"
                    @click="draft.roles.splice(at, 1)"
                >
                    Take away
                </button>
                <span class="text-[13.5px] text-ink-faint">{{ ROLE_MEANS[held.role] }}</span>
                <span
                    v-if="message(`/roles/${at}/role`) ?? message(`/roles/${at}/unit`)"
                    class="error w-full"
                    role="alert"
                    >{{ message(`/roles/${at}/role`) ?? message(`/roles/${at}/unit`) }}</span
                >
            </div>
            <button type="button" class="quiet-link min-h-6 text-[14px]" @click="add">Another role besides</button>
        </fieldset>
        <p v-if="message('/roles') ?? trouble" class="error mt-2" role="alert">{{ message('/roles') ?? trouble }}</p>
        <p class="mt-3 flex items-center gap-3">
            <button type="submit" class="button" :disabled="busy">
                {{ person === null ? 'Make the invitation' : 'Save' }}
            </button>
            <button type="button" class="button button-quiet" @click="emit('close')">Leave it</button>
        </p>
    </form>
</template>
