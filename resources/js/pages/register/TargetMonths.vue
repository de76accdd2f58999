<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { shortMonthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { computed, ref } from 'vue';

/** The twelve targets of the year, for each unit where the KPI is measured. */
const props = defineProps<{ months: readonly string[]; error: (pointer: string) => string | undefined }>();
const draft = defineModel<Schemas['KpiDefinition']>({ required: true });

const { units } = useSession();
const chosen = ref('');
const unit = computed(() => (draft.value.units.includes(chosen.value) ? chosen.value : (draft.value.units[0] ?? '')));
const each = ref('');

const target = (month: string): string => draft.value.targets[unit.value]?.[month] ?? '';

function set(month: string, text: string): void {
    draft.value.targets = {
        ...draft.value.targets,
        [unit.value]: { ...draft.value.targets[unit.value], [month]: text },
    };
}

function setAll(): void {
    props.months.forEach((month) => set(month, each.value));
}

/** Twelve cells copied from a spreadsheet, in a row or in a column, fill from where they are pasted. */
function paste(event: ClipboardEvent, month: string): void {
    const cells = (event.clipboardData?.getData('text') ?? '').trim().split(/[\t\r\n]+/);
    if (cells.length > 1) {
        event.preventDefault();
        const first = props.months.indexOf(month);
        cells.forEach((cell, index) => {
            const at = props.months[first + index];
            if (at !== undefined) {
                set(at, cell.trim());
            }
        });
    }
}
</script>

<template>
    <div class="space-y-2.5">
        <div class="flex flex-wrap items-center gap-2">
            <select v-if="draft.units.length > 1" v-model="chosen" class="field mr-3" aria-label="Unit of the targets">
                <option v-for="code in draft.units" :key="code" :value="code">
                    {{ units.get(code)?.name ?? code }}
                </option>
            </select>
            <label for="each" class="text-ink-soft">the same each month:</label>
            <input
                id="each"
                v-model="each"
                class="field w-[92px] text-right"
                inputmode="decimal"
                autocomplete="off"
                @keydown.enter.prevent="setAll"
            />
            <button type="button" class="button button-quiet py-[3px]" :disabled="each === ''" @click="setAll">
                Fill
            </button>
        </div>
        <div class="grid max-w-[620px] grid-cols-3 gap-x-3 gap-y-2 sm:grid-cols-4">
            <label v-for="month in months" :key="month" class="block">
                <span class="block text-[12.5px] text-ink-faint">{{ shortMonthAndYear(month) }}</span>
                <input
                    class="field w-full text-right"
                    inputmode="decimal"
                    autocomplete="off"
                    :value="target(month)"
                    :aria-invalid="!!error(`/targets/${unit}/${month}`)"
                    @input="set(month, ($event.target as HTMLInputElement).value)"
                    @paste="paste($event, month)"
                />
                <span v-if="error(`/targets/${unit}/${month}`)" class="error" role="alert">{{
                    error(`/targets/${unit}/${month}`)
                }}</span>
            </label>
        </div>
    </div>
</template>
