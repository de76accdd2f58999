<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useEscape } from '@/composables/useEscape';
import Needle from '@/components/Needle.vue';
import Wake from '@/components/Wake.vue';
import { useNumbers } from '@/composables/useNumbers';
import { dayAndMonth, shortPeriodWords } from '@/composables/usePeriods';
import { computed, ref } from 'vue';
import ActionForm from './ActionForm.vue';

/** An action with whether it worked: how the KPI stood when it was agreed, how it stands now, and the way between. */
const props = defineProps<{ action: Schemas['Action'] }>();

const { figure } = useNumbers();
const editing = ref(false);
useEscape(editing, () => (editing.value = false));

const state = computed(() => {
    const { state: is, due, ended, overdue } = props.action;
    if (is === 'open') {
        return overdue
            ? { words: `overdue since ${dayAndMonth(due)}`, tone: 'font-semibold text-red-text' }
            : { words: `due ${dayAndMonth(due)}`, tone: 'text-ink-soft' };
    }
    return { words: `${is} ${dayAndMonth(ended ?? due)}`, tone: 'text-ink-soft' };
});
</script>

<template>
    <div>
        <div class="flex flex-wrap items-center gap-x-5 gap-y-1">
            <p class="min-w-0 grow basis-[280px]">
                <b class="font-semibold" :class="{ 'line-through decoration-ink-faint': action.state === 'dropped' }">{{
                    action.what
                }}</b>
                <span class="block text-[13.5px] text-ink-soft"
                    >{{ action.who }} · <span :class="state.tone">{{ state.words }}</span>
                    <template v-if="action.outcome"> · {{ action.outcome }}</template>
                </span>
            </p>
            <p v-if="action.wake.length > 1" class="flex items-center gap-2 text-[13.5px] text-ink-soft">
                <span
                    class="flex items-center gap-1"
                    :title="`When it was agreed, after ${shortPeriodWords(action.period)}`"
                >
                    <Needle :status="action.statusThen" size="s" />
                    {{ action.figureThen ? figure(action.figureThen) : '' }}
                </span>
                <Wake :points="action.wake" :status="action.statusNow" :width="90" :height="24" />
                <span class="flex items-center gap-1" title="Now">
                    <Needle :status="action.statusNow" size="s" />
                    {{ action.figureNow ? figure(action.figureNow) : '' }}
                </span>
            </p>
            <p v-else class="text-[13px] text-ink-soft">agreed after {{ shortPeriodWords(action.period) }}</p>
            <button
                v-if="action.mine"
                type="button"
                class="quiet-link text-[13.5px] text-ink-soft"
                :aria-expanded="editing"
                @click="editing = !editing"
            >
                Follow up
            </button>
        </div>
        <ActionForm
            v-if="editing"
            class="mt-2"
            :measurement="action.measurement"
            :period="action.period"
            :action="action"
            @done="editing = false"
        />
    </div>
</template>
