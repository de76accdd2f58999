<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import PasswordField from '@/components/PasswordField.vue';
import StateNote from '@/components/StateNote.vue';
import Wordmark from '@/components/Wordmark.vue';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';

/** Somebody who is invited, or let in again, chooses a password. */
const router = useRouter();
const { enter } = useSession();
const { busy, problem, message, send } = useSending();

// Behind the # of the address: what stands there is sent to no server and kept in no log.
const link = window.location.hash.slice(1);
const found = ref<Schemas['Entry'] | null>(null);
const failure = ref<Error | null>(null);
const password = ref('');

async function look(): Promise<void> {
    failure.value = null;
    try {
        found.value = await read(api.GET('/api/entry', { params: { query: { link } } }));
    } catch (reason) {
        failure.value = reason instanceof Error ? reason : new Error(String(reason));
    }
}
onMounted(look);

async function submit(): Promise<void> {
    if (await send(() => enter({ link, password: password.value }))) {
        await router.replace('/');
    }
}
</script>

<template>
    <main class="grid min-h-screen lg:grid-cols-[minmax(340px,4fr)_7fr]">
        <section class="flex flex-col bg-sea px-8 py-8 text-on-sea lg:px-14 lg:py-12">
            <Wordmark />
            <p
                v-if="found?.works"
                class="my-auto hidden max-w-[15em] py-10 font-serif text-[34px] leading-[1.2] font-semibold lg:block"
            >
                {{ found.organisation }}, month by month.
            </p>
        </section>
        <section class="flex flex-col justify-center px-8 py-10 lg:px-16">
            <StateNote v-if="failure" :error="failure" @retry="look" />
            <StateNote v-else-if="found === null" loading />
            <div v-else-if="!found.works" class="max-w-[460px]">
                <h1 class="text-[28px] leading-tight">This link does not work</h1>
                <p class="mt-3 text-[16px] text-ink-soft">
                    It works once and for a limited time, and a newer one takes its place. Whoever administers Kybernet
                    in your organisation can make you a new one.
                </p>
                <p class="mt-5"><a class="quiet-link text-brass" href="/">Sign in instead</a></p>
            </div>
            <form v-else class="w-full max-w-[420px] space-y-4" novalidate @submit.prevent="submit">
                <h1 class="text-[28px] leading-tight">
                    {{ found.invited ? `Welcome, ${found.name}` : 'A new password' }}
                </h1>
                <p class="text-[16px] text-ink-soft">
                    {{
                        found.invited
                            ? `You are invited to ${found.organisation}. Choose a password; you sign in with your address.`
                            : 'What you had open on other devices ends when it is chosen.'
                    }}
                </p>
                <label class="block">
                    <span class="mb-1 block text-ink-soft">E-mail address</span>
                    <input class="field w-full" type="email" autocomplete="username" readonly :value="found.email" />
                </label>
                <PasswordField id="new-password" v-model="password" label="Password" :problem="message('/password')" />
                <p v-if="message('/link')" class="error" role="alert">{{ message('/link') }}</p>
                <p v-else-if="problem && Object.keys(problem.fields).length === 0" class="error" role="alert">
                    {{ problem.title }}. {{ problem.detail }}
                </p>
                <button type="submit" class="button" :disabled="busy">Come in</button>
            </form>
        </section>
    </main>
</template>
