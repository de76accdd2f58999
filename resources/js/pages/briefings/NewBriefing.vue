<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import { useEscape } from '@/composables/useEscape';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useMutation } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { BEGINNINGS } from './words';

/** What a new page is called, for whom it is, and what it begins with. */
const props = defineProps<{ known: readonly Schemas['BriefingLine'][]; from?: string }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const { unit, period } = useView();
const { units } = useSession();
useEscape(true, () => emit('close'));

const name = ref('');
const of = ref(unit.value.code);
const beginning = ref(props.from === undefined ? 'organisation' : `from:${props.from}`);
watch(
    () => units.value.get(of.value)?.kind,
    (kind) => {
        if (props.from === undefined) {
            beginning.value = kind === 'organisation' ? 'organisation' : 'department';
        }
    },
    { immediate: true },
);
const copied = computed(() => props.known.find(({ code }) => `from:${code}` === beginning.value));
const { mutate, isPending, error } = useMutation({
    mutationFn: () =>
        read(
            api.POST('/api/briefings', {
                body: {
                    name: name.value,
                    unit: of.value,
                    span: copied.value?.span ?? BEGINNINGS[beginning.value]?.span ?? 'month',
                    beginning: (copied.value === undefined ? beginning.value : 'nothing') as 'nothing',
                    period: period.value,
                    from: copied.value?.code ?? null,
                    kpi: null,
                },
            }),
        ),
    onSuccess: ({ code }) => router.push({ name: 'briefing', params: { code }, query: { unit: of.value, period: period.value, span: copied.value?.span ?? BEGINNINGS[beginning.value]?.span ?? 'month', write: '1' } }),
}); // prettier-ignore
const problem = (field: string): string => (error.value instanceof ApiError ? (error.value.fields[field] ?? '') : '');
</script>

<template>
    <form class="mt-3 mb-4 max-w-3xl border-l-2 border-brass pl-4" @submit.prevent="mutate()">
        <div class="grid gap-x-6 gap-y-3 md:grid-cols-2">
            <FormField label="What is the page called?" :problem="problem('name')">
                <input v-model="name" class="field w-full" maxlength="120" autofocus />
            </FormField>
            <FormField label="For which unit?" :problem="problem('unit')">
                <select v-model="of" class="field w-full">
                    <option v-for="each in units.values()" :key="each.code" :value="each.code">{{ each.name }}</option>
                </select>
            </FormField>
        </div>
        <fieldset class="mt-3">
            <legend class="text-[13.5px] text-ink-soft">What does it begin with?</legend>
            <label v-for="(each, key) in BEGINNINGS" :key="key" class="flex items-baseline gap-2 py-[3px]">
                <input v-model="beginning" type="radio" name="beginning" :value="key" class="accent-brass" />
                <span
                    ><b class="font-semibold">{{ each.name }}</b
                    ><span class="text-ink-soft">: {{ each.means }}</span></span
                >
            </label>
            <label v-for="each in known" :key="each.code" class="flex items-baseline gap-2 py-[3px]">
                <input
                    v-model="beginning"
                    type="radio"
                    name="beginning"
                    :value="`from:${each.code}`"
                    class="accent-brass"
                />
                <span
                    >As <b class="font-semibold">{{ each.name }}</b> of {{ each.unitName }}</span
                >
            </label>
        </fieldset>
        <p v-if="error && !(error instanceof ApiError && Object.keys(error.fields).length > 0)" class="error mt-2">
            {{ error.message }}
        </p>
        <p class="mt-3 flex gap-3">
            <button type="submit" class="button" :disabled="isPending">Begin writing</button>
            <button type="button" class="button button-quiet" @click="emit('close')">Leave it</button>
        </p>
    </form>
</template>
