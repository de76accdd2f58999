<script setup lang="ts">
import Needle from '@/components/Needle.vue';
import { unbroken, useNumbers } from '@/composables/useNumbers';

import { computed } from 'vue';
import AndMore from '../AndMore.vue';
import PieceKpi from '../PieceKpi.vue';
import { usePage, type PieceProps } from '../usePage';

import { useUnitName } from '../useUnitName';

/** The first few of what deserves attention, each with why. */
const props = defineProps<PieceProps>();
const page = usePage();
const { figure, unitOf } = useNumbers();
const unitName = useUnitName();
const items = computed(() => props.answer.exceptions ?? []);
const more = computed(() => (props.answer.total ?? 0) - items.value.length);
</script>

<template>
    <ol class="mt-0.5 text-[14px]">
        <li
            v-for="item in items"
            :key="item.id"
            class="flex gap-2.5 border-b border-rule-soft py-[6px] last:border-0"
            :class="{ 'opacity-35': page.colour.value !== '' && item.status !== page.colour.value }"
        >
            <Needle :status="item.status" size="s" class="mt-[2px]" />
            <div class="min-w-0 grow leading-snug">
                <PieceKpi class="font-[650]" :code="item.code" :unit="item.unit">{{ item.name }}</PieceKpi>
                <span v-if="item.unit !== answer.unit" class="text-ink-soft">{{ ' ' }}{{ unitName(item.unit) }}</span>
                <span v-if="item.actual" class="whitespace-nowrap text-ink-soft">
                    · {{ figure(item.actual, item.measure) }} {{ unitOf(item.measure) }}</span
                >
                <span class="block text-[13.5px] text-ink-soft">{{
                    item.note?.text || item.reasons.map(({ text }) => unbroken(text.replace(/\.$/, ''))).join(' · ')
                }}</span>
            </div>
        </li>
    </ol>
    <p v-if="items.length === 0" class="py-3 text-ink-soft">
        Nothing deserves attention: everything that is judged is on course, and everything is in.
    </p>
    <AndMore v-else :more="more" :answer="answer" />
</template>
