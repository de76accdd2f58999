<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';
import type { Field } from './useSet';
import { FORMS, TYPES } from './words';

/** The fields of a set: what each holds, how it is written in the file, what it is, and what is calculated of them. */
const props = defineProps<{
    error: (pointer: string) => string | undefined;
    /** types of fields whose records are there stay */
    fixed: boolean;
    /** what is calculated of the first records, by field; a text that is no figure says why not */
    values: Record<string, { values: (string | null)[]; problem: string }>;
}>();
const fields = defineModel<Field[]>({ required: true });
const key = defineModel<string>('keyField', { required: true });
const unitField = defineModel<string | null>('unitField', { required: true });
const { setApart } = useNumbers();

const plain = computed(() => fields.value.filter(({ type }) => type !== null));
const formsOf = (field: Field) => FORMS[field.type ?? ''];
const at = (field: Field): number => fields.value.indexOf(field);
const problem = (field: Field): string | undefined =>
    ['name', 'type', 'expression', 'meaning', 'column']
        .map((part) => props.error(`/fields/${at(field)}/${part}`))
        .find(Boolean);

function calculate(): void {
    fields.value.push({
        name: '',
        was: null,
        type: null,
        expression: '',
        meaning: '',
        sensitive: false,
        column: null,
        form: '',
        examples: [],
    });
}
function add(): void {
    const place = fields.value.findLastIndex(({ type }) => type !== null) + 1;
    fields.value.splice(place, 0, {
        name: '',
        was: null,
        type: 'text',
        expression: null,
        meaning: '',
        sensitive: false,
        column: '',
        form: '',
        examples: [],
    });
}
function remove(field: Field): void {
    fields.value.splice(at(field), 1);
}
</script>

<template>
    <table class="w-full border-collapse text-left text-[14.5px] max-lg:block">
        <thead class="max-lg:sr-only">
            <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                <th scope="col">Field</th>
                <th scope="col">Holds</th>
                <th scope="col">Column of the file</th>
                <th scope="col">What it is</th>
                <th scope="col" class="text-center">Key</th>
                <th scope="col" class="text-center">Unit</th>
                <th scope="col" class="text-center">Sensitive</th>
                <th><span class="sr-only">Remove</span></th>
            </tr>
        </thead>
        <tbody class="max-lg:block">
            <tr
                v-for="field in fields"
                :key="at(field)"
                class="border-t border-rule-soft align-top max-lg:flex max-lg:flex-wrap max-lg:gap-2 max-lg:py-2 [&>td]:py-[5px] [&>td]:pr-3"
            >
                <td class="max-lg:w-full">
                    <input
                        v-model="field.name"
                        class="field w-[150px] font-semibold"
                        maxlength="64"
                        autocomplete="off"
                        spellcheck="false"
                        :aria-label="`Name of field ${at(field) + 1}`"
                        :aria-invalid="!!error(`/fields/${at(field)}/name`)"
                    />
                    <span v-if="problem(field)" class="error block max-w-[320px] pt-0.5" role="alert">{{
                        problem(field)
                    }}</span>
                    <span
                        v-else-if="field.examples.length > 0"
                        class="block max-w-[190px] truncate pt-0.5 text-[12.5px] text-ink-faint"
                        :title="field.examples.join(', ')"
                        >{{ field.examples.join(', ') }}</span
                    >
                </td>
                <template v-if="field.type !== null">
                    <td>
                        <select
                            v-model="field.type"
                            class="field"
                            :disabled="fixed && field.was !== null"
                            :title="fixed && field.was !== null ? 'It stays while there are records.' : undefined"
                            :aria-label="`What ${field.name || 'the field'} holds`"
                            @change="field.form = ''"
                        >
                            <option v-for="(name, value) in TYPES" :key="value" :value="value">{{ name }}</option>
                        </select>
                        <select
                            v-if="formsOf(field)"
                            v-model="field.form"
                            class="field mt-1 block"
                            :aria-label="`How ${field.name || 'the field'} is written in the file`"
                        >
                            <option v-for="(name, value) in formsOf(field)" :key="value" :value="value">
                                {{ name }}
                            </option>
                        </select>
                    </td>
                    <td>
                        <input
                            class="field w-[140px]"
                            maxlength="200"
                            autocomplete="off"
                            :value="field.column ?? ''"
                            :placeholder="field.name"
                            :aria-label="`Column that holds ${field.name || 'the field'}`"
                            @input="field.column = ($event.target as HTMLInputElement).value"
                        />
                    </td>
                </template>
                <td v-else colspan="2">
                    <input
                        class="field w-full max-w-[340px] font-mono text-[13.5px]"
                        maxlength="2000"
                        autocomplete="off"
                        spellcheck="false"
                        placeholder="days(reported, repaired)"
                        :value="field.expression ?? ''"
                        :aria-label="`What ${field.name || 'the field'} is calculated by`"
                        :aria-invalid="!!error(`/fields/${at(field)}/expression`)"
                        @input="field.expression = ($event.target as HTMLInputElement).value"
                    />
                    <span
                        v-if="values[field.name]?.problem"
                        class="block max-w-[340px] pt-0.5 text-[12.5px] text-amber-text"
                        >{{ values[field.name]!.problem }}</span
                    >
                    <span
                        v-else-if="values[field.name]"
                        class="block max-w-[340px] truncate pt-0.5 text-[12.5px] text-ink-soft"
                        >=
                        {{
                            values[field.name]!.values.map((value) =>
                                value === null ? 'empty' : setApart(value),
                            ).join(' · ')
                        }}</span
                    >
                </td>
                <td class="max-lg:w-full">
                    <input
                        v-model="field.meaning"
                        class="field w-full min-w-[120px]"
                        maxlength="300"
                        autocomplete="off"
                        :aria-label="`What ${field.name || 'the field'} is, in words`"
                    />
                </td>
                <td class="text-center">
                    <input
                        v-if="field.type !== null"
                        v-model="key"
                        type="radio"
                        name="key"
                        :value="field.name"
                        class="mt-2 size-4 accent-brass"
                        :disabled="fixed && field.was === null"
                        :aria-label="`${field.name || 'The field'} tells records apart`"
                    />
                </td>
                <td class="text-center">
                    <input
                        v-if="field.type === 'text'"
                        type="checkbox"
                        class="mt-2 size-4 accent-brass"
                        :checked="unitField === field.name"
                        :aria-label="`${field.name || 'The field'} names the unit`"
                        @change="unitField = ($event.target as HTMLInputElement).checked ? field.name : null"
                    />
                </td>
                <td class="text-center">
                    <input
                        v-if="field.type !== null"
                        v-model="field.sensitive"
                        type="checkbox"
                        class="mt-2 size-4 accent-brass"
                        :aria-label="`${field.name || 'The field'} is sensitive`"
                    />
                </td>
                <td class="text-right">
                    <button
                        type="button"
                        class="pt-1.5 text-[18px] leading-none text-ink-faint hover:text-brass disabled:invisible"
                        :aria-label="`Remove ${field.name || 'the field'}`"
                        :disabled="plain.length === 1 && field.type !== null"
                        @click="remove(field)"
                    >
                        ×
                    </button>
                </td>
            </tr>
        </tbody>
    </table>
    <p v-if="error('/fields')" class="error mt-1" role="alert">{{ error('/fields') }}</p>
    <p v-if="error('/key')" class="error mt-1" role="alert">{{ error('/key') }}</p>
    <p v-if="error('/unitField')" class="error mt-1" role="alert">{{ error('/unitField') }}</p>
    <p class="mt-2 flex flex-wrap gap-x-5 text-[14px]">
        <button type="button" class="quiet-link text-brass" @click="calculate">Calculate another</button>
        <button type="button" class="quiet-link text-brass" @click="add">Another column</button>
        <span class="text-ink-faint">
            Durations by days(a, b) and hours(a, b), ages by days(due, periodEnd), and + − × ÷ as in formulas.</span
        >
    </p>
</template>
