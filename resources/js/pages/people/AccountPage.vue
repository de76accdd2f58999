<script setup lang="ts">
import { api, read } from '@/api/client';
import AppearanceFields from '@/components/AppearanceFields.vue';
import FormField from '@/components/FormField.vue';
import StandInForm from '@/components/StandInForm.vue';
import StateNote from '@/components/StateNote.vue';
import { moment } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { ref, watch } from 'vue';
import ChangePassword from './ChangePassword.vue';
import SecondFactor from './SecondFactor.vue';

/** What is a person's own: what they are called, how they sign in and where, who answers while they are away. */
useTitle('Your account · Kybernet');
const { user, load } = useSession();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['account'],
    queryFn: () => read(api.GET('/api/account')),
    staleTime: 0,
});
const { busy, message, send, said } = useSending();
const name = ref('');
const renamed = ref(false);
const changed = ref(false);
watch(
    data,
    (account) => {
        name.value = account?.name ?? '';
    },
    { immediate: true },
);

async function rename(): Promise<void> {
    renamed.value = await send(async () => {
        await read(api.PATCH('/api/account', { body: { name: name.value } }));
        await Promise.all([load(), refetch()]);
    });
}

async function end(session: string | null): Promise<void> {
    await send(() =>
        session === null
            ? read(api.DELETE('/api/account/sessions'))
            : read(api.DELETE('/api/account/sessions/{session}', { params: { path: { session } } })),
    );
    await refetch();
}
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">Your account</h1>
    <p v-if="user" class="mt-[5px] text-[17px]">{{ user.role }}.</p>
    <p v-if="user?.needsSecondFactor" class="mt-3 border-l-[3px] border-brass bg-brass-tint px-4 py-2.5 text-[15px]">
        Everybody here signs in with a second factor. Set yours up, and everything else opens.
    </p>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <div v-else-if="data" class="mt-4 max-w-[820px] divide-y divide-rule border-t border-rule [&>section]:py-5">
        <section aria-labelledby="own-factor">
            <h2 id="own-factor" class="mb-2 text-[20px]">Second factor</h2>
            <SecondFactor :account="data" @changed="(refetch(), load())" />
        </section>
        <section aria-labelledby="own-name">
            <h2 id="own-name" class="mb-2 text-[20px]">Name</h2>
            <form class="flex flex-wrap items-end gap-3" novalidate @submit.prevent="rename">
                <FormField label="What you are called" :problem="message('/name')" class="w-full max-w-[320px]"
                    ><input v-model="name" class="field w-full" maxlength="120" autocomplete="name"
                /></FormField>
                <button type="submit" class="button" :disabled="busy || name === data.name">Save</button>
                <span v-if="renamed" class="pb-1 text-[14px] text-ink-soft" role="status">Saved.</span>
            </form>
            <p class="mt-1.5 text-[13.5px] text-ink-faint">You sign in as {{ data.email }}.</p>
        </section>
        <section aria-labelledby="own-secret">
            <h2 id="own-secret" class="mb-2 text-[20px]">Password</h2>
            <div class="max-w-[420px]"><ChangePassword @done="((changed = true), refetch())" /></div>
            <p v-if="changed" class="mt-2 text-[14px] text-ink-soft" role="status">
                It is changed; what was open on other devices has ended.
            </p>
        </section>
        <section aria-labelledby="own-devices">
            <h2 id="own-devices" class="mb-2 text-[20px]">Where you are signed in</h2>
            <ul class="text-[15px]">
                <li
                    v-for="session in data.sessions"
                    :key="session.id"
                    class="flex flex-wrap gap-x-4 border-b border-rule-soft py-1.5 first:border-t"
                >
                    <span class="grow"
                        ><b class="font-semibold">{{ session.device }}</b
                        >, {{ session.address }},
                        {{ session.here ? 'here and now' : `used ${moment(session.used)}` }}</span
                    >
                    <button
                        v-if="!session.here"
                        type="button"
                        class="quiet-link min-h-6 text-[14px]"
                        :aria-label="`End ${session.device}, used ${moment(session.used)}`"
                        @click="end(session.id)"
                    >
                        End
                    </button>
                </li>
            </ul>
            <button
                v-if="data.sessions.length > 1"
                type="button"
                class="button button-quiet mt-3"
                :disabled="busy"
                @click="end(null)"
            >
                End all but this one
            </button>
        </section>
        <section aria-labelledby="own-standins">
            <h2 id="own-standins" class="mb-1 text-[20px]">While you are away</h2>
            <p class="mb-2.5 text-[14.5px] text-ink-soft">
                Somebody else may do what is yours, from one day to another. The trail names both of you.
            </p>
            <StandInForm :person="data.id" :stand-ins="data.standIns" :people="data.people" @changed="refetch()" />
        </section>
        <section aria-labelledby="own-looks">
            <h2 id="own-looks" class="mb-2 text-[20px]">Appearance and numbers</h2>
            <AppearanceFields />
        </section>
    </div>
    <p v-if="said && !message('/name')" class="error mt-3" role="alert">{{ said }}</p>
</template>
