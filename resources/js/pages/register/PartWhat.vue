<script setup lang="ts">
import type { Definition } from './useDraft';
import { useSession } from '@/composables/useSession';
import { computed } from 'vue';
import ChoiceRow from './ChoiceRow.vue';
import FormLine from './FormLine.vue';
import { LEVELS } from './words';

defineProps<{ error: (pointer: string) => string | undefined; themes: readonly string[] }>();
const draft = defineModel<Definition>({ required: true });

const { session } = useSession();
const departments = computed(() =>
    (session.value?.units ?? []).filter(({ kind }) => kind === 'organisation' || kind === 'department'),
);

/** A KPI is measured where it is defined until it is said otherwise. */
function moveTo(code: string): void {
    draft.value.units = draft.value.version === 0 ? [code] : draft.value.units;
    draft.value.department = code;
}
</script>

<template>
    <div class="max-w-[680px] space-y-[13px]">
        <FormLine label="Name" for="name" :error="error('/name')">
            <input
                id="name"
                v-model="draft.name"
                class="field w-full font-semibold"
                maxlength="120"
                autocomplete="off"
                :aria-invalid="!!error('/name')"
            />
        </FormLine>
        <FormLine
            label="Code"
            for="code"
            :error="error('/code')"
            hint="Short and lasting: formulas and imports use it."
        >
            <input
                id="code"
                v-model="draft.code"
                class="field w-[180px] uppercase"
                maxlength="16"
                autocomplete="off"
                spellcheck="false"
                :aria-invalid="!!error('/code')"
            />
        </FormLine>
        <FormLine
            label="What it tells"
            for="purpose"
            :error="error('/purpose')"
            hint="One sentence that a new manager would understand."
        >
            <textarea
                id="purpose"
                v-model="draft.purpose"
                class="field block w-full"
                rows="2"
                maxlength="500"
                :aria-invalid="!!error('/purpose')"
            />
        </FormLine>
        <FormLine label="Department" for="department" :error="error('/department')">
            <select
                id="department"
                class="field"
                :value="draft.department"
                :aria-invalid="!!error('/department')"
                @change="moveTo(($event.target as HTMLSelectElement).value)"
            >
                <option v-for="unit in departments" :key="unit.code" :value="unit.code">{{ unit.name }}</option>
            </select>
        </FormLine>
        <FormLine label="Theme" for="theme" :error="error('/theme')" hint="Scorecards group by it.">
            <input
                id="theme"
                class="field w-[260px]"
                list="themes"
                maxlength="80"
                autocomplete="off"
                :value="draft.theme ?? ''"
                @input="draft.theme = ($event.target as HTMLInputElement).value || null"
            />
            <datalist id="themes"><option v-for="theme in themes" :key="theme" :value="theme" /></datalist>
        </FormLine>
        <FormLine label="Level" :error="error('/level')"
            ><ChoiceRow v-model="draft.level" label="Level" :choices="LEVELS"
        /></FormLine>
    </div>
</template>
