<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { monthAndYear } from '@/composables/usePeriods';
import MatrixHead from '@/pages/review/matrix/MatrixHead.vue';
import MatrixRow from '@/pages/review/matrix/MatrixRow.vue';
import { computed, ref } from 'vue';
import { choiceOf, usePage, type PieceProps } from '../usePage';

/** Units, KPIs and months crossed, as in the matrix. */
const props = defineProps<PieceProps>();
const page = usePage();
const { unitOf } = useNumbers();

const matrix = computed(() => props.answer.matrix);
const overMonths = computed(() => choiceOf(props.piece, 'crossing', 'units-kpis') !== 'units-kpis');
const heads = computed(() => (matrix.value?.columns ?? []).map(({ key, name }) => (overMonths.value ? monthAndYear(key) : name))); // prettier-ignore
const measure = computed(() => {
    const all = new Set((matrix.value?.rows ?? []).map(({ measure: of }) => of).filter(Boolean));
    return all.size === 1 ? unitOf([...all][0] ?? '') : '';
});
const focus = ref<[number, number]>([0, 0]);
/** Only cells of the colour that was chosen stand out. */
const cells = computed(() =>
    (matrix.value?.cells ?? []).map((row) =>
        row.map((cell) => (page.colour.value === '' || cell?.status === page.colour.value ? cell : null)),
    ),
);
function move(event: KeyboardEvent): void {
    const [down, across] = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] }[event.key] ?? [0, 0]; // prettier-ignore
    if (down === 0 && across === 0) {
        return;
    }
    event.preventDefault();
    const [row, column] = focus.value;
    focus.value = [
        Math.max(0, Math.min(cells.value.length - 1, row + (down ?? 0))),
        Math.max(0, Math.min(heads.value.length - 1, column + (across ?? 0))),
    ];
    const table = event.currentTarget as HTMLElement;
    requestAnimationFrame(() => table.querySelector<HTMLElement>('[role=gridcell][tabindex="0"]')?.focus());
}
</script>

<template>
    <div v-if="matrix && matrix.rows.length > 0" class="mt-1 overflow-x-auto">
        <table
            role="grid"
            class="w-full border-collapse text-[14px] [&:not(:focus-within)_[role=gridcell]]:outline-none"
            :aria-label="piece.title || 'Matrix'"
            @keydown="move"
        >
            <MatrixHead
                :columns="matrix.columns"
                :corner="overMonths ? 'by month' : 'by KPI'"
                :measure="measure"
                :chosen="page.period.value"
                :months="overMonths ? matrix.columns.length : null"
                :figures="false"
            />
            <tbody>
                <MatrixRow
                    v-for="(row, index) in matrix.rows"
                    :key="row.key"
                    :name="row.name"
                    :measure="row.measure"
                    :cells="cells[index] ?? []"
                    :heads="heads"
                    :focused="focus[0] === index ? focus[1] : null"
                    :opened="false"
                    :narrow="matrix.columns.length > 12"
                    :figures="false"
                    :together="undefined"
                    @choose="focus = [index, $event]"
                    @reach="focus = [index, $event]"
                />
            </tbody>
        </table>
    </div>
    <p v-else class="py-4 text-ink-soft">There is nothing to cross here.</p>
</template>
