<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import PasswordField from '@/components/PasswordField.vue';
import StateNote from '@/components/StateNote.vue';
import Wordmark from '@/components/Wordmark.vue';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { LOCALES } from '@/words';
import { computed, onMounted, reactive, ref } from 'vue';
import { useRouter } from 'vue-router';

/** Whoever opens the link that the installation printed names the organisation and makes the first account. */
const router = useRouter();
const { begin } = useSession();
const { busy, problem, message, send } = useSending();

// Behind the # of the address: what stands there is sent to no server and kept in no log.
const link = window.location.hash.slice(1);
const found = ref<Schemas['Beginning'] | null>(null);
const failure = ref<Error | null>(null);

const MONTHS = Array.from({ length: 12 }, (_, index) =>
    new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' }).format(new Date(Date.UTC(2026, index, 1))),
);
/** What this browser knows of the place is a good first guess. */
const region = (navigator.language.split('-')[1] ?? '').toUpperCase();
const EUROS = ['AT', 'BE', 'DE', 'ES', 'FI', 'FR', 'GR', 'IE', 'IT', 'LU', 'NL', 'PT'];
const draft = reactive({
    organisation: '',
    yearStartMonth: 1,
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    currency: region === 'US' ? 'USD' : region === 'CH' ? 'CHF' : EUROS.includes(region) ? 'EUR' : 'GBP',
    locale: LOCALES.find((each) => each === navigator.language) ?? 'en-GB',
    name: '',
    email: '',
    password: '',
});
const currencyNames = new Intl.DisplayNames('en', { type: 'currency' });
const currencies = computed(() =>
    (found.value?.currencies ?? [])
        .map((code) => ({ code, name: currencyNames.of(code) ?? code }))
        .filter(({ code, name }) => name !== code && !/\(\d{4}/.test(name))
        .sort((one, other) => one.name.localeCompare(other.name)),
);
const sample = (locale: string): string =>
    new Intl.NumberFormat(locale, { style: 'currency', currency: draft.currency }).format(12345.6);

async function look(): Promise<void> {
    failure.value = null;
    try {
        found.value = await read(api.GET('/api/beginning', { params: { query: { link } } }));
        if (!found.value.timeZones.includes(draft.timeZone)) {
            draft.timeZone = 'UTC';
        }
    } catch (reason) {
        failure.value = reason instanceof Error ? reason : new Error(String(reason));
    }
}
onMounted(look);

async function submit(): Promise<void> {
    if (await send(() => begin({ link, ...draft }))) {
        await router.replace({ name: 'first-month' });
        return;
    }
    document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
}
</script>

<template>
    <main class="grid min-h-screen lg:grid-cols-[minmax(340px,4fr)_7fr]">
        <section class="flex flex-col bg-sea px-8 py-8 text-on-sea lg:px-14 lg:py-12">
            <Wordmark />
            <div class="my-auto hidden py-10 lg:block">
                <p class="max-w-[15em] font-serif text-[34px] leading-[1.2] font-semibold">
                    An organisation of your own.
                </p>
                <ol class="mt-8 max-w-[26em] space-y-3 text-[16px] text-on-sea-soft">
                    <li>First its name, how its year runs, and your account.</li>
                    <li>Then its units, its KPIs and its history, in any order.</li>
                    <li>Nobody else can begin here: the link works once.</li>
                </ol>
            </div>
        </section>
        <section class="flex flex-col justify-center px-8 py-10 lg:px-16">
            <StateNote v-if="failure" :error="failure" @retry="look" />
            <StateNote v-else-if="found === null" loading />
            <div v-else-if="!found.works" class="max-w-[460px]">
                <h1 class="text-[28px] leading-tight">This link does not work</h1>
                <p class="mt-3 text-[16px] text-ink-soft">
                    It works once, for seven days, and only while there is no organisation here. Whoever installed
                    Kybernet can print a new one:
                </p>
                <p class="mt-3">
                    <code class="rounded-[3px] border border-rule bg-field px-3 py-2">bin/kybernet begin</code>
                </p>
                <p class="mt-5"><a class="quiet-link text-brass" href="/">Sign in instead</a></p>
            </div>
            <form v-else class="w-full max-w-[560px] space-y-4" novalidate @submit.prevent="submit">
                <h1 class="text-[28px] leading-tight">Begin</h1>
                <label class="block">
                    <span class="mb-1 block text-ink-soft">What the organisation is called</span>
                    <input
                        v-model="draft.organisation"
                        autofocus
                        autocomplete="organization"
                        maxlength="200"
                        class="field w-full"
                        :aria-invalid="message('/organisation') !== undefined"
                    />
                    <span class="error" role="alert">{{ message('/organisation') }}</span>
                </label>
                <div class="grid gap-x-5 gap-y-4 sm:grid-cols-2">
                    <label class="block">
                        <span class="mb-1 block text-ink-soft">Its year starts in</span>
                        <select v-model.number="draft.yearStartMonth" class="field w-full">
                            <option v-for="(month, index) in MONTHS" :key="month" :value="index + 1">
                                {{ month }}
                            </option>
                        </select>
                    </label>
                    <label class="block">
                        <span class="mb-1 block text-ink-soft">Time zone</span>
                        <select v-model="draft.timeZone" class="field w-full">
                            <option v-for="zone in found.timeZones" :key="zone" :value="zone">
                                {{ zone.replaceAll('_', ' ') }}
                            </option>
                        </select>
                    </label>
                    <label class="block">
                        <span class="mb-1 block text-ink-soft">Currency</span>
                        <select v-model="draft.currency" class="field w-full">
                            <option v-for="{ code, name } in currencies" :key="code" :value="code">
                                {{ name }} ({{ code }})
                            </option>
                        </select>
                    </label>
                    <label class="block">
                        <span class="mb-1 block text-ink-soft">Numbers are written as</span>
                        <select v-model="draft.locale" class="field w-full">
                            <option v-for="locale in LOCALES" :key="locale" :value="locale">
                                {{ sample(locale) }} ({{ locale }})
                            </option>
                        </select>
                    </label>
                </div>
                <fieldset class="space-y-4 border-t border-rule pt-4">
                    <legend class="sr-only">Your account</legend>
                    <div class="grid gap-x-5 gap-y-4 sm:grid-cols-2">
                        <label class="block">
                            <span class="mb-1 block text-ink-soft">Your name</span>
                            <input
                                v-model="draft.name"
                                autocomplete="name"
                                maxlength="120"
                                class="field w-full"
                                :aria-invalid="message('/name') !== undefined"
                            />
                            <span class="error" role="alert">{{ message('/name') }}</span>
                        </label>
                        <label class="block">
                            <span class="mb-1 block text-ink-soft">E-mail address</span>
                            <input
                                v-model="draft.email"
                                type="email"
                                autocomplete="username"
                                maxlength="190"
                                class="field w-full"
                                :aria-invalid="message('/email') !== undefined"
                            />
                            <span class="error" role="alert">{{ message('/email') }}</span>
                        </label>
                    </div>
                    <PasswordField
                        id="new-password"
                        v-model="draft.password"
                        label="Password"
                        :problem="message('/password')"
                    />
                </fieldset>
                <p v-if="message('/link')" class="error" role="alert">{{ message('/link') }}</p>
                <p v-else-if="problem && Object.keys(problem.fields).length === 0" class="error" role="alert">
                    {{ problem.title }}. {{ problem.detail }}
                </p>
                <button type="submit" class="button" :disabled="busy">Begin</button>
            </form>
        </section>
    </main>
</template>
