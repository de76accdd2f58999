<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { computed } from 'vue';
import PieceFrame from './PieceFrame.vue';

/** The bands of a page from top to bottom; rules between them, and no boxes. */
const props = defineProps<{
    bands: readonly (readonly Schemas['Piece'][])[];
    answers: ReadonlyMap<string, Schemas['PieceAnswer']>;
}>();
/** A text without a title opens the page; nothing stands between it and what follows. */
const isLead = (band: readonly Schemas['Piece'][]): boolean => band.length === 1 && band[0]?.kind === 'commentary' && band[0].title === ''; // prettier-ignore
/** Rows may go on over the page; a drawing may not. */
const ROWS = ['table', 'exceptions', 'actions', 'cases', 'drivers'];
const isOfRows = (band: readonly Schemas['Piece'][]): boolean => band.some(({ kind }) => ROWS.includes(kind));
const last = computed(() => props.bands.length - 1);
</script>

<template>
    <div
        v-for="(band, at) in bands"
        :key="band.map(({ id }) => id).join()"
        class="band grid grid-cols-12 gap-x-6 py-2.5"
        :class="{
            'border-b border-rule': at < last && !isLead(band),
            'break-inside-avoid': !isOfRows(band),
            'of-rows': isOfRows(band),
        }"
    >
        <PieceFrame
            v-for="piece in band"
            :key="piece.id"
            class="col-span-12 max-md:py-1.5"
            :class="`span-${piece.width}`"
            :piece="piece"
            :answer="answers.get(piece.id) ?? null"
        />
    </div>
</template>
