<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { shortMonthAndYear } from '@/composables/usePeriods';

/** The rule sets that have judged the KPI, the newest first. */
defineProps<{ rules: readonly Schemas['RuleLine'][] }>();
</script>

<template>
    <section v-if="rules.length > 0" aria-labelledby="rules">
        <h2 id="rules" class="mb-1 text-[18px]">How it is judged</h2>
        <ul class="text-[14.5px]">
            <li
                v-for="line in rules"
                :key="`${line.from} ${line.own}`"
                class="flex gap-3 border-t border-rule-soft py-[6px]"
            >
                <span class="w-[62px] shrink-0 text-[13px] leading-[1.5] text-ink-soft">{{
                    shortMonthAndYear(line.from)
                }}</span>
                <span>{{ line.words }}<span v-if="line.own" class="text-ink-soft"> In this unit alone.</span></span>
            </li>
        </ul>
    </section>
</template>
