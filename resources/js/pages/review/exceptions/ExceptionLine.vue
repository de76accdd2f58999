<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useEscape } from '@/composables/useEscape';
import CourseStrip from '@/components/CourseStrip.vue';
import KpiLink from '@/components/KpiLink.vue';
import Needle from '@/components/Needle.vue';
import NoteMark from '@/components/NoteMark.vue';
import Wake from '@/components/Wake.vue';
import { unbroken, useNumbers } from '@/composables/useNumbers';
import { dayAndMonth, shortPeriodWords } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import ActionForm from '@/pages/review/kpi/ActionForm.vue';
import { computed, ref } from 'vue';

/** A KPI that deserves attention: why, since when, who is on it, and one step to do something about it. */
const props = defineProps<{ item: Schemas['ExceptionItem']; rank: number; points: boolean }>();
defineEmits<{ seen: [] }>();

const { query } = useView();
const { units } = useSession();
const { figure, unitOf } = useNumbers();
const agreeing = ref(false);
useEscape(agreeing, () => (agreeing.value = false));

const reasons = computed(() =>
    props.item.reasons.map((reason) => ({ ...reason, words: unbroken(reason.text.replace(/\.$/, '')) })),
);
const sum = computed(() => props.item.reasons.reduce((total, { points }) => total + points, 0));
const weighted = computed(() => (props.item.weight === '1' ? '' : ` × weight ${props.item.weight}`));
</script>

<template>
    <article
        class="border-b border-rule-soft py-3 [contain-intrinsic-size:auto_92px] [content-visibility:auto]"
        :class="{ 'opacity-60': item.seen }"
    >
        <div class="flex flex-wrap gap-x-[18px] gap-y-2 md:flex-nowrap">
            <span class="w-[30px] shrink-0 font-serif text-[22px] leading-[1.15] font-semibold text-ink-faint">{{
                rank
            }}</span>
            <Needle :status="item.status" :called="item.called" size="l" class="mt-px" />
            <div class="min-w-0 grow basis-0">
                <h3 class="font-sans text-[16.5px] leading-tight font-[650]">
                    <KpiLink class="hover:text-brass" :code="item.code" :unit="item.unit">{{ item.name }}</KpiLink>
                    <span class="ml-1.5 text-[14.5px] font-normal text-ink-soft">{{ units.get(item.unit)?.name }}</span>
                    <span
                        v-if="item.actual"
                        class="ml-1.5 text-[14.5px] font-normal whitespace-nowrap text-ink-soft"
                        :title="item.actual.exact"
                        >{{ figure(item.actual, item.measure) }} {{ unitOf(item.measure) }}</span
                    >
                </h3>
                <p class="mt-1 max-w-[46em] text-[15px]">
                    <template v-for="(reason, index) in reasons" :key="reason.code"
                        ><span v-if="index > 0" class="text-ink-faint"> · </span>{{ reason.words
                        }}<span v-if="points" class="text-ink-faint">{{ ' ' }}{{ reason.points }}</span></template
                    >
                    <span class="ml-1 whitespace-nowrap text-ink-faint"
                        >({{ points && weighted ? `${sum}${weighted} = ` : '' }}{{ item.points }} points)</span
                    >
                </p>
                <p v-if="item.note" class="mt-1 flex max-w-[46em] gap-2 text-[14px] text-ink-soft">
                    <NoteMark class="mt-[3px] shrink-0" /> <span class="line-clamp-2">{{ item.note.text }}</span>
                </p>
            </div>
            <div class="w-[150px] shrink-0 self-start max-md:hidden">
                <CourseStrip v-if="item.course" class="mb-1.5" :row="item" short />
                <Wake :points="item.wake" :status="item.monthStatus" :width="150" :height="38" />
            </div>
            <div class="w-[220px] shrink-0 text-[14.5px] max-md:w-full">
                <p v-for="action in item.actions" :key="action.id" class="mb-1">
                    <b class="font-semibold">{{ action.what }}</b>
                    <span
                        class="block text-[13.5px]"
                        :class="action.overdue ? 'font-semibold text-red-text' : 'text-ink-soft'"
                        >{{ action.who }} · {{ action.overdue ? 'overdue since' : 'due' }}
                        {{ dayAndMonth(action.due) }}</span
                    >
                </p>
                <p class="flex flex-wrap gap-x-4 gap-y-1 text-[14px]">
                    <button
                        v-if="item.mine"
                        type="button"
                        class="quiet-link text-brass"
                        :aria-expanded="agreeing"
                        :aria-label="`${item.actions.length > 0 ? 'Another action' : 'Agree an action'} on ${item.name}`"
                        @click="agreeing = !agreeing"
                    >
                        {{ item.actions.length > 0 ? 'Another action' : 'Agree an action' }}
                    </button>
                    <RouterLink
                        v-if="item.counted"
                        class="quiet-link text-ink-soft"
                        :to="{
                            name: 'course',
                            params: { code: item.code },
                            query: { ...query({ unit: item.unit }), look: 'records' },
                        }"
                        >The records</RouterLink
                    >
                    <RouterLink
                        v-if="
                            item.mine && item.reasons.some(({ code }) => code === 'unexplained' || code === 'missing')
                        "
                        class="quiet-link text-brass"
                        :to="{ name: 'logbook', query: query({ unit: item.unit }) }"
                        >{{
                            item.reasons.some(({ code }) => code === 'missing')
                                ? 'Enter it'
                                : `Say why in ${shortPeriodWords(item.latest)}`
                        }}</RouterLink
                    >
                    <button
                        type="button"
                        class="quiet-link text-ink-soft"
                        :aria-label="`${item.seen ? 'Not seen' : 'Seen'}: ${item.name}`"
                        @click="$emit('seen')"
                    >
                        {{ item.seen ? 'Not seen' : 'Seen' }}
                    </button>
                </p>
            </div>
        </div>
        <ActionForm
            v-if="agreeing"
            class="mt-3 md:ml-[96px]"
            :measurement="item.id"
            :period="item.latest"
            @done="agreeing = false"
        />
    </article>
</template>
