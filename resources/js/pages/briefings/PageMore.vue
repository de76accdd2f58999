<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import { dayAndMonth, monthAndYear } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { useEscape } from '@/composables/useEscape';
import { useQueryClient } from '@tanstack/vue-query';
import { defineAsyncComponent, ref } from 'vue';
import { useRouter } from 'vue-router';
import PageFiles from './PageFiles.vue';

const NewBriefing = defineAsyncComponent(() => import('./NewBriefing.vue'));
const ReadingLinks = defineAsyncComponent(() => import('./ReadingLinks.vue'));
const ForWhom = defineAsyncComponent(() => import('./ForWhom.vue'));

/** What else can be done with a page: its issues, its files, for whom it is. */
const props = defineProps<{ page: Schemas['BriefingPage'] }>();
const emit = defineEmits<{ close: []; turned: [] }>();
const { here } = useView();
const router = useRouter();
const client = useQueryClient();
const copying = ref(false);
const problem = ref('');
useEscape(true, () => emit('close'));

async function retire(): Promise<void> {
    problem.value = '';
    try {
        await read(
            api.PUT('/api/briefings/{briefing}/retirement', { params: { path: { briefing: props.page.code } } }),
        );
        await client.invalidateQueries({ queryKey: ['briefings'] });
        await router.push({ name: 'briefings', query: here({}) });
    } catch (error) {
        problem.value = error instanceof ApiError ? error.message : 'Something went wrong here.';
    }
}
</script>

<template>
    <div class="grid gap-x-10 gap-y-4 border-b border-rule py-3 text-[14px] md:grid-cols-2 lg:grid-cols-3 print:hidden">
        <section aria-labelledby="issues">
            <h2 id="issues" class="font-sans text-[14px] font-[650]">Issues</h2>
            <p v-if="page.issues.length === 0" class="text-ink-soft">None yet.</p>
            <ul v-else class="max-h-[168px] overflow-y-auto">
                <li v-for="issue in page.issues" :key="issue.number">
                    <RouterLink
                        class="quiet-link"
                        :class="{ 'font-[650]': page.shows === 'issue' && page.issue?.number === issue.number }"
                        :to="{
                            query: {
                                ...here({ unit: page.unit, period: issue.period, span: issue.span }),
                                issue: String(issue.number),
                            },
                        }"
                        >Issue {{ issue.number }}, {{ monthAndYear(issue.period) }}</RouterLink
                    >
                    <span class="text-ink-faint">
                        {{ dayAndMonth(issue.at.slice(0, 10)) }}{{ issue.by ? `, ${issue.by}` : '' }}</span
                    >
                </li>
            </ul>
        </section>
        <PageFiles :page="page" />
        <ReadingLinks v-if="page.mine" :code="page.code" />
        <ForWhom v-if="page.mine" :code="page.code" @kept="emit('turned')" />
        <section v-if="page.mine" aria-labelledby="page-else">
            <h2 id="page-else" class="font-sans text-[14px] font-[650]">The page itself</h2>
            <p>
                <button type="button" class="quiet-link" :aria-expanded="copying" @click="copying = !copying">
                    Copy it for another unit
                </button>
            </p>
            <p>
                <button type="button" class="quiet-link" @click="retire">Retire it</button>
                <span class="text-ink-faint">its issues stay</span>
            </p>
            <p v-if="problem" class="error">{{ problem }}</p>
        </section>
        <NewBriefing
            v-if="copying"
            class="md:col-span-2 lg:col-span-3"
            :from="page.code"
            :known="[
                {
                    code: page.code,
                    name: page.name,
                    unit: page.unit,
                    unitName: page.unitName,
                    span: page.span,
                    audience: 'unit',
                    issue: null,
                    drafted: false,
                    keptAt: '',
                    pieces: 0,
                    mine: true,
                    retired: false,
                },
            ]"
            @close="copying = false"
        />
    </div>
</template>
