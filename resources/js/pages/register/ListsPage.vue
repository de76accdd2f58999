<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { useEventListener, useTitle } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';

/** Themes and objectives: light lists, kept in the order in which screens show them. */
type Item = Schemas['ListItem'];
const { query } = useView();
const { user } = useSession();
const queries = useQueryClient();
const renew = useFreshness();
useTitle('Themes and objectives · Kybernet');

const { data, error, isPending, refetch } = useQuery({
    queryKey: ['register'],
    queryFn: () => read(api.GET('/api/kpis')),
});
const LISTS = [
    ['objectives', 'Objectives', 'What the organisation wants to achieve; each KPI serves one.', 'Add an objective'],
    ['themes', 'Themes', 'How scorecards and the logbook group KPIs.', 'Add a theme'],
] as const;

const lists = ref<{ themes: Item[]; objectives: Item[] }>({ themes: [], objectives: [] });
const saved = computed(() => ({ themes: data.value?.themes ?? [], objectives: data.value?.objectives ?? [] }));
const changed = computed(() => JSON.stringify(lists.value) !== JSON.stringify(saved.value));
function putBack(): void {
    lists.value = JSON.parse(JSON.stringify(saved.value)) as typeof lists.value;
}
watch(
    saved,
    (_, before) => {
        // What comes anew from the server does not take the place of what is being typed.
        if (before === undefined || JSON.stringify(lists.value) === JSON.stringify(before)) {
            putBack();
        }
    },
    { immediate: true },
);

const { busy, problem, message, send } = useSending();

const save = () =>
    send(async () => {
        queries.setQueryData(['register'], await read(api.PUT('/api/lists', { body: lists.value })));
        putBack();
        await renew('register');
    });

function move(list: Item[], at: number, by: number): void {
    const [item] = list.splice(at, 1);
    if (item !== undefined) {
        list.splice(at + by, 0, item);
    }
}

onBeforeRouteLeave(() => !changed.value || window.confirm('The lists have changes that are not saved. Leave them?'));
useEventListener(window, 'beforeunload', (event) => {
    if (changed.value) {
        event.preventDefault();
    }
});
</script>

<template>
    <form novalidate @submit.prevent="save">
        <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
            <div>
                <h1 class="text-[28px] leading-[1.15]">Themes and objectives</h1>
                <p class="mt-[5px] text-[17px] text-ink-soft">Two light lists that definitions choose from.</p>
            </div>
            <div class="ml-auto flex items-center gap-2.5">
                <RouterLink
                    class="quiet-link mr-2 text-[13.5px] text-ink-soft"
                    :to="{ name: 'register', query: query() }"
                    >All KPIs</RouterLink
                >
                <template v-if="user?.definesAll">
                    <button type="button" class="button button-quiet" :disabled="!changed || busy" @click="putBack">
                        Put back
                    </button>
                    <button type="submit" class="button" :disabled="!changed || busy">Save</button>
                </template>
            </div>
        </div>
        <p v-if="problem && !message('/themes') && !message('/objectives')" class="error pt-2" role="alert">
            {{ problem.detail }}
        </p>
        <StateNote v-if="isPending" loading />
        <StateNote v-else-if="error" :error="error" @retry="refetch" />
        <fieldset
            v-else
            class="grid gap-x-[40px] gap-y-8 pt-5 xl:grid-cols-[6fr_5fr]"
            :disabled="!user?.definesAll || busy"
        >
            <section v-for="[list, title, hint, add] in LISTS" :key="list">
                <h2 class="text-[19px]">{{ title }}</h2>
                <p class="text-[14px] text-ink-soft">{{ hint }}</p>
                <p v-if="message(`/${list}`)" class="error mt-1" role="alert">{{ message(`/${list}`) }}</p>
                <ul class="mt-3 space-y-1.5">
                    <li v-for="(item, index) in lists[list]" :key="item.id ?? `new-${index}`">
                        <div class="flex items-center gap-2">
                            <input
                                v-if="list === 'objectives'"
                                v-model="item.code"
                                class="field w-[108px]"
                                maxlength="64"
                                autocomplete="off"
                                :aria-label="`Code of ${item.name}`"
                                :aria-invalid="!!message(`/${list}/${index}/code`)"
                            />
                            <input
                                v-model="item.name"
                                class="field min-w-0 grow"
                                maxlength="200"
                                autocomplete="off"
                                :aria-label="`${title}, ${index + 1}`"
                                :aria-invalid="!!message(`/${list}/${index}/name`)"
                            />
                            <span class="w-[62px] shrink-0 text-right text-[13px] text-ink-faint">{{
                                item.kpis === 1 ? '1 KPI' : `${item.kpis} KPIs`
                            }}</span>
                            <span class="flex shrink-0 text-ink-faint">
                                <button
                                    type="button"
                                    class="size-7 hover:text-brass disabled:opacity-30"
                                    :disabled="index === 0"
                                    :aria-label="`Move ${item.name} up`"
                                    @click="move(lists[list], index, -1)"
                                >
                                    ↑
                                </button>
                                <button
                                    type="button"
                                    class="size-7 hover:text-brass disabled:opacity-30"
                                    :disabled="index === lists[list].length - 1"
                                    :aria-label="`Move ${item.name} down`"
                                    @click="move(lists[list], index, 1)"
                                >
                                    ↓
                                </button>
                                <button
                                    type="button"
                                    class="size-7 hover:text-brass disabled:opacity-30"
                                    :disabled="item.kpis > 0"
                                    :title="item.kpis > 0 ? 'In use' : undefined"
                                    :aria-label="`Remove ${item.name}`"
                                    @click="lists[list].splice(index, 1)"
                                >
                                    ×
                                </button>
                            </span>
                        </div>
                        <span
                            v-if="message(`/${list}/${index}/name`) ?? message(`/${list}/${index}/code`)"
                            class="error"
                            role="alert"
                            >{{ message(`/${list}/${index}/name`) ?? message(`/${list}/${index}/code`) }}</span
                        >
                    </li>
                </ul>
                <button
                    type="button"
                    class="quiet-link mt-3 text-[14px]"
                    @click="lists[list].push({ id: null, code: '', name: '', kpis: 0 })"
                >
                    {{ add }}
                </button>
            </section>
        </fieldset>
    </form>
</template>
