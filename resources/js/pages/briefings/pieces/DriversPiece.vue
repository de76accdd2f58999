<script setup lang="ts">
import Needle from '@/components/Needle.vue';
import Wake from '@/components/Wake.vue';
import { useNumbers } from '@/composables/useNumbers';

import { computed } from 'vue';
import PieceKpi from '../PieceKpi.vue';
import type { PieceProps } from '../usePage';

import { useUnitName } from '../useUnitName';

/** What a figure depends on, step by step, each with how closely it moves with what it drives. */
const props = defineProps<PieceProps>();
const { figure, unitOf, fixed } = useNumbers();
const unitName = useUnitName();
const lines = computed(() => props.answer.drivers ?? []);
const MOVING: Record<string, string> = {
    together: 'moves with it',
    against: 'moves against it',
    apart: 'hardly moves with it',
};
</script>

<template>
    <ul class="mt-0.5 text-[14px]">
        <li
            v-for="{ depth, kpi } in lines"
            :key="kpi.id"
            class="flex items-center gap-2.5 border-b border-rule-soft py-[5px] last:border-0"
            :style="{ paddingLeft: `${(depth - 1) * 22}px` }"
        >
            <span v-if="depth > 1" class="text-ink-faint" aria-hidden="true">↳</span>
            <Needle :status="kpi.status" size="s" />
            <span class="min-w-0 grow leading-tight">
                <PieceKpi class="font-semibold" :code="kpi.code" :unit="kpi.unit">{{ kpi.name }}</PieceKpi>
                <span v-if="kpi.unit !== answer.unit" class="text-ink-soft">{{ ' ' }}{{ unitName(kpi.unit) }}</span>
                <span class="block text-[12.5px] text-ink-faint"
                    >{{
                        kpi.moving === null
                            ? 'too little to say how it moves with it'
                            : (MOVING[kpi.moving] ?? kpi.moving)
                    }}<template v-if="kpi.together !== null">, {{ fixed(kpi.together, 2) }}</template></span
                >
            </span>
            <Wake :points="kpi.wake" :status="kpi.monthStatus" :width="90" :height="24" class="shrink-0" />
            <span class="w-[86px] shrink-0 text-right font-semibold whitespace-nowrap"
                >{{ kpi.actual ? figure(kpi.actual, kpi.measure) : '' }}
                <span class="text-[12px] font-normal text-ink-faint">{{
                    unitOf(kpi.measure).length <= 4 ? unitOf(kpi.measure) : ''
                }}</span></span
            >
        </li>
    </ul>
    <p v-if="lines.length === 0" class="py-3 text-ink-soft">The register names nothing that it depends on.</p>
</template>
