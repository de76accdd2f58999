<script setup lang="ts">
import { ApiError, type Schemas } from '@/api/client';
import { useView } from '@/composables/useView';
import { computed, ref } from 'vue';
import { save } from './files';

/** The page as a file: PDF by the server, or by the reader's own browser where the server cannot; slides by the browser. */
const props = defineProps<{ page: Schemas['BriefingPage'] }>();
const { unit, span } = useView();
const working = ref('');
const problem = ref('');

const query = computed(() => ({
    period: props.page.period,
    ...(props.page.shows === 'issue' && props.page.issue !== null
        ? { issue: String(props.page.issue.number) }
        : { unit: unit.value.code, span: span.value }),
}));
async function attempt(what: string, work: () => Promise<void>): Promise<void> {
    [working.value, problem.value] = [what, ''];
    try {
        await work();
    } catch (error) {
        problem.value = error instanceof ApiError ? error.message : 'It could not be made.';
    } finally {
        working.value = '';
    }
}
const pdf = (paper: 'a4' | 'a3'): Promise<void> =>
    attempt(paper, () =>
        save(
            `/api/briefings/${props.page.code}/pdf`,
            { ...query.value, paper },
            `${props.page.code}-${props.page.period}.pdf`,
        ),
    );
const slides = (): Promise<void> =>
    attempt('slides', async () => {
        const { makeSlides } = await import('./slides');
        await makeSlides(props.page, document.querySelector<HTMLElement>('[data-bands]'));
    });
</script>

<template>
    <section aria-labelledby="page-files">
        <h2 id="page-files" class="font-sans text-[14px] font-[650]">As a file</h2>
        <p class="flex flex-wrap gap-x-4">
            <button type="button" class="quiet-link" :disabled="working !== ''" @click="pdf('a4')">PDF, A4</button>
            <button type="button" class="quiet-link" :disabled="working !== ''" @click="pdf('a3')">PDF, A3</button>
            <button type="button" class="quiet-link" :disabled="working !== ''" @click="slides">Slides</button>
        </p>
        <p v-if="working" class="text-ink-faint" role="status">It is being made …</p>
        <p v-if="problem" class="error" role="alert">{{ problem }}</p>
    </section>
</template>
