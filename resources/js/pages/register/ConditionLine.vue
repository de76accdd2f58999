<script setup lang="ts">
import { computed } from 'vue';
import {
    operatorsFor,
    OPERATORS,
    readComparison,
    readCondition,
    typeOf,
    writeComparison,
    writeCondition,
    type Comparison,
    type Members,
    type SourceField,
} from './counting';
import SourceChoice from './SourceChoice.vue';

/** A condition as a sentence: one comparison, or several of which one must hold. */
const props = defineProps<{ fields: readonly SourceField[]; error: string | undefined; removable: boolean }>();
const emit = defineEmits<{ remove: [] }>();
const condition = defineModel<Members>({ required: true });

const comparisons = computed(() => readCondition(condition.value).map(readComparison));
const type = (of: string) => typeOf(of, props.fields);
const examples = (of: string): string[] => props.fields.find(({ name }) => name === of)?.examples ?? [];

function change(at: number, part: Partial<Comparison>): void {
    const all = readCondition(condition.value);
    const now = { ...readComparison(all[at] ?? {}), ...part };
    // What is compared otherwise than its kind can be begins anew.
    if (!operatorsFor(type(now.of)).includes(now.operator)) {
        now.operator = operatorsFor(type(now.of))[0] ?? 'is';
        now.one = type(now.of) === 'yesno' ? 'yes' : '';
    }
    if (type(now.of) === 'yesno' && now.one !== 'no') {
        now.one = 'yes';
    }
    condition.value = writeCondition(
        all.map((each, index) => (index === at ? writeComparison(now, type(now.of)) : each)),
    );
}
function orElse(): void {
    const all = readCondition(condition.value);
    condition.value = writeCondition([...all, { ...(all.at(-1) ?? {}) }]);
}
function remove(at: number): void {
    const rest = readCondition(condition.value).filter((_, index) => index !== at);
    if (rest.length === 0) {
        emit('remove');
    } else {
        condition.value = writeCondition(rest);
    }
}
const inputType = (of: string): string => (type(of) === 'date' ? 'date' : 'text');
</script>

<template>
    <div>
        <div v-for="(each, at) in comparisons" :key="at" class="mb-1.5 flex flex-wrap items-center gap-1.5">
            <span v-if="at > 0" class="text-[14px] text-ink-faint">or</span>
            <SourceChoice
                :model-value="each.of"
                :fields="fields"
                label="What is compared"
                :invalid="!!error"
                @update:model-value="change(at, { of: $event })"
            />
            <select
                class="field"
                aria-label="How it is compared"
                :value="each.operator"
                @change="change(at, { operator: ($event.target as HTMLSelectElement).value as Comparison['operator'] })"
            >
                <option v-for="operator in operatorsFor(type(each.of))" :key="operator" :value="operator">
                    {{ OPERATORS[operator] }}
                </option>
            </select>
            <template v-if="each.operator !== 'empty' && each.operator !== 'filled'">
                <select
                    v-if="type(each.of) === 'yesno'"
                    class="field"
                    aria-label="Yes or no"
                    :value="each.one"
                    @change="change(at, { one: ($event.target as HTMLSelectElement).value })"
                >
                    <option value="yes">yes</option>
                    <option value="no">no</option>
                </select>
                <template v-else>
                    <input
                        class="field"
                        :class="type(each.of) === 'number' ? 'w-[84px] text-right' : 'w-[170px]'"
                        :type="inputType(each.of)"
                        autocomplete="off"
                        :inputmode="type(each.of) === 'number' ? 'decimal' : undefined"
                        :placeholder="
                            each.operator === 'oneOf' || each.operator === 'noneOf'
                                ? examples(each.of).slice(0, 2).join(', ')
                                : type(each.of) === 'time'
                                  ? '2026-08-31'
                                  : examples(each.of)[0]
                        "
                        aria-label="With what it is compared"
                        :aria-invalid="!!error"
                        :value="each.one"
                        @input="change(at, { one: ($event.target as HTMLInputElement).value })"
                    />
                    <template v-if="each.operator === 'between'">
                        and
                        <input
                            class="field"
                            :class="type(each.of) === 'number' ? 'w-[84px] text-right' : 'w-[170px]'"
                            :type="inputType(each.of)"
                            autocomplete="off"
                            aria-label="The other end"
                            :aria-invalid="!!error"
                            :value="each.other"
                            @input="change(at, { other: ($event.target as HTMLInputElement).value })"
                        />
                    </template>
                </template>
            </template>
            <button
                v-if="removable || comparisons.length > 1"
                type="button"
                class="px-1 text-[18px] leading-none text-ink-faint hover:text-brass"
                aria-label="Take this comparison away"
                @click="remove(at)"
            >
                ×
            </button>
            <button
                v-if="at === comparisons.length - 1 && each.of !== ''"
                type="button"
                class="quiet-link text-[13.5px] text-ink-faint"
                @click="orElse"
            >
                or
            </button>
        </div>
        <span v-if="error" class="error mb-1 block" role="alert">{{ error }}</span>
    </div>
</template>
