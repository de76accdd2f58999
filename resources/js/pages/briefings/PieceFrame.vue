<script setup lang="ts">
import type { Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';
import { shortPeriodWords } from '@/composables/usePeriods';

import { SPAN_PHRASES } from '@/words';
import { computed, defineAsyncComponent, type Component } from 'vue';
import PieceKpi from './PieceKpi.vue';
import { usePage } from './usePage';
import type { Kind } from './words';

import { useUnitName } from './useUnitName';

/** A piece of a page: what it is called, of where and when it is, and what it shows. Only the kinds that a page has are loaded. */
const props = defineProps<{ piece: Schemas['Piece']; answer: Schemas['PieceAnswer'] | null }>();
const page = usePage();
const unitName = useUnitName();
const { unitOf } = useNumbers();

const DRAWINGS: Record<Kind, Component> = {
    figure: defineAsyncComponent(() => import('./pieces/FigurePiece.vue')),
    courses: defineAsyncComponent(() => import('./pieces/CoursesPiece.vue')),
    scale: defineAsyncComponent(() => import('./pieces/ScalePiece.vue')),
    line: defineAsyncComponent(() => import('./pieces/LinePiece.vue')),
    table: defineAsyncComponent(() => import('./pieces/TablePiece.vue')),
    matrix: defineAsyncComponent(() => import('./pieces/MatrixPiece.vue')),
    compare: defineAsyncComponent(() => import('./pieces/ComparePiece.vue')),
    split: defineAsyncComponent(() => import('./pieces/SplitPiece.vue')),
    map: defineAsyncComponent(() => import('./pieces/MapPiece.vue')),
    exceptions: defineAsyncComponent(() => import('./pieces/ExceptionsPiece.vue')),
    actions: defineAsyncComponent(() => import('./pieces/ActionsPiece.vue')),
    cases: defineAsyncComponent(() => import('./pieces/CasesPiece.vue')),
    drivers: defineAsyncComponent(() => import('./pieces/DriversPiece.vue')),
    commentary: defineAsyncComponent(() => import('./pieces/CommentaryPiece.vue')),
    text: defineAsyncComponent(() => import('./pieces/TextPiece.vue')),
};
const drawing = computed(() => DRAWINGS[props.piece.kind]);

const row = computed(() => (props.piece.kind === 'figure' || props.piece.kind === 'scale' ? (props.answer?.rows?.[0] ?? null) : null)); // prettier-ignore
const hasNeedle = computed(() => row.value !== null && (props.piece.parts?.includes('needle') ?? true));
const NAMES: Partial<Record<Kind, string>> = {
    exceptions: 'What deserves attention',
    actions: 'What is being done',
    drivers: 'What it depends on',
    table: 'KPIs',
    matrix: 'Status at a glance',
};
/** What it is called by itself, where nobody gave it a title. */
const own = computed(() => {
    const { answer, piece } = props;
    const first = answer?.rows?.[0]?.name ?? answer?.course?.name ?? '';
    const kpi = piece.kpis[0] ?? '';
    switch (piece.kind) {
        case 'figure':
        case 'scale':
        case 'line':
            return first === '' ? kpi : first;
        case 'courses':
            return piece.choices['over'] === 'units' ? first : 'Courses';
        case 'split':
            return answer?.split ? answer.split.name.charAt(0).toUpperCase() + answer.split.name.slice(1) : kpi;
        case 'compare':
            return '';
        case 'map':
        case 'cases':
            return kpi;
        default:
            return NAMES[piece.kind] ?? '';
    }
});
const title = computed(() => (props.piece.title === '' ? own.value : props.piece.title));
/** Where it is not the page's unit or span, it says so. */
const where = computed(() => {
    const { answer, piece } = props;
    const unit = answer !== null && answer.unit !== '' && answer.unit !== page.unit.value && piece.kind !== 'text' && piece.kind !== 'commentary' ? (unitName(answer.unit, answer.unitName)) : ''; // prettier-ignore
    const ofWeek = row.value?.week ?? null;
    const when = ofWeek !== null ? shortPeriodWords(ofWeek) : piece.kind === 'figure' && answer !== null ? { month: 'the month', quarter: 'quarter to date', yearToDate: 'year to date', rolling12: 'last 12 months' }[answer.span] : piece.span === '' || answer === null ? '' : SPAN_PHRASES[answer.span]; // prettier-ignore
    const measure =
        piece.kind === 'line'
            ? (answer?.course?.measure ?? '')
            : piece.kind === 'scale'
              ? unitOf(row.value?.measure ?? '')
              : '';
    // What follows the page is told by its head; a figure says its span where there is room for it.
    const isShort = piece.kind === 'figure' && piece.span === '' && ofWeek === null && unit !== '';
    return [unit, measure, isShort ? '' : when].filter(Boolean).join(' · ');
});
</script>

<template>
    <section class="min-w-0" :aria-labelledby="title === '' ? undefined : `piece-${piece.id}`" :data-piece="piece.kind">
        <div v-if="title !== '' || where !== ''" class="flex items-start gap-x-2">
            <Needle
                v-if="hasNeedle && row"
                :status="row.status"
                :stretched="row.stretched"
                :called="row.called"
                class="-mt-[2px]"
            />
            <div class="flex min-w-0 grow flex-wrap items-baseline justify-between gap-x-2">
                <h2
                    v-if="title !== ''"
                    :id="`piece-${piece.id}`"
                    class="min-w-0 font-sans text-[15px] leading-tight font-[650]"
                >
                    <PieceKpi v-if="row" :code="row.code" :unit="row.unit">{{ title }}</PieceKpi>
                    <template v-else>{{ title }}</template>
                </h2>
                <small v-if="where !== ''" class="text-[13px] text-ink-faint">{{ where }}</small>
            </div>
        </div>
        <p v-if="piece.line !== ''" class="text-[13.5px] text-ink-soft">{{ piece.line }}</p>
        <p v-if="answer === null" class="py-4 text-ink-faint" role="status">Reading the log …</p>
        <p v-else-if="answer.problem !== ''" class="py-3 text-[14px] text-ink-soft">{{ answer.problem }}</p>
        <component :is="drawing" v-else :piece="piece" :answer="answer" />
    </section>
</template>
