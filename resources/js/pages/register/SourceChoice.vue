<script setup lang="ts">
import { computed, ref } from 'vue';
import { fieldWords, type SourceField } from './counting';

/** A field, a calculated one, or an expression of one's own. */
const props = defineProps<{ fields: readonly SourceField[]; label: string; invalid?: boolean; numbers?: boolean }>();
const chosen = defineModel<string>({ required: true });
const OWN = '\u0000';

const offered = computed(() => props.fields.filter(({ type }) => !props.numbers || type === null || type === 'number'));
const isKnown = computed(() => chosen.value === '' || offered.value.some(({ name }) => name === chosen.value));
const writing = ref(!isKnown.value);
const select = computed({
    get: () => (writing.value || !isKnown.value ? OWN : chosen.value),
    set: (value: string) => {
        writing.value = value === OWN;
        chosen.value = value === OWN ? '' : value;
    },
});
</script>

<template>
    <span class="inline-flex max-w-full flex-wrap gap-1.5">
        <select v-model="select" class="field max-w-full" :aria-label="label" :aria-invalid="!!invalid">
            <option value="" disabled>choose</option>
            <option v-for="field in offered" :key="field.name" :value="field.name" :title="field.meaning">
                {{ fieldWords(field) }}
            </option>
            <option :value="OWN">an expression …</option>
        </select>
        <input
            v-if="writing || !isKnown"
            v-model.lazy="chosen"
            class="field w-[230px] font-mono text-[13.5px]"
            maxlength="2000"
            autocomplete="off"
            spellcheck="false"
            placeholder="days(reported, repaired)"
            :aria-label="`${label}: the expression`"
            :aria-invalid="!!invalid"
        />
    </span>
</template>
