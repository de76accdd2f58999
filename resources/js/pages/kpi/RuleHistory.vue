<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { shortMonthAndYear } from '@/composables/usePeriods';
import { EACH, REFERENCES } from '@/pages/register/words';

/** The rule sets that have judged the KPI, the newest first. */
const props = defineProps<{ rules: readonly Schemas['RuleLine'][]; measure: string; frequency: keyof typeof EACH }>();

function words({ rule }: Schemas['RuleLine']): string {
    if (rule.low !== '') {
        return `On course from ${rule.low} to ${rule.high}, drifting up to ${rule.marginLow} below or ${rule.marginHigh} above.`;
    }
    const reference =
        rule.reference === 'recent' ? `the last ${rule.periods} ${EACH[props.frequency]}s` : REFERENCES[rule.reference];
    const stretch = rule.stretch === '' ? '' : ` Stretch at ${rule.stretch}.`;
    switch (rule.measure) {
        case 'level':
            return `On course at ${rule.green} or better, drifting at ${rule.amber} or better.${stretch}`;
        case 'reached':
            return `On course from ${rule.green} % of ${reference}, drifting from ${rule.amber} %.${stretch}`;
        default: {
            const unit = rule.measure === 'percent' ? ' %' : props.measure === '%' ? ' points' : ` ${props.measure}`;
            return `On course up to ${rule.green}${unit} worse than ${reference}, drifting up to ${rule.amber}${unit}.${stretch}`;
        }
    }
}
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
                <span>{{ words(line) }}<span v-if="line.own" class="text-ink-soft"> In this unit alone.</span></span>
            </li>
        </ul>
    </section>
</template>
