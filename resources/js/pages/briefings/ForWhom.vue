<script setup lang="ts">
import { ApiError, api, read } from '@/api/client';
import { SPANS } from '@/words';
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';

/** Who reads a page, and for which span it is. */
const props = defineProps<{ code: string }>();
const emit = defineEmits<{ kept: [] }>();
const client = useQueryClient();
const problem = ref('');
const find = ref('');
const { data, refetch } = useQuery({
    queryKey: computed(() => ['briefing-arrangement', props.code]),
    queryFn: () => read(api.GET('/api/briefings/{briefing}/arrangement', { params: { path: { briefing: props.code } } })),
}); // prettier-ignore
const span = ref<keyof typeof SPANS>('month');
const audience = ref<'unit' | 'people'>('unit');
const readers = ref<number[]>([]);
watch(data, (now) => {
    if (now !== undefined) {
        span.value = now.span;
        audience.value = now.audience;
        readers.value = now.people.filter(({ reads }) => reads).map(({ id }) => id);
    }
}, { immediate: true }); // prettier-ignore
const people = computed(() => (data.value?.people ?? []).filter(({ name }) => name.toLowerCase().includes(find.value.toLowerCase()))); // prettier-ignore

async function keep(): Promise<void> {
    problem.value = '';
    try {
        await read(
            api.PUT('/api/briefings/{briefing}/arrangement', {
                params: { path: { briefing: props.code } },
                body: { span: span.value, audience: audience.value, readers: readers.value, version: data.value?.version ?? 0 },
            }),
        ); // prettier-ignore
        await client.invalidateQueries({ queryKey: ['briefings'] });
        emit('kept');
    } catch (error) {
        problem.value = error instanceof ApiError ? error.message : 'Something went wrong here.';
    }
    await refetch();
}
</script>

<template>
    <section aria-labelledby="for-whom">
        <h2 id="for-whom" class="font-sans text-[14px] font-[650]">For whom</h2>
        <form v-if="data" @submit.prevent="keep">
            <label class="flex items-baseline gap-2"
                ><input v-model="audience" type="radio" value="unit" class="accent-brass" />whoever may open the
                unit</label
            >
            <label class="flex items-baseline gap-2"
                ><input v-model="audience" type="radio" value="people" class="accent-brass" />only these people</label
            >
            <template v-if="audience === 'people'">
                <input
                    v-model="find"
                    type="search"
                    class="field mt-1 w-full"
                    placeholder="Find a name"
                    aria-label="Find a name"
                />
                <div class="mt-1 max-h-[130px] overflow-y-auto">
                    <label v-for="person in people" :key="person.id" class="flex items-center gap-2 py-px"
                        ><input v-model="readers" type="checkbox" :value="person.id" class="accent-brass" />{{
                            person.name
                        }}</label
                    >
                </div>
            </template>
            <label class="mt-1.5 flex items-center gap-2"
                >It begins with
                <select v-model="span" class="field">
                    <option v-for="(words, each) in SPANS" :key="each" :value="each">{{ words }}</option>
                </select></label
            >
            <p v-if="problem" class="error mt-1">{{ problem }}</p>
            <button type="submit" class="button button-quiet mt-2 px-3! py-[3px]!">Keep this</button>
        </form>
    </section>
</template>
