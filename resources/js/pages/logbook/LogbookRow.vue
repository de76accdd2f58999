<script setup lang="ts">
import type { Shown } from '@/api/client';
import Needle from '@/components/Needle.vue';
import Wake from '@/components/Wake.vue';
import { useNumbers } from '@/composables/useNumbers';
import { dayAndMonth, shortPeriodWords } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { COLOURS, isWorkedOut, lockWords } from '@/words';
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef } from 'vue';
import PartsEntry from './PartsEntry.vue';
import type { NoteParts, What } from './entry';
import type { SheetRow } from './useEntries';

/** Few are split; it comes when it is looked at. */
const PartsTable = defineAsyncComponent(() => import('@/components/PartsTable.vue'));

/** One KPI of the month sheet. It opens while it is worked on: what the figure means, and the reason for it. */
const props = defineProps<{ line: SheetRow; opened: boolean }>();
const emit = defineEmits<{
    focus: [];
    type: [text: string];
    typeNote: [change: Partial<NoteParts>];
    typePart: [part: string, text: string];
    save: [what: What];
    settle: [what: What, mine: boolean];
    putBack: [];
    go: [where: 'open' | 'next' | 'previous'];
    /** a figure over the counted one; blank takes it back */
    over: [typed: string];
}>();

const { query } = useView();
const overing = ref(false);
const over = ref('');

const { figure, unitOf } = useNumbers();
const input = useTemplateRef<HTMLInputElement>('input');
const reasonField = ref<HTMLTextAreaElement | null>(null);

const PARTS = [
    ['text', 'Reason', 'What happened'],
    ['outlook', 'Outlook', 'When it will be back'],
    ['doing', 'Being done', 'Who does what'],
] as const;

const row = computed(() => props.line.row);
const entry = computed(() => props.line.figure);
const note = computed(() => props.line.note);
const verdict = computed(() => props.line.verdict);
const id = computed(() => props.line.key.replace('/', '-'));
const locked = computed(() => row.value.lock !== '');
const workedOut = computed(() => isWorkedOut(row.value.lock));
const why = computed(() => lockWords(row.value.lock, row.value.formula));
/** Of what has parts, those are typed; the sum stands by itself. */
const summed = computed(
    () =>
        row.value.parts.length > 0 &&
        (entry.value.value === '' || Object.values(props.line.parts.value).some((typed) => typed !== '')),
);
const judged = computed(() => row.value.kind === 'judged');
const known = computed(() => entry.value.state !== 'refused' && verdict.value !== null);
const wantsNote = computed(() => verdict.value?.wantsNote === true && note.value.value.text === '');

/** What stands under the name: unit of measure, which period, and how far it has come. */
const under = computed(() =>
    [
        judged.value ? 'judged' : unitOf(row.value.measure) || row.value.measure,
        row.value.period.length === 7 && !row.value.period.startsWith('FY') ? '' : shortPeriodWords(row.value.period),
        row.value.asOf === null ? '' : `provisional, as of ${dayAndMonth(row.value.asOf)}`,
        row.value.state === 'submitted' && entry.value.state === 'same' ? 'handed in' : '',
        row.value.needsNote ? 'must be explained when bad' : '',
    ]
        .filter((each) => each !== '')
        .join(' · '),
);

const target = computed(() =>
    row.value.target === null
        ? ''
        : shown(row.value.target) + (row.value.upper === null ? '' : ` – ${shown(row.value.upper)}`),
);
const shown = (value: Shown): string => figure(value, row.value.measure);

const wake = computed(() => {
    const typed = Number(entry.value.value.replace(',', '.'));
    const points = row.value.wake;
    // The saved line, with the last point moved to what is being typed where that is a plain number.
    return entry.value.state === 'typing' && entry.value.value !== '' && Number.isFinite(typed)
        ? points.map((point, index) => (index === points.length - 1 ? { ...point, actual: String(typed) } : point))
        : points;
});

function onKey(event: KeyboardEvent): void {
    const where = { Enter: 'open', ArrowDown: 'next', ArrowUp: 'previous' } as const;
    if (event.key === 'Escape') {
        emit('putBack');
        void nextTick(() => input.value?.select());
    } else if (event.key in where) {
        event.preventDefault();
        emit('save', 'figure');
        emit('go', where[event.key as keyof typeof where]);
    }
}

/** A group of colours has one stop; the arrows go through it and on to other rows, the space bar chooses. */
function onColourKey(event: KeyboardEvent): void {
    const where = { Enter: 'open', ArrowDown: 'next', ArrowUp: 'previous' } as const;
    const aside = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (event.key in where) {
        event.preventDefault();
        emit('go', where[event.key as keyof typeof where]);
    } else if (aside !== undefined && event.currentTarget instanceof HTMLElement) {
        event.preventDefault();
        const radios = [...event.currentTarget.querySelectorAll<HTMLElement>('[role=radio]')];
        const at = radios.findIndex((each) => each === document.activeElement);
        radios[(at + aside + radios.length) % radios.length]?.focus();
    }
}

function onNoteKey(event: KeyboardEvent): void {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
        event.preventDefault();
        emit('save', 'note');
        emit('go', 'open');
    }
}

function choose(colour: string): void {
    emit('focus');
    emit('type', entry.value.value === colour ? '' : colour);
    emit('save', 'figure');
    void nextTick(() => {
        if (note.value.value.text === '') {
            reasonField.value?.focus();
        }
    });
}
</script>

<template>
    <tr
        class="text-right max-md:grid max-md:grid-cols-[minmax(0,1fr)_auto_46px] [&>td]:max-md:content-center [&>td]:h-[43px] [&>td]:border-t [&>td]:border-rule-soft [&>td]:align-middle"
        :class="{ 'bg-sheet': opened }"
    >
        <td class="pr-3 pl-[2px] text-left">
            <component
                :is="workedOut || judged || locked || summed ? 'button' : 'label'"
                :for="workedOut || judged || locked || summed ? undefined : `figure-${id}`"
                :type="workedOut || judged || locked || summed ? 'button' : undefined"
                class="block max-w-full truncate text-left text-[15.5px] leading-tight font-semibold"
                @click="emit('focus')"
                >{{ row.name }}</component
            >
            <span class="block truncate text-[12.5px] leading-[1.15] text-ink-faint" :title="under"
                >{{ under }}&nbsp;</span
            >
        </td>
        <td class="hidden text-ink-soft md:table-cell">
            <Needle v-if="judged && row.lastStatus !== 'no-data'" :status="row.lastStatus" size="s" />
            <template v-else>{{ row.lastMonth ? shown(row.lastMonth) : '' }}</template>
        </td>
        <td class="hidden text-ink-soft md:table-cell">
            <Needle v-if="judged && row.lastYearStatus !== 'no-data'" :status="row.lastYearStatus" size="s" />
            <template v-else>{{ row.lastYear ? shown(row.lastYear) : '' }}</template>
        </td>
        <td class="hidden text-ink-soft md:table-cell">{{ target }}</td>
        <td>
            <span
                v-if="judged"
                :id="`figure-${id}`"
                role="radiogroup"
                :aria-label="row.name"
                class="inline-flex gap-2.5"
                @keydown="onColourKey"
            >
                <button
                    v-for="(name, colour, index) in COLOURS"
                    :key="colour"
                    type="button"
                    role="radio"
                    class="rounded-[6px]"
                    :tabindex="entry.value === colour || (entry.value === '' && index === 0) ? 0 : -1"
                    :class="
                        entry.value === colour
                            ? 'outline-2 outline-offset-2 outline-brass'
                            : entry.value === ''
                              ? 'opacity-60 hover:opacity-100'
                              : 'opacity-30 hover:opacity-100'
                    "
                    :aria-checked="entry.value === colour"
                    :aria-label="`${name}${row.texts[colour] ? `: ${row.texts[colour]}` : ''}`"
                    :title="row.texts[colour] || name"
                    :disabled="locked"
                    @click="choose(colour)"
                >
                    <Needle :status="colour" decorative />
                </button>
            </span>
            <b
                v-else-if="workedOut || locked || summed"
                class="pr-[10px] text-[16.5px]"
                :class="workedOut || summed ? 'font-semibold' : 'font-semibold text-ink-soft'"
                ><button
                    v-if="summed && !locked && entry.value === ''"
                    type="button"
                    class="quiet-link text-[14px] font-normal"
                    @click="emit('focus')"
                >
                    in parts</button
                >{{ entry.value
                }}<span v-if="row.byHand" class="block text-[12.5px] font-normal text-amber-text"
                    >by hand; counted {{ row.counted ? shown(row.counted) : 'nothing' }}</span
                ></b
            >
            <input
                v-else
                :id="`figure-${id}`"
                ref="input"
                class="field w-[112px] text-right text-[16.5px] font-semibold placeholder:text-[14px] placeholder:font-normal"
                inputmode="decimal"
                autocomplete="off"
                placeholder="type"
                :value="entry.value"
                :aria-invalid="entry.state === 'refused'"
                :aria-describedby="entry.message ? `error-${id}` : undefined"
                @focus="emit('focus')"
                @input="emit('type', ($event.target as HTMLInputElement).value)"
                @change="emit('save', 'figure')"
                @keydown="onKey"
            />
            <span v-if="entry.state === 'refused'" :id="`error-${id}`" class="error block" role="alert">{{
                entry.message
            }}</span>
        </td>
        <td class="text-center"><Needle v-if="known" :status="verdict!.status" /></td>
        <td class="hidden truncate pl-[10px] text-left text-[14px] text-ink-soft md:table-cell">
            <span v-if="entry.state === 'waiting'" class="text-amber-text">kept here, not sent yet</span>
            <span v-else-if="judged && entry.message" class="text-red-text">{{ entry.message }}</span>
            <span v-else-if="wantsNote" class="text-red-text">a reason is needed</span>
            <span
                v-else-if="verdict?.question && note.value.text === ''"
                class="text-amber-text"
                :title="verdict.question"
                >{{ verdict.question }}</span
            >
            <span v-else-if="note.value.text" :title="note.value.text">{{ note.value.text }}</span>
            <span v-else-if="locked" class="text-ink-faint" :title="why">cannot be typed: {{ why }}</span>
        </td>
    </tr>
    <tr v-if="entry.state === 'conflict'" class="bg-sheet max-md:block">
        <td colspan="7" class="pb-3 text-right max-md:block" role="alert">
            <span class="error mr-3">{{ entry.message }} You typed {{ entry.value || 'nothing' }}.</span>
            <button type="button" class="button button-quiet mr-2" @click="emit('settle', 'figure', true)">
                Keep mine
            </button>
            <button type="button" class="button button-quiet" @click="emit('settle', 'figure', false)">
                Take theirs
            </button>
        </td>
    </tr>
    <tr v-if="opened" class="bg-sheet max-md:block">
        <td colspan="7" class="pb-4 max-md:block">
            <div class="grid gap-x-8 gap-y-3 md:grid-cols-[minmax(0,1fr)_minmax(300px,440px)]">
                <div class="text-[13.5px] leading-[1.4] text-ink-soft">
                    <template v-if="verdict">
                        <b class="font-[650] text-ink">{{ verdict.reason }}</b>
                        <template v-if="verdict.streak"><br />{{ verdict.streak }}</template>
                        <template v-if="verdict.question"
                            ><br /><span class="text-amber-text">{{ verdict.question }}</span></template
                        >
                    </template>
                    <ul v-if="judged || row.texts.green || row.texts.amber || row.texts.red" class="mt-2 space-y-1">
                        <li v-for="(name, colour) in COLOURS" :key="colour" class="flex items-center gap-2">
                            <Needle :status="colour" size="s" decorative />
                            <span>{{ row.texts[colour] || name }}</span>
                        </li>
                    </ul>
                    <p v-if="row.counted !== null || row.overable" class="mt-2 flex flex-wrap gap-x-4">
                        <RouterLink
                            class="quiet-link text-brass"
                            :to="{
                                name: 'course',
                                params: { code: row.code },
                                query: { ...query({ unit: row.unitCode }), look: 'records' },
                            }"
                            >The records behind it</RouterLink
                        >
                        <button
                            v-if="row.overable && !row.byHand"
                            type="button"
                            class="quiet-link"
                            :aria-expanded="overing"
                            @click="overing = !overing"
                        >
                            Put a figure over it
                        </button>
                        <button
                            v-if="row.overable && row.byHand"
                            type="button"
                            class="quiet-link"
                            @click="emit('over', '')"
                        >
                            Back to the counted figure
                        </button>
                    </p>
                    <form
                        v-if="overing && !row.byHand"
                        class="mt-2 flex flex-wrap items-end gap-2"
                        @submit.prevent="emit('over', over)"
                    >
                        <label class="block"
                            ><span class="mb-0.5 block">Figure by hand; the reason stands beside it</span>
                            <input
                                v-model="over"
                                class="field w-[112px] text-right"
                                inputmode="decimal"
                                autocomplete="off"
                                :aria-label="`Figure by hand for ${row.name}`"
                            />
                        </label>
                        <button type="submit" class="button" :disabled="over === '' || note.value.text === ''">
                            Put it over
                        </button>
                        <span v-if="note.value.text === ''" class="w-full text-amber-text">It needs a reason.</span>
                    </form>
                    <PartsEntry
                        v-if="row.parts.length > 0"
                        :id="id"
                        :row="row"
                        :entry="line.parts"
                        :locked="locked"
                        @type="(part, text) => emit('typePart', part, text)"
                        @save="emit('save', 'parts')"
                        @settle="(mine) => emit('settle', 'parts', mine)"
                    />
                    <PartsTable v-if="row.split" class="mt-2" :measurement="row.id" :measure="row.measure" compact />
                    <Wake
                        v-if="!judged"
                        :points="wake"
                        :status="verdict?.status ?? 'no-data'"
                        :width="420"
                        :height="44"
                        class="mt-2"
                    />
                </div>
                <div>
                    <div
                        v-for="([part, title, hint], index) in PARTS"
                        :key="part"
                        class="mb-1.5 grid grid-cols-[84px_minmax(0,1fr)] items-start gap-2"
                    >
                        <label :for="`${part}-${id}`" class="pt-1 text-[13.5px] text-ink-soft"
                            >{{ title }}<span class="sr-only"> for {{ row.name }}</span></label
                        >
                        <textarea
                            :id="`${part}-${id}`"
                            :ref="(element) => index === 0 && (reasonField = element as HTMLTextAreaElement | null)"
                            class="field block max-h-[130px] w-full field-sizing-content text-[14.5px] leading-[1.3]"
                            :rows="index === 0 ? 2 : 1"
                            maxlength="2000"
                            :placeholder="hint"
                            :value="note.value[part]"
                            :disabled="row.lock === 'closed'"
                            @input="emit('typeNote', { [part]: ($event.target as HTMLTextAreaElement).value })"
                            @change="emit('save', 'note')"
                            @keydown="onNoteKey"
                        />
                    </div>
                    <span class="mt-1 block text-[13px] text-ink-faint">
                        <span v-if="note.state === 'refused'" class="error" role="alert">{{ note.message }}</span>
                        <template v-else-if="note.state === 'conflict'">
                            <span class="error" role="alert"
                                >{{ note.message }} It now says: “{{ note.current?.text || 'nothing' }}”</span
                            >
                            <span class="mt-1 flex gap-2">
                                <button type="button" class="button button-quiet" @click="emit('settle', 'note', true)">
                                    Keep mine
                                </button>
                                <button
                                    type="button"
                                    class="button button-quiet"
                                    @click="emit('settle', 'note', false)"
                                >
                                    Take theirs
                                </button>
                            </span>
                        </template>
                        <template v-else-if="row.note?.author">written by {{ row.note.author }}</template>
                    </span>
                </div>
            </div>
        </td>
    </tr>
</template>
