<script setup lang="ts">
import { STATUSES } from '@/words';
import type { Schemas, Status } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';

/** A row of a matrix by itself: moving from cell to cell draws two rows anew, however many there are. */
const props = defineProps<{
    name: string;
    measure: string;
    cells: (Schemas['MatrixCell'] | null)[];
    /** what the columns are called aloud */
    heads: string[];
    /** the column of the cell in focus, when it is in this row */
    focused: number | null;
    opened: boolean;
    /** many columns, with no room for more than a small mark */
    narrow: boolean;
    figures: boolean;
    /** the roll-up of the row, where the matrix has one */
    together: Status | null | undefined;
}>();
defineEmits<{ choose: [column: number]; reach: [column: number] }>();

const { figure } = useNumbers();

const said = (cell: Schemas['MatrixCell'] | null, column: number): string =>
    `${props.name}, ${props.heads[column] ?? ''}: ` +
    (cell ? `${STATUSES[cell.status]}${cell.actual ? `, ${figure(cell.actual)}` : ''}` : 'not measured');
</script>

<template>
    <tr role="row" class="relative isolate">
        <th
            role="rowheader"
            scope="row"
            class="sticky left-0 z-10 truncate border-t border-rule-soft bg-paper py-[5px] pr-4 text-left font-normal print:bg-transparent"
            :title="name"
        >
            {{ name }}
            <span v-if="measure && figures" class="text-[12.5px] text-ink-faint">{{ measure }}</span>
        </th>
        <!-- Few elements a cell: a matrix has up to thousands, and all of them change together. -->
        <td
            v-for="(cell, column) in cells"
            :key="column"
            role="gridcell"
            class="h-[32px] cursor-pointer border-t border-rule-soft -outline-offset-3 hover:bg-brass-tint"
            :class="[
                focused === column ? 'outline-2 outline-brass print:outline-none' : 'outline-none',
                figures
                    ? 'pr-3 text-right text-[13.5px] whitespace-nowrap [&>svg]:ml-1.5'
                    : 'p-0 text-center leading-none',
            ]"
            :tabindex="focused === column ? 0 : -1"
            :aria-label="said(cell, column)"
            :aria-selected="opened && focused === column"
            @click="$emit('choose', column)"
            @focus="$emit('reach', column)"
        >
            <!-- The mark stands behind its figure, so that it is not taken for the one of the next column. -->
            <template v-if="cell"
                >{{ figures && cell.actual ? figure(cell.actual) : ''
                }}<Needle :status="cell.status" :called="cell.called" :size="narrow || figures ? 's' : 'm'" decorative
            /></template>
        </td>
        <td
            v-if="together !== undefined"
            role="gridcell"
            class="border-t border-l border-rule-soft border-l-rule text-center"
        >
            <Needle v-if="together" :status="together" size="m" />
        </td>
    </tr>
</template>
