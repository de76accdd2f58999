<script setup lang="ts">
/** The table behind a graphic: the same, to be read. */
defineProps<{ heads: string[]; rows: { key: string; cells: string[]; marked?: boolean }[]; label: string }>();
</script>

<template>
    <div class="max-h-[340px] overflow-auto" tabindex="0" role="region" :aria-label="label">
        <table class="w-full text-[13.5px]">
            <thead>
                <tr>
                    <th
                        v-for="(head, at) in heads"
                        :key="head"
                        scope="col"
                        class="sticky top-0 border-b border-rule bg-paper py-1 pl-3 font-semibold first:pl-0"
                        :class="at === 0 ? 'text-left' : 'text-right'"
                    >
                        {{ head }}
                    </th>
                </tr>
            </thead>
            <tbody>
                <tr v-for="row in rows" :key="row.key" :class="{ 'bg-brass-tint font-semibold': row.marked }">
                    <component
                        :is="at === 0 ? 'th' : 'td'"
                        v-for="(cell, at) in row.cells"
                        :key="at"
                        :scope="at === 0 ? 'row' : undefined"
                        class="border-b border-rule-soft py-[3px] pl-3 first:pl-0"
                        :class="at === 0 ? 'text-left font-normal' : 'text-right whitespace-nowrap'"
                    >
                        {{ cell }}
                    </component>
                </tr>
            </tbody>
        </table>
    </div>
</template>
