<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import { longMonth, moment } from '@/composables/usePeriods';
import { useEscape } from '@/composables/useEscape';
import { useView } from '@/composables/useView';
import { SPAN_PHRASES } from '@/words';
import { useQueryClient } from '@tanstack/vue-query';
import { useEventListener, useTitle } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import { onBeforeRouteLeave, onBeforeRouteUpdate, useRouter } from 'vue-router';
import { appended, changed, copied, dropped, freshId, MOST_IN_A_BAND, moved, newPiece, removed, TWELFTHS, type Band, type Piece } from './draft'; // prettier-ignore
import PageBands from './PageBands.vue';
import PieceFrame from './PieceFrame.vue';
import { useDraft } from './useDraft';
import { providePage } from './usePage';
import { SHORT_KINDS, type Kind } from './words';
import WritePanel from './WritePanel.vue';

/** The same page with a bar for each piece, a panel for the chosen one, and what it takes to publish it. */
const props = defineProps<{ page: Schemas['BriefingPage']; kinds: readonly Schemas['PieceKind'][] }>();
const emit = defineEmits<{ again: [] }>();
const router = useRouter();
const client = useQueryClient();
const { period, span, here } = useView();
const draft = useDraft(props.page.code, props.page, { period: () => period.value, span: () => span.value });
useTitle(computed(() => `${draft.name.value}, draft · Kybernet`));

const nothing = computed({ get: () => '', set: () => undefined });
providePage({
    isPublic: false,
    home: computed(() => props.page.unit),
    unit: computed(() => props.page.unit),
    period,
    colour: nothing,
    part: nothing,
    follow: nothing,
    chooseUnit: () => undefined,
});

const kindOf = computed(() => new Map(props.kinds.map((each) => [each.kind, each])));
const chosenId = ref('');
const chosen = computed(() => draft.bands.value.flat().find(({ id }) => id === chosenId.value) ?? null);
const asReaders = ref(false);
useEscape(asReaders, () => (asReaders.value = false));
useEscape(
    () => chosen.value !== null && !asReaders.value,
    () => (chosenId.value = ''),
);

const body = useTemplateRef<HTMLElement>('body');
async function choose(id: string, focus = false): Promise<void> {
    chosenId.value = id;
    if (focus) {
        await nextTick();
        body.value?.querySelector<HTMLElement>(`[data-write="${id}"]`)?.focus();
    }
}
const room = (band: Band): number => TWELFTHS - band.reduce((sum, { width }) => sum + width, 0);

function add(kind: Kind, beside: number | null = null): void {
    const about = kindOf.value.get(kind);
    if (about === undefined) {
        return;
    }
    const bands = draft.bands.value;
    const id = freshId(bands);
    const band = beside === null ? undefined : bands[beside];
    const piece = newPiece(id, kind, band === undefined ? about.width : Math.max(2, Math.min(about.width, room(band)) || 3)); // prettier-ignore
    draft.change(
        band === undefined || beside === null
            ? [...bands, [piece]]
            : changed(bands.map((each, at) => (at === beside ? [...each, piece] : each)), id, {}), // prettier-ignore
    );
    void choose(id, true);
}
const set = (change: Partial<Piece>, of = ''): void => {
    if (chosen.value !== null) {
        draft.change(changed(draft.bands.value, chosen.value.id, change), of === '' ? '' : `${chosen.value.id} ${of}`);
    }
};
async function move(id: string, way: 'left' | 'right' | 'up' | 'down'): Promise<void> {
    draft.change(moved(draft.bands.value, id, way));
    await choose(id, true);
}
function widen(piece: Piece, by: number): void {
    draft.change(changed(draft.bands.value, piece.id, { width: Math.max(2, Math.min(TWELFTHS, piece.width + by)) }));
}
function copy(id: string): void {
    const made = copied(draft.bands.value, id);
    draft.change(made.bands);
    void choose(made.id, true);
}
async function away(id: string): Promise<void> {
    const flat = draft.bands.value.flat();
    const next = flat[flat.findIndex((piece) => piece.id === id) + 1] ?? flat.at(-2);
    draft.change(removed(draft.bands.value, id));
    await choose(next?.id === id ? '' : (next?.id ?? ''), true);
}

/** Keys on the piece in focus: with Alt they move it, without they go from piece to piece. */
function onKey(event: KeyboardEvent, piece: Piece): void {
    if (event.target !== event.currentTarget) {
        return;
    }
    const WAYS: Record<string, 'left' | 'right' | 'up' | 'down'> = { ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down' }; // prettier-ignore
    const way = WAYS[event.key];
    if (way !== undefined && event.altKey) {
        void move(piece.id, way);
    } else if (way !== undefined) {
        const flat = draft.bands.value.flat();
        const to = flat[flat.findIndex(({ id }) => id === piece.id) + (way === 'left' || way === 'up' ? -1 : 1)];
        if (to !== undefined) {
            void choose(to.id, true);
        }
    } else if (event.key === '+' || event.key === '-') {
        widen(piece, event.key === '+' ? 1 : -1);
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
        void away(piece.id);
    } else if (event.key === 'Enter') {
        document.getElementById('piece-panel')?.querySelector<HTMLElement>('select, input, textarea')?.focus();
    } else {
        return;
    }
    event.preventDefault();
}
useEventListener('keydown', (event: KeyboardEvent) => {
    const isField = event.target instanceof HTMLElement && event.target.matches('input, textarea');
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !isField) {
        event.preventDefault();
        if (event.shiftKey) draft.redo();
        else draft.undo();
    }
});

const dragged = ref('');
const over = ref('');
function onOver(event: DragEvent, piece: Piece): void {
    if (dragged.value === '') {
        return;
    }
    event.preventDefault();
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    over.value = `${piece.id} ${event.clientX > box.left + box.width / 2 ? 'after' : 'before'}`;
}
function onDrop(to: Parameters<typeof dropped>[2]): void {
    const id = dragged.value;
    [dragged.value, over.value] = ['', ''];
    draft.change(dropped(draft.bands.value, id, to));
    void choose(id, true);
}

const figures = computed(() => draft.bands.value.flat().filter(({ kind }) => kindOf.value.get(kind)?.ofFigures === true).length); // prettier-ignore
const MOST_FIGURES = 12;
function append(): void {
    const weights = new Map(draft.bands.value.flat().map(({ id }) => [id, Number(draft.answers.value.get(id)?.rows?.[0]?.weight ?? 1)])); // prettier-ignore
    draft.change(appended(draft.bands.value, MOST_FIGURES, ({ kind }) => kindOf.value.get(kind)?.ofFigures === true, weights)); // prettier-ignore
}

const publishing = ref(false);
const refused = ref('');
async function publish(): Promise<void> {
    publishing.value = true;
    refused.value = '';
    try {
        if (!(await draft.finish())) {
            refused.value = draft.problem.value;
            return;
        }
        const { number } = await read(
            api.POST('/api/briefings/{briefing}/issues', {
                params: { path: { briefing: props.page.code } },
                body: { period: period.value, version: draft.version.value },
            }),
        );
        await Promise.all([client.invalidateQueries({ queryKey: ['briefings'] }), client.invalidateQueries({ queryKey: ['briefing'] })]); // prettier-ignore
        await router.push({ query: { ...here({ unit: props.page.unit, span: props.page.span }), write: undefined, issue: String(number) } }); // prettier-ignore
    } catch (error) {
        refused.value = error instanceof ApiError ? error.message : 'Something went wrong here. Nothing was published.';
    } finally {
        publishing.value = false;
    }
}
async function leave(): Promise<boolean> {
    return (await draft.finish()) || window.confirm('What you wrote last is not kept. Leave all the same?');
}
onBeforeRouteLeave(leave);
onBeforeRouteUpdate((to) => (to.query['write'] === '1' && to.query['period'] === period.value ? true : leave()));

const KEPT = { kept: '', waiting: 'not kept yet', keeping: 'keeping …', offline: 'not kept: the server cannot be reached; it is tried again', refused: 'not kept', conflict: 'not kept' } as const; // prettier-ignore
const standing = computed(() => (draft.state.value === 'kept' ? `Draft kept ${moment(draft.keptAt.value).replace(/^.*, /, '')}` : KEPT[draft.state.value])); // prettier-ignore
const readers = computed(() => {
    const issue = props.page.issues[0];
    return issue === undefined ? 'nothing is published yet' : `readers see issue ${issue.number} of ${longMonth(issue.period)}`; // prettier-ignore
});
const OFFERED: Kind[] = ['figure', 'line', 'courses', 'table', 'matrix', 'compare', 'split', 'map', 'exceptions', 'actions', 'commentary']; // prettier-ignore
const MORE: Kind[] = ['scale', 'cases', 'drivers', 'text'];
const tools = ref(false);
</script>

<template>
    <div class="flex gap-7" :class="{ 'max-xl:flex-col': !asReaders }">
        <div class="min-w-0 grow">
            <div class="flex flex-wrap items-center gap-x-5 gap-y-2 border-b-[1.5px] border-ink pb-2">
                <h1 class="min-w-[6em] flex-1">
                    <span class="sr-only">{{ draft.name.value }}, draft</span>
                    <input
                        v-if="!asReaders"
                        :value="draft.name.value"
                        class="w-full border-0 border-b border-dotted border-transparent bg-transparent font-serif text-[28px] leading-[1.15] font-semibold hover:border-ink-faint focus:border-brass focus:outline-none"
                        aria-label="What the page is called"
                        maxlength="120"
                        @input="draft.rename(($event.target as HTMLInputElement).value)"
                    />
                    <span v-else class="text-[28px] leading-[1.15]" aria-hidden="true">{{ draft.name.value }}</span>
                </h1>
                <span class="text-[14px] text-ink-soft" role="status"
                    ><span :class="{ 'text-red-text': draft.problem.value !== '' }">{{ standing }}</span> ·
                    {{ readers }}</span
                >
                <button
                    type="button"
                    class="button button-quiet"
                    :aria-pressed="asReaders"
                    @click="asReaders = !asReaders"
                >
                    {{ asReaders ? 'Go on writing' : 'See as readers do' }}
                </button>
                <button type="button" class="button" :disabled="publishing" @click="publish">
                    Publish {{ longMonth(period) }}
                </button>
            </div>
            <div
                v-if="!asReaders"
                class="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-1.5 text-[14px] text-ink-soft"
            >
                <span>
                    <button type="button" class="quiet-link" :disabled="!draft.mayUndo.value" @click="draft.undo()">
                        Undo
                    </button>
                    ·
                    <button type="button" class="quiet-link" :disabled="!draft.mayRedo.value" @click="draft.redo()">
                        Redo
                    </button>
                </span>
                <span>Page: {{ page.unitName }}, the month chosen, {{ SPAN_PHRASES[span].replace('the ', '') }}</span>
                <span class="ml-auto text-brass">
                    {{ figures === 1 ? 'one figure' : `${figures} figures` }}; a reader takes in about a dozen
                    <button v-if="figures > MOST_FIGURES" type="button" class="quiet-link ml-2" @click="append">
                        Put the weakest into an appendix
                    </button>
                </span>
            </div>
            <p v-if="refused || draft.problem.value" class="error border-b border-rule py-1.5" role="alert">
                {{ refused || draft.problem.value }}
                <template v-if="draft.state.value === 'conflict'">
                    <button type="button" class="quiet-link ml-2" @click="emit('again')">
                        Take what stands there now
                    </button>
                </template>
            </p>
            <PageBands v-if="asReaders" :bands="draft.bands.value" :answers="draft.answers.value" />
            <div v-else ref="body" class="pt-[22px]" @dragend="[dragged, over] = ['', '']">
                <template v-for="(band, row) in draft.bands.value" :key="band.map(({ id }) => id).join()">
                    <div
                        class="h-[10px] rounded-[3px]"
                        :class="{ 'bg-brass-tint outline-2 outline-brass': over === `band ${row}` }"
                        @dragover="dragged && ($event.preventDefault(), (over = `band ${row}`))"
                        @drop.prevent="onDrop({ band: row })"
                    />
                    <div class="twelfths relative grid grid-cols-12 gap-x-6">
                        <div
                            v-for="piece in band"
                            :key="piece.id"
                            class="relative col-span-12 rounded-[6px] outline-offset-[5px]"
                            :class="[
                                `span-${piece.width}`,
                                chosenId === piece.id
                                    ? 'bg-sheet outline-2 outline-brass'
                                    : 'hover:outline-1 hover:outline-edge',
                                {
                                    'opacity-40': dragged === piece.id,
                                    'shadow-[inset_3px_0_0_var(--color-brass)]': over === `${piece.id} before`,
                                    'shadow-[inset_-3px_0_0_var(--color-brass)]': over === `${piece.id} after`,
                                },
                            ]"
                            :data-write="piece.id"
                            tabindex="0"
                            role="group"
                            :aria-label="`${piece.title || SHORT_KINDS[piece.kind]}, ${piece.width} twelfths; Enter for its choices, Alt and arrows move it, plus and minus change its width`"
                            draggable="true"
                            @click="choose(piece.id)"
                            @focus="choose(piece.id)"
                            @keydown="onKey($event, piece)"
                            @dragstart="((dragged = piece.id), $event.dataTransfer?.setData('text/plain', piece.id))"
                            @dragover="onOver($event, piece)"
                            @drop.prevent="onDrop({ beside: piece.id, after: over.endsWith('after') })"
                        >
                            <div
                                v-if="chosenId === piece.id"
                                class="absolute -top-[31px] left-0 z-20 flex rounded-[4px] bg-ink text-[12.5px] whitespace-nowrap text-paper [&>button]:border-r [&>button]:border-ink-soft [&>button]:px-2.5 [&>button]:py-[4px] [&>button:last-child]:border-0 [&>button:hover]:bg-ink-soft"
                                role="toolbar"
                                aria-label="This piece"
                            >
                                <button type="button" tabindex="-1" @click.stop="move(piece.id, 'left')">← left</button>
                                <button type="button" tabindex="-1" @click.stop="move(piece.id, 'right')">
                                    right →
                                </button>
                                <button type="button" tabindex="-1" @click.stop="move(piece.id, 'up')">↑ up</button>
                                <button type="button" tabindex="-1" @click.stop="move(piece.id, 'down')">↓ down</button>
                                <button type="button" tabindex="-1" @click.stop="widen(piece, 1)">wider</button>
                                <button type="button" tabindex="-1" @click.stop="widen(piece, -1)">narrower</button>
                                <button type="button" tabindex="-1" @click.stop="copy(piece.id)">copy</button>
                                <button type="button" tabindex="-1" @click.stop="away(piece.id)">away</button>
                            </div>
                            <div inert class="pointer-events-none pb-2">
                                <PieceFrame :piece="piece" :answer="draft.answers.value.get(piece.id) ?? null" />
                            </div>
                        </div>
                        <button
                            v-if="
                                band.length < MOST_IN_A_BAND &&
                                room(band) >= 2 &&
                                chosen &&
                                band.some(({ id }) => id === chosenId)
                            "
                            type="button"
                            class="col-span-2 self-stretch rounded-[4px] border border-dashed border-edge text-[13.5px] text-brass hover:bg-brass-tint"
                            @click="add(chosen.kind, row)"
                        >
                            beside it: one more {{ SHORT_KINDS[chosen.kind] }}
                        </button>
                    </div>
                </template>
                <div
                    class="mt-3 rounded-[4px] border border-dashed border-edge px-4 py-3 text-center text-[14px] text-brass"
                    :class="{ 'bg-brass-tint': over === 'end' }"
                    role="group"
                    aria-label="Another band"
                    @dragover="dragged && ($event.preventDefault(), (over = 'end'))"
                    @drop.prevent="onDrop({ band: draft.bands.value.length })"
                >
                    Another band:
                    <template v-for="(kind, at) in tools ? [...OFFERED, ...MORE] : OFFERED" :key="kind"
                        ><template v-if="at > 0"> · </template
                        ><button type="button" class="font-[650] hover:underline" @click="add(kind)">
                            {{ SHORT_KINDS[kind] }}
                        </button></template
                    ><template v-if="!tools">
                        · <button type="button" class="hover:underline" @click="tools = true">more</button></template
                    >
                </div>
            </div>
        </div>
        <WritePanel
            v-if="!asReaders"
            id="piece-panel"
            class="w-[318px] shrink-0 max-xl:w-full"
            :piece="chosen"
            :kind="chosen ? (kindOf.get(chosen.kind) ?? null) : null"
            :kinds="kinds"
            :answer="chosen ? (draft.answers.value.get(chosen.id) ?? null) : null"
            :page="page"
            :problems="draft.fields.value"
            @set="set"
        />
    </div>
</template>
