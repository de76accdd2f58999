<script setup lang="ts">
import { COLOURS } from '@/words';
import { api, read, type Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useSending } from '@/composables/useSending';
import { useView } from '@/composables/useView';
import { computed, ref, useId } from 'vue';

/** A person's call over the computed status of the month or of the year to date, with its reason. */
const props = defineProps<{ page: Schemas['KpiPage'] }>();
const emit = defineEmits<{ done: [] }>();

const { period } = useView();
const renew = useFreshness();
const id = useId();
const span = ref<'month' | 'yearToDate'>('month');
const status = ref<keyof typeof COLOURS>(props.page.month.status === 'green' ? 'amber' : 'green');
const reason = ref(props.page.month.call ?? '');
const { busy, message, trouble, send } = useSending();
const error = computed(() => message('/reason') ?? message('/status') ?? trouble.value);

async function call(as: keyof typeof COLOURS | 'none'): Promise<void> {
    const sent = await send(async () => {
        await read(
            api.PUT('/api/measurements/{measurement}/call', {
                params: { path: { measurement: props.page.id }, query: { period: period.value, span: span.value } },
                body: { status: as, reason: as === 'none' ? '' : reason.value },
            }),
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
        class="max-w-[680px] rounded-[3px] border border-rule bg-sheet p-4 text-[14.5px]"
        @submit.prevent="call(status)"
    >
        <p class="mb-2 text-ink-soft">
            The computed status stays visible beside it; roll-ups use the call, and it lapses when the figure changes.
        </p>
        <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
            <label class="flex items-center gap-2"
                >For
                <select v-model="span" class="field">
                    <option value="month">the month</option>
                    <option value="yearToDate">the year to date</option>
                </select>
            </label>
            <fieldset class="flex gap-4">
                <legend class="sr-only">Status</legend>
                <label v-for="(words, colour) in COLOURS" :key="colour" class="flex items-center gap-1.5">
                    <input v-model="status" type="radio" :name="`${id}-status`" :value="colour" class="accent-brass" />
                    <Needle :status="colour" size="s" decorative /> {{ words }}
                </label>
            </fieldset>
        </div>
        <label class="mt-2 block" :for="`${id}-reason`"
            >Because
            <textarea
                :id="`${id}-reason`"
                v-model="reason"
                rows="2"
                class="field mt-1 block w-full"
                :aria-invalid="error !== ''"
                :aria-describedby="`${id}-error`"
            />
        </label>
        <p :id="`${id}-error`" class="error" role="alert">{{ error }}</p>
        <div class="mt-2 flex gap-3">
            <button class="button" :disabled="busy">Call it</button>
            <button
                v-if="page.month.call !== null || page.yearToDate.call !== null"
                type="button"
                class="button button-quiet"
                :disabled="busy"
                @click="call('none')"
            >
                Take the call back
            </button>
            <button type="button" class="button button-quiet" @click="emit('done')">Cancel</button>
        </div>
    </form>
</template>
