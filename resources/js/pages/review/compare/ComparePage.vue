<script setup lang="ts">
import { spanTitle } from '@/words';
import ExportMenu from '@/components/ExportMenu.vue';
import StateNote from '@/components/StateNote.vue';
import { useEscape } from '@/composables/useEscape';
import { capital, counted } from '@/composables/useNumbers';
import { longMonth, monthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import { unitsOfKind } from '@/composables/unitKinds';
import { useElementSize, useTitle } from '@vueuse/core';
import { computed, toRef, useTemplateRef } from 'vue';
import ChooseKpis from './ChooseKpis.vue';
import CompareHead from './CompareHead.vue';
import CompareTable from './CompareTable.vue';
import EnlargedKpi from './EnlargedKpi.vue';
import RanksOverTime from './RanksOverTime.vue';
import SpreadLines from './SpreadLines.vue';
import TwoAgainst from './TwoAgainst.vue';
import { useComparison, VIEWS, type CompareView } from './useComparison';

/** Many like units beside each other: who stands out, on what, and what it would be worth to bring the worse ones along. */
const view = useComparison();
const { unit, period, span, query } = useView();
const { units: known } = useSession();
const fading = useWaiting(toRef(view, 'isPlaceholder'));

const kind = computed(() => view.page?.kind ?? '');
const kindOne = computed(() => (kind.value === '' ? 'unit' : kind.value));
const plural = computed(() => unitsOfKind(kind.value));
const when = computed(() =>
    span.value === 'month' ? longMonth(period.value) : spanTitle(span.value, monthAndYear(period.value)),
);
const title = computed(() =>
    view.page === null || view.units.length === 0
        ? `Compare, ${unit.value.name}`
        : view.units.length === 1
          ? `One ${kindOne.value}, ${when.value}`
          : `${view.units.length > 9 ? view.units.length : capital(counted(view.units.length))} ${plural.value} beside each other, ${when.value}`,
);
useTitle(computed(() => `${title.value} · Kybernet`));

const large = computed(() => view.kpiOf(view.large));
const overTime = computed(() => view.sortedBy ?? view.kpis.find(({ polarity }) => polarity !== 'none') ?? view.kpis[0] ?? null); // prettier-ignore
const orderWords = computed(() => {
    const kpi = view.sortedBy;
    return kpi === null ? 'as in the register' : `${kpi.name.charAt(0).toLowerCase()}${kpi.name.slice(1)}, ${view.bestFirst ? 'best' : 'worst'} first`; // prettier-ignore
});
const parent = computed(() => (unit.value.parent === null ? null : (known.value.get(unit.value.parent) ?? null)));
const lits = computed(() => view.lit.found.filter((each) => each !== null).length);
useEscape(
    () => view.find !== '',
    () => ([view.find, view.only] = ['', false]),
);

const room = useTemplateRef<HTMLElement>('room');
const { width } = useElementSize(room);
const graphics = useTemplateRef<HTMLElement>('graphics');
const { height } = useElementSize(graphics);
/** The line of hints under the table. */
const HINT = 27;
const NAME = 150;
/** Least width of a column, by what it shows. */
const COLUMN = { figures: 98, ranks: 98, time: 98, two: 128 } as const;
const BESIDE = 340;
const GAP = 28;
const isBeside = computed(() => width.value >= NAME + view.kpis.length * COLUMN[view.view] + GAP + BESIDE);
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">{{ title }}</h1>
    <StateNote v-if="view.isPending" loading />
    <StateNote v-else-if="view.error && view.page === null" :error="view.error" @retry="view.refetch()" />
    <StateNote v-else-if="view.kpis.length === 0" :title="`Nothing under ${unit.name} can be compared`">
        <template v-if="parent"
            >Units are compared that stand under one unit and share KPIs.
            <RouterLink class="quiet-link" :to="{ query: { ...query({ unit: parent.code }), follow: unit.code } }"
                >Compare {{ unit.name }} with the others under {{ parent.name }}</RouterLink
            >.</template
        >
        <template v-else
            >Units are compared that stand under one unit and share KPIs. Choose another unit in the path
            above.</template
        >
    </StateNote>
    <div v-else :class="{ waiting: fading }">
        <CompareHead :kind-one="kindOne" />
        <div
            class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-1.5 border-t border-rule pt-[7px] text-[14px] print:hidden"
        >
            <span class="flex gap-5" role="group" aria-label="What the table shows">
                <button
                    v-for="(words, name) in VIEWS"
                    :key="name"
                    type="button"
                    class="tab"
                    :aria-pressed="view.view === name"
                    @click="view.view = name as CompareView"
                >
                    {{ words }}
                </button>
            </span>
            <label v-if="view.view === 'two'" class="flex items-center gap-2 text-ink-soft"
                >against
                <input
                    type="month"
                    class="field w-[150px]"
                    :value="view.other"
                    @change="view.against = ($event.target as HTMLInputElement).value"
                />
            </label>
            <label class="flex items-center">
                <span class="sr-only">Find {{ plural }}</span>
                <input
                    v-model.lazy.trim="view.find"
                    type="search"
                    class="field w-[150px]"
                    :placeholder="`Find ${plural}`"
                    title="A part of a name; * stands for anything"
                    @input="view.find = ($event.target as HTMLInputElement).value"
                />
            </label>
            <button
                v-if="view.find !== ''"
                type="button"
                class="quiet-link text-ink-soft"
                :disabled="lits === 0"
                :aria-pressed="view.only"
                @click="view.only = !view.only"
            >
                {{
                    lits === 0
                        ? 'no such name'
                        : view.only
                          ? 'show all'
                          : lits === 1
                            ? 'only this one'
                            : `only these ${lits}`
                }}
            </button>
            <template v-if="view.sortedBy && view.view !== 'time'">
                <span class="text-ink-soft max-2xl:sr-only">Order: {{ orderWords }}</span>
                <button type="button" class="quiet-link text-ink-soft" @click="view.asInRegister()">
                    As in the register
                </button>
            </template>
            <span class="flex flex-wrap items-center gap-x-5 gap-y-1 text-ink-soft lg:ml-auto">
                <select
                    v-if="(view.page?.kinds.length ?? 0) > 1"
                    class="field"
                    aria-label="Which units"
                    :value="kind"
                    @change="
                        [view.kind, view.chosen, view.order] = [($event.target as HTMLSelectElement).value, '', '']
                    "
                >
                    <option v-for="each in view.page?.kinds ?? []" :key="each.kind" :value="each.kind">
                        {{ each.units }} {{ unitsOfKind(each.kind) }}
                    </option>
                </select>
                <ChooseKpis />
                <button type="button" class="quiet-link" :aria-pressed="view.plain" @click="view.plain = !view.plain">
                    {{ view.plain ? 'Show targets' : 'Hide targets' }}
                </button>
                <button
                    type="button"
                    class="quiet-link"
                    :aria-pressed="view.masked"
                    @click="view.masked = !view.masked"
                >
                    {{ view.masked ? 'Show names' : 'Mask names' }}
                </button>
                <ExportMenu
                    :path="`/api/units/${unit.code}/comparison/file`"
                    :query="{ ...view.query, ...(view.masked ? { masked: '1' } : {}) }"
                />
            </span>
        </div>
        <EnlargedKpi v-if="large && large.figures > 0" :key="large.code" :kpi="large" @close="view.large = ''" />
        <div ref="room" class="flex gap-7" :class="{ 'flex-col': !isBeside }">
            <div class="min-w-0 grow">
                <RanksOverTime v-if="view.view === 'time' && overTime" :kpi="overTime" />
                <CompareTable v-else :title="title" :beside="isBeside ? Math.max(0, height - HINT) : 0" />
            </div>
            <div
                ref="graphics"
                class="grid min-w-0 content-start gap-x-8 gap-y-5 self-start"
                :class="
                    isBeside
                        ? 'w-[36%] max-w-[460px] min-w-[340px] shrink-0 grid-cols-[minmax(0,1fr)]'
                        : 'grid-cols-[minmax(0,1fr)] lg:grid-cols-[repeat(2,minmax(0,1fr))]'
                "
            >
                <TwoAgainst v-if="view.axes" :lying="view.axes[0]" :standing="view.axes[1]" />
                <SpreadLines />
            </div>
        </div>
    </div>
</template>
