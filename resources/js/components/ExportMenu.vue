<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';

/** What is seen, as a file: the browser fetches it from the address in the format that is chosen. */
const props = withDefaults(
    defineProps<{ path: string; query?: Record<string, string>; formats?: Record<string, string>; title?: string }>(),
    {
        query: () => ({}),
        formats: () => ({ csv: 'CSV', xlsx: 'XLSX', ods: 'ODS' }),
        title: 'Export',
    },
);
const address = (format: string): string =>
    `${props.path}?${new URLSearchParams({ ...props.query, format }).toString()}`;
</script>

<template>
    <Menu as="span" class="relative">
        <MenuButton class="quiet-link">{{ title }}</MenuButton>
        <MenuItems class="absolute right-0 z-30 mt-1 min-w-[110px] border border-rule bg-sheet py-1 outline-none">
            <MenuItem v-for="(name, format) in formats" :key="format" v-slot="{ active }" as="template">
                <a
                    :href="address(String(format))"
                    download
                    class="block px-3 py-1 text-ink"
                    :class="{ 'bg-brass-tint': active }"
                    >{{ name }}</a
                >
            </MenuItem>
        </MenuItems>
    </Menu>
</template>
