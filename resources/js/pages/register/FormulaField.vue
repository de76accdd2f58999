<script setup lang="ts">
import type { Definition } from './useDraft';
import { api, read, type Schemas } from '@/api/client';
import { useLatest } from '@/composables/useLatest';
import { useNumbers } from '@/composables/useNumbers';
import { shortMonth } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { useDebounceFn } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';

/**
 * A formula of figures or of targets, with completion of KPI codes, checked while it is written and tried on the latest
 * periods.
 */
const props = withDefaults(
    defineProps<{
        draft: Definition;
        kpis: readonly Schemas['RegisterLine'][];
        invalid: boolean;
        id?: string;
        isTarget?: boolean;
    }>(),
    { id: 'formula', isTarget: false },
);
const formula = defineModel<string>({ required: true });

const { period } = useView();
const { atMost } = useNumbers();
const field = useTemplateRef<HTMLTextAreaElement>('field');
const checked = ref<Schemas['FormulaCheck'] | null>(null);

const ask = useLatest<{ text: string; answer: Schemas['FormulaCheck'] | null }>(
    // Its marks count signs: on another text they would stand in the wrong places.
    ({ text, answer }) => text === formula.value && (checked.value = answer),
    () => (checked.value = null),
);
const check = useDebounceFn(() => {
    const text = formula.value;
    const unit = props.draft.units[0]?.unit;
    return ask(async () => {
        if (text.trim() === '' || unit === undefined) {
            return { text, answer: null };
        }
        const { code, frequency, accumulation, decimals } = props.draft;
        const answer = await read(
            api.POST('/api/formula', {
                params: { query: { period: period.value } },
                body: { code, formula: text, isTarget: props.isTarget, unit, frequency, accumulation, decimals },
            }),
        );
        return { text, answer };
    });
}, 220);
watch(
    () => [
        formula.value,
        props.draft.units[0]?.unit,
        props.draft.frequency,
        props.draft.accumulation,
        props.draft.decimals,
    ],
    check,
    { immediate: true },
);

// --- completion ---------------------------------------------------------------------------------------------------

const caret = ref(0);
const chosen = ref(0);
const dismissed = ref(false);
const FUNCTIONS = ['min', 'max', 'abs', 'sum', 'avg', 'orzero', 'below', 'prior', 'target'];

/** The word before the caret, and where it begins. */
const word = computed(() => /"?([A-Za-z][A-Za-z0-9_.-]*)$/.exec(formula.value.slice(0, caret.value)));
const offers = computed(() => {
    const typed = word.value?.[1]?.toLowerCase() ?? '';
    if (typed === '' || dismissed.value) {
        return [];
    }
    return (
        props.kpis
            // A target may follow last year's figures of its own KPI.
            .filter(({ code, kind }) => (props.isTarget || code !== props.draft.code) && kind !== 'judged')
            .filter(
                ({ code, name }) =>
                    code.toLowerCase().startsWith(typed) ||
                    name
                        .toLowerCase()
                        .split(' ')
                        .some((part) => part.startsWith(typed)),
            )
            .filter(({ code }) => code !== word.value?.[1])
            .sort(
                (one, other) =>
                    Number(other.code.toLowerCase().startsWith(typed)) -
                    Number(one.code.toLowerCase().startsWith(typed)),
            )
            .slice(0, 6)
    );
});
watch(offers, () => (chosen.value = 0));

/** A code that is no plain word stands in double quotes. */
const quoted = (code: string): string =>
    /^[A-Za-z][A-Za-z0-9_]*$/.test(code) && !FUNCTIONS.includes(code) ? code : `"${code}"`;

async function complete(code: string): Promise<void> {
    const found = word.value;
    if (found === null) {
        return;
    }
    const before = formula.value.slice(0, caret.value - found[0].length);
    const after = formula.value.slice(caret.value).replace(/^"/, '');
    formula.value = before + quoted(code) + after;
    const at = before.length + quoted(code).length;
    await nextTick();
    field.value?.setSelectionRange(at, at);
    field.value?.focus();
    caret.value = at;
    dismissed.value = true;
}

function onKey(event: KeyboardEvent): void {
    if (offers.value.length === 0) {
        return;
    }
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
        event.preventDefault();
        chosen.value = (chosen.value + step + offers.value.length) % offers.value.length;
    } else if (event.key === 'Enter' || event.key === 'Tab') {
        event.preventDefault();
        void complete(offers.value[chosen.value]?.code ?? '');
    } else if (event.key === 'Escape') {
        event.preventDefault();
        dismissed.value = true;
    }
}

function follow(event: Event): void {
    caret.value = (event.target as HTMLTextAreaElement).selectionStart;
}

function onInput(event: Event): void {
    dismissed.value = false;
    follow(event);
}

/** The text around the place at fault, so that one sees it without counting. */
const place = computed(() => {
    const at = checked.value?.place ?? null;
    return at === null
        ? null
        : {
              before: formula.value.slice(0, at - 1),
              at: formula.value.slice(at - 1, at) || ' ',
              after: formula.value.slice(at),
          };
});
</script>

<template>
    <div class="relative max-w-[520px]">
        <textarea
            :id="id"
            ref="field"
            v-model="formula"
            class="field block w-full font-mono text-[14px]"
            rows="2"
            maxlength="2000"
            spellcheck="false"
            autocomplete="off"
            role="combobox"
            aria-autocomplete="list"
            :aria-controls="`${id}-offers`"
            :aria-expanded="offers.length > 0"
            :aria-activedescendant="offers.length > 0 ? `${id}-offer-${chosen}` : undefined"
            :aria-invalid="invalid || (checked?.problem ?? '') !== ''"
            :aria-describedby="`${id}-check`"
            @input="onInput"
            @click="follow"
            @keyup="follow"
            @keydown="onKey"
        />
        <ul
            v-if="offers.length > 0"
            :id="`${id}-offers`"
            role="listbox"
            aria-label="KPIs"
            class="absolute z-20 mt-1 w-full border border-edge bg-sheet py-1"
        >
            <li
                v-for="(kpi, index) in offers"
                :id="`${id}-offer-${index}`"
                :key="kpi.code"
                role="option"
                :aria-selected="index === chosen"
                class="flex cursor-pointer gap-3 px-3 py-1"
                :class="{ 'bg-brass-tint': index === chosen }"
                @mousedown.prevent="complete(kpi.code)"
            >
                <b class="font-mono text-[13.5px]">{{ kpi.code }}</b><span class="truncate text-ink-soft">{{
                    kpi.name
                }}</span>
            </li>
        </ul>
        <div :id="`${id}-check`" class="mt-1.5 text-[13.5px]" role="status">
            <template v-if="checked?.problem">
                <code v-if="place" class="block overflow-x-auto font-mono whitespace-pre"
                    >{{ place.before }}<mark class="bg-red-zone text-red-text">{{ place.at }}</mark
                    >{{ place.after }}</code
                >
                <span class="error">{{ checked.problem }}</span>
            </template>
            <template v-else-if="checked">
                <span class="text-ink-soft">It gives</span>
                <table class="mt-0.5 w-full table-fixed text-right">
                    <thead>
                        <tr class="text-[12.5px] text-ink-faint">
                            <th v-for="each in checked.values" :key="each.period" class="font-medium">
                                {{
                                    each.period.length === 7 && !each.period.startsWith('FY')
                                        ? shortMonth(each.period)
                                        : each.period
                                }}
                            </th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr>
                            <td
                                v-for="each in checked.values"
                                :key="each.period"
                                :title="each.reason"
                                :class="each.digits === null ? 'text-ink-faint' : 'font-semibold'"
                            >
                                {{ each.digits === null ? 'none' : atMost(Number(each.digits), draft.decimals) }}
                            </td>
                        </tr>
                    </tbody>
                </table>
            </template>
            <span v-else class="text-ink-faint"
                >Arithmetic over KPI codes: + − × as *, ÷ as /, brackets, min, max, abs, sum, avg, orzero(X),
                {{
                    isTarget ? 'below(X), prior(X) for X a year before, target(X) for the target of X.' : 'below(X).'
                }}</span
            >
        </div>
    </div>
</template>
