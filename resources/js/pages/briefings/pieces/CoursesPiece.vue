<script setup lang="ts">
import CourseStrip from '@/components/CourseStrip.vue';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';

import { computed } from 'vue';
import PieceKpi from '../PieceKpi.vue';
import { choiceOf, usePage, type PieceProps } from '../usePage';

import { useUnitName } from '../useUnitName';

/** Several KPIs, or one over its units, each on its own limits: better is always further right. */
const props = defineProps<PieceProps>();
const page = usePage();
const { figure, unitOf } = useNumbers();
const unitName = useUnitName();

const overUnits = computed(() => choiceOf(props.piece, 'over', 'kpis') === 'units');
const rows = computed(() => props.answer.rows ?? []);
const isDim = (row: { unit: string; status: string }): boolean =>
    (page.colour.value !== '' && row.status !== page.colour.value) || (overUnits.value && page.follow.value !== '' && row.unit !== page.follow.value); // prettier-ignore
</script>

<template>
    <table class="mt-1 w-full table-fixed border-collapse text-[14px]">
        <caption class="sr-only">
            {{
                overUnits ? 'A KPI over its units' : 'KPIs'
            }}, each on its own limits
        </caption>
        <colgroup>
            <col class="w-[28px]" />
            <col class="w-[36%]" />
            <col />
            <col class="w-[92px]" />
        </colgroup>
        <tbody>
            <tr v-for="row in rows" :key="row.id" :class="{ 'opacity-35': isDim(row) }">
                <td class="py-[3px]"><Needle :status="row.status" size="s" /></td>
                <th scope="row" class="truncate py-[3px] pr-2 text-left font-normal">
                    <button
                        v-if="overUnits && !page.isPublic"
                        type="button"
                        class="max-w-full truncate text-left hover:text-brass"
                        :class="{ 'font-[650] text-brass': page.follow.value === row.unit }"
                        :aria-pressed="page.follow.value === row.unit"
                        @click="page.chooseUnit(row.unit)"
                    >
                        {{ unitName(row.unit) }}
                    </button>
                    <template v-else-if="overUnits">{{ unitName(row.unit) }}</template>
                    <PieceKpi v-else :code="row.code" :unit="row.unit">{{ row.name }}</PieceKpi>
                </th>
                <td class="py-[3px]"><CourseStrip :row="row" class="my-[-9px]" /></td>
                <td class="py-[3px] pl-3 text-right font-semibold whitespace-nowrap">
                    <template v-if="row.actual"
                        >{{ figure(row.actual, row.measure)
                        }}<span
                            v-if="unitOf(row.measure).length <= 4"
                            class="ml-[3px] text-[12px] font-normal text-ink-faint"
                            >{{ unitOf(row.measure) }}</span
                        ></template
                    >
                    <span v-else class="font-normal text-ink-faint">{{ row.instead }}</span>
                </td>
            </tr>
        </tbody>
    </table>
    <p v-if="(answer.total ?? 0) > rows.length" class="text-[13px] text-ink-faint">
        the first {{ rows.length }} of {{ answer.total }}, as in the register; Compare shows all of them
    </p>
</template>
