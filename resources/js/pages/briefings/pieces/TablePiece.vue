<script setup lang="ts">
import ScorecardTable from '@/pages/review/scorecard/ScorecardTable.vue';
import { computed, ref } from 'vue';
import { usePage, type PieceProps } from '../usePage';

/** Rows of the scorecard, as on the scorecard. */
const props = defineProps<PieceProps>();
const page = usePage();
const opened = ref<number | null>(null);
const rows = computed(() => props.answer.rows ?? []);
const shown = computed(() => rows.value.filter(({ status }) => page.colour.value === '' || status === page.colour.value)); // prettier-ignore
const groups = computed(() => [
    { name: '', unit: null, status: 'not-judged' as const, moved: { worse: 0, recovered: 0, better: 0 }, rows: shown.value },
]); // prettier-ignore
</script>

<template>
    <p v-if="shown.length === 0" class="py-4 text-ink-soft">
        {{ rows.length === 0 ? 'No KPI fits.' : 'None has this colour.' }}
    </p>
    <ScorecardTable
        v-else
        :opened="opened"
        :units="[]"
        :all="rows"
        :groups="groups"
        :hide-targets="false"
        :hide-prior="false"
        :show-step="false"
        @update:opened="opened = page.isPublic ? null : $event"
    />
</template>
