<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { dayAndMonth } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { ROLES } from '@/words';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, nextTick, reactive, ref, useTemplateRef } from 'vue';

/** Who may come in, and what each of them comes to do. */
useTitle('People · Kybernet');
const { units, root, user } = useSession();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['people'],
    queryFn: () => read(api.GET('/api/people')),
    staleTime: 0,
});
const { busy, message, send, said, trouble } = useSending();

type Person = Schemas['PersonLine'];
/** Who is being changed; 0 for somebody new, null for nobody. */
const editing = ref<number | null>(null);
const draft = reactive<Schemas['PersonInput']>({
    name: '',
    email: '',
    role: 'owner',
    unit: '',
    administrator: false,
});
/** The link that was made last, for whom: it is shown this once. */
const made = ref<{ for: string; link: string; invited: boolean } | null>(null);
const copied = ref(false);
const first = useTemplateRef<HTMLInputElement>('first');

const invited = computed(() => data.value?.filter(({ state }) => state === 'invited').length ?? 0);
const people = computed(() => data.value?.filter(({ state }) => state === 'in').length ?? 0);
/** As deep as they stand, for a list that is chosen from. */
const places = computed(() => {
    const all = [...units.value.values()];
    const below = (parent: string | null, depth: number): { code: string; name: string }[] =>
        all
            .filter((unit) => unit.parent === parent)
            .flatMap(({ code, name }) => [
                { code, name: `${'\u2003'.repeat(depth)}${name}` },
                ...below(code, depth + 1),
            ]);
    return below(null, 0);
});

async function open(person: Person | null): Promise<void> {
    editing.value = person?.id ?? 0;
    Object.assign(draft, {
        name: person?.name ?? '',
        email: person?.email ?? '',
        role: person?.role ?? 'owner',
        unit: person?.unit ?? root.value?.code ?? '',
        administrator: person?.administrator ?? false,
    });
    await nextTick();
    first.value?.focus();
}

async function save(): Promise<void> {
    const id = editing.value;
    const done = await send(async () => {
        if (id === 0) {
            const { link } = await read(api.POST('/api/people', { body: draft }));
            made.value = { for: draft.name, link, invited: true };
            copied.value = false;
        } else if (id !== null) {
            await read(api.PUT('/api/people/{person}', { params: { path: { person: id } }, body: draft }));
        }
        await refetch();
    });
    if (done) {
        editing.value = null;
    }
}

async function relink(person: Person): Promise<void> {
    await send(async () => {
        const { link } = await read(api.POST('/api/people/{person}/link', { params: { path: { person: person.id } } }));
        made.value = { for: person.name, link, invited: person.state === 'invited' };
        copied.value = false;
    });
}

async function block(person: Person): Promise<void> {
    const blocked = person.state !== 'blocked';
    const sentence = `Block ${person.name}? What they have open ends at once, and they cannot sign in.${person.kpis > 0 ? ` ${person.kpis === 1 ? 'One KPI stays' : `${person.kpis} KPIs stay`} theirs to enter until somebody else is chosen.` : ''} It can be taken back.`;
    if (blocked && !window.confirm(sentence)) {
        return;
    }
    await send(async () => {
        await read(
            api.PUT('/api/people/{person}/block', { params: { path: { person: person.id } }, body: { blocked } }),
        );
        await refetch();
    });
}

async function copy(): Promise<void> {
    await navigator.clipboard.writeText(made.value?.link ?? '');
    copied.value = true;
}
</script>

<template>
    <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
            <h1 class="text-[28px] leading-[1.15]">People</h1>
            <p v-if="data" class="mt-[5px] text-[17px]">
                {{ people === 1 ? 'One person has' : `${people} people have` }} an account<template v-if="invited > 0"
                    >, {{ invited === 1 ? 'one more is' : `${invited} more are` }} invited</template
                >.
            </p>
        </div>
        <button type="button" class="button" :disabled="editing === 0" @click="open(null)">Invite somebody</button>
    </div>
    <div
        v-if="made"
        class="mt-4 border-l-[3px] border-brass bg-brass-tint px-4 py-3 text-[15px]"
        role="status"
        aria-live="polite"
    >
        <p>
            Hand this link to <b class="font-[650]">{{ made.for }}</b>: it works once,
            {{ made.invited ? 'for seven days' : 'for thirty minutes' }}, and is shown only now.
        </p>
        <p class="mt-2 flex flex-wrap items-center gap-3">
            <input
                class="field w-full max-w-[560px] font-mono text-[13.5px]"
                readonly
                :value="made.link"
                aria-label="The link to hand over"
                @focus="($event.target as HTMLInputElement).select()"
            />
            <button type="button" class="button button-quiet" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</button>
            <button type="button" class="quiet-link min-h-6" @click="made = null">Done</button>
        </p>
    </div>
    <p v-if="editing === null && said" class="error mt-3" role="alert">{{ said }}</p>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <form
            v-if="editing !== null"
            class="mt-4 grid gap-x-5 gap-y-3 border-y border-rule py-4 md:grid-cols-2 lg:grid-cols-[1fr_1fr_200px_220px]"
            novalidate
            @submit.prevent="save"
        >
            <label class="block"
                ><span class="mb-1 block text-[14px] text-ink-soft">Name</span
                ><input
                    ref="first"
                    v-model="draft.name"
                    class="field w-full"
                    maxlength="120"
                    autocomplete="off"
                    :aria-invalid="message('/name') !== undefined"
                /><span class="error" role="alert">{{ message('/name') }}</span></label
            >
            <label class="block"
                ><span class="mb-1 block text-[14px] text-ink-soft">E-mail address</span
                ><input
                    v-model="draft.email"
                    type="email"
                    class="field w-full"
                    maxlength="190"
                    autocomplete="off"
                    :readonly="editing !== 0"
                    :aria-invalid="message('/email') !== undefined"
                /><span class="error" role="alert">{{ message('/email') }}</span></label
            >
            <label class="block"
                ><span class="mb-1 block text-[14px] text-ink-soft">Comes as</span
                ><select v-model="draft.role" class="field w-full">
                    <option v-for="(words, role) in ROLES" :key="role" :value="role">{{ words }}</option>
                </select></label
            >
            <label class="block"
                ><span class="mb-1 block text-[14px] text-ink-soft">Belongs to</span
                ><select v-model="draft.unit" class="field w-full">
                    <option v-for="place in places" :key="place.code" :value="place.code">{{ place.name }}</option>
                </select></label
            >
            <label class="flex items-center gap-2.5 md:col-span-2"
                ><input v-model="draft.administrator" type="checkbox" class="size-4 accent-brass" /> Administers: units
                and people</label
            >
            <p class="flex items-center gap-3 md:col-span-2 lg:justify-end">
                <span v-if="message('/administrator') ?? trouble" class="error" role="alert">{{
                    message('/administrator') ?? trouble
                }}</span>
                <button type="button" class="button button-quiet" @click="editing = null">Leave it</button>
                <button type="submit" class="button" :disabled="busy">
                    {{ editing === 0 ? 'Make the invitation' : 'Save' }}
                </button>
            </p>
        </form>
        <table class="mt-4 w-full border-collapse text-left text-[15px] max-md:block">
            <thead class="max-md:sr-only">
                <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                    <th scope="col">Name</th>
                    <th scope="col">Comes as</th>
                    <th scope="col">Belongs to</th>
                    <th scope="col" class="text-right">KPIs</th>
                    <th scope="col" class="pl-6">Last here</th>
                    <th scope="col"><span class="sr-only">What can be done</span></th>
                </tr>
            </thead>
            <tbody class="max-md:block">
                <tr
                    v-for="person in data"
                    :key="person.id"
                    class="border-t border-rule-soft align-top max-md:block max-md:py-2 [&>td]:md:py-[9px]"
                    :class="{ 'text-ink-faint': person.state === 'blocked' }"
                >
                    <td class="pr-4 max-md:block">
                        <b class="font-semibold">{{ person.name }}</b>
                        <span v-if="person.administrator" class="ml-2 text-[12.5px] text-brass">administers</span>
                        <span class="block text-[13px] text-ink-faint">{{ person.email }}</span>
                    </td>
                    <td class="pr-4 max-md:inline max-md:pr-1">{{ ROLES[person.role] }}</td>
                    <td class="pr-4 max-md:inline">
                        <span class="md:hidden">, </span>{{ units.get(person.unit)?.name ?? person.unit }}
                    </td>
                    <td class="text-right max-md:hidden">{{ person.kpis > 0 ? person.kpis : '' }}</td>
                    <td class="pl-6 max-md:block max-md:pl-0">
                        <span v-if="person.state === 'in'" class="text-ink-faint md:hidden">last here: </span
                        >{{
                            person.state === 'invited'
                                ? 'invited'
                                : person.state === 'blocked'
                                  ? 'blocked'
                                  : person.seen === null
                                    ? 'never'
                                    : dayAndMonth(person.seen.slice(0, 10))
                        }}
                    </td>
                    <td class="md:text-right">
                        <span class="inline-flex flex-wrap gap-x-4 text-[14px]">
                            <button
                                v-if="person.state !== 'blocked'"
                                type="button"
                                class="quiet-link min-h-6"
                                :aria-label="`Change ${person.name}`"
                                @click="open(person)"
                            >
                                Change
                            </button>
                            <button
                                v-if="person.state !== 'blocked'"
                                type="button"
                                class="quiet-link min-h-6"
                                :aria-label="`A new link for ${person.name}`"
                                @click="relink(person)"
                            >
                                New link
                            </button>
                            <button
                                v-if="person.email !== user?.email"
                                type="button"
                                class="quiet-link min-h-6"
                                :aria-label="`${person.state === 'blocked' ? 'Let in again' : 'Block'} ${person.name}`"
                                @click="block(person)"
                            >
                                {{ person.state === 'blocked' ? 'Let in again' : 'Block' }}
                            </button>
                        </span>
                    </td>
                </tr>
            </tbody>
        </table>
    </template>
</template>
