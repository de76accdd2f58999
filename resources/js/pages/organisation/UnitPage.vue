<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { monthAndYear } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { drawn, type Region } from '@/graphics/regions';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { ROLL_UPS } from '@/words';
import { computed } from 'vue';

/** One unit by itself: what is measured there, who answers for it, how it stood before, what it looks like on a map. */
const { code } = defineProps<{ code: string }>();
const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['unit', code]),
    queryFn: () => read(api.GET('/api/units/{unit}', { params: { path: { unit: code } } })),
    staleTime: 0,
});
const { units } = useSession();
const { query } = useView();
const { busy, said, send } = useSending();
useTitle(computed(() => `${data.value?.name ?? 'Unit'} · Kybernet`));

const WIDTH = 330;
const HEIGHT = 250;
const shapes = computed(() => {
    const all = data.value?.shapes ?? [];
    const paths = drawn(
        all.map(({ shape }) => JSON.parse(shape) as Region),
        WIDTH,
        HEIGHT,
    );
    return all.map((each, at) => ({ ...each, path: paths[at] ?? '' }));
});
const own = computed(() => shapes.value.find((each) => each.code === data.value?.code));
/** Whether the person sees what is measured there, and not only that it is. */
const isOpen = computed(() => units.value.has(data.value?.code ?? ''));
async function removeShape(): Promise<void> {
    if (!window.confirm(`Remove the shape of ${data.value?.name ?? ''}? The file that it came from brings it back.`)) {
        return;
    }
    await send(async () => {
        await read(api.DELETE('/api/units/{unit}/shape', { params: { path: { unit: code } } }));
        await refetch();
    });
}
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <p v-if="data.way.length > 0" class="text-[14px] text-ink-soft">{{ data.way.join(' › ') }}</p>
        <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
            <div>
                <h1 class="text-[28px] leading-[1.15]">{{ data.name }}</h1>
                <p class="mt-[5px] text-[17px]">
                    {{ data.kind.charAt(0).toUpperCase() + data.kind.slice(1) }}, {{ data.code
                    }}<template v-if="data.formerCodes.length > 0"
                        >, which was {{ data.formerCodes.join(' and ') }} before</template
                    >.
                    <template v-if="data.retired"
                        >Nothing is measured there from {{ monthAndYear(data.retired) }} on.</template
                    >
                </p>
            </div>
            <p class="flex flex-wrap gap-x-4 gap-y-1 text-[14.5px]">
                <RouterLink
                    v-if="isOpen"
                    class="quiet-link min-h-6"
                    :to="{ name: 'scorecard', query: { ...query(), unit: data.code } }"
                    >Scorecard</RouterLink
                >
                <RouterLink
                    v-if="data.changes"
                    class="quiet-link min-h-6"
                    :to="{ name: 'units', query: { change: data.code } }"
                    >Change it</RouterLink
                >
            </p>
        </div>
        <div class="mt-5 grid gap-x-10 gap-y-7 lg:grid-cols-[minmax(0,1fr)_330px]">
            <section aria-labelledby="unit-kpis">
                <h2 id="unit-kpis" class="mb-2 text-[20px]">What is measured there</h2>
                <p v-if="data.measured.length === 0" class="text-ink-soft">Nothing that you may see.</p>
                <table v-else class="w-full border-collapse text-left text-[15px]">
                    <thead>
                        <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                            <th scope="col">KPI</th>
                            <th scope="col" class="max-md:hidden">Every</th>
                            <th scope="col">Entered by</th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr v-for="kpi in data.measured" :key="kpi.code" class="border-t border-rule-soft">
                            <td class="py-[7px] pr-4">
                                <RouterLink
                                    v-if="isOpen"
                                    class="font-semibold hover:underline"
                                    :to="{
                                        name: 'course',
                                        params: { code: kpi.code },
                                        query: { ...query(), unit: data.code },
                                    }"
                                    >{{ kpi.name }}</RouterLink><span v-else class="font-semibold">{{ kpi.name }}</span>
                                <span v-if="kpi.ends" class="ml-2 text-[13px] text-ink-faint"
                                    >up to {{ monthAndYear(kpi.ends) }}</span
                                >
                            </td>
                            <td class="pr-4 text-[13.5px] text-ink-soft max-md:hidden">{{ kpi.frequency }}</td>
                            <td class="text-[14px]">
                                <span v-if="kpi.gathered" class="text-ink-soft">gathered from below</span
                                ><template v-else-if="kpi.owner">{{ kpi.owner }}</template
                                ><span v-else class="text-ink-faint">nobody named</span>
                            </td>
                        </tr>
                    </tbody>
                </table>
            </section>
            <div class="space-y-7">
                <section aria-labelledby="unit-people">
                    <h2 id="unit-people" class="mb-2 text-[20px]">Who answers</h2>
                    <p v-if="data.people.length === 0" class="text-ink-soft">Nobody yet.</p>
                    <ul class="text-[15px]">
                        <li
                            v-for="person in data.people"
                            :key="person.name + person.role"
                            class="border-t border-rule-soft py-1.5 first:border-t-0"
                        >
                            <b class="font-semibold">{{ person.name }}</b>, {{ person.role.toLowerCase()
                            }}<span v-if="person.through" class="text-ink-soft">, through {{ person.through }}</span>
                        </li>
                    </ul>
                </section>
                <section aria-labelledby="unit-shape">
                    <h2 id="unit-shape" class="mb-2 text-[20px]">On a map</h2>
                    <template v-if="shapes.length > 0">
                        <svg
                            :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
                            class="w-full max-w-[330px]"
                            role="group"
                            :aria-label="own ? `${data.name} among those beside it` : `What belongs to ${data.name}`"
                        >
                            <RouterLink
                                v-for="each in shapes"
                                :key="each.code"
                                :to="{ name: 'unit', params: { code: each.code } }"
                                class="shape"
                                :aria-label="each.name"
                                :aria-current="each.code === data.code ? 'page' : undefined"
                            >
                                <title>{{ each.name }}</title>
                                <path
                                    :d="each.path"
                                    class="fill-sheet stroke-edge hover:fill-brass-tint"
                                    stroke-width="1"
                                />
                            </RouterLink>
                            <path
                                v-if="own"
                                :d="own.path"
                                class="pointer-events-none fill-brass-tint stroke-brass"
                                stroke-width="1.8"
                            />
                        </svg>
                        <button
                            v-if="data.changes && own"
                            type="button"
                            class="quiet-link mt-1 min-h-6 text-[14px]"
                            :disabled="busy"
                            @click="removeShape"
                        >
                            Remove its shape
                        </button>
                    </template>
                    <p v-else class="text-[15px] text-ink-soft">
                        It has no shape<template v-if="data.changes"
                            >;
                            <RouterLink class="quiet-link" :to="{ name: 'units', query: { shapes: '1' } }"
                                >bring some in</RouterLink
                            ></template
                        >.
                    </p>
                </section>
                <section v-if="data.stood.length > 0" aria-labelledby="unit-stood">
                    <h2 id="unit-stood" class="mb-2 text-[20px]">In closed months</h2>
                    <ul class="text-[15px]">
                        <li
                            v-for="stood in data.stood"
                            :key="stood.until"
                            class="border-t border-rule-soft py-1.5 first:border-t-0"
                        >
                            Up to {{ monthAndYear(stood.until) }}:
                            <template v-if="stood.below">below {{ stood.below }}, </template>weight {{ stood.weight }},
                            {{ ROLL_UPS[stood.rollUp].name }}.
                        </li>
                    </ul>
                </section>
            </div>
        </div>
        <p v-if="said" class="error mt-3" role="alert">{{ said }}</p>
    </template>
</template>

<style scoped>
/* An outline around a region would be that of its box. */
.shape:focus-visible {
    outline: none;
}

.shape:focus-visible path {
    stroke: var(--color-brass);
    stroke-width: 3;
}
</style>
