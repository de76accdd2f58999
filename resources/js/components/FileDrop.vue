<script setup lang="ts">
import { ref, useTemplateRef } from 'vue';

/** A place to drop a file, or to choose one. */
defineProps<{ busy: boolean; hint: string; accept: string }>();
const emit = defineEmits<{ file: [file: File] }>();
const over = ref(false);
const input = useTemplateRef<HTMLInputElement>('input');

function take(files: FileList | null | undefined): void {
    over.value = false;
    const file = files?.[0];
    if (file !== undefined) {
        emit('file', file);
    }
    if (input.value !== null) {
        input.value.value = '';
    }
}
</script>

<template>
    <label
        class="flex min-h-[150px] cursor-pointer flex-col items-center justify-center gap-2 rounded-[4px] border-2 border-dashed px-6 py-8 text-center has-focus-visible:outline-2 has-focus-visible:outline-brass"
        :class="over ? 'border-brass bg-brass-tint' : 'border-edge bg-sheet'"
        @dragover.prevent="over = true"
        @dragleave="over = false"
        @drop.prevent="take($event.dataTransfer?.files)"
    >
        <input
            ref="input"
            type="file"
            class="sr-only"
            :accept="accept"
            :disabled="busy"
            @change="take(($event.target as HTMLInputElement).files)"
        />
        <b class="font-serif text-[19px] font-semibold">{{
            busy ? 'Reading the file …' : 'Drop a file here, or choose one'
        }}</b>
        <span class="max-w-[620px] text-[14px] text-ink-soft">{{ hint }}</span>
    </label>
</template>
