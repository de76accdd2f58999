<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { SPAN_PHRASES, STATUSES } from '@/words';
import { computed, ref } from 'vue';
import PieceKpi from './PieceKpi.vue';

/** Which figures of an issue are others by now. The issue itself stays as it was. */
const props = defineProps<{ changed: readonly Schemas['ChangedFigure'][]; issue: number }>();
const { figure } = useNumbers();
const FIRST = 3;
const all = ref(false);
const shown = computed(() => (all.value ? props.changed : props.changed.slice(0, FIRST)));
const written = (shownFigure: Schemas['Shown'] | null, measure: string): string => (shownFigure === null ? 'no figure' : figure(shownFigure, measure)); // prettier-ignore
</script>

<template>
    <div class="border-b border-rule py-2 text-[14px]" role="note">
        <p class="text-ink-soft">
            <b class="font-[650] text-ink"
                >{{ changed.length === 1 ? 'One figure has' : `${changed.length} figures have` }} changed since issue
                {{ issue }}</b
            >, which stays as it was:
        </p>
        <ul class="mt-0.5 flex flex-wrap gap-x-6 gap-y-0.5">
            <li v-for="each in shown" :key="`${each.code} ${each.unit} ${each.span}`">
                <PieceKpi :code="each.code" :unit="each.unit">{{ each.name }}</PieceKpi>{{ ' ' }}
                <span class="text-ink-soft">
                    {{ each.unitName }}, {{ SPAN_PHRASES[each.span as keyof typeof SPAN_PHRASES] }}:
                </span>
                <template v-if="written(each.then, each.measure) !== written(each.now, each.measure)"
                    >{{ written(each.then, each.measure) }} then,
                    <b class="font-[650]">{{ written(each.now, each.measure) }}</b> now</template
                ><template v-else-if="each.statusThen !== each.statusNow"
                    >{{ STATUSES[each.statusThen] }} then,
                    <b class="font-[650]">{{ STATUSES[each.statusNow] }}</b> now</template
                ><template v-else>{{ each.target ? 'another target' : 'by less than is shown' }}</template>
            </li>
        </ul>
        <button
            v-if="changed.length > FIRST"
            type="button"
            class="quiet-link text-[13px] text-ink-soft print:hidden"
            :aria-expanded="all"
            @click="all = !all"
        >
            {{ all ? 'fewer' : `all ${changed.length}` }}
        </button>
    </div>
</template>
