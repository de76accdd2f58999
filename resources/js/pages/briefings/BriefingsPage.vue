<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { dayAndMonth, monthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { SPAN_PHRASES } from '@/words';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';

const NewBriefing = defineAsyncComponent(() => import('./NewBriefing.vue'));
const MakePack = defineAsyncComponent(() => import('./MakePack.vue'));

/** The pages that management gets, by the unit that they are for. */
const { period } = useView();
const { user } = useSession();
const making = ref(false);
const packing = ref(false);
useTitle('Briefings · Kybernet');

const { data, error, isPending, refetch } = useQuery({
    queryKey: ['briefings'],
    queryFn: () => read(api.GET('/api/briefings')),
});
const current = computed(() => (data.value ?? []).filter(({ retired }) => !retired));
const retired = computed(() => (data.value ?? []).filter((each) => each.retired));
const to = (line: Schemas['BriefingLine']) => ({
    name: 'briefing',
    params: { code: line.code },
    query: { unit: line.unit, period: period.value, span: line.span },
});
const stands = (line: Schemas['BriefingLine']): string =>
    line.issue === null
        ? 'not published yet'
        : `issue ${line.issue.number} of ${monthAndYear(line.issue.period)}, ${dayAndMonth(line.issue.at.slice(0, 10))}`;
async function bringBack(code: string): Promise<void> {
    failed.value = '';
    try {
        await read(api.DELETE('/api/briefings/{briefing}/retirement', { params: { path: { briefing: code } } }));
    } catch (problem) {
        failed.value = problem instanceof ApiError ? problem.message : 'It could not be brought back.';
    }
    await refetch();
}
const failed = ref('');
const mayMake = computed(() => user.value?.defines === true);
</script>

<template>
    <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1.5 border-b-[1.5px] border-ink pb-2">
        <h1 class="text-[28px] leading-[1.15]">Briefings</h1>
        <p class="text-[14px] text-ink-soft">
            One page for one group of readers: what they steer by, what to think of it, what is being done.
        </p>
        <button
            v-if="current.length > 0"
            type="button"
            class="button button-quiet ml-auto"
            :aria-expanded="packing"
            @click="[packing, making] = [!packing, false]"
        >
            Make a pack
        </button>
        <button
            v-if="mayMake"
            type="button"
            class="button"
            :aria-expanded="making"
            @click="[making, packing] = [!making, false]"
        >
            Write a new one
        </button>
    </div>
    <NewBriefing v-if="making" :known="current.filter(({ mine }) => mine)" @close="making = false" />
    <MakePack v-if="packing" :briefings="current" @close="packing = false" />
    <p v-if="failed" class="error mt-2" role="alert">{{ failed }}</p>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <StateNote v-else-if="current.length === 0 && retired.length === 0" title="There is no briefing for you yet">
        {{
            mayMake
                ? 'Write the first one: it begins with what weighs most, and says the rest itself.'
                : 'You will find here what is published for you.'
        }}
    </StateNote>
    <table v-else class="w-full border-collapse max-md:block">
        <thead class="max-md:sr-only">
            <tr class="text-left text-[12.5px] text-ink-faint [&>th]:pt-2 [&>th]:pb-1 [&>th]:font-medium">
                <th>Page</th>
                <th>For</th>
                <th>Published</th>
                <th>Readers</th>
                <th><span class="sr-only">Draft</span></th>
            </tr>
        </thead>
        <tbody class="max-md:block">
            <tr
                v-for="line in [...current, ...retired]"
                :key="line.code"
                class="max-md:block max-md:border-t max-md:border-rule-soft max-md:py-2 [&>td]:border-rule-soft [&>td]:py-[9px] [&>td]:max-md:inline [&>td]:max-md:pr-2 [&>td]:md:border-t"
                :class="{ 'text-ink-faint': line.retired }"
            >
                <td>
                    <RouterLink :to="to(line)" class="text-[17px] font-semibold hover:text-brass max-md:block">{{
                        line.name
                    }}</RouterLink>
                </td>
                <td class="text-ink-soft">{{ line.unitName }}, {{ SPAN_PHRASES[line.span] }}</td>
                <td class="text-ink-soft">{{ line.retired ? 'retired' : stands(line) }}</td>
                <td class="text-ink-soft">
                    {{ line.audience === 'unit' ? 'whoever may open the unit' : 'people by name' }}
                </td>
                <td class="text-right text-[14px]">
                    <button
                        v-if="line.mine && line.retired"
                        type="button"
                        class="quiet-link mr-4"
                        :aria-label="`Bring ${line.name} back`"
                        @click="bringBack(line.code)"
                    >
                        Bring it back
                    </button>
                    <RouterLink
                        v-if="line.mine"
                        class="quiet-link"
                        :class="{ 'text-brass': line.drafted }"
                        :to="{ ...to(line), query: { ...to(line).query, write: '1' } }"
                        >{{ line.drafted ? 'Draft not published' : 'Change' }}</RouterLink
                    >
                </td>
            </tr>
        </tbody>
    </table>
</template>
