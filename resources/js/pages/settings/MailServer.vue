<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { computed, reactive, ref, watch } from 'vue';

/** Through whom people are written to, and whether it works. */
const { mail, version } = defineProps<{
    mail: Schemas['MailServer'];
    /** Of the settings as they are shown. */
    version: number;
}>();
const emit = defineEmits<{ kept: [] }>();
const { user } = useSession();
const { busy, message, said, send, trouble } = useSending();

const draft = reactive({ host: '', port: 587, user: '', from: '' });
/** Nothing: the one that is kept stays. */
const password = ref('');
/** What came of it last. */
const word = ref('');
watch(
    () => mail,
    ({ host, port, user: account, from }) => Object.assign(draft, { host, port, user: account, from }),
    { immediate: true },
);
const changed = computed(
    () =>
        password.value !== '' ||
        draft.host !== mail.host ||
        draft.port !== mail.port ||
        draft.user !== mail.user ||
        draft.from !== mail.from,
);

async function save(): Promise<void> {
    word.value = '';
    const isKept = await send(async () => {
        await read(
            api.PUT('/api/settings/mail', {
                body: { ...draft, password: password.value === '' ? null : password.value, version },
            }),
        );
    });
    if (isKept) {
        password.value = '';
        word.value = draft.host === '' ? 'Nobody is written to.' : 'Saved; the trail has it.';
        emit('kept');
    }
}

async function attempt(): Promise<void> {
    word.value = '';
    if (await send(() => read(api.POST('/api/settings/mail/trial')))) {
        word.value = `The server took a mail to ${user.value?.email ?? 'you'}.`;
    }
}
</script>

<template>
    <section aria-labelledby="set-mail">
        <h2 id="set-mail" class="mb-1 text-[20px]">E-mail</h2>
        <p class="mb-3 text-[14.5px] text-ink-soft">
            Invitations and new passwords are sent through this server. Without one you hand the links over yourself.
        </p>
        <p v-if="mail.ofPlace" class="mb-3 border-l-[3px] border-brass bg-brass-tint px-4 py-2.5 text-[15px]">
            The settings of this place name a server (<code>MAIL_HOST</code>), which goes before what is set here.
        </p>
        <form class="grid gap-x-6 gap-y-3 md:grid-cols-2" novalidate @submit.prevent="save">
            <FormField label="Server" :problem="message('/host')"
                ><input
                    v-model.trim="draft.host"
                    class="field w-full"
                    maxlength="253"
                    autocomplete="off"
                    spellcheck="false"
                    placeholder="smtp.example.org"
            /></FormField>
            <FormField
                label="Port"
                :problem="message('/port')"
                hint="465 is TLS from the start; others change to it where the server can."
                ><input v-model.number="draft.port" class="field w-[90px] text-right" inputmode="numeric"
            /></FormField>
            <FormField label="Account" :problem="message('/user')"
                ><input v-model.trim="draft.user" class="field w-full" maxlength="190" autocomplete="off"
            /></FormField>
            <FormField
                label="Its password"
                :problem="message('/password')"
                :hint="mail.hasPassword ? 'One is kept, encrypted; type another to change it.' : undefined"
                ><input
                    v-model="password"
                    type="password"
                    class="field w-full"
                    maxlength="1000"
                    autocomplete="new-password"
            /></FormField>
            <FormField label="Comes from" :problem="message('/from')"
                ><input
                    v-model.trim="draft.from"
                    type="email"
                    class="field w-full"
                    maxlength="190"
                    autocomplete="off"
                    placeholder="kybernet@example.org"
            /></FormField>
            <p class="flex flex-wrap items-center gap-3 self-end md:col-span-2">
                <button type="submit" class="button" :disabled="busy || !changed">Set the server</button>
                <button
                    type="button"
                    class="button button-quiet"
                    :disabled="busy || changed || (mail.host === '' && !mail.ofPlace)"
                    @click="attempt"
                >
                    Send me a trial
                </button>
                <span v-if="trouble" class="error" role="alert">{{ said }}</span>
                <span v-else-if="word" class="text-[14.5px] text-ink-soft" role="status">{{ word }}</span>
            </p>
        </form>
    </section>
</template>
