<script setup lang="ts">
import type { Definition } from './useDraft';
import type { Schemas } from '@/api/client';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { computed, ref } from 'vue';
import FormLine from '@/components/FormLine.vue';
import RuleFields from './RuleFields.vue';
import { blankPlace, blankRule } from './useDraft';

const props = defineProps<{
    error: (pointer: string, within?: boolean) => string | undefined;
    register: Schemas['RegisterPage'] | undefined;
    saved: Definition;
}>();
const draft = defineModel<Definition>({ required: true });

const { session, units, childrenOf } = useSession();
const { period } = useView();

type Place = Schemas['Measurement'];
const below = (code: string): Schemas['Unit'][] => childrenOf(code).flatMap((unit) => [unit, ...below(unit.code)]);
const home = computed(() => units.value.get(draft.value.department));
const places = computed(() => new Map(draft.value.units.map((place) => [place.unit, place])));
/** The department with what lies in it, and wherever else the KPI is measured already. */
const offered = computed(() => {
    const inside = home.value === undefined ? [] : [home.value, ...below(home.value.code)];
    const codes = new Set(inside.map(({ code }) => code));
    return [
        ...inside,
        ...(session.value?.units ?? []).filter(({ code }) => !codes.has(code) && places.value.has(code)),
    ];
});
const inside = computed(() => (home.value === undefined ? [] : below(home.value.code).map(({ code }) => code)));
const all = computed(() => inside.value.every((code) => places.value.has(code)));
const index = (code: string): number => draft.value.units.findIndex((place) => place.unit === code);

function toggle(code: string): void {
    draft.value.units = places.value.has(code)
        ? draft.value.units.filter((place) => place.unit !== code)
        : [...draft.value.units, { ...blankPlace(code), owner: draft.value.units[0]?.owner ?? null }];
}

function toggleAll(): void {
    const others = draft.value.units.filter((place) => !inside.value.includes(place.unit));
    draft.value.units = all.value
        ? others
        : [
              ...others,
              ...inside.value.map(
                  (code) =>
                      places.value.get(code) ?? { ...blankPlace(code), owner: draft.value.units[0]?.owner ?? null },
              ),
          ];
}

function set(code: string, change: Partial<Place>): void {
    draft.value.units = draft.value.units.map((place) => (place.unit === code ? { ...place, ...change } : place));
}

const opened = ref<string | null>(null);
const savedRule = (code: string) => props.saved.units.find((place) => place.unit === code)?.rule ?? null;

// --- drivers ------------------------------------------------------------------------------------------------------

const candidates = computed(() =>
    (props.register?.kpis ?? []).filter(({ code }) => code !== draft.value.code && !draft.value.drivers.includes(code)),
);
const nameOf = (code: string): string => props.register?.kpis.find((kpi) => kpi.code === code)?.name ?? code;
const driver = ref('');

function addDriver(): void {
    const typed = driver.value.trim().toLowerCase();
    const found = candidates.value.find(
        ({ code, name }) =>
            code.toLowerCase() === typed || name.toLowerCase() === typed || `${name} (${code})`.toLowerCase() === typed,
    );
    if (found !== undefined) {
        draft.value.drivers = [...draft.value.drivers, found.code];
        driver.value = '';
    }
}
</script>

<template>
    <div class="space-y-6">
        <div>
            <p v-if="error('/units')" class="error mb-2" role="alert">{{ error('/units') }}</p>
            <table class="w-full table-fixed border-collapse text-left">
                <colgroup>
                    <col class="w-[210px]" />
                    <col class="w-[84px]" />
                    <col class="w-[190px]" />
                    <col class="w-[128px]" />
                    <col class="w-[128px]" />
                    <col class="w-[110px]" />
                    <col />
                </colgroup>
                <thead>
                    <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                        <th>measured in</th>
                        <th>weight</th>
                        <th>{{ draft.kind === 'formula' ? '' : 'entered by' }}</th>
                        <th>first month</th>
                        <th>last month</th>
                        <th>{{ draft.gather === '' ? '' : 'gathered' }}</th>
                        <th>limits</th>
                    </tr>
                </thead>
                <tbody v-for="unit in offered" :key="unit.code">
                    <tr class="[&>td]:h-[38px] [&>td]:border-t [&>td]:border-rule-soft [&>td]:pr-3">
                        <td>
                            <label
                                class="flex items-center gap-2.5 truncate"
                                :class="{ 'pl-5': unit.code !== draft.department }"
                            >
                                <input
                                    type="checkbox"
                                    class="size-4 shrink-0 accent-brass"
                                    :checked="places.has(unit.code)"
                                    @change="toggle(unit.code)"
                                />
                                <span class="truncate" :class="{ 'font-semibold': places.has(unit.code) }">{{
                                    unit.name
                                }}</span>
                            </label>
                        </td>
                        <template v-if="places.get(unit.code)">
                            <td>
                                <input
                                    type="number"
                                    min="0"
                                    step="any"
                                    class="field w-[66px] text-right"
                                    :aria-label="`Weight in ${unit.name}`"
                                    :value="places.get(unit.code)!.weight"
                                    :aria-invalid="!!error(`/units/${index(unit.code)}/weight`)"
                                    @change="
                                        set(unit.code, { weight: Number(($event.target as HTMLInputElement).value) })
                                    "
                                />
                            </td>
                            <td>
                                <select
                                    v-if="draft.kind !== 'formula' && !places.get(unit.code)!.gathered"
                                    class="field w-full"
                                    :aria-label="`Owner in ${unit.name}`"
                                    :value="places.get(unit.code)!.owner ?? ''"
                                    @change="
                                        set(unit.code, {
                                            owner: Number(($event.target as HTMLSelectElement).value) || null,
                                        })
                                    "
                                >
                                    <option value="">nobody in particular</option>
                                    <option
                                        v-for="person in register?.people ?? []"
                                        :key="person.id"
                                        :value="person.id"
                                    >
                                        {{ person.name }}
                                    </option>
                                </select>
                            </td>
                            <td v-for="end in ['from', 'to'] as const" :key="end">
                                <input
                                    type="month"
                                    class="field w-full px-1.5"
                                    :class="{ 'text-ink-faint': !places.get(unit.code)![end] }"
                                    :aria-label="`${end === 'from' ? 'First' : 'Last'} month in ${unit.name}`"
                                    :value="places.get(unit.code)![end] ?? ''"
                                    :aria-invalid="!!error(`/units/${index(unit.code)}/${end}`)"
                                    @change="
                                        set(unit.code, { [end]: ($event.target as HTMLInputElement).value || null })
                                    "
                                />
                            </td>
                            <td>
                                <label v-if="draft.gather !== ''" class="flex items-center gap-2 text-[13.5px]">
                                    <input
                                        type="checkbox"
                                        class="size-4 accent-brass"
                                        :checked="places.get(unit.code)!.gathered"
                                        @change="
                                            set(unit.code, { gathered: ($event.target as HTMLInputElement).checked })
                                        "
                                    />
                                    from below
                                </label>
                            </td>
                            <td>
                                <button
                                    v-if="draft.kind !== 'judged' && draft.polarity !== 'none'"
                                    type="button"
                                    class="quiet-link text-[13.5px]"
                                    :aria-expanded="opened === unit.code"
                                    @click="opened = opened === unit.code ? null : unit.code"
                                >
                                    {{ places.get(unit.code)!.rule ? 'its own' : "the KPI's" }}
                                </button>
                            </td>
                        </template>
                        <td v-else colspan="6" />
                    </tr>
                    <tr v-if="error(`/units/${index(unit.code)}`, true) && places.has(unit.code)">
                        <td colspan="7">
                            <span class="error" role="alert">{{ error(`/units/${index(unit.code)}`, true) }}</span>
                        </td>
                    </tr>
                    <tr v-if="opened === unit.code && places.get(unit.code)" class="bg-sheet">
                        <td colspan="7" class="space-y-[13px] px-6 py-4">
                            <template v-if="places.get(unit.code)!.rule">
                                <RuleFields
                                    :model-value="places.get(unit.code)!.rule!"
                                    :id-prefix="unit.code"
                                    :draft="draft"
                                    :saved="savedRule(unit.code)"
                                    :error="(field) => error(`/units/${index(unit.code)}/rule/${field}`)"
                                    @update:model-value="(rule) => set(unit.code, { rule })"
                                />
                                <button
                                    type="button"
                                    class="quiet-link text-[13.5px]"
                                    @click="set(unit.code, { rule: null })"
                                >
                                    Go back to the KPI's limits
                                </button>
                            </template>
                            <template v-else>
                                <p class="text-ink-soft">{{ unit.name }} is judged by the KPI's limits.</p>
                                <button
                                    type="button"
                                    class="button button-quiet"
                                    @click="
                                        set(unit.code, { rule: { ...(draft.rule ?? blankRule(period)), from: period } })
                                    "
                                >
                                    Give it limits of its own
                                </button>
                            </template>
                        </td>
                    </tr>
                </tbody>
            </table>
            <button v-if="inside.length > 1" type="button" class="quiet-link mt-2 text-[13.5px]" @click="toggleAll">
                {{ all ? 'None of those inside' : `All ${inside.length} inside ${home?.name}` }}
            </button>
        </div>
        <FormLine
            label="Driven by"
            for="driver"
            :error="error('/drivers', true)"
            hint="KPIs that move this one: they stand beside it when it is bad. They cannot lead back to it."
        >
            <ul class="mb-2 flex flex-wrap gap-2">
                <li
                    v-for="code in draft.drivers"
                    :key="code"
                    class="flex items-center gap-2 rounded-[3px] border border-rule bg-sheet py-0.5 pr-1 pl-2.5"
                >
                    {{ nameOf(code) }}
                    <button
                        type="button"
                        class="px-1.5 text-ink-faint hover:text-brass"
                        :aria-label="`Remove ${nameOf(code)}`"
                        @click="draft.drivers = draft.drivers.filter((each) => each !== code)"
                    >
                        ×
                    </button>
                </li>
            </ul>
            <span class="flex gap-2">
                <input
                    id="driver"
                    v-model="driver"
                    class="field w-[260px]"
                    list="driver-kpis"
                    autocomplete="off"
                    placeholder="name or code"
                    @change="addDriver"
                    @keydown.enter.prevent="addDriver"
                />
                <datalist id="driver-kpis">
                    <option v-for="kpi in candidates" :key="kpi.code" :value="`${kpi.name} (${kpi.code})`" />
                </datalist>
            </span>
        </FormLine>
    </div>
</template>
