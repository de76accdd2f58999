<script setup lang="ts">
import Masthead from '@/components/Masthead.vue';
import StateNote from '@/components/StateNote.vue';
import WorkingOrder from '@/components/WorkingOrder.vue';
import YearRibbon from '@/components/YearRibbon.vue';
import { useSession } from '@/composables/useSession';
import { defineAsyncComponent } from 'vue';
import { ApiError } from './api/client';

const SignIn = defineAsyncComponent(() => import('./pages/sign-in/SignIn.vue'));
const { session, user, load } = useSession();
const unreachable = new ApiError(0, 'No connection', 'The server cannot be reached just now.');
</script>

<template>
    <main v-if="session === null" class="p-10"><StateNote :error="unreachable" @retry="load" /></main>
    <SignIn v-else-if="user === null" />
    <div v-else class="flex min-h-screen flex-col">
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
