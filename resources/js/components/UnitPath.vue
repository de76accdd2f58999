<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { computed } from 'vue';

/** From the organisation to the chosen unit. Each step opens what stands beside it and below it. */
const { path, childrenOf } = useSession();
const { unit, show } = useView();

const steps = computed(() => path(unit.value.code));

const around = (step: Schemas['Unit']) => [
    { title: 'Beside it', units: step.parent === null ? [step] : childrenOf(step.parent) },
    { title: `In ${step.name}`, units: childrenOf(step.code) },
];
</script>

<template>
    <nav aria-label="Unit" class="flex min-w-0 flex-wrap items-center gap-[9px]">
        <template v-for="(step, index) in steps" :key="step.code">
            <span v-if="index > 0" class="text-on-sea-soft" aria-hidden="true">›</span>
            <Menu v-slot="{ open }" as="div" class="relative">
                <MenuButton
                    class="rounded-[3px] py-1 text-left focus-visible:outline-brass-bright"
                    :class="
                        index === steps.length - 1 ? 'font-semibold text-on-sea' : 'text-on-sea-soft hover:text-on-sea'
                    "
                    :aria-current="index === steps.length - 1 ? 'true' : undefined"
                >
                    {{ step.name }}
                    <svg
                        width="8"
                        height="6"
                        viewBox="0 0 8 6"
                        class="ml-0.5 inline opacity-60"
                        :class="{ 'rotate-180': open }"
                        aria-hidden="true"
                    >
                        <path d="M1 1.2 L4 4.4 L7 1.2" class="fill-none stroke-current" stroke-width="1.3" />
                    </svg>
                </MenuButton>
                <MenuItems
                    class="absolute top-full left-0 z-20 mt-1 max-h-[70vh] w-64 overflow-y-auto rounded-[4px] border border-rule bg-sheet py-2 text-ink shadow-[0_6px_24px_rgb(0_0_0/.16)] outline-none"
                >
                    <template v-for="group in around(step)" :key="group.title">
                        <div v-if="group.units.length > 0" class="px-4 pt-2 pb-1 text-[12.5px] text-ink-faint">
                            {{ group.title }}
                        </div>
                        <MenuItem v-for="each in group.units" :key="each.code" v-slot="{ active }">
                            <button
                                type="button"
                                class="block w-full px-4 py-1.5 text-left"
                                :class="[active ? 'bg-brass-tint' : '', each.code === unit.code ? 'font-semibold' : '']"
                                @click="show({ unit: each.code })"
                            >
                                {{ each.name }}
                            </button>
                        </MenuItem>
                    </template>
                    <MenuItem v-slot="{ active }">
                        <RouterLink
                            class="mt-2 block border-t border-rule-soft px-4 py-2 text-[14px] text-ink-soft"
                            :class="{ 'bg-brass-tint': active }"
                            :to="{ name: 'unit', params: { code: step.code } }"
                            >About {{ step.name }}</RouterLink
                        >
                    </MenuItem>
                </MenuItems>
            </Menu>
        </template>
    </nav>
</template>
