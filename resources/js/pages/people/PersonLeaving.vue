<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import StateNote from '@/components/StateNote.vue';
import { counted } from '@/composables/useNumbers';
import { useSending } from '@/composables/useSending';
import { ROLES } from '@/words';
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';

/** Somebody leaves: what they answered for becomes somebody else's, all of it shown before. */
const props = defineProps<{ person: Schemas['PersonLine']; people: Schemas['PersonLine'][] }>();
const emit = defineEmits<{ done: []; close: [] }>();
const { busy, message, send, trouble } = useSending();
const to = ref(0);
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['duties', props.person.id],
    queryFn: () => read(api.GET('/api/people/{person}/duties', { params: { path: { person: props.person.id } } })),
    staleTime: 0,
    gcTime: 0,
});
const heirs = computed(() => props.people.filter(({ id, state }) => id !== props.person.id && state !== 'blocked'));
const groups = computed(() =>
    data.value === undefined
        ? []
        : [
              {
                  title: 'KPIs whose figures were theirs to enter',
                  lines: data.value.kpis.map(({ what, unit }) => `${what}, ${unit}`),
              },
              {
                  title: 'Roles',
                  lines: data.value.roles.map(({ what, unit }) => `${ROLES[what as keyof typeof ROLES]}, ${unit}`),
              },
              {
                  title: 'Open actions that name them',
                  lines: data.value.actions.map(({ what, unit }) => `${what}, ${unit}`),
              },
          ].filter(({ lines }) => lines.length > 0),
);

async function leave(): Promise<void> {
    const done = await send(() =>
        read(
            api.POST('/api/people/{person}/leaving', {
                params: { path: { person: props.person.id } },
                body: { to: to.value },
            }),
        ),
    );
    if (done) {
        emit('done');
    }
}
</script>

<template>
    <section class="mt-4 border-y border-rule py-4" :aria-label="`${person.name} leaves`">
        <h2 class="text-[20px]">{{ person.name }} leaves</h2>
        <StateNote v-if="isPending" loading />
        <StateNote v-else-if="error" :error="error" @retry="refetch" />
        <template v-else>
            <p class="mt-0.5 text-[14.5px] text-ink-soft">
                {{
                    groups.length === 0
                        ? 'They answer for nothing.'
                        : 'This becomes the business of whoever takes over. What they wrote keeps their name.'
                }}
                What they have open ends at once, and they cannot sign in any longer.
            </p>
            <div class="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-3">
                <div v-for="group in groups" :key="group.title">
                    <h3 class="text-[14px] font-semibold">{{ group.title }}: {{ counted(group.lines.length) }}</h3>
                    <ul class="mt-1 max-h-[220px] overflow-y-auto text-[14px] text-ink-soft">
                        <li v-for="(line, at) in group.lines" :key="at">{{ line }}</li>
                    </ul>
                </div>
            </div>
            <form class="mt-4 flex flex-wrap items-end gap-3" @submit.prevent="leave">
                <FormField label="Who takes over" :problem="message('/to')"
                    ><select v-model.number="to" class="field w-[260px]">
                        <option :value="0" disabled>Choose somebody</option>
                        <option v-for="heir in heirs" :key="heir.id" :value="heir.id">{{ heir.name }}</option>
                    </select></FormField
                >
                <button type="submit" class="button" :disabled="busy || to === 0">Hand over and block</button>
                <button type="button" class="button button-quiet" @click="emit('close')">Leave it</button>
            </form>
            <p v-if="trouble || message('/blocked')" class="error mt-2" role="alert">
                {{ message('/blocked') ?? trouble }}
            </p>
        </template>
    </section>
</template>
