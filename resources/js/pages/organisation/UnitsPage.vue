<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import SettingsTabs from '@/components/SettingsTabs.vue';
import StateNote from '@/components/StateNote.vue';
import { counted } from '@/composables/useNumbers';
import { monthAndYear } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useQuery } from '@tanstack/vue-query';
import { defaultRangeExtractor, useWindowVirtualizer } from '@tanstack/vue-virtual';
import { useResizeObserver, useTitle } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, type ComponentPublicInstance } from 'vue';
import { useRoute } from 'vue-router';
import ShapesStep from './ShapesStep.vue';
import UnitForm from './UnitForm.vue';
import UnitsStep from './UnitsStep.vue';

/** The tree of the organisation: what its parts are called, where they stand, and what hangs on them. */
useTitle('Units · Kybernet');
const { load } = useSession();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['units'],
    queryFn: () => read(api.GET('/api/units')),
    staleTime: 0,
});
const { busy, send, said } = useSending();

type Unit = Schemas['UnitTreeLine'];
type Place = Schemas['UnitPlace'];

const { query: asked } = useRoute();
/** What is brought in above the tree. */
const opened = ref<'' | 'list' | 'shapes'>(asked['shapes'] === '1' ? 'shapes' : '');
/** The code of the one that is open, and where it was dropped. */
const editing = ref<string | null>(typeof asked['change'] === 'string' ? asked['change'] : null);
const dropped = ref<string | null>(null);
/** What was done last, and what takes it back. */
const done = ref<{ words: string; now: Place; before: Place } | null>(null);

const sought = ref('');
const byCode = computed(() => new Map(data.value?.map((unit) => [unit.code, unit])));
const called = (code: string | null): string => byCode.value.get(code ?? '')?.name ?? '';
/** Those that are meant, with the way to them. */
const shown = computed(() => {
    const words = sought.value.trim().toLowerCase();
    if (words === '') {
        return data.value ?? [];
    }
    const wanted = new Set<string>();
    for (const unit of data.value ?? []) {
        if (`${unit.name} ${unit.code}`.toLowerCase().includes(words)) {
            for (let each: Unit | undefined = unit; each !== undefined; each = byCode.value.get(each.parent ?? '')) {
                wanted.add(each.code);
            }
        }
    }
    return (data.value ?? []).filter(({ code }) => wanted.has(code));
});
const kinds = computed(() => [...new Set(data.value?.map(({ kind }) => kind))]);
const levels = computed(() => Math.max(0, ...(data.value ?? []).map(({ depth }) => depth)));

// Rows out of sight are not there, so that thousands of units open like twelve.
const body = useTemplateRef<HTMLElement>('body');
/** How far down the page the rows begin: what stands above them grows and shrinks. */
const begins = ref(0);
useResizeObserver(useTemplateRef<HTMLElement>('above'), () => {
    begins.value = Math.round((body.value?.getBoundingClientRect().top ?? 0) + window.scrollY);
});
const dragged = ref<Unit | null>(null);
const virtual = useWindowVirtualizer(
    computed(() => ({
        count: shown.value.length,
        estimateSize: () => 35,
        overscan: 12,
        scrollMargin: begins.value,
        getItemKey: (at: number) => shown.value[at]?.code ?? at,
        // What is typed in and what is dragged stays, wherever one scrolls to.
        rangeExtractor: (range: Parameters<typeof defaultRangeExtractor>[0]) => {
            const held = [editing.value, dragged.value?.code ?? null]
                .map((code) => shown.value.findIndex((unit) => unit.code === code))
                .filter((at) => at >= 0);
            return [...new Set([...defaultRangeExtractor(range), ...held])].sort((a, b) => a - b);
        },
    })),
);
/** The rows that are there, each with the height of those left out before it. */
const rows = computed(() => {
    let end = virtual.value.options.scrollMargin;
    return virtual.value.getVirtualItems().flatMap(({ index, start, end: itsEnd }) => {
        const unit = shown.value[index];
        const gap = start - end;
        end = itsEnd;
        return unit === undefined ? [] : [{ unit, index, gap }];
    });
});
const rest = computed(() => {
    const last = virtual.value.getVirtualItems().at(-1);
    return last === undefined ? 0 : virtual.value.getTotalSize() - (last.end - virtual.value.options.scrollMargin);
});
const measure = (row: Element | ComponentPublicInstance | null): void => {
    if (row instanceof Element) {
        virtual.value.measureElement(row);
    }
};

async function refresh(): Promise<Unit[]> {
    await Promise.all([refetch(), load()]);
    return data.value ?? [];
}

function open(unit: Unit, below: string | null = null): void {
    opened.value = '';
    dropped.value = below;
    editing.value = unit.code;
}

/** Whoever works by keyboard goes on where they were. */
async function close(): Promise<void> {
    const code = editing.value ?? '';
    editing.value = null;
    await nextTick();
    document.getElementById(`change-${code}`)?.focus();
}

async function kept({ now, before }: { now: Place; before: Place }): Promise<void> {
    const moved = now.parent === before.parent ? '' : `, and stands below ${called(now.parent)}`;
    done.value = {
        now,
        before,
        words:
            now.name === before.name ? `${now.name} is kept${moved}.` : `${before.name} is called ${now.name}${moved}.`,
    };
    editing.value = now.code;
    await close();
}

async function takeBack(): Promise<void> {
    const last = done.value;
    if (last === null) {
        return;
    }
    const isBack = await send(async () => {
        const path = { unit: last.now.code };
        await read(api.PUT('/api/units/{unit}', { params: { path }, body: { ...last.before, seen: last.now } }));
        await refresh();
    });
    if (isBack) {
        done.value = null;
    }
}

/** Those that stand below each unit, in their order: asked for by every row, so looked up once. */
const inside = computed(() => {
    const found = new Map<string | null, Unit[]>();
    for (const unit of data.value ?? []) {
        const those = found.get(unit.parent);
        if (those === undefined) {
            found.set(unit.parent, [unit]);
        } else {
            those.push(unit);
        }
    }
    return found;
});
/** Those that stand beside the unit, itself included. */
const beside = (unit: Unit): Unit[] => inside.value.get(unit.parent) ?? [];

async function order(unit: Unit, after: string | null): Promise<void> {
    done.value = null;
    await send(async () => {
        await read(api.PUT('/api/units/{unit}/order', { params: { path: { unit: unit.code } }, body: { after } }));
        await refresh();
    });
}

/** One place up or down among those beside it; the focus stays with it. */
async function shift(unit: Unit, by: -1 | 1): Promise<void> {
    const all = beside(unit);
    const at = all.findIndex(({ code }) => code === unit.code);
    await order(unit, all[at + (by === 1 ? 1 : -2)]?.code ?? null);
    await nextTick();
    document.getElementById(`change-${unit.code}`)?.focus();
}

/** Dropped on a neighbour it stands behind it; on another, the form opens with that as its place, to be saved or left. */
async function drop(on: Unit): Promise<void> {
    const unit = dragged.value;
    dragged.value = null;
    if (unit === null || unit.code === on.code || unit.parent === null) {
        return;
    }
    if (unit.parent === on.parent) {
        await order(unit, on.code);
        return;
    }
    open(unit, on.code);
}

function gone(): void {
    editing.value = null;
    done.value = null;
}

function show(what: 'list' | 'shapes'): void {
    editing.value = null;
    opened.value = opened.value === what ? '' : what;
}
</script>

<template>
    <div ref="above">
        <SettingsTabs here="units" />
        <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
            <div>
                <h1 class="text-[28px] leading-[1.15]">Units</h1>
                <p v-if="data" class="mt-[5px] text-[17px]">
                    {{ data[0]?.name }} has {{ data.length - 1 === 1 ? 'one unit' : `${data.length - 1} units` }}
                    <template v-if="levels > 1">on {{ counted(levels) }} levels</template>. What closed months said of
                    them stays.
                </p>
            </div>
            <p class="flex gap-2">
                <button
                    type="button"
                    class="button button-quiet"
                    :aria-expanded="opened === 'shapes'"
                    @click="show('shapes')"
                >
                    {{ opened === 'shapes' ? 'Close the map' : 'Shapes for a map' }}
                </button>
                <button type="button" class="button" :aria-expanded="opened === 'list'" @click="show('list')">
                    {{ opened === 'list' ? 'Close the list' : 'Add units' }}
                </button>
            </p>
        </div>
        <section
            v-if="opened === 'shapes' && data"
            class="mt-4 border-y border-rule py-4"
            aria-label="Shapes for a map"
        >
            <ShapesStep :units="data" />
        </section>
        <section v-if="opened === 'list'" class="mt-4 border-y border-rule py-4" aria-label="Add units">
            <UnitsStep @made="refetch()" />
        </section>
        <p
            v-if="done"
            class="mt-4 flex flex-wrap items-center gap-4 border-l-[3px] border-brass bg-brass-tint px-4 py-2.5 text-[15px]"
            role="status"
        >
            {{ done.words }}
            <button type="button" class="quiet-link min-h-6" :disabled="busy" @click="takeBack">Take it back</button>
        </p>
        <p v-if="editing === null && said" class="error mt-3" role="alert">{{ said }}</p>
    </div>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <label v-if="data.length > 12" class="mt-4 block max-w-[320px]"
            ><span class="sr-only">Find a unit</span
            ><input v-model="sought" type="search" class="field w-full" placeholder="Find by name or code"
        /></label>
        <table :aria-rowcount="shown.length + 1" class="mt-4 w-full border-collapse text-left text-[15px]">
            <thead>
                <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                    <th scope="col">Name</th>
                    <th scope="col" class="max-md:hidden">Code</th>
                    <th scope="col" class="max-md:hidden">What it is</th>
                    <th scope="col" class="w-[70px] text-right">KPIs</th>
                    <th scope="col" class="w-[80px] text-right max-md:hidden">People</th>
                    <th scope="col"><span class="sr-only">What can be done</span></th>
                </tr>
            </thead>
            <tbody ref="body">
                <template v-for="{ unit, index, gap } in rows" :key="unit.code">
                    <tr v-if="gap > 0" aria-hidden="true">
                        <td colspan="6" class="p-0" :style="{ height: `${gap}px` }" />
                    </tr>
                    <tr
                        v-if="editing !== unit.code"
                        :ref="measure"
                        :data-index="index"
                        :aria-rowindex="index + 2"
                        class="group border-t border-rule-soft"
                        :class="{ 'text-ink-faint': unit.retired, 'bg-brass-tint': dragged?.code === unit.code }"
                        :draggable="unit.parent !== null"
                        @dragstart="dragged = unit"
                        @dragend="dragged = null"
                        @dragover.prevent
                        @drop.prevent="drop(unit)"
                    >
                        <td class="py-[7px] pr-4" :class="{ 'font-semibold': unit.depth <= 1 }">
                            <span class="block" :style="{ paddingLeft: `${unit.depth * 20}px` }"
                                ><RouterLink
                                    class="hover:underline"
                                    draggable="false"
                                    :to="{ name: 'unit', params: { code: unit.code } }"
                                    >{{ unit.name }}</RouterLink
                                ><span v-if="unit.retired" class="ml-2 text-[13px] font-normal"
                                    >retired from {{ monthAndYear(unit.retired) }}</span
                                ></span
                            >
                        </td>
                        <td class="pr-4 text-[13.5px] text-ink-soft max-md:hidden">{{ unit.code }}</td>
                        <td class="pr-4 text-[13.5px] text-ink-soft max-md:hidden">{{ unit.kind }}</td>
                        <td class="text-right">{{ unit.kpis > 0 ? unit.kpis : '' }}</td>
                        <td class="text-right max-md:hidden">{{ unit.people > 0 ? unit.people : '' }}</td>
                        <td class="pl-5 text-right whitespace-nowrap">
                            <template v-if="sought === '' && unit.parent !== null && beside(unit).length > 1">
                                <button
                                    type="button"
                                    class="min-h-6 min-w-6 px-1 text-ink-faint opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-ink focus-visible:opacity-100 disabled:invisible"
                                    :disabled="busy || beside(unit)[0]?.code === unit.code"
                                    :aria-label="`${unit.name} up`"
                                    @click="shift(unit, -1)"
                                >
                                    ↑
                                </button>
                                <button
                                    type="button"
                                    class="mr-3 min-h-6 min-w-6 px-1 text-ink-faint opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:text-ink focus-visible:opacity-100 disabled:invisible"
                                    :disabled="busy || beside(unit).at(-1)?.code === unit.code"
                                    :aria-label="`${unit.name} down`"
                                    @click="shift(unit, 1)"
                                >
                                    ↓
                                </button>
                            </template>
                            <button
                                :id="`change-${unit.code}`"
                                type="button"
                                class="quiet-link min-h-6 text-[14px]"
                                :aria-label="`Change ${unit.name}`"
                                @click="open(unit)"
                            >
                                Change
                            </button>
                        </td>
                    </tr>
                    <tr
                        v-else
                        :ref="measure"
                        :data-index="index"
                        :aria-rowindex="index + 2"
                        class="border-t border-rule bg-sheet"
                    >
                        <td colspan="6" class="px-3 py-3">
                            <UnitForm
                                :unit="unit"
                                :units="data"
                                :begins-below="dropped"
                                :refresh="refresh"
                                @closed="close"
                                @kept="kept"
                                @gone="gone"
                            />
                        </td>
                    </tr>
                </template>
                <tr v-if="rest > 0" aria-hidden="true">
                    <td colspan="6" class="p-0" :style="{ height: `${rest}px` }" />
                </tr>
            </tbody>
        </table>
        <p v-if="shown.length === 0" class="mt-4 text-ink-soft" role="status">
            No unit has “{{ sought }}” in its name or code.
        </p>
        <datalist id="unit-kinds">
            <option v-for="kind in kinds" :key="kind" :value="kind" />
        </datalist>
    </template>
</template>
