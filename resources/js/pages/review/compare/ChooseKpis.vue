<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { computed } from 'vue';
import { MOST_KPIS, useCompared } from './useComparison';

/** Up to eight of the KPIs that the units share. */
const view = useCompared();
const codes = computed(() => view.kpis.map(({ code }) => code));
function turn(code: string): void {
    const chosen = codes.value.includes(code) ? codes.value.filter((each) => each !== code) : [...codes.value, code];
    // In the order in which they are offered, which is that of the register.
    const inOrder = (view.page?.offered ?? []).map((each) => each.code).filter((each) => chosen.includes(each));
    view.chosen = inOrder.join(',');
}
</script>

<template>
    <Popover as="span" class="relative">
        <PopoverButton class="quiet-link">Choose KPIs</PopoverButton>
        <PopoverPanel
            class="absolute right-0 z-30 mt-1 max-h-[380px] w-[320px] overflow-auto border border-rule bg-sheet p-3 text-ink"
        >
            <fieldset>
                <legend class="pb-1 text-[13px] text-ink-soft">
                    {{ codes.length }} of at most {{ MOST_KPIS }} are compared.
                </legend>
                <label
                    v-for="each in view.page?.offered ?? []"
                    :key="each.code"
                    class="flex items-baseline gap-2 py-[3px] leading-tight"
                >
                    <input
                        type="checkbox"
                        class="translate-y-[2px] accent-brass"
                        :checked="codes.includes(each.code)"
                        :disabled="codes.includes(each.code) ? codes.length === 1 : codes.length >= MOST_KPIS"
                        @change="turn(each.code)"
                    />
                    <span class="grow">{{ each.name }}</span>
                    <span class="text-[12.5px] whitespace-nowrap text-ink-faint"
                        >{{ each.measure }} · {{ each.units }}</span
                    >
                </label>
            </fieldset>
        </PopoverPanel>
    </Popover>
</template>
