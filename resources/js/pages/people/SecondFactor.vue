<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import { dayAndMonth } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { create } from 'qrcode';
import { computed, nextTick, ref, useTemplateRef } from 'vue';

/** A code of a device besides the password: set up, and taken off again. */
const props = defineProps<{ account: Schemas['Account'] }>();
const emit = defineEmits<{ changed: [] }>();
const { busy, message, send, trouble } = useSending();
const secret = ref<Schemas['Secret'] | null>(null);
const codes = ref<string[]>([]);
const code = ref('');
const password = ref('');
const isLeaving = ref(false);
const field = useTemplateRef<HTMLInputElement>('field');

/** The address as squares: a path of one by one, drawn by the page itself. */
const drawing = computed(() => {
    if (secret.value === null) {
        return { size: 0, path: '' };
    }
    const { size, data } = create(secret.value.address, { errorCorrectionLevel: 'M' }).modules;
    const squares = Array.from(data, (dark, at) => (dark ? `M${at % size} ${Math.floor(at / size)}h1v1h-1z` : ''));
    return { size, path: squares.join('') };
});
const grouped = computed(() => secret.value?.secret.replace(/(.{4})/g, '$1 ').trim() ?? '');

async function begin(): Promise<void> {
    await send(async () => {
        secret.value = await read(api.POST('/api/account/second-factor'));
    });
    await nextTick();
    field.value?.focus();
}

async function confirm(): Promise<void> {
    const done = await send(async () => {
        codes.value = (await read(api.PUT('/api/account/second-factor', { body: { code: code.value } }))).codes;
    });
    if (done) {
        secret.value = null;
        code.value = '';
    }
}

async function takeOff(): Promise<void> {
    if (await send(() => read(api.DELETE('/api/account/second-factor', { body: { password: password.value } })))) {
        password.value = '';
        isLeaving.value = false;
        emit('changed');
    }
}
</script>

<template>
    <div v-if="codes.length > 0" class="border-l-[3px] border-brass bg-brass-tint px-4 py-3" role="status">
        <p class="text-[15px]">
            It is set up. Put these codes away where you find them without your device: each lets you in once, and they
            are shown only now.
        </p>
        <ul class="mt-2 grid max-w-[420px] grid-cols-2 gap-x-6 font-mono text-[14px]">
            <li v-for="each in codes" :key="each">{{ each }}</li>
        </ul>
        <button type="button" class="button mt-3" @click="((codes = []), emit('changed'))">I have put them away</button>
    </div>
    <template v-else-if="props.account.secondFactor !== null">
        <p class="text-[15px]">
            A code is asked for when you sign in, since {{ dayAndMonth(account.secondFactor?.slice(0, 10) ?? '') }}.
            {{
                account.recoveryCodes === 0
                    ? 'No recovery code is left: take it off and set it up again for new ones.'
                    : account.recoveryCodes === 1
                      ? 'One recovery code is left.'
                      : `${account.recoveryCodes} recovery codes are left.`
            }}
        </p>
        <button v-if="!isLeaving" type="button" class="quiet-link mt-2 min-h-6 text-[14px]" @click="isLeaving = true">
            Take it off
        </button>
        <form v-else class="mt-3 flex flex-wrap items-end gap-3" novalidate @submit.prevent="takeOff">
            <FormField label="Your password" :problem="message('/password')"
                ><input v-model="password" type="password" autocomplete="current-password" class="field w-[260px]"
            /></FormField>
            <button type="submit" class="button" :disabled="busy">Take it off</button>
            <button type="button" class="button button-quiet" @click="isLeaving = false">Keep it</button>
        </form>
    </template>
    <template v-else-if="secret === null">
        <p class="text-[15px] text-ink-soft">
            Besides your password, a code that an app on your phone shows and that changes every thirty seconds.
        </p>
        <button type="button" class="button mt-3" :disabled="busy" @click="begin">Set it up</button>
    </template>
    <form v-else class="flex flex-wrap gap-x-8 gap-y-4" novalidate @submit.prevent="confirm">
        <svg
            :viewBox="`-4 -4 ${drawing.size + 8} ${drawing.size + 8}`"
            class="size-[196px] shrink-0 bg-white"
            role="img"
            aria-label="The secret for your device, to be read by its camera"
            shape-rendering="crispEdges"
        >
            <path :d="drawing.path" fill="#000" />
        </svg>
        <div class="max-w-[340px]">
            <p class="text-[15px]">
                Open the app for such codes on your phone and let it read this square. Or type the secret into it:
            </p>
            <p class="mt-1.5 font-mono text-[14px] break-words select-all">{{ grouped }}</p>
            <FormField class="mt-3" label="The code that it shows" :problem="message('/code')"
                ><input
                    ref="field"
                    v-model="code"
                    class="field w-[140px] text-[17px] tracking-[.12em]"
                    inputmode="numeric"
                    autocomplete="one-time-code"
                    maxlength="7"
                    :aria-invalid="message('/code') !== undefined"
            /></FormField>
            <p class="mt-3 flex gap-3">
                <button type="submit" class="button" :disabled="busy">From now on</button>
                <button type="button" class="button button-quiet" @click="secret = null">Leave it</button>
            </p>
        </div>
    </form>
    <p v-if="trouble" class="error mt-2" role="alert">{{ trouble }}</p>
</template>
