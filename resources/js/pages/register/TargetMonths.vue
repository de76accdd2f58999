<script setup lang="ts">
import type { Definition } from './useDraft';
import { shortMonthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { computed, ref } from 'vue';

/** The targets of the financial year, period by period or for the year as a whole, in each unit. */
defineProps<{ error: (pointer: string) => string | undefined }>();
const draft = defineModel<Definition>({ required: true });

const { units } = useSession();
const chosen = ref('');
const places = computed(() => draft.value.units.filter(({ gathered }) => !gathered).map((place) => place.unit));
const unit = computed(() => (places.value.includes(chosen.value) ? chosen.value : (places.value[0] ?? '')));
const each = ref('');
const band = computed(() => draft.value.polarity === 'band');

const target = (period: string): string => draft.value.targets[unit.value]?.[period] ?? '';
const label = (period: string): string =>
    period.startsWith('FY') ? period : period.includes('W') ? period.slice(5) : shortMonthAndYear(period);

function set(period: string, text: string): void {
    draft.value.targets = {
        ...draft.value.targets,
        [unit.value]: { ...draft.value.targets[unit.value], [period]: text },
    };
}

const isClosed = (period: string): boolean => draft.value.closed[unit.value]?.includes(period) === true;
const leftOut = ref(0);

function setAll(): void {
    const open = draft.value.periods.filter((period) => !isClosed(period));
    open.forEach((period) => set(period, each.value));
    leftOut.value = draft.value.periods.length - open.length;
}

const year = computed({
    get: () => draft.value.yearTargets[unit.value] ?? '',
    set: (text) => (draft.value.yearTargets = { ...draft.value.yearTargets, [unit.value]: text }),
});
const filled = computed(() => draft.value.periods.filter((period) => target(period) !== '').length);
const yearHint = computed(() =>
    draft.value.accumulation === 'sum'
        ? `each ${draft.value.frequency} without a target takes an even share`
        : `each ${draft.value.frequency} without a target takes this figure`,
);

/** Cells copied from a spreadsheet, in a row or in a column, fill from where they are pasted. */
function paste(event: ClipboardEvent, period: string): void {
    const cells = (event.clipboardData?.getData('text') ?? '').trim().split(/[\t\r\n]+/);
    if (cells.length > 1) {
        event.preventDefault();
        const first = draft.value.periods.indexOf(period);
        cells.forEach((cell, index) => {
            const at = draft.value.periods[first + index];
            if (at !== undefined && !isClosed(at)) {
                set(at, cell.trim());
            }
        });
    }
}
</script>

<template>
    <p v-if="draft.periods.length === 0" class="text-[13.5px] text-ink-faint">
        The year's {{ draft.frequency }}s stand here once it is defined.
    </p>
    <p v-else-if="places.length === 0" class="text-[13.5px] text-ink-faint">
        Its targets are those of the units below.
    </p>
    <div v-else class="space-y-2.5">
        <div class="flex flex-wrap items-center gap-2">
            <select v-if="places.length > 1" v-model="chosen" class="field mr-3" aria-label="Unit of the targets">
                <option v-for="code in places" :key="code" :value="code">
                    {{ units.get(code)?.name ?? code }}
                </option>
            </select>
            <label for="each" class="text-ink-soft">the same each {{ draft.frequency }}:</label>
            <input
                id="each"
                v-model="each"
                class="field w-[104px] text-right"
                inputmode="decimal"
                autocomplete="off"
                :placeholder="band ? '2 – 3' : ''"
                @keydown.enter.prevent="setAll"
            />
            <button type="button" class="button button-quiet py-[3px]" :disabled="each === ''" @click="setAll">
                Fill
            </button>
            <template v-if="draft.frequency !== 'year'">
                <label for="year-target" class="ml-2 text-ink-soft">or for the year:</label>
                <input
                    id="year-target"
                    v-model="year"
                    class="field w-[104px] text-right"
                    inputmode="decimal"
                    autocomplete="off"
                    :aria-invalid="!!error(`/yearTargets/${unit}`)"
                    :title="yearHint"
                />
            </template>
        </div>
        <p v-if="leftOut > 0" class="text-[13px] text-ink-faint" role="status">
            {{ leftOut === 1 ? 'One closed' : `${leftOut} closed` }} {{ draft.frequency
            }}{{ leftOut === 1 ? ' is' : 's are' }} left as {{ leftOut === 1 ? 'it is' : 'they are' }}.
        </p>
        <p v-if="error(`/yearTargets/${unit}`)" class="error" role="alert">{{ error(`/yearTargets/${unit}`) }}</p>
        <p v-else-if="year !== '' && filled < draft.periods.length" class="text-[13px] text-ink-faint">
            {{ yearHint }}
        </p>
        <div class="grid max-w-[640px] grid-cols-3 gap-x-3 gap-y-2 sm:grid-cols-6">
            <label v-for="period in draft.periods" :key="period" class="block">
                <span class="block text-[12.5px] text-ink-faint">{{ label(period) }}</span>
                <input
                    class="field w-full px-[6px] text-right"
                    inputmode="decimal"
                    autocomplete="off"
                    :value="target(period)"
                    :readonly="isClosed(period)"
                    :title="isClosed(period) ? 'closed' : undefined"
                    :class="{ 'text-ink-faint': isClosed(period) }"
                    :aria-invalid="!!error(`/targets/${unit}/${period}`)"
                    @input="set(period, ($event.target as HTMLInputElement).value)"
                    @paste="paste($event, period)"
                />
                <span v-if="error(`/targets/${unit}/${period}`)" class="error" role="alert">{{
                    error(`/targets/${unit}/${period}`)
                }}</span>
            </label>
        </div>
    </div>
</template>
