<script setup lang="ts">
import Masthead from '@/components/Masthead.vue';
import PaperHead from '@/components/PaperHead.vue';
import StateNote from '@/components/StateNote.vue';
import WorkingOrder from '@/components/WorkingOrder.vue';
import YearRibbon from '@/components/YearRibbon.vue';
import { useFreshness } from '@/composables/useFreshness';
import { usePresentation, usePresentationKeys } from '@/composables/usePresentation';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { ApiError } from './api/client';

const SignIn = defineAsyncComponent(() => import('./pages/people/SignIn.vue'));
const { session, user, load } = useSession();
const { mistaken } = useView();
const renew = useFreshness();
const route = useRoute();
const { presenting, ofBriefings, stops, at, step, end } = usePresentation();
usePresentationKeys();

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
    await renew();
});

/** Whoever begins an organisation, or comes in by a link, has no password yet and no screens. */
const beginning = computed(() => route.name === 'begin' || route.name === 'enter' || route.name === 'read');
/** Who only administers has no unit to look at, so there is no month to choose either. */
const seesUnits = computed(() => (session.value?.units.length ?? 0) > 0);
const router = useRouter();
// Until there is a second factor where everybody has to have one, only the own account is answered.
watch(
    () => [user.value?.needsSecondFactor, route.name],
    async ([needed, name]) => {
        if (needed === true && name !== 'account' && name !== undefined) {
            await router.replace({ name: 'account' });
        }
    },
    { immediate: true },
);
const unreachable = new ApiError(0, 'No connection', 'The server cannot be reached just now.');
</script>

<template>
    <main v-if="session === null" class="p-10"><StateNote :error="unreachable" @retry="load" /></main>
    <RouterView v-else-if="beginning" />
    <SignIn v-else-if="user === null" />
    <div
        v-if="!beginning && (user !== null || kept !== null)"
        v-show="user !== null"
        class="flex min-h-screen flex-col"
    >
        <a href="#content" class="sr-only focus:not-sr-only focus:absolute focus:z-30 focus:bg-sheet focus:p-3"
            >Skip to the content</a
        >
        <template v-if="!presenting">
            <Masthead class="print:hidden" />
            <YearRibbon v-if="seesUnits && route.meta['timeless'] !== true" class="print:hidden" />
        </template>
        <div class="flex grow flex-col md:flex-row">
            <WorkingOrder v-if="!presenting && !user?.needsSecondFactor" class="print:hidden" />
            <main
                id="content"
                tabindex="-1"
                class="min-w-0 grow px-4 pt-4 pb-12 outline-none md:px-[22px] md:pl-[26px] print:p-0"
                :class="{ 'presentation mx-auto max-w-[1500px]': presenting }"
            >
                <p
                    v-if="mistaken.length > 0"
                    class="mb-3 border-l-[3px] border-brass bg-brass-tint px-3 py-2 text-[15px]"
                    role="status"
                >
                    {{ mistaken.join(' ') }}
                </p>
                <PaperHead />
                <RouterView />
                <nav
                    v-if="presenting"
                    class="fixed inset-x-0 bottom-0 flex items-center justify-center gap-6 border-t border-rule bg-paper/95 py-2 text-[14px] text-ink-soft print:hidden"
                    aria-label="Presentation"
                >
                    <button type="button" class="quiet-link" :disabled="at <= 0" @click="step(-1)">
                        ← {{ stops[at - 1]?.name ?? '' }}
                    </button>
                    <span>{{ at + 1 }} of {{ stops.length }}</span>
                    <button type="button" class="quiet-link" :disabled="at >= stops.length - 1" @click="step(1)">
                        {{ stops[at + 1]?.name ?? '' }} →
                    </button>
                    <RouterLink
                        v-if="ofBriefings"
                        class="quiet-link ml-4"
                        :to="{ query: { ...route.query, turn: route.query['turn'] === '1' ? undefined : '1' } }"
                        >{{ route.query['turn'] === '1' ? 'Stop turning' : 'Turn every minute' }}</RouterLink
                    >
                    <button type="button" class="quiet-link ml-4" @click="end">Close (Esc)</button>
                </nav>
            </main>
        </div>
    </div>
</template>
