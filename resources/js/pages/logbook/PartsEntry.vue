<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import type { Entry, TypedParts } from './entry';

/** The parts of which a figure is the sum: each is typed, the sum stands in the line above. */
defineProps<{ id: string; row: Schemas['LogbookRow']; entry: Entry<TypedParts>; locked: boolean }>();
const emit = defineEmits<{ type: [part: string, text: string]; save: []; settle: [mine: boolean] }>();
const { unitOf } = useNumbers();

/** What is left once the fields are left is sent as a whole: half of the parts would be half of the sum. */
function onLeave(event: FocusEvent): void {
    const to = event.relatedTarget;
    if (!(to instanceof Node) || !(event.currentTarget as HTMLElement).contains(to)) {
        emit('save');
    }
}
</script>

<template>
    <fieldset class="mt-2" :disabled="locked" @focusout="onLeave">
        <legend class="mb-1">
            Its parts<template v-if="unitOf(row.measure)"> in {{ unitOf(row.measure) }}</template
            >; they add up to it
        </legend>
        <div class="grid max-w-[300px] grid-cols-[minmax(0,1fr)_112px] items-center gap-x-3 gap-y-1">
            <template v-for="({ part }, at) in row.parts" :key="part">
                <label class="truncate" :for="`part-${id}-${at}`">{{ part }}</label>
                <input
                    :id="`part-${id}-${at}`"
                    class="field h-[30px] text-right"
                    inputmode="decimal"
                    autocomplete="off"
                    :value="entry.value[part] ?? ''"
                    :aria-invalid="entry.state === 'refused'"
                    @input="emit('type', part, ($event.target as HTMLInputElement).value)"
                    @keydown.enter.prevent="emit('save')"
                />
            </template>
        </div>
        <p v-if="entry.state === 'refused'" class="error mt-1" role="alert">{{ entry.message }}</p>
        <p v-else-if="entry.state === 'waiting'" class="mt-1 text-amber-text">kept here, not sent yet</p>
        <p v-else-if="entry.state === 'conflict'" class="mt-1" role="alert">
            <span class="error mr-3">{{ entry.message }}</span>
            <button type="button" class="button button-quiet mr-2" @click="emit('settle', true)">Keep mine</button>
            <button type="button" class="button button-quiet" @click="emit('settle', false)">Take theirs</button>
        </p>
    </fieldset>
</template>
