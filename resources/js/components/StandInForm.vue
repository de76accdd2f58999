<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import { dayAndMonth } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { ref } from 'vue';

/** Who answers for somebody from one day to another. */
const props = defineProps<{
    person: number;
    /** what is arranged, theirs and those in which they answer */
    standIns: Schemas['StandIn'][];
    people: { id: number; name: string }[];
}>();
const emit = defineEmits<{ changed: [] }>();
const { busy, message, send, trouble } = useSending();
const substitute = ref(0);
const first = ref('');
const last = ref('');

async function arrange(): Promise<void> {
    const done = await send(() =>
        read(
            api.POST('/api/people/{person}/stand-ins', {
                params: { path: { person: props.person } },
                body: { substitute: substitute.value, first: first.value, last: last.value },
            }),
        ),
    );
    if (done) {
        [substitute.value, first.value, last.value] = [0, '', ''];
        emit('changed');
    }
}

async function takeBack(standIn: Schemas['StandIn']): Promise<void> {
    await send(() =>
        read(
            api.DELETE('/api/people/{person}/stand-ins/{standIn}', {
                params: { path: { person: standIn.person, standIn: standIn.id } },
            }),
        ),
    );
    emit('changed');
}
</script>

<template>
    <ul class="text-[15px]">
        <li
            v-for="each in standIns"
            :key="each.id"
            class="flex flex-wrap gap-x-4 border-b border-rule-soft py-1.5 first:border-t"
        >
            <span
                ><b class="font-semibold">{{ each.answers }}</b> answers for {{ each.away }},
                {{ dayAndMonth(each.first) }} to {{ dayAndMonth(each.last) }}</span
            >
            <button
                v-if="each.person === person"
                type="button"
                class="quiet-link min-h-6 text-[14px]"
                :aria-label="`Take back that ${each.answers} answers for ${each.away}`"
                @click="takeBack(each)"
            >
                Take back
            </button>
        </li>
    </ul>
    <form class="mt-3 flex flex-wrap items-end gap-3" novalidate @submit.prevent="arrange">
        <FormField label="Who answers" :problem="message('/substitute')"
            ><select v-model.number="substitute" class="field w-[220px]">
                <option :value="0" disabled>Choose somebody</option>
                <option v-for="other in people" :key="other.id" :value="other.id">{{ other.name }}</option>
            </select></FormField
        >
        <FormField label="From" :problem="message('/first')"
            ><input v-model="first" type="date" class="field"
        /></FormField>
        <FormField label="Up to and including" :problem="message('/last')"
            ><input v-model="last" type="date" class="field"
        /></FormField>
        <button type="submit" class="button" :disabled="busy">Arrange it</button>
    </form>
    <p v-if="trouble" class="error mt-2" role="alert">{{ trouble }}</p>
</template>
