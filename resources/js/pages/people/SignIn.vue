<script setup lang="ts">
import { api, read } from '@/api/client';
import Needle from '@/components/Needle.vue';
import FormField from '@/components/FormField.vue';
import Wordmark from '@/components/Wordmark.vue';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { nextTick, ref, useTemplateRef } from 'vue';

const { session, signIn } = useSession();

const email = ref('');
const password = ref('');
const code = ref('');
/** The second factor is asked for once the password was right. */
const asksCode = ref(false);
const forgets = ref(false);
const asked = ref(false);
const { busy, problem, message, send } = useSending();
const codeField = useTemplateRef<HTMLInputElement>('codeField');
const secret = useTemplateRef<HTMLInputElement>('secret');

async function submit(): Promise<void> {
    if (await send(() => signIn(email.value, password.value, code.value))) {
        return;
    }
    if (message('/code') === undefined) {
        secret.value?.select();
    } else {
        asksCode.value = true;
        await nextTick();
        codeField.value?.select();
    }
}

async function ask(): Promise<void> {
    asked.value = await send(() => read(api.POST('/api/forgotten', { body: { email: email.value } })));
}

function use(account: { email: string; password: string }): Promise<void> {
    email.value = account.email;
    password.value = account.password;
    return submit();
}
</script>

<template>
    <main class="grid min-h-screen lg:grid-cols-[minmax(380px,5fr)_7fr]">
        <section class="flex flex-col bg-sea px-8 py-8 text-on-sea lg:px-14 lg:py-12">
            <Wordmark />
            <div class="my-auto hidden py-10 lg:block">
                <p class="max-w-[15em] font-serif text-[34px] leading-[1.2] font-semibold">
                    Know your course, month by month.
                </p>
                <ul class="mt-8 space-y-3 text-[16px] text-on-sea-soft">
                    <li class="flex items-center gap-3">
                        <Needle status="green" decorative /> on course: at target or better
                    </li>
                    <li class="flex items-center gap-3">
                        <Needle status="amber" decorative /> drifting: within its own limits
                    </li>
                    <li class="flex items-center gap-3">
                        <Needle status="red" decorative /> off course: worth the next hour
                    </li>
                </ul>
            </div>
        </section>
        <section class="flex flex-col justify-center px-8 py-10 lg:px-20">
            <div class="w-full max-w-[380px]">
                <template v-if="forgets">
                    <h1 class="text-[28px] leading-tight">A new password</h1>
                    <p v-if="asked" class="mt-3 text-[16px] text-ink-soft" role="status">
                        If there is an account for {{ email }}, a link comes by e-mail or from whoever administers
                        Kybernet with you. It works once, for thirty minutes.
                    </p>
                    <form v-else class="mt-6 space-y-4" novalidate @submit.prevent="ask">
                        <p class="text-[16px] text-ink-soft">You get a link with which you choose another one.</p>
                        <FormField label="E-mail address" :problem="message('/email')"
                            ><input v-model="email" type="email" autocomplete="username" class="field w-full"
                        /></FormField>
                        <p v-if="problem && Object.keys(problem.fields).length === 0" class="error" role="alert">
                            {{ problem.title }}. {{ problem.detail }}
                        </p>
                        <button type="submit" class="button" :disabled="busy">Ask for the link</button>
                    </form>
                    <button
                        type="button"
                        class="quiet-link mt-5 min-h-6 text-[15px]"
                        @click="((forgets = false), (asked = false))"
                    >
                        Back to signing in
                    </button>
                </template>
                <h1 v-else class="text-[28px] leading-tight">Sign in</h1>
                <form v-if="!forgets" class="mt-6 space-y-4" novalidate @submit.prevent="submit">
                    <label class="block">
                        <span class="mb-1 block text-ink-soft">E-mail address</span>
                        <input
                            v-model="email"
                            type="email"
                            autocomplete="username"
                            autofocus
                            class="field w-full"
                            :aria-invalid="message('/email') !== undefined"
                            aria-describedby="email-error"
                        />
                        <span id="email-error" class="error">{{ message('/email') }}</span>
                    </label>
                    <label class="block">
                        <span class="mb-1 block text-ink-soft">Password</span>
                        <input
                            ref="secret"
                            v-model="password"
                            type="password"
                            autocomplete="current-password"
                            class="field w-full"
                            :aria-invalid="message('/password') !== undefined"
                            aria-describedby="password-error"
                        />
                        <span id="password-error" class="error" role="alert">{{ message('/password') }}</span>
                    </label>
                    <FormField
                        v-if="asksCode"
                        label="The code of your device, or a recovery code"
                        :problem="message('/code')"
                        ><input
                            ref="codeField"
                            v-model="code"
                            class="field w-full text-[17px] tracking-[.08em]"
                            autocomplete="one-time-code"
                            maxlength="40"
                    /></FormField>
                    <p v-if="problem && Object.keys(problem.fields).length === 0" class="error" role="alert">
                        {{ problem.title }}. {{ problem.detail }}
                    </p>
                    <p class="flex flex-wrap items-center gap-x-5 gap-y-2">
                        <button type="submit" class="button" :disabled="busy">Sign in</button>
                        <button
                            v-if="!session?.empty"
                            type="button"
                            class="quiet-link min-h-6 text-[14.5px]"
                            @click="forgets = true"
                        >
                            Forgot the password
                        </button>
                    </p>
                </form>
                <p v-if="session?.empty" class="mt-8 border-l-2 border-brass pl-3 text-[15px] text-ink-soft">
                    Nobody has begun an organisation here yet. Whoever installed Kybernet was given a link for it;
                    <code>bin/start --empty</code> prints a new one.
                </p>
                <div v-if="session?.demo.length" class="mt-10 border-t border-rule pt-4">
                    <h2 class="text-[17px]">Ostermere Water, a demonstration</h2>
                    <p class="mb-2 text-[14px] text-ink-soft">An invented utility. Come in as</p>
                    <ul>
                        <li
                            v-for="account in session.demo"
                            :key="account.email"
                            class="border-t border-rule-soft first:border-0"
                        >
                            <button
                                type="button"
                                class="group flex w-full items-baseline gap-3 py-1.5 text-left"
                                :disabled="busy"
                                @click="use(account)"
                            >
                                <span class="font-semibold text-brass group-hover:underline">{{ account.role }}</span>
                                <span class="text-[13.5px] text-ink-faint">{{ account.name }}</span>
                            </button>
                        </li>
                    </ul>
                </div>
            </div>
        </section>
    </main>
</template>
