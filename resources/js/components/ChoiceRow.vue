<script setup lang="ts" generic="T extends string">
/** A few choices side by side, one of which holds. */
defineProps<{ label: string; choices: Readonly<Partial<Record<T, string>>>; disabled?: boolean }>();
const chosen = defineModel<T>({ required: true });
</script>

<template>
    <div
        role="radiogroup"
        :aria-label="label"
        class="inline-flex max-w-full flex-wrap overflow-hidden rounded-[3px] border border-edge bg-field"
    >
        <label
            v-for="(name, value) in choices"
            :key="value"
            class="relative cursor-pointer border-l border-rule px-3 py-1 first:border-l-0 has-checked:bg-brass-tint has-checked:font-[650] has-focus-visible:outline-2 has-focus-visible:-outline-offset-2 has-focus-visible:outline-brass"
            :class="{ 'opacity-60': disabled }"
        >
            <input
                v-model="chosen"
                type="radio"
                class="sr-only"
                :name="label"
                :value="value"
                :disabled="disabled ?? false"
            />
            {{ name }}
        </label>
    </div>
</template>
