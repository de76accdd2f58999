<script setup lang="ts">
import CaseLane from '@/pages/review/behind/CaseLane.vue';
import { casesScale, goalOf } from '@/pages/review/behind/cases';
import { computed } from 'vue';
import { usePage, type PieceProps } from '../usePage';

/** The records behind a figure as cases over their values. */
const props = defineProps<PieceProps>();
const page = usePage();
const cases = computed(() => props.answer.cases);
const goal = computed(() => (cases.value?.goal == null ? null : goalOf(cases.value.goal)));
const words = (text: string): string => text.replaceAll('_', ' ');
const rows = computed(() => cases.value?.rows ?? []);
</script>

<template>
    <template v-if="cases">
        <CaseLane
            v-for="row in rows"
            :key="row.name ?? ''"
            :row="row"
            :ends="casesScale(piece.of === 'steps' ? [row] : rows, goal)"
            :goal="row.goal ? goal : null"
            :good-below="cases.atMost"
            :measure="cases.measure"
            :title="
                row.name === null ? (piece.of === '' ? `All ${cases.noun}` : 'Nothing stands there') : words(row.name)
            "
            :tall="rows.length === 1"
            :class="{
                'opacity-35':
                    page.part.value !== '' &&
                    rows.some(({ name }) => name === page.part.value) &&
                    row.name !== page.part.value,
            }"
        />
        <p v-if="rows.length === 0" class="py-4 text-ink-soft">
            These {{ cases.noun }} have no value by which they could be laid out.
        </p>
        <p v-else class="mt-1 text-[12.5px] text-ink-faint">
            Each dot is one of the {{ cases.noun }}, over its {{ words(cases.of)
            }}<template v-if="cases.measure"> in {{ cases.measure }}</template
            >.
        </p>
    </template>
</template>
