<script setup lang="ts">
import { ref } from 'vue';

/** A password that is chosen: it can be looked at, and what is wrong with it stands below. */
defineProps<{ id: string; label: string; problem: string | undefined }>();
const password = defineModel<string>({ required: true });
const shown = ref(false);
</script>

<template>
    <div>
        <label :for="id" class="mb-1 block text-ink-soft">{{ label }}</label>
        <div class="flex gap-3">
            <input
                :id="id"
                v-model="password"
                :type="shown ? 'text' : 'password'"
                autocomplete="new-password"
                class="field w-full"
                :aria-invalid="problem !== undefined"
                :aria-describedby="`${id}-says`"
            />
            <button type="button" class="button button-quiet shrink-0" :aria-pressed="shown" @click="shown = !shown">
                {{ shown ? 'Hide' : 'Show' }}
            </button>
        </div>
        <p :id="`${id}-says`">
            <span v-if="problem" class="error" role="alert">{{ problem }}</span>
            <span v-else class="text-[13.5px] text-ink-faint"
                >At least 12 characters; a few words in a row are easy to keep in mind.</span
            >
        </p>
    </div>
</template>
