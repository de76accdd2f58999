<script setup lang="ts">
import type { Definition } from './useDraft';
import type { Schemas } from '@/api/client';
import { useSession } from '@/composables/useSession';
import { computed } from 'vue';
import ChoiceRow from '@/components/ChoiceRow.vue';
import FormLine from '@/components/FormLine.vue';
import { LEVELS } from '@/words';

const props = defineProps<{
    error: (pointer: string) => string | undefined;
    register: Schemas['RegisterPage'] | undefined;
}>();
const draft = defineModel<Definition>({ required: true });

const { session } = useSession();
const departments = computed(() =>
    (session.value?.units ?? []).filter(({ kind }) => kind === 'organisation' || kind === 'department'),
);

/** A KPI is measured where it is defined until it is said otherwise. */
function moveTo(code: string): void {
    const only = draft.value.units[0];
    if (draft.value.version === 0 && draft.value.units.length === 1 && only !== undefined) {
        draft.value.units = [{ ...only, unit: code }];
    }
    draft.value.department = code;
}

const typed = computed(() => draft.value.kind !== 'formula');
/** What must be asked before a KPI can be relied on; an open question is no obstacle to saving. */
const questions = computed(() => [
    { text: 'Where do its figures come from?', done: !typed.value || draft.value.source.trim() !== '' },
    { text: 'Can it be measured today?', done: draft.value.dataAvailable },
    {
        text: 'Who enters it?',
        done: !typed.value || draft.value.units.every(({ owner, gathered }) => owner !== null || gathered),
    },
    { text: 'Is its definition agreed?', done: draft.value.definitionAgreed },
]);
const open = computed(() => questions.value.filter(({ done }) => !done).length);
const objectives = computed(() => props.register?.objectives ?? []);
</script>

<template>
    <div class="grid gap-x-[34px] gap-y-6 xl:grid-cols-[minmax(0,1fr)_340px]">
        <div class="max-w-[680px] space-y-[13px]">
            <FormLine label="Name" for="name" :error="error('/name')">
                <input
                    id="name"
                    v-model="draft.name"
                    class="field w-full font-semibold"
                    maxlength="200"
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
                    class="field w-[180px]"
                    maxlength="64"
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
                    maxlength="4000"
                    :aria-invalid="!!error('/purpose')"
                />
            </FormLine>
            <FormLine label="Serves" for="objective" :error="error('/objective')">
                <select
                    id="objective"
                    class="field max-w-full"
                    :value="draft.objective ?? ''"
                    @change="draft.objective = ($event.target as HTMLSelectElement).value || null"
                >
                    <option value="">no objective yet</option>
                    <option v-for="item in objectives" :key="item.code" :value="item.code">{{ item.name }}</option>
                </select>
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
                <datalist id="themes">
                    <option v-for="theme in register?.themes ?? []" :key="theme.name" :value="theme.name" />
                </datalist>
            </FormLine>
            <FormLine label="Level" :error="error('/level')"
                ><ChoiceRow v-model="draft.level" label="Level" :choices="LEVELS"
            /></FormLine>
        </div>
        <aside class="xl:border-l xl:border-rule xl:pl-[26px]">
            <h2 class="text-[19px]">Can it be measured?</h2>
            <p class="mt-1 text-ink-soft">
                {{
                    open === 0
                        ? 'Every question is answered.'
                        : `${open} of ${questions.length} questions are open; the register marks it until they are answered.`
                }}
            </p>
            <ul class="mt-3 space-y-1.5">
                <li v-for="question in questions" :key="question.text" class="flex items-baseline gap-2.5">
                    <span
                        class="w-4 text-center"
                        :class="question.done ? 'text-green' : 'text-amber-text'"
                        aria-hidden="true"
                        >{{ question.done ? '✓' : '?' }}</span
                    >
                    <span :class="question.done ? 'text-ink-soft' : 'font-semibold'"
                        >{{ question.text
                        }}<span class="sr-only">{{ question.done ? ' answered' : ' open' }}</span></span
                    >
                </li>
            </ul>
            <div class="mt-4 space-y-3">
                <label v-if="typed" class="block">
                    <span class="block text-ink-soft">Source</span>
                    <input
                        v-model="draft.source"
                        class="field w-full"
                        maxlength="200"
                        autocomplete="off"
                        placeholder="A system, a register, a person"
                        :aria-invalid="!!error('/source')"
                    />
                    <span v-if="error('/source')" class="error" role="alert">{{ error('/source') }}</span>
                </label>
                <label class="flex items-center gap-2.5"
                    ><input v-model="draft.dataAvailable" type="checkbox" class="size-4 accent-brass" /> The data is
                    available today</label
                >
                <label class="flex items-center gap-2.5"
                    ><input v-model="draft.definitionAgreed" type="checkbox" class="size-4 accent-brass" /> The
                    definition is agreed</label
                >
                <p v-if="typed" class="text-[13.5px] text-ink-faint">
                    Who enters it is said under <i>How it is counted</i>, or unit by unit under <i>Where</i>.
                </p>
            </div>
        </aside>
    </div>
</template>
