<script setup lang="ts">
import Masthead from '@/components/Masthead.vue';
import StateNote from '@/components/StateNote.vue';
import WorkingOrder from '@/components/WorkingOrder.vue';
import YearRibbon from '@/components/YearRibbon.vue';
import { useSession } from '@/composables/useSession';
import { useQueryClient } from '@tanstack/vue-query';
import { defineAsyncComponent, ref, watch } from 'vue';
import { ApiError } from './api/client';

const SignIn = defineAsyncComponent(() => import('./pages/sign-in/SignIn.vue'));
const { session, user, load } = useSession();
const queries = useQueryClient();

// When a session ends in the middle of work, the screens stay behind the sign-in form with all that was typed.
const kept = ref(user.value?.name ?? null);
watch(user, async (now) => {
    if (now === null) {
        return;
    }
    if (kept.value !== null && kept.value !== now.name) {
        window.location.reload();
    }
    kept.value = now.name;
    await queries.invalidateQueries();
});

const unreachable = new ApiError(0, 'No connection', 'The server cannot be reached just now.');
</script>

<template>
    <main v-if="session === null" class="p-10"><StateNote :error="unreachable" @retry="load" /></main>
    <SignIn v-if="session !== null && user === null" />
    <div v-if="user !== null || kept !== null" v-show="user !== null" class="flex min-h-screen flex-col">
        <a href="#content" class="sr-only focus:not-sr-only focus:absolute focus:z-30 focus:bg-sheet focus:p-3"
            >Skip to the content</a
        >
        <Masthead />
        <YearRibbon />
        <div class="flex grow flex-col md:flex-row">
            <WorkingOrder />
            <main
                id="content"
                tabindex="-1"
                class="min-w-0 grow px-4 pt-4 pb-12 outline-none md:px-[22px] md:pl-[26px]"
            >
                <RouterView />
            </main>
        </div>
    </div>
</template>
