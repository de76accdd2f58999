<script setup lang="ts">
import Needle from '@/components/Needle.vue';
import Wordmark from '@/components/Wordmark.vue';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { ref, useTemplateRef } from 'vue';

const { session, signIn } = useSession();

const email = ref('');
const password = ref('');
const { busy, problem, message, send } = useSending();
const secret = useTemplateRef<HTMLInputElement>('secret');

async function submit(): Promise<void> {
    if (!(await send(() => signIn(email.value, password.value)))) {
        secret.value?.select();
    }
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
                <h1 class="text-[28px] leading-tight">Sign in</h1>
                <form class="mt-6 space-y-4" novalidate @submit.prevent="submit">
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
                    <p v-if="problem && Object.keys(problem.fields).length === 0" class="error" role="alert">
                        {{ problem.title }}. {{ problem.detail }}
                    </p>
                    <button type="submit" class="button" :disabled="busy">Sign in</button>
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
