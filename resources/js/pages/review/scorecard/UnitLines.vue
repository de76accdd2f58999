<script setup lang="ts">
import { countWords } from '@/words';
import type { Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { counted } from '@/composables/useNumbers';
import { useView } from '@/composables/useView';

/** The units below this one, a line each: how they stand, how their KPIs stand, what moved. */
defineProps<{ units: readonly Schemas['UnitLine'][]; of: string }>();

const { here } = useView();

const FILLS = [
    { key: 'green', fill: 'fill-green' },
    { key: 'amber', fill: 'fill-amber' },
    { key: 'red', fill: 'fill-red' },
] as const;

function blocks(counts: Schemas['Counts']) {
    let x = 0;
    return FILLS.flatMap(({ key, fill }) => Array.from({ length: counts[key] }, () => ({ x: (x += 13) - 13, fill })));
}
</script>

<template>
    <section class="mt-8">
        <h2 class="border-b border-rule pb-1.5 text-[17px]">Inside {{ of }}</h2>
        <ul class="gap-x-10 md:columns-2">
            <li v-for="unit in units" :key="unit.code" class="break-inside-avoid border-b border-rule-soft">
                <RouterLink
                    :to="{ query: here({ unit: unit.code }) }"
                    class="group flex h-[40px] items-center gap-[13px]"
                >
                    <Needle :status="unit.status" />
                    <span class="w-[128px] shrink-0 truncate text-[15.5px] font-semibold group-hover:text-brass">{{
                        unit.name
                    }}</span>
                    <svg
                        :width="unit.counts.judged * 13"
                        height="10"
                        aria-hidden="true"
                        class="hidden shrink-0 sm:block"
                    >
                        <rect
                            v-for="block in blocks(unit.counts)"
                            :key="block.x"
                            :x="block.x"
                            width="11"
                            height="10"
                            rx="2"
                            :class="block.fill"
                        />
                    </svg>
                    <span class="truncate text-[13px] text-ink-soft">{{ countWords(unit.counts) }}</span>
                    <span v-if="unit.moved.worse > 0" class="ml-auto shrink-0 text-[13px] text-ink-soft"
                        >{{ counted(unit.moved.worse) }} worse</span
                    >
                </RouterLink>
            </li>
        </ul>
    </section>
</template>
