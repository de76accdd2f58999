<script setup lang="ts">
import { ApiError, type Schemas } from '@/api/client';
import Wordmark from '@/components/Wordmark.vue';
import StateNote from '@/components/StateNote.vue';
import { dayAndMonth, longMonth, monthAndYear } from '@/composables/usePeriods';
import { leadNowhere, useVisit } from '@/composables/useVisit';
import { SPAN_PHRASES } from '@/words';
import { useTitle } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import ReadBands from './ReadBands.vue';

/** Pages for who has a link and no account, and for the server's own browser when it prints. Nothing leads from here to anything else. */
const visit = useVisit();
const reading = shallowRef<Schemas['Reading'] | null>(null);
const problem = ref<Error | null>(null);
leadNowhere();

async function load(): Promise<void> {
    problem.value = null;
    try {
        const answer = await fetch('/api/reading', {
            headers: { Accept: 'application/json', Authorization: `Bearer ${window.location.hash.slice(1)}` },
            credentials: 'omit',
        });
        const data = (await answer.json()) as Schemas['Reading'] & Schemas['Problem'];
        if (!answer.ok) {
            throw new ApiError(
                answer.status,
                answer.status === 404 ? 'This link leads nowhere' : data.title,
                answer.status === 404
                    ? 'It was ended, is over, or was not copied whole. Whoever sent it can send another.'
                    : data.detail,
            );
        }
        visit.value = { locale: data.locale, units: data.units };
        reading.value = data;
    } catch (error) {
        problem.value =
            error instanceof ApiError
                ? error
                : new ApiError(0, 'No connection', 'The server cannot be reached just now.');
    }
}
void load();

const isPack = computed(() => (reading.value?.title ?? '') !== '');
const title = computed(() =>
    isPack.value ? (reading.value?.title ?? '') : (reading.value?.pages[0]?.name ?? 'Briefing'),
);
useTitle(title);
const headOf = (page: Schemas['BriefingPage']): string => `${page.name}, ${monthAndYear(page.period)}`;
const standing = (page: Schemas['BriefingPage']): string =>
    [
        page.unitName,
        SPAN_PHRASES[page.span],
        page.issue !== null && page.shows === 'issue'
            ? `issue ${page.issue.number}, published ${dayAndMonth(page.issue.at.slice(0, 10))}`
            : page.issue === null
              ? ''
              : 'figures of today',
    ]
        .filter(Boolean)
        .join(' · ');
const paper = computed(() => reading.value?.paper ?? null);
</script>

<template>
    <main
        class="reading mx-auto min-h-screen max-w-[1180px] px-4 py-5"
        :class="paper === null ? 'print:max-w-none print:p-0' : [`paper-${paper}`, 'max-w-none! p-0!']"
    >
        <StateNote v-if="problem" :error="problem" @retry="load" />
        <StateNote v-else-if="reading === null" loading />
        <template v-else>
            <section v-if="isPack" class="first-page flex min-h-[640px] flex-col">
                <Wordmark class="text-ink" />
                <h1 class="mt-24 text-[44px] leading-tight">{{ title }}</h1>
                <p class="mt-2 text-[18px] text-ink-soft">
                    {{ monthAndYear(reading.pages[0]?.period ?? '2026-01')
                    }}<template v-if="reading.by">, put together by {{ reading.by }}</template>
                </p>
                <ol class="mt-10 max-w-[560px] text-[16px]" aria-label="Contents">
                    <li
                        v-for="(page, at) in reading.pages"
                        :key="at"
                        class="flex items-baseline gap-3 border-b border-rule py-1.5"
                    >
                        <a :href="`#part-${at}`">{{ page.name }}</a><span class="text-ink-soft">{{
                            page.unitName
                        }}</span
                        ><span class="ml-auto">{{ reading.starts?.[at] }}</span>
                    </li>
                </ol>
            </section>
            <article
                v-for="(page, at) in reading.pages"
                :id="`part-${at}`"
                :key="at"
                class="part"
                :class="{ 'starts-page': isPack || at > 0 }"
            >
                <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b-[1.5px] border-ink pb-2">
                    <component :is="isPack ? 'h2' : 'h1'" class="text-[28px] leading-[1.15]">{{
                        headOf(page)
                    }}</component>
                    <p class="ml-auto text-[14px] text-ink-soft">{{ standing(page) }}</p>
                </div>
                <p v-if="page.bands.length === 0" class="py-6 text-ink-soft">
                    Nothing is published for {{ longMonth(page.period) }}.
                </p>
                <ReadBands :page="page" />
            </article>
            <p v-if="paper === null" class="mt-8 border-t border-rule pt-2 text-[13px] text-ink-faint">
                Read by a link. Figures as they were published.
            </p>
        </template>
    </main>
</template>
