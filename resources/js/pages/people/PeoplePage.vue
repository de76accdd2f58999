<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import ExportMenu from '@/components/ExportMenu.vue';
import SettingsTabs from '@/components/SettingsTabs.vue';
import StandInForm from '@/components/StandInForm.vue';
import StateNote from '@/components/StateNote.vue';
import { dayAndMonth } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { ROLES } from '@/words';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';
import PeopleList from './PeopleList.vue';
import PersonForm from './PersonForm.vue';
import PersonLeaving from './PersonLeaving.vue';
import { usePlaces } from './usePlaces';

/** Who may come in, and what each of them comes to do. */
useTitle('People · Kybernet');
const { user } = useSession();
const { names, root } = usePlaces();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['people'],
    queryFn: () => read(api.GET('/api/people')),
    staleTime: 0,
});
const { data: standIns, refetch: renewStandIns } = useQuery({
    queryKey: ['stand-ins'],
    queryFn: () => read(api.GET('/api/stand-ins')),
    staleTime: 0,
});
const { send, said } = useSending();

type Person = Schemas['PersonLine'];
/** What is open below the head of the page or below somebody's line; one thing at a time. */
const open = ref<{ what: 'new' | 'list' } | { what: 'change' | 'leaving' | 'standIn'; id: number } | null>(null);
const isOpen = (what: string, id?: number): boolean =>
    open.value?.what === what && (id === undefined || ('id' in open.value && open.value.id === id));
/** The links that were made last, for whom: they are shown this once. */
const made = ref<{ for: string; link: string; sent: boolean; invited: boolean }[]>([]);
const copied = ref('');

const invited = computed(() => data.value?.filter(({ state }) => state === 'invited').length ?? 0);
const people = computed(() => data.value?.filter(({ state }) => state === 'in').length ?? 0);
const asking = computed(() => data.value?.filter(({ asked, state }) => asked !== null && state !== 'blocked') ?? []);
const ofPerson = (id: number) =>
    (standIns.value ?? []).filter(({ person, substitute }) => person === id || substitute === id);
const place = (unit: string): string => (unit === root.value ? '' : `, ${names.value.get(unit) ?? unit}`);

async function saved(link: Schemas['EntryLink'] | null, name: string): Promise<void> {
    open.value = null;
    made.value = link === null ? [] : [{ for: name, ...link, invited: true }];
    await refetch();
}

async function taken(links: { email: string; link: Schemas['EntryLink'] }[]): Promise<void> {
    open.value = null;
    made.value = links.map(({ email, link }) => ({ for: email, ...link, invited: true }));
    await refetch();
}

async function relink(person: Person): Promise<void> {
    await send(async () => {
        const link = await read(api.POST('/api/people/{person}/link', { params: { path: { person: person.id } } }));
        made.value = [{ for: person.name, ...link, invited: person.state === 'invited' }];
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

async function takeFactorOff(person: Person): Promise<void> {
    if (
        !window.confirm(
            `Let ${person.name} sign in without a code? Do it when they lost their device. What they have open ends.`,
        )
    ) {
        return;
    }
    await send(async () => {
        await read(api.DELETE('/api/people/{person}/second-factor', { params: { path: { person: person.id } } }));
        await refetch();
    });
}

/** What can be done with somebody besides changing them. */
function acts(person: Person): { title: string; run: () => void }[] {
    const isOther = person.email !== user.value?.email;
    if (person.state === 'blocked') {
        return isOther ? [{ title: 'Let in again', run: () => void block(person) }] : [];
    }
    return [
        {
            title: person.state === 'invited' ? 'Make the invitation again' : 'Link to a new password',
            run: () => void relink(person),
        },
        { title: 'Somebody stands in …', run: () => (open.value = { what: 'standIn', id: person.id }) },
        ...(person.secondFactor ? [{ title: 'Device is lost: no code …', run: () => void takeFactorOff(person) }] : []),
        ...(isOther
            ? [
                  {
                      title: 'Leaves: hand over and block …',
                      run: () => (open.value = { what: 'leaving', id: person.id }),
                  },
                  { title: 'Block …', run: () => void block(person) },
              ]
            : []),
    ];
}

async function copy(link: string): Promise<void> {
    await navigator.clipboard.writeText(link);
    copied.value = link;
}
</script>

<template>
    <SettingsTabs here="people" />
    <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
            <h1 class="text-[28px] leading-[1.15]">People</h1>
            <p v-if="data" class="mt-[5px] text-[17px]">
                {{ people === 1 ? 'One person has' : `${people} people have` }} an account<template v-if="invited > 0"
                    >, {{ invited === 1 ? 'one more is' : `${invited} more are` }} invited</template
                >.
            </p>
        </div>
        <span class="flex flex-wrap items-center gap-x-4 gap-y-2 text-[14px]">
            <ExportMenu path="/api/people/file" />
            <button
                type="button"
                class="quiet-link min-h-6"
                :aria-expanded="isOpen('list')"
                @click="open = isOpen('list') ? null : { what: 'list' }"
            >
                Many at once
            </button>
            <button type="button" class="button" :disabled="isOpen('new')" @click="open = { what: 'new' }">
                Invite somebody
            </button>
        </span>
    </div>
    <div
        v-if="made.length > 0"
        class="mt-4 border-l-[3px] border-brass bg-brass-tint px-4 py-3 text-[15px]"
        role="status"
        aria-live="polite"
    >
        <template v-for="each in made" :key="each.link">
            <p>
                {{ each.sent ? 'This link is on its way to' : 'Hand this link to' }}
                <b class="font-[650]">{{ each.for }}</b>: it works once,
                {{ each.invited ? 'for seven days' : 'for thirty minutes' }}, and is shown only now.
            </p>
            <p class="mt-2 mb-3 flex flex-wrap items-center gap-3">
                <input
                    class="field w-full max-w-[560px] font-mono text-[13.5px]"
                    readonly
                    :value="each.link"
                    :aria-label="`The link for ${each.for}`"
                    @focus="($event.target as HTMLInputElement).select()"
                />
                <button type="button" class="button button-quiet" @click="copy(each.link)">
                    {{ copied === each.link ? 'Copied' : 'Copy' }}
                </button>
            </p>
        </template>
        <button type="button" class="quiet-link min-h-6" @click="made = []">Done</button>
    </div>
    <p
        v-for="person in asking"
        :key="person.id"
        class="mt-3 flex flex-wrap items-center gap-x-4 border-l-[3px] border-brass bg-brass-tint px-4 py-2 text-[15px]"
        role="status"
    >
        {{ person.name }} forgot their password and asked on {{ dayAndMonth(person.asked?.slice(0, 10) ?? '') }}. Make
        sure that it is them before you hand over a link.
        <button type="button" class="quiet-link min-h-6" @click="relink(person)">Make the link</button>
    </p>
    <p v-if="said" class="error mt-3" role="alert">{{ said }}</p>
    <PersonForm v-if="isOpen('new')" :person="null" @saved="saved" @close="open = null" />
    <PeopleList v-if="isOpen('list')" @taken="taken" />
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <table v-else-if="data" class="mt-4 w-full border-collapse text-left text-[15px] max-md:block">
        <thead class="max-md:sr-only">
            <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                <th scope="col">Name</th>
                <th scope="col">Comes as</th>
                <th scope="col" class="text-right">KPIs</th>
                <th scope="col" class="pl-6">Last here</th>
                <th scope="col"><span class="sr-only">What can be done</span></th>
            </tr>
        </thead>
        <tbody v-for="person in data" :key="person.id" class="max-md:block">
            <tr
                class="border-t border-rule-soft align-top max-md:block max-md:py-2 [&>td]:md:py-[9px]"
                :class="{ 'text-ink-faint': person.state === 'blocked' }"
            >
                <td class="pr-4 max-md:block">
                    <b class="font-semibold">{{ person.name }}</b>
                    <span class="block text-[13px] text-ink-faint">{{ person.email }}</span>
                </td>
                <td class="pr-4 max-md:block">
                    <span v-for="(held, at) in person.roles" :key="at" class="block"
                        >{{ ROLES[held.role] }}<span class="text-ink-soft">{{ place(held.unit) }}</span></span
                    >
                    <span v-for="each in ofPerson(person.id)" :key="each.id" class="block text-[13px] text-brass"
                        >{{
                            each.person === person.id ? `${each.answers} answers for them` : `answers for ${each.away}`
                        }}, {{ dayAndMonth(each.first) }} to {{ dayAndMonth(each.last) }}</span
                    >
                </td>
                <td class="text-right max-md:hidden">{{ person.kpis > 0 ? person.kpis : '' }}</td>
                <td class="pl-6 whitespace-nowrap max-md:block max-md:pl-0">
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
                    <span class="inline-flex flex-wrap gap-x-4 text-[14px] md:justify-end">
                        <button
                            v-if="person.state !== 'blocked'"
                            type="button"
                            class="quiet-link min-h-6"
                            :aria-label="`Change ${person.name}`"
                            @click="open = { what: 'change', id: person.id }"
                        >
                            Change
                        </button>
                        <Menu as="span" class="relative">
                            <MenuButton class="quiet-link min-h-6" :aria-label="`More for ${person.name}`"
                                >More</MenuButton
                            >
                            <MenuItems
                                class="absolute left-0 z-30 mt-1 min-w-[230px] border border-rule bg-sheet py-1 text-left text-ink outline-none md:right-0 md:left-auto"
                            >
                                <MenuItem
                                    v-for="act in acts(person)"
                                    :key="act.title"
                                    v-slot="{ active }"
                                    as="template"
                                >
                                    <button
                                        type="button"
                                        class="block w-full px-3 py-1 text-left"
                                        :class="{ 'bg-brass-tint': active }"
                                        @click="act.run"
                                    >
                                        {{ act.title }}
                                    </button>
                                </MenuItem>
                            </MenuItems>
                        </Menu>
                    </span>
                </td>
            </tr>
            <tr v-if="isOpen('change', person.id) || isOpen('leaving', person.id) || isOpen('standIn', person.id)">
                <td colspan="5" class="pb-4 max-md:block">
                    <PersonForm
                        v-if="isOpen('change', person.id)"
                        :person="person"
                        @saved="saved"
                        @close="open = null"
                    />
                    <PersonLeaving
                        v-else-if="isOpen('leaving', person.id)"
                        :person="person"
                        :people="data"
                        @done="((open = null), refetch(), renewStandIns())"
                        @close="open = null"
                    />
                    <section v-else class="mt-4 border-y border-rule py-4" :aria-label="`Stand in for ${person.name}`">
                        <p class="mb-2.5 text-[14.5px] text-ink-soft">
                            While {{ person.name }} is away, somebody else may do what is theirs, but for administering.
                            The trail names both.
                        </p>
                        <StandInForm
                            :person="person.id"
                            :stand-ins="ofPerson(person.id)"
                            :people="data.filter(({ id, state }) => id !== person.id && state === 'in')"
                            @changed="renewStandIns()"
                        />
                        <button type="button" class="quiet-link mt-3 min-h-6 text-[14px]" @click="open = null">
                            Close
                        </button>
                    </section>
                </td>
            </tr>
        </tbody>
    </table>
</template>
