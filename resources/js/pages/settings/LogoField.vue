<script setup lang="ts">
import { api, ofFile, read } from '@/api/client';
import { useSending } from '@/composables/useSending';
import { useTemplateRef } from 'vue';

/** The picture at the head of what is printed. It is taken as soon as it is chosen. */
defineProps<{ logo: string | null }>();
const emit = defineEmits<{ changed: [] }>();
const { busy, said, send } = useSending();
const chooser = useTemplateRef('chooser');

async function take(file: File | undefined): Promise<void> {
    if (file === undefined) {
        return;
    }
    const isTaken = await send(async () => {
        await read(api.POST('/api/logo', ofFile(file)));
    });
    if (chooser.value !== null) {
        chooser.value.value = '';
    }
    if (isTaken) {
        emit('changed');
    }
}

async function remove(): Promise<void> {
    if (await send(() => read(api.DELETE('/api/logo')))) {
        emit('changed');
    }
}
</script>

<template>
    <div>
        <span class="mb-1 block text-[14px] text-ink-soft">Logo</span>
        <div class="flex flex-wrap items-center gap-4">
            <span v-if="logo" class="flex h-[64px] items-center rounded-[3px] border border-rule bg-white px-3"
                ><img :src="logo" alt="The logo of the organisation" class="max-h-[48px] max-w-[180px]"
            /></span>
            <label class="button button-quiet cursor-pointer focus-within:outline-2" :class="{ 'opacity-60': busy }"
                >{{ logo ? 'Choose another' : 'Choose a picture'
                }}<input
                    ref="chooser"
                    type="file"
                    accept="image/png,image/jpeg"
                    class="sr-only"
                    :disabled="busy"
                    @change="take(($event.target as HTMLInputElement).files?.[0])"
            /></label>
            <button v-if="logo" type="button" class="quiet-link min-h-6 text-[14px]" :disabled="busy" @click="remove">
                Remove it
            </button>
        </div>
        <p v-if="said" class="error" role="alert">{{ said }}</p>
        <p v-else class="mt-1 text-[13.5px] text-ink-faint">PNG or JPEG, up to 512 kB.</p>
    </div>
</template>
