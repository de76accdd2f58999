<script setup lang="ts">
import { SPAN_PHRASES } from '@/words';
import { api, read, type Schemas } from '@/api/client';
import ExportMenu from '@/components/ExportMenu.vue';
import KpiLink from '@/components/KpiLink.vue';
import Needle from '@/components/Needle.vue';
import StateNote from '@/components/StateNote.vue';
import { useAddress, useSwitch } from '@/composables/useAddress';
import { useFreshness } from '@/composables/useFreshness';
import { capital, counted } from '@/composables/useNumbers';
import { dayAndMonth, longMonth } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import ActionLine from '@/pages/review/kpi/ActionLine.vue';
import ChoiceRow from '@/components/ChoiceRow.vue';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query';
import { useLocalStorage, useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';
import ExceptionLine from './ExceptionLine.vue';

/** What deserves the next hour, the most serious first. */
type Item = Schemas['ExceptionItem'];

const FIRST = 12;
const MORE = 24;

const { unit, period, span } = useView();
const { units } = useSession();
const queries = useQueryClient();
const renew = useFreshness();
const group = useAddress<'nothing' | 'department' | 'owner'>('group', 'nothing', ['nothing', 'department', 'owner']);
const showSeen = useSwitch('seen');
const shown = ref(FIRST);
const points = useLocalStorage('kybernet:exceptions-points', false);
const GROUPS = { nothing: 'nothing', department: 'department', owner: 'owner' } as const;

const key = computed(() => ['exceptions', unit.value.code, period.value, span.value]);
const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: key,
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/exceptions', {
                params: { path: { unit: unit.value.code }, query: { period: period.value, span: span.value } },
            }),
        ),
    placeholderData: keepPreviousData,
});
const fading = useWaiting(isPlaceholderData);
useTitle(computed(() => `Exceptions, ${unit.value.name} · Kybernet`));

/** Those that are not listed are fewer points and never marked as seen. */
const waiting = computed(
    () => unseen.value.length + (data.value === undefined ? 0 : data.value.total - data.value.items.length),
);
const unseen = computed(() => (data.value?.items ?? []).filter(({ seen }) => !seen));
const listed = computed(() => (showSeen.value ? (data.value?.items ?? []) : unseen.value));
const late = computed(() =>
    (data.value?.items ?? []).filter(({ reasons }) => reasons.some(({ code }) => code === 'missing')),
);
const alone = computed(() =>
    unseen.value.filter(({ actions, status }) => actions.length === 0 && (status === 'red' || status === 'amber')),
);

/** Two levels up, the unit that answers for it: a department, or the unit itself. */
function department(code: string): string {
    let at = units.value.get(code);
    while (at !== undefined && at.kind !== 'department' && at.parent !== null && units.value.has(at.parent)) {
        at = units.value.get(at.parent);
    }
    return at?.name ?? code;
}
const groups = computed(() => {
    const rank = new Map(listed.value.map((item, index) => [item.id, index + 1]));
    const found = new Map<string, Item[]>();
    listed.value.slice(0, group.value === 'nothing' ? shown.value : undefined).forEach((item) => {
        const name =
            group.value === 'department'
                ? department(item.unit)
                : group.value === 'owner'
                  ? (item.owner ?? 'Nobody')
                  : '';
        found.set(name, [...(found.get(name) ?? []), item]);
    });
    return [...found].map(([name, items]) => ({
        name,
        items: items.map((item) => ({ item, rank: rank.get(item.id) ?? 0 })),
    }));
});

async function mark(item: Item): Promise<void> {
    const seen = !item.seen;
    queries.setQueryData<Schemas['ExceptionsPage']>(key.value, (page) =>
        page === undefined
            ? page
            : { ...page, items: page.items.map((each) => (each.id === item.id ? { ...each, seen } : each)) },
    );
    try {
        await read(
            api.PUT('/api/measurements/{measurement}/seen', {
                params: { path: { measurement: item.id } },
                body: { period: period.value, reasons: seen ? item.reasons.map(({ code }) => code) : [] },
            }),
        );
    } finally {
        void renew('exceptions');
    }
}

const things = (count: number): string => (count === 1 ? 'One thing' : `${capital(counted(count))} things`);
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">Where the next hour should go</h1>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <div v-else-if="data" :class="{ waiting: fading }">
        <p class="mt-[5px] mb-2 text-[17px]">
            <template v-if="unseen.length > 0">
                {{ things(waiting) }} in {{ unit.name }} {{ waiting === 1 ? 'deserves' : 'deserve' }} attention in
                {{ longMonth(period)
                }}<template v-if="alone.length > 0"
                    >;
                    <b class="font-[650] text-red-text"
                        >{{ counted(alone.length) }} off course or drifting
                        {{ alone.length === 1 ? 'has' : 'have' }} nobody on {{ alone.length === 1 ? 'it' : 'them' }}</b
                    ></template
                >.
            </template>
            <template v-else
                >Nothing in {{ unit.name }} asks for attention in {{ longMonth(period)
                }}{{ data.items.length > 0 ? ' that you have not seen' : '' }}.</template
            >
            {{ ' '
            }}<template v-if="data.goodNews.length > 0"
                >{{ capital(counted(data.goodNews.length)) }}
                {{ data.goodNews.length === 1 ? 'figure' : 'figures' }} recovered.</template
            >
        </p>
        <div
            class="flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule pb-[9px] text-[14px] text-ink-soft"
        >
            <span>Judged on {{ SPAN_PHRASES[span] }}</span>
            <span class="flex items-center gap-2"
                >Group by <ChoiceRow v-model="group" label="Group by" :choices="GROUPS"
            /></span>
            <button type="button" class="quiet-link" :aria-pressed="points" @click="points = !points">
                {{ points ? 'Hide points' : 'Show points' }}
            </button>
            <button
                v-if="data.items.some(({ seen }) => seen)"
                type="button"
                class="quiet-link"
                :aria-pressed="showSeen"
                @click="showSeen = !showSeen"
            >
                {{ showSeen ? 'Hide what I have seen' : `Show ${data.items.length - unseen.length} seen` }}
            </button>
            <span class="flex gap-5 lg:ml-auto">
                <a v-if="late.length > 0" class="quiet-link" href="#late"
                    >{{ late.length === 1 ? 'one reading' : `${counted(late.length)} readings` }} late</a
                >
                <ExportMenu :path="`/api/units/${unit.code}/exceptions/file`" :query="{ period, span }" />
            </span>
        </div>
        <section v-if="data.overdue.length > 0" class="border-b border-rule py-2" aria-labelledby="overdue">
            <h2 id="overdue" class="text-[16px] text-red-text">
                {{
                    data.overdue.length === 1
                        ? 'One action is overdue'
                        : `${capital(counted(data.overdue.length))} actions are overdue`
                }}
            </h2>
            <div
                v-for="action in data.overdue"
                :key="action.id"
                class="flex flex-wrap gap-x-6 border-t border-rule-soft py-1.5 first-of-type:border-0"
            >
                <KpiLink class="w-[240px] shrink-0 hover:text-brass" :code="action.code" :unit="action.unit"
                    >{{ action.name }}
                    <span class="text-[13.5px] text-ink-faint">{{ units.get(action.unit)?.name }}</span></KpiLink
                >
                <ActionLine class="min-w-0 grow" :action="action" />
            </div>
        </section>
        <section v-for="each in groups" :key="each.name">
            <h2 v-if="each.name" class="border-b border-rule-soft pt-4 pb-1 text-[17px]">
                {{ each.name }}
                <span class="font-sans text-[13.5px] font-normal text-ink-soft">{{ each.items.length }}</span>
            </h2>
            <ExceptionLine
                v-for="{ item, rank } in each.items"
                :key="item.id"
                :item="item"
                :rank="rank"
                :points="points"
                @seen="mark(item)"
            />
        </section>
        <p v-if="group === 'nothing' && listed.length > FIRST" class="border-b border-rule-soft py-2">
            <button
                v-if="listed.length > shown"
                type="button"
                class="quiet-link mr-5 text-ink-soft"
                @click="shown += MORE"
            >
                {{
                    listed.length - shown > MORE
                        ? `The next ${MORE} of the other ${listed.length - shown}, less serious`
                        : `The other ${listed.length - shown}, less serious`
                }}
            </button>
            <button v-if="shown > FIRST" type="button" class="quiet-link text-ink-soft" @click="shown = FIRST">
                Only the first {{ FIRST }}
            </button>
        </p>
        <section v-if="data.goodNews.length > 0" class="pt-4" aria-labelledby="good">
            <h2 id="good" class="mb-1 text-[17px]">Good news</h2>
            <ul class="grid gap-x-8 md:grid-cols-2 xl:grid-cols-3">
                <li v-for="news in data.goodNews" :key="news.id" class="flex items-baseline gap-2 py-[3px]">
                    <Needle status="green" size="s" class="translate-y-[3px]" />
                    <span class="min-w-0"
                        ><KpiLink class="hover:text-brass" :code="news.code" :unit="news.unit">{{ news.name }}</KpiLink>
                        <span class="text-[13.5px] text-ink-soft"
                            >{{ ' ' }}{{ units.get(news.unit)?.name }}. {{ news.text }}</span
                        ></span
                    >
                </li>
            </ul>
        </section>
        <section v-if="late.length > 0" id="late" class="pt-5" aria-labelledby="late-title">
            <h2 id="late-title" class="mb-1 text-[17px]">Missing and late</h2>
            <table class="w-full text-left text-[14.5px]">
                <thead class="sr-only">
                    <tr>
                        <th>KPI</th>
                        <th>Unit</th>
                        <th>Was due</th>
                        <th>Ask</th>
                    </tr>
                </thead>
                <tbody>
                    <tr
                        v-for="item in late"
                        :key="item.id"
                        class="[&>td]:border-t [&>td]:border-rule-soft [&>td]:py-[5px] [&>td]:pr-4"
                    >
                        <td>{{ item.name }}</td>
                        <td class="text-ink-soft">{{ units.get(item.unit)?.name }}</td>
                        <td class="text-ink-soft">{{ item.dueDay ? `was due on ${dayAndMonth(item.dueDay)}` : '' }}</td>
                        <td>
                            <a
                                v-if="item.ownerEmail"
                                class="quiet-link text-brass"
                                :href="`mailto:${item.ownerEmail}?subject=${encodeURIComponent(`${item.name}: the reading for ${longMonth(period)}`)}`"
                                >Ask {{ item.owner }}</a
                            >
                            <span v-else class="text-ink-soft">nobody owns it</span>
                        </td>
                    </tr>
                </tbody>
            </table>
        </section>
    </div>
</template>
