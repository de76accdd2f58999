<script setup lang="ts">
import { ApiError, api, read } from '@/api/client';
import { dayAndMonth, moment } from '@/composables/usePeriods';
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';

/** Links with which the page is read without an account. */
const props = defineProps<{ code: string }>();
const { data, refetch } = useQuery({
    queryKey: computed(() => ['briefing-links', props.code]),
    queryFn: () => read(api.GET('/api/briefings/{briefing}/links', { params: { path: { briefing: props.code } } })),
});
const making = ref(false);
const name = ref('');
const until = ref(new Date(Date.now() + 31 * 86_400_000).toISOString().slice(0, 10));
const masked = ref(false);
const made = ref('');
const problem = ref('');
const fields = ref<Record<string, string>>({});

async function make(): Promise<void> {
    [problem.value, fields.value] = ['', {}];
    try {
        const { secret } = await read(
            api.POST('/api/briefings/{briefing}/links', {
                params: { path: { briefing: props.code } },
                body: { name: name.value, until: until.value, masked: masked.value },
            }),
        );
        made.value = `${window.location.origin}/read#${secret}`;
        [making.value, name.value] = [false, ''];
        await refetch();
    } catch (error) {
        problem.value = error instanceof ApiError && Object.keys(error.fields).length === 0 ? error.message : '';
        fields.value = error instanceof ApiError ? error.fields : {};
    }
}
async function end(id: number): Promise<void> {
    await read(
        api.DELETE('/api/briefings/{briefing}/links/{link}', { params: { path: { briefing: props.code, link: id } } }),
    ).catch((error: unknown) => (problem.value = error instanceof ApiError ? error.message : ''));
    await refetch();
}
const STATES = { good: '', over: 'over', ended: 'ended' } as const;
</script>

<template>
    <section aria-labelledby="reading-links">
        <h2 id="reading-links" class="font-sans text-[14px] font-[650]">Read without an account</h2>
        <p v-if="made" class="my-1 border-l-2 border-brass pl-2">
            <label class="block text-ink-soft"
                >The link, shown this once<input
                    class="field mt-0.5 w-full text-[13px]"
                    readonly
                    :value="made"
                    @focus="($event.target as HTMLInputElement).select()"
            /></label>
        </p>
        <ul v-if="data && data.length > 0" class="max-h-[150px] overflow-y-auto">
            <li v-for="link in data" :key="link.id" :class="{ 'text-ink-faint': link.state !== 'good' }">
                <b class="font-[650]">{{ link.name }}</b>, until {{ dayAndMonth(link.until)
                }}{{ link.masked ? ', units as letters' : '' }}, opened
                {{ link.opened === 0 ? 'never' : link.opened === 1 ? 'once' : `${link.opened} times`
                }}{{ link.openedAt ? `, last ${moment(link.openedAt)}` : '' }}
                <button
                    v-if="link.state === 'good'"
                    type="button"
                    class="quiet-link ml-1"
                    :aria-label="`End the link for ${link.name}`"
                    @click="end(link.id)"
                >
                    end it
                </button>
                <template v-else>· {{ STATES[link.state] }}</template>
            </li>
        </ul>
        <form v-if="making" class="mt-1 flex flex-wrap items-end gap-2" @submit.prevent="make">
            <label class="text-ink-soft"
                >For whom<input
                    v-model="name"
                    class="field mt-0.5 block w-[150px]"
                    maxlength="120"
                    :aria-invalid="'name' in fields"
            /></label>
            <label class="text-ink-soft"
                >Until<input v-model="until" type="date" class="field mt-0.5 block" :aria-invalid="'until' in fields"
            /></label>
            <label class="flex items-center gap-2 pb-1.5"
                ><input v-model="masked" type="checkbox" class="accent-brass" />units as letters</label
            >
            <button type="submit" class="button px-3! py-[3px]!">Make the link</button>
            <p v-for="(words, field) in fields" :key="field" class="error basis-full">{{ words }}</p>
        </form>
        <p v-else>
            <button type="button" class="quiet-link" @click="making = true">Make a link</button>
            <span class="text-ink-faint">it shows the latest issue, and nothing else</span>
        </p>
        <p v-if="problem" class="error">{{ problem }}</p>
    </section>
</template>
