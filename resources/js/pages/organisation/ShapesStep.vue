<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FileDrop from '@/components/FileDrop.vue';
import { useSending } from '@/composables/useSending';
import { computed, ref } from 'vue';

/** Shapes for a map, out of a GeoJSON file: whose each region is can be said before anything is kept. */
const { units } = defineProps<{ units: Schemas['UnitTreeLine'][] }>();
const { busy, said, send } = useSending();

const text = ref('');
const file = ref('');
const found = ref<Schemas['FoundShape'][]>([]);
/** Codes of units, one for each region; blank leaves it out. */
const chosen = ref<string[]>([]);
const word = ref('');

const twice = computed(() => new Set(chosen.value.filter((code, at, all) => code !== '' && all.indexOf(code) !== at)));
const count = computed(() => chosen.value.filter((code) => code !== '').length);
const without = computed(() => chosen.value.length - count.value);

async function look(given: File): Promise<void> {
    word.value = '';
    found.value = [];
    file.value = given.name;
    text.value = await given.text();
    await send(async () => {
        found.value = await read(api.POST('/api/unit-shapes/preview', { body: { text: text.value } }));
        chosen.value = found.value.map(({ unit }) => unit ?? '');
    });
}

async function take(): Promise<void> {
    await send(async () => {
        const { units: taken } = await read(
            api.POST('/api/unit-shapes', {
                body: { text: text.value, units: chosen.value.map((code) => (code === '' ? null : code)) },
            }),
        );
        word.value = taken === 1 ? 'One unit has its shape.' : `${taken} units have their shapes.`;
        found.value = [];
    });
}
</script>

<template>
    <FileDrop
        v-if="found.length === 0"
        :busy="busy"
        accept=".geojson,.json,application/geo+json"
        hint="GeoJSON with one region for each unit (RFC 7946, degrees). Codes or names in its properties find their units."
        @file="look"
    />
    <template v-else>
        <p class="text-[15px]">
            {{ file }} has {{ found.length === 1 ? 'one region' : `${found.length} regions`
            }}<template v-if="without > 0">; {{ without === 1 ? 'one is' : `${without} are` }} left out</template>.
        </p>
        <ul class="mt-2 max-h-[46vh] overflow-y-auto text-[15px]">
            <li
                v-for="(shape, at) in found"
                :key="at"
                class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule-soft py-1.5"
            >
                <span class="w-[260px] min-w-0 truncate" :title="shape.names.join(', ')">{{
                    shape.names.join(', ') || `Region ${at + 1}`
                }}</span>
                <select v-model="chosen[at]" class="field w-[260px]" :aria-label="`Unit of region ${at + 1}`">
                    <option value="">left out</option>
                    <option v-for="unit in units" :key="unit.code" :value="unit.code">
                        {{ '\u2003'.repeat(unit.depth) }}{{ unit.name }}
                    </option>
                </select>
                <span v-if="twice.has(chosen[at] ?? '')" class="error">Two regions are this unit.</span>
                <span v-else-if="shape.replaces && shape.unit === chosen[at]" class="text-[13.5px] text-ink-faint"
                    >takes the place of the one that it has</span
                >
            </li>
        </ul>
        <p class="mt-3 flex flex-wrap items-center gap-3">
            <button type="button" class="button" :disabled="busy || count === 0 || twice.size > 0" @click="take">
                {{ count === 1 ? 'Take one shape' : `Take ${count} shapes` }}
            </button>
            <button type="button" class="button button-quiet" @click="found = []">Another file</button>
        </p>
    </template>
    <p v-if="said" class="error mt-2" role="alert">{{ said }}</p>
    <p v-else-if="word" class="mt-2 text-[14.5px] text-ink-soft" role="status">{{ word }}</p>
</template>
