<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import { useFreshness } from '@/composables/useFreshness';
import { useSending } from '@/composables/useSending';
import { onMounted, reactive, useId, useTemplateRef } from 'vue';

/** Agrees an action, or follows one up. */
const props = defineProps<{ measurement: number; period: string; action?: Schemas['Action'] }>();
const emit = defineEmits<{ done: [] }>();

const renew = useFreshness();
const id = useId();
const first = useTemplateRef<HTMLTextAreaElement>('first');
onMounted(() => first.value?.focus());

const draft = reactive({
    what: props.action?.what ?? '',
    who: props.action?.who ?? '',
    due: props.action?.due ?? '',
    state: props.action?.state ?? 'open',
    outcome: props.action?.outcome ?? '',
});
const { busy, message, trouble, send } = useSending();
const STATES = { open: 'open', done: 'done', dropped: 'dropped' } as const;

async function save(): Promise<void> {
    const body = { ...draft, version: props.action?.version ?? 0 };
    const sent = await send(async () => {
        await read(
            props.action === undefined
                ? api.POST('/api/measurements/{measurement}/actions/{period}', {
                      params: { path: { measurement: props.measurement, period: props.period } },
                      body,
                  })
                : api.PUT('/api/actions/{action}', { params: { path: { action: props.action.id } }, body }),
        );
        await renew();
    });
    if (sent) {
        emit('done');
    }
}
</script>

<template>
    <form
        class="grid max-w-[680px] gap-x-4 gap-y-2 rounded-[3px] border border-rule bg-sheet p-4 text-[14.5px] md:grid-cols-[1fr_150px]"
        novalidate
        @submit.prevent="save"
    >
        <label class="md:col-span-2" :for="`${id}-what`"
            >What is to be done
            <textarea
                :id="`${id}-what`"
                ref="first"
                v-model="draft.what"
                rows="2"
                class="field mt-1 block w-full"
                :aria-invalid="message('/what') !== undefined"
                :aria-describedby="`${id}-what-error`"
            />
            <span :id="`${id}-what-error`" class="error">{{ message('/what') }}</span>
        </label>
        <label :for="`${id}-who`"
            >Who
            <input
                :id="`${id}-who`"
                v-model="draft.who"
                class="field mt-1 block w-full"
                autocomplete="off"
                :aria-invalid="message('/who') !== undefined"
                :aria-describedby="`${id}-who-error`"
            />
            <span :id="`${id}-who-error`" class="error">{{ message('/who') }}</span>
        </label>
        <label :for="`${id}-due`"
            >By when
            <input
                :id="`${id}-due`"
                v-model="draft.due"
                type="date"
                class="field mt-1 block w-full"
                :aria-invalid="message('/due') !== undefined"
                :aria-describedby="`${id}-due-error`"
            />
            <span :id="`${id}-due-error`" class="error">{{ message('/due') }}</span>
        </label>
        <template v-if="action">
            <fieldset class="flex gap-4 md:col-span-2">
                <legend class="sr-only">State</legend>
                <label v-for="(name, state) in STATES" :key="state" class="flex items-center gap-1.5">
                    <input
                        v-model="draft.state"
                        type="radio"
                        :name="`${id}-state`"
                        :value="state"
                        class="accent-brass"
                    />
                    {{ name }}
                </label>
            </fieldset>
            <label v-if="draft.state !== 'open' || draft.outcome" class="md:col-span-2" :for="`${id}-outcome`"
                >{{ draft.state === 'dropped' ? 'Why it is dropped' : 'What came of it' }}
                <textarea
                    :id="`${id}-outcome`"
                    v-model="draft.outcome"
                    rows="2"
                    class="field mt-1 block w-full"
                    :aria-invalid="message('/outcome') !== undefined"
                    :aria-describedby="`${id}-outcome-error`"
                />
                <span :id="`${id}-outcome-error`" class="error">{{ message('/outcome') }}</span>
            </label>
        </template>
        <div class="flex items-center gap-3 md:col-span-2">
            <button class="button" :disabled="busy">{{ action ? 'Keep' : 'Agree' }}</button>
            <button type="button" class="button button-quiet" @click="emit('done')">Cancel</button>
            <span class="error" role="alert">{{ trouble }}</span>
        </div>
    </form>
</template>
