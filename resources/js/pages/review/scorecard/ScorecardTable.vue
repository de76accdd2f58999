<script setup lang="ts">
import type { Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { movedWords } from '@/composables/useNumbers';
import { useView } from '@/composables/useView';
import { computed } from 'vue';
import DepartmentLine from './DepartmentLine.vue';
import ScorecardRow from './ScorecardRow.vue';

const props = defineProps<{
    /** the departments, which open the page of an organisation in a line each; otherwise none */
    units: readonly Schemas['UnitLine'][];
    /** every row of the page, whatever is filtered */
    all: readonly Schemas['ScorecardRow'][];
    groups: readonly Schemas['ScorecardGroup'][];
    hideTargets: boolean;
    hidePrior: boolean;
    showStep: boolean;
}>();
const opened = defineModel<number | null>('opened', { required: true });

const { here } = useView();
const columns = computed(() => 6 + [!props.hideTargets, !props.hidePrior, props.showStep].filter(Boolean).length);

/** Arrow keys go from name to name and the space bar opens a row in place, so that a whole scorecard can be read without a mouse. */
function move(event: KeyboardEvent): void {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined || !(event.target instanceof HTMLElement) || !event.target.matches('[data-row]')) {
        return;
    }
    const names = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[data-row]')];
    event.preventDefault();
    names[names.indexOf(event.target) + by]?.focus();
}
</script>

<template>
    <table class="w-full table-fixed border-collapse max-md:block" @keydown="move">
        <colgroup>
            <col class="w-[34px]" />
            <col class="md:w-[25%] lg:w-[236px]" />
            <col class="hidden md:table-column" />
            <col class="w-[112px]" />
            <col v-if="!hideTargets" class="w-[92px] md:w-[104px]" />
            <col v-if="!hidePrior" class="hidden w-[104px] md:table-column" />
            <col v-if="showStep" class="hidden w-[104px] md:table-column" />
            <col class="w-0 lg:w-[150px] print:w-[150px]" />
            <col class="w-[66px]" />
        </colgroup>
        <thead class="max-md:sr-only">
            <tr class="text-right text-[12.5px] text-ink-faint [&>th]:pt-[3px] [&>th]:pb-1 [&>th]:font-medium">
                <th><span class="sr-only">Status</span></th>
                <th><span class="sr-only">KPI</span></th>
                <th class="hidden px-4 text-left md:table-cell">
                    <span class="sr-only">Course:</span>
                    <span class="relative block h-[1.35em]">
                        <span class="absolute left-0">off course</span>
                        <span class="course-amber absolute -translate-x-1/2 max-lg:hidden print:inline">drifting</span>
                        <span class="absolute right-0">on course</span>
                    </span>
                </th>
                <th>figure</th>
                <th v-if="!hideTargets">to target</th>
                <th v-if="!hidePrior" class="hidden md:table-cell">to last year</th>
                <th v-if="showStep" class="hidden md:table-cell">to the month before</th>
                <th class="text-left lg:pl-[22px] print:pl-[18px]">
                    <span class="max-lg:hidden print:inline">13 months</span>
                </th>
                <th><span class="sr-only">Notes and actions</span></th>
            </tr>
        </thead>
        <tbody v-if="units.length > 0" class="max-md:block">
            <DepartmentLine
                v-for="unit in units"
                :key="unit.code"
                :unit="unit"
                :worst="all.find(({ id }) => id === unit.worst)"
                :columns="columns"
                :hide-targets="hideTargets"
                :hide-prior="hidePrior"
            />
        </tbody>
        <tbody v-for="group in groups" :key="group.name" class="max-md:block">
            <tr v-if="group.name !== ''" class="max-md:block">
                <th
                    scope="rowgroup"
                    :colspan="columns"
                    class="h-[46px] border-t border-rule pt-2 text-left font-normal max-md:block max-md:h-auto max-md:pb-1"
                >
                    <span class="flex items-center gap-[13px]">
                        <Needle :status="group.status" />
                        <h2 class="text-[17px]">
                            <RouterLink
                                v-if="group.unit"
                                class="hover:text-brass"
                                :to="{ query: here({ unit: group.unit }) }"
                                >{{ group.name }}</RouterLink
                            >
                            <template v-else>{{ group.name }}</template>
                        </h2>
                        <span class="-ml-[3px] text-[13px] text-ink-soft max-md:hidden">{{
                            movedWords(group.moved)
                        }}</span>
                    </span>
                </th>
            </tr>
            <ScorecardRow
                v-for="row in group.rows"
                :key="row.id"
                :row="row"
                :hide-targets="hideTargets"
                :hide-prior="hidePrior"
                :show-step="showStep"
                :columns="columns"
                :opened="opened === row.id"
                @toggle="opened = opened === row.id ? null : row.id"
            />
        </tbody>
    </table>
</template>

<style scoped>
/* In the middle of the amber part of a strip. */
.course-amber {
    left: 38.3%;
}
</style>
