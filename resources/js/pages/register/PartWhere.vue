<script setup lang="ts">
import type { Definition } from './useDraft';
import type { Schemas } from '@/api/client';
import { useSession } from '@/composables/useSession';
import { computed } from 'vue';
import FormLine from './FormLine.vue';

defineProps<{ error: (pointer: string, within?: boolean) => string | undefined }>();
const draft = defineModel<Definition>({ required: true });

const { units, childrenOf } = useSession();

const below = (code: string): Schemas['Unit'][] => childrenOf(code).flatMap((unit) => [unit, ...below(unit.code)]);
const home = computed(() => units.value.get(draft.value.department));
const offered = computed(() => (home.value === undefined ? [] : [home.value, ...below(home.value.code)]));
const inside = computed(() => offered.value.slice(1).map(({ code }) => code));
const all = computed(() => inside.value.every((code) => draft.value.units.includes(code)));

function toggleAll(): void {
    const outside = draft.value.units.filter((code) => !inside.value.includes(code));
    draft.value.units = all.value ? outside : [...outside, ...inside.value];
}
</script>

<template>
    <div class="max-w-[680px]">
        <FormLine label="Measured in" :error="error('/units', true)">
            <div class="space-y-2">
                <div class="grid gap-x-6 gap-y-1 sm:grid-cols-2">
                    <label
                        v-for="unit in offered"
                        :key="unit.code"
                        class="flex items-center gap-2.5"
                        :class="{ 'sm:col-span-2': unit.code === draft.department }"
                    >
                        <input v-model="draft.units" type="checkbox" class="size-4 accent-brass" :value="unit.code" />
                        {{ unit.name }}
                    </label>
                </div>
                <button v-if="inside.length > 1" type="button" class="quiet-link text-[13.5px]" @click="toggleAll">
                    {{ all ? 'None of those inside' : `All ${inside.length} inside ${home?.name}` }}
                </button>
            </div>
        </FormLine>
    </div>
</template>
