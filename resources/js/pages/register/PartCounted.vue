<script setup lang="ts">
import type { Definition } from './useDraft';
import type { Schemas } from '@/api/client';
import { computed } from 'vue';
import ChoiceRow from './ChoiceRow.vue';
import FormLine from './FormLine.vue';
import { GATHERED_BY } from './words';

defineProps<{ error: (pointer: string) => string | undefined; people: readonly Schemas['Person'][] }>();
const draft = defineModel<Definition>({ required: true });

const LARGE = { plain: 'in full', scaled: 'in k, m and bn' } as const;
const large = computed<keyof typeof LARGE>({
    get: () => (draft.value.scaled ? 'scaled' : 'plain'),
    set: (choice) => (draft.value.scaled = choice === 'scaled'),
});

const MEANING = {
    sum: 'A quarter is the sum of its months: for counts, volumes and money.',
    mean: 'A quarter is the mean of its months: for rates, levels and percentages.',
    latest: 'A quarter is its latest month: for stocks, balances and registers.',
};
</script>

<template>
    <div class="max-w-[680px] space-y-[13px]">
        <FormLine
            label="Unit of measure"
            for="measure"
            :error="error('/measure')"
            hint="As people write it: Ml a day, %, £, incidents."
        >
            <input
                id="measure"
                v-model="draft.measure"
                class="field w-[180px]"
                maxlength="24"
                autocomplete="off"
                :aria-invalid="!!error('/measure')"
            />
        </FormLine>
        <FormLine
            label="Decimals shown"
            for="decimals"
            :error="error('/decimals')"
            hint="Figures are kept and judged exactly as entered."
        >
            <input
                id="decimals"
                v-model.number="draft.decimals"
                type="number"
                min="0"
                max="8"
                class="field w-[74px] text-right"
                :aria-invalid="!!error('/decimals')"
            />
        </FormLine>
        <FormLine label="Large figures" :error="error('/scaled')"
            ><ChoiceRow v-model="large" label="Large figures" :choices="LARGE"
        /></FormLine>
        <FormLine label="Over time" :error="error('/accumulation')" :hint="MEANING[draft.accumulation]">
            <ChoiceRow v-model="draft.accumulation" label="Over time" :choices="GATHERED_BY" />
        </FormLine>
        <FormLine label="Entered by" for="owner" :error="error('/owner')">
            <select
                id="owner"
                class="field"
                :value="draft.owner ?? ''"
                @change="draft.owner = Number(($event.target as HTMLSelectElement).value) || null"
            >
                <option value="">nobody in particular</option>
                <option v-for="person in people" :key="person.id" :value="person.id">{{ person.name }}</option>
            </select>
        </FormLine>
    </div>
</template>
