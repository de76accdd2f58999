<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { periodLabel } from '@/composables/usePeriods';

/** Notes with the period they are on: why, what is expected, what is being done, and who says so. */
defineProps<{ notes: readonly Schemas['Note'][] }>();
</script>

<template>
    <dl class="max-w-[76em]">
        <div v-for="note in notes" :key="note.period" class="flex gap-4 py-[3px]">
            <dt class="w-[84px] shrink-0 text-ink-faint">{{ periodLabel(note.period) }}</dt>
            <dd>
                {{ note.text }}{{ ' ' }}
                <template v-if="note.outlook"
                    ><span class="text-ink-soft">Outlook:</span> {{ note.outlook }}{{ ' ' }}</template
                >
                <template v-if="note.doing"
                    ><span class="text-ink-soft">Being done:</span> {{ note.doing }}{{ ' ' }}</template
                >
                <span v-if="note.author" class="text-ink-faint">{{ note.author }}</span>
            </dd>
        </div>
    </dl>
</template>
