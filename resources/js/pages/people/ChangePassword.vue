<script setup lang="ts">
import { api, read } from '@/api/client';
import { useSending } from '@/composables/useSending';
import { ref } from 'vue';
import PasswordField from '@/components/PasswordField.vue';

/** Another password for oneself; what is open on other devices ends with the one before. */
const emit = defineEmits<{ done: [] }>();
const { busy, message, trouble, send } = useSending();
const current = ref('');
const password = ref('');

async function submit(): Promise<void> {
    if (
        await send(() =>
            read(api.PUT('/api/session/password', { body: { current: current.value, password: password.value } })),
        )
    ) {
        emit('done');
    }
}
</script>

<template>
    <form class="space-y-3" novalidate @submit.prevent="submit">
        <label class="block">
            <span class="mb-1 block text-[13.5px] text-ink-soft">The password that you have now</span>
            <input
                v-model="current"
                type="password"
                autocomplete="current-password"
                class="field w-full"
                :aria-invalid="message('/current') !== undefined"
            />
            <span class="error" role="alert">{{ message('/current') }}</span>
        </label>
        <PasswordField id="own-password" v-model="password" label="The new one" :problem="message('/password')" />
        <p v-if="trouble" class="error" role="alert">{{ trouble }}</p>
        <button type="submit" class="button w-full" :disabled="busy">Change it</button>
    </form>
</template>
