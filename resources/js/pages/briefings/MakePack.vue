<script setup lang="ts">
import { ApiError, type Schemas } from '@/api/client';
import { useEscape } from '@/composables/useEscape';
import { monthAndYear } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { computed, ref } from 'vue';
import { save } from './files';

/** Several pages as one PDF, with a first page, contents and page numbers. */
const props = defineProps<{ briefings: readonly Schemas['BriefingLine'][] }>();
const emit = defineEmits<{ close: [] }>();
const { unit, period, span } = useView();
useEscape(true, () => emit('close'));

const title = ref(`Month-end pack, ${monthAndYear(period.value)}`);
const paper = ref<'a4' | 'a3'>('a4');
const offered = computed(() => [
    ...props.briefings.map(({ code, name, unitName }) => ({ key: code, name, of: unitName })),
    { key: '@scorecard', name: 'Scorecard', of: unit.value.name },
    { key: '@exceptions', name: 'Exceptions', of: unit.value.name },
]);
const chosen = ref<string[]>(offered.value.map(({ key }) => key).slice(0, 2).concat(['@scorecard', '@exceptions']).filter((key, at, all) => all.indexOf(key) === at)); // prettier-ignore
const working = ref(false);
const problem = ref('');
async function make(): Promise<void> {
    [working.value, problem.value] = [true, ''];
    try {
        await save('/api/briefing-pack', { period: period.value, span: span.value, unit: unit.value.code, title: title.value, paper: paper.value, parts: offered.value.map(({ key }) => key).filter((key) => chosen.value.includes(key)).join(',') }, `${title.value}.pdf`); // prettier-ignore
    } catch (error) {
        problem.value = error instanceof ApiError ? error.message : 'It could not be made.';
    } finally {
        working.value = false;
    }
}
</script>

<template>
    <form class="mt-3 mb-4 max-w-3xl border-l-2 border-brass pl-4" @submit.prevent="make">
        <label class="block text-ink-soft"
            >What stands on the first page<input
                v-model="title"
                class="field mt-1 block w-full text-ink"
                maxlength="120"
        /></label>
        <fieldset class="mt-3">
            <legend class="text-[13.5px] text-ink-soft">What is in it, in this order</legend>
            <label v-for="each in offered" :key="each.key" class="flex items-baseline gap-2 py-[2px]"
                ><input v-model="chosen" type="checkbox" :value="each.key" class="accent-brass" />{{ each.name
                }}<span class="text-ink-soft">{{ each.of }}</span></label
            >
        </fieldset>
        <p class="mt-3 flex flex-wrap items-center gap-3">
            <button type="submit" class="button" :disabled="working || chosen.length === 0">
                {{ working ? 'It is being laid out …' : 'Make the PDF' }}
            </button>
            <select v-model="paper" class="field" aria-label="Paper">
                <option value="a4">A4</option>
                <option value="a3">A3</option>
            </select>
            <button type="button" class="button button-quiet" @click="emit('close')">Leave it</button>
        </p>
        <p v-if="problem" class="error mt-2" role="alert">{{ problem }}</p>
    </form>
</template>
