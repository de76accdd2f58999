<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { unitsOfKind } from '@/composables/unitKinds';
import { number } from '@/graphics/scale';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useId, useTemplateRef } from 'vue';
import GraphicHead from './GraphicHead.vue';
import GraphicTable from './GraphicTable.vue';
import SpreadLine from './SpreadLine.vue';
import { useCompared } from './useComparison';
import { useWords } from './useWords';

/** How the units are spread on every KPI: a line each. */
const view = useCompared();
const id = useId();
const { figure } = useNumbers();
const { written } = useWords();

const frame = useTemplateRef<HTMLElement>('frame');
const { width } = useElementSize(frame);
const NAME = 128;
const table = ref(false);
const read = ref('');
/** What has no better end is not drawn as if it had one. */
const aside = computed(() =>
    view.kpis.some(({ polarity }) => polarity === 'band' || polarity === 'none')
        ? ', or from low to high where it has a band or is only tracked'
        : '',
);
const title = computed(() => `How the ${unitsOfKind(view.page?.kind ?? '')} are spread`);
const heads = computed(() => ['', 'lowest', 'a quarter below', 'median', 'a quarter above', 'highest', ...(view.followed < 0 ? [] : [view.names[view.followed] ?? ''])]); // prettier-ignore
const rows = computed(() =>
    view.kpis.map((kpi) => {
        const known = kpi.cells.flatMap((cell) => (cell?.actual ? [cell.actual] : [])).sort((one, other) => (number(one.exact) ?? 0) - (number(other.exact) ?? 0)); // prettier-ignore
        const shown = [known[0], kpi.lower, kpi.median, kpi.upper, known.at(-1)].map((each) => (each ? figure(each, kpi.measure) : '–')); // prettier-ignore
        return {
            key: kpi.code,
            cells: [kpi.name, ...shown, ...(view.followed < 0 ? [] : [written(kpi, kpi.cells[view.followed])])],
        };
    }),
);
</script>

<template>
    <section :aria-labelledby="id">
        <GraphicHead :id="id" :title="title" :table="table" @turn="table = !table"
            >Better to the right{{ aside }}. Line: median; shade: middle half<template v-if="!view.plain"
                >; <span class="text-brass">brass: target</span></template
            >. A name enlarges its KPI.</GraphicHead
        >
        <GraphicTable v-if="table" :heads="heads" :rows="rows" :label="title" />
        <div v-else ref="frame">
            <div v-for="kpi in view.kpis" :key="kpi.code" class="flex items-center gap-2">
                <button
                    type="button"
                    class="line-clamp-2 shrink-0 text-left text-[13px] leading-[1.1] hover:text-brass"
                    :class="{ 'font-semibold text-brass': view.large === kpi.code }"
                    :style="{ width: `${NAME}px` }"
                    :title="`Enlarge ${kpi.name}`"
                    :aria-pressed="view.large === kpi.code"
                    @click="view.large = view.large === kpi.code ? '' : kpi.code"
                >
                    {{ kpi.name }}
                </button>
                <SpreadLine
                    v-if="kpi.figures > 0"
                    :kpi="kpi"
                    :width="Math.max(120, width - NAME - 8)"
                    @read="read = $event"
                />
                <span v-else class="text-[13px] text-ink-faint">no figures</span>
            </div>
            <p class="min-h-[19px] text-[13px] text-ink-soft" role="status">{{ read }}</p>
        </div>
    </section>
</template>
