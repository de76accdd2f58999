<script setup lang="ts">
import Needle from '@/components/Needle.vue';
import Wake from '@/components/Wake.vue';
import { useNumbers } from '@/composables/useNumbers';
import { computed, nextTick, useTemplateRef } from 'vue';
import type { SheetRow } from './useEntries';

/** One KPI of the month sheet. It opens while it is worked on: what the figure means, and the reason for it. */
const props = defineProps<{ line: SheetRow; opened: boolean }>();
const emit = defineEmits<{
    focus: [];
    type: [text: string];
    typeNote: [text: string];
    save: [what: 'figure' | 'note'];
    settle: [what: 'figure' | 'note', mine: boolean];
    putBack: [];
    go: [where: 'open' | 'next' | 'previous'];
}>();

const { figure } = useNumbers();
const input = useTemplateRef<HTMLInputElement>('input');

const row = computed(() => props.line.row);
const entry = computed(() => props.line.figure);
const note = computed(() => props.line.note);
const verdict = computed(() => props.line.verdict);
const judged = computed(() => entry.value.state !== 'refused' && verdict.value !== null);
const wantsNote = computed(() => verdict.value?.wantsNote === true && note.value.text === '');

const wake = computed(() => {
    const typed = Number(entry.value.text.replace(',', '.'));
    const points = row.value.wake;
    // The saved line, with the last point moved to what is being typed where that is a plain number.
    return entry.value.state === 'typing' && entry.value.text !== '' && Number.isFinite(typed)
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

function onNoteKey(event: KeyboardEvent): void {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
        event.preventDefault();
        emit('save', 'note');
        emit('go', 'open');
    }
}
</script>

<template>
    <tr
        class="text-right max-md:grid max-md:grid-cols-[minmax(0,1fr)_auto_46px] [&>td]:max-md:content-center [&>td]:h-[43px] [&>td]:border-t [&>td]:border-rule-soft [&>td]:align-middle"
        :class="{ 'bg-sheet': opened }"
    >
        <td class="pr-3 pl-[2px] text-left">
            <label :for="`figure-${row.id}`" class="block truncate text-[15.5px] leading-tight font-semibold">{{
                row.name
            }}</label>
            <span class="block truncate text-[12.5px] leading-[1.15] text-ink-faint">{{ row.measure }}&nbsp;</span>
        </td>
        <td class="hidden text-ink-soft md:table-cell">
            {{ row.lastMonth ? figure(row.lastMonth, row.measure) : '' }}
        </td>
        <td class="hidden text-ink-soft md:table-cell">{{ row.lastYear ? figure(row.lastYear, row.measure) : '' }}</td>
        <td class="hidden text-ink-soft md:table-cell">{{ row.target ? figure(row.target, row.measure) : '' }}</td>
        <td>
            <input
                :id="`figure-${row.id}`"
                ref="input"
                class="field w-[112px] text-right text-[16.5px] font-semibold placeholder:text-[14px] placeholder:font-normal"
                inputmode="decimal"
                autocomplete="off"
                placeholder="type"
                :value="entry.text"
                :aria-invalid="entry.state === 'refused'"
                :aria-describedby="entry.message ? `error-${row.id}` : undefined"
                @focus="emit('focus')"
                @input="emit('type', ($event.target as HTMLInputElement).value)"
                @change="emit('save', 'figure')"
                @keydown="onKey"
            />
            <span v-if="entry.state === 'refused'" :id="`error-${row.id}`" class="error block" role="alert">{{
                entry.message
            }}</span>
        </td>
        <td class="text-center"><Needle v-if="judged" :status="verdict!.status" /></td>
        <td class="hidden truncate pl-[10px] text-left text-[14px] text-ink-soft md:table-cell">
            <span v-if="entry.state === 'waiting'" class="text-amber-text">kept here, not sent yet</span>
            <span v-else-if="wantsNote" class="text-red-text">a reason is needed</span>
            <span v-else :title="note.text">{{ note.text }}</span>
        </td>
    </tr>
    <tr v-if="entry.state === 'conflict'" class="bg-sheet max-md:block">
        <td colspan="7" class="pb-3 text-right max-md:block" role="alert">
            <span class="error mr-3">{{ entry.message }} You typed {{ entry.text || 'nothing' }}.</span>
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
            <div class="grid gap-x-8 gap-y-3 md:grid-cols-[minmax(0,1fr)_minmax(300px,420px)]">
                <div class="text-[13.5px] leading-[1.4] text-ink-soft">
                    <template v-if="verdict">
                        <b class="font-[650] text-ink">{{ verdict.reason }}</b>
                        <br v-if="verdict.streak" />
                        {{ verdict.streak }}
                    </template>
                    <Wake
                        :points="wake"
                        :status="verdict?.status ?? 'no-data'"
                        :width="420"
                        :height="44"
                        class="mt-2"
                    />
                </div>
                <div>
                    <label :for="`note-${row.id}`" class="mb-1 block text-[13.5px] text-ink-soft"
                        >Note for {{ row.name }}</label
                    >
                    <textarea
                        :id="`note-${row.id}`"
                        class="field block w-full text-[14.5px]"
                        rows="2"
                        maxlength="2000"
                        placeholder="What happened, what is being done, when it will be back"
                        :value="note.text"
                        @input="emit('typeNote', ($event.target as HTMLTextAreaElement).value)"
                        @change="emit('save', 'note')"
                        @keydown="onNoteKey"
                    />
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
                        <template v-else>Ctrl Enter: save the note and go on</template>
                    </span>
                </div>
            </div>
        </td>
    </tr>
</template>
