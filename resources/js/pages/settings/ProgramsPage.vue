<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import SettingsTabs from '@/components/SettingsTabs.vue';
import StateNote from '@/components/StateNote.vue';
import { dayAndMonth, moment } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, reactive, ref } from 'vue';

/** Programs that read figures or enter readings, each with a token of its own. */
useTitle('Programs · Kybernet');
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['tokens'],
    queryFn: () => read(api.GET('/api/tokens')),
    staleTime: 0,
});
const { data: units } = useQuery({ queryKey: ['units'], queryFn: () => read(api.GET('/api/units')), staleTime: 0 });
const { busy, message, send, trouble } = useSending();
const isAdding = ref(false);
const made = ref<{ name: string; token: string; unit: string } | null>(null);
const copied = ref(false);
const inAYear = (): string => new Date(Date.now() + 365 * 86_400_000).toISOString().slice(0, 10);
const draft = reactive({ name: '', unit: '', writes: false, until: inAYear() });
const good = computed(() => data.value?.filter(({ state }) => state === 'good').length ?? 0);
const STATES = { good: '', over: 'over', revoked: 'revoked' } as const;
const year = (day: string): string => `${dayAndMonth(day)} ${day.slice(0, 4)}`;

async function make(): Promise<void> {
    const unit = draft.unit === '' ? (units.value?.[0]?.code ?? '') : draft.unit;
    const done = await send(async () => {
        const { token } = await read(api.POST('/api/tokens', { body: { ...draft, unit } }));
        made.value = { name: draft.name, token, unit };
        copied.value = false;
        await refetch();
    });
    if (done) {
        isAdding.value = false;
        Object.assign(draft, { name: '', unit: '', writes: false, until: inAYear() });
    }
}

async function revoke(token: Schemas['TokenLine']): Promise<void> {
    if (
        !window.confirm(
            `Revoke the token of ${token.name}? It is refused at once, for good; what it wrote stays under its name.`,
        )
    ) {
        return;
    }
    await send(async () => {
        await read(api.DELETE('/api/tokens/{token}', { params: { path: { token: token.id } } }));
        await refetch();
    });
}

async function copy(): Promise<void> {
    await navigator.clipboard.writeText(made.value?.token ?? '');
    copied.value = true;
}
const origin = window.location.origin;
</script>

<template>
    <SettingsTabs here="programs" />
    <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
            <h1 class="text-[28px] leading-[1.15]">Programs</h1>
            <p v-if="data" class="mt-[5px] text-[17px]">
                {{
                    good === 0
                        ? 'No program comes here yet.'
                        : good === 1
                          ? 'One program may come.'
                          : `${good} programs may come.`
                }}
                Each sees one part of the tree, and enters readings only where its token says so.
            </p>
        </div>
        <button type="button" class="button" :disabled="isAdding" @click="isAdding = true">Make a token</button>
    </div>
    <div
        v-if="made"
        class="mt-4 border-l-[3px] border-brass bg-brass-tint px-4 py-3 text-[15px]"
        role="status"
        aria-live="polite"
    >
        <p>
            The token of <b class="font-[650]">{{ made.name }}</b>. Put it where the program finds it: it is shown only
            now.
        </p>
        <p class="mt-2 flex flex-wrap items-center gap-3">
            <input
                class="field w-full max-w-[560px] font-mono text-[13.5px]"
                readonly
                :value="made.token"
                aria-label="The token"
                @focus="($event.target as HTMLInputElement).select()"
            />
            <button type="button" class="button button-quiet" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</button>
            <button type="button" class="quiet-link min-h-6" @click="made = null">Done</button>
        </p>
        <p class="mt-3 text-[13.5px] text-ink-soft">It comes with each request:</p>
        <pre
            class="mt-1 overflow-x-auto text-[13px] leading-[1.5]"
        ><code>curl -H "Authorization: Bearer $TOKEN" "{{ origin }}/api/programs/units/{{ made.unit }}/figures?period=2026-10&amp;format=csv"</code></pre>
    </div>
    <form v-if="isAdding" class="mt-4 border-y border-rule py-4" novalidate @submit.prevent="make">
        <div class="flex flex-wrap items-end gap-x-5 gap-y-3">
            <FormField label="What the program is called" :problem="message('/name')" class="w-[260px]"
                ><input v-model="draft.name" class="field w-full" maxlength="120" autocomplete="off"
            /></FormField>
            <FormField label="What it sees" :problem="message('/unit')"
                ><select v-model="draft.unit" class="field w-[250px]">
                    <option value="">the whole organisation</option>
                    <option v-for="unit in (units ?? []).slice(1)" :key="unit.code" :value="unit.code">
                        {{ '\u2003'.repeat(unit.depth) }}{{ unit.name }}
                    </option>
                </select></FormField
            >
            <FormField label="Up to and including" :problem="message('/until')"
                ><input v-model="draft.until" type="date" class="field"
            /></FormField>
        </div>
        <fieldset class="mt-3 flex flex-wrap gap-x-6 gap-y-1 text-[15px]">
            <legend class="sr-only">What it may do</legend>
            <label class="flex items-center gap-2"
                ><input v-model="draft.writes" type="radio" :value="false" class="size-4 accent-brass" /> reads figures
                and assessments</label
            >
            <label class="flex items-center gap-2"
                ><input v-model="draft.writes" type="radio" :value="true" class="size-4 accent-brass" /> enters readings
                as well</label
            >
        </fieldset>
        <p v-if="trouble" class="error mt-2" role="alert">{{ trouble }}</p>
        <p class="mt-3 flex gap-3">
            <button type="submit" class="button" :disabled="busy">Make the token</button>
            <button type="button" class="button button-quiet" @click="isAdding = false">Leave it</button>
        </p>
    </form>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <table v-else-if="data && data.length > 0" class="mt-4 w-full border-collapse text-left text-[15px] max-md:block">
        <thead class="max-md:sr-only">
            <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                <th scope="col">Program</th>
                <th scope="col">May</th>
                <th scope="col">Until</th>
                <th scope="col">Here last</th>
                <th scope="col"><span class="sr-only">What can be done</span></th>
            </tr>
        </thead>
        <tbody class="max-md:block">
            <tr
                v-for="token in data"
                :key="token.id"
                class="border-t border-rule-soft align-top max-md:block max-md:py-2 [&>td]:md:py-[9px]"
                :class="{ 'text-ink-faint': token.state !== 'good' }"
            >
                <td class="pr-4 max-md:block">
                    <b class="font-semibold">{{ token.name }}</b>
                    <span v-if="token.by" class="block text-[13px] text-ink-faint">made by {{ token.by }}</span>
                </td>
                <td class="pr-4 max-md:block">{{ token.writes ? 'read and enter' : 'read' }}, {{ token.unit }}</td>
                <td class="pr-4 max-md:block">
                    <span class="text-ink-faint md:hidden">until </span>{{ year(token.until) }}
                    <span v-if="STATES[token.state]" class="ml-1">{{ STATES[token.state] }}</span>
                </td>
                <td class="pr-4 max-md:block">
                    <span class="text-ink-faint md:hidden">here last: </span
                    >{{ token.used === null ? 'never' : moment(token.used) }}
                </td>
                <td class="md:text-right">
                    <button
                        v-if="token.state === 'good'"
                        type="button"
                        class="quiet-link min-h-6 text-[14px]"
                        :aria-label="`Revoke ${token.name}`"
                        @click="revoke(token)"
                    >
                        Revoke
                    </button>
                </td>
            </tr>
        </tbody>
    </table>
    <StateNote v-else-if="data" title="A meter, a ledger, a report of your own">
        A program that has a token reads figures and statuses, or enters readings, without a person at it. What it may
        do is written in <a class="quiet-link" href="/formats/openapi.json">the description of the API</a>.
    </StateNote>
</template>
