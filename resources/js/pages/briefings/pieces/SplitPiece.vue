<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { hierarchy, treemap } from 'd3-hierarchy';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { choiceOf, usePage, type PieceProps } from '../usePage';

/** A figure in its parts, as bars or as areas that lie in each other. */
const props = defineProps<PieceProps>();
const page = usePage();
const { figure, plain } = useNumbers();
const MOST = 8;

const split = computed(() => props.answer.split);
const name = (part: { part: string | null }): string => part.part ?? 'nothing stands there';
const parts = computed(() => (split.value?.parts ?? []).slice(0, MOST));
const rest = computed(() => (split.value?.parts ?? []).slice(MOST));
const most = computed(() => Math.max(1, ...parts.value.flatMap((part) => [Number(part.share ?? 0), Number(part.target ?? 0)]))); // prettier-ignore
const isDim = (part: { part: string | null }): boolean =>
    page.part.value !== '' && parts.value.some((each) => name(each) === page.part.value) && name(part) !== page.part.value; // prettier-ignore
const choose = (part: { part: string | null }): void => void (page.part.value = page.part.value === name(part) ? '' : name(part)); // prettier-ignore

const frame = useTemplateRef<HTMLElement>('frame');
const { width: measured } = useElementSize(frame);
const width = computed(() => Math.max(160, Math.round(measured.value) || 300));
const HEIGHT = 168;
const areas = computed(() => {
    const root = hierarchy<{ share: number; part: (typeof parts.value)[number] | null; children?: unknown[] }>({
        share: 0,
        part: null,
        children: parts.value.map((part) => ({ share: Math.max(0, Number(part.share ?? 0)), part })),
    }).sum(({ share }) => share);
    return treemap<{ share: number; part: (typeof parts.value)[number] | null }>()
        .size([width.value, HEIGHT])
        .paddingInner(4)(root as never)
        .leaves()
        .flatMap(({ x0, y0, x1, y1, data }) => (data.part === null ? [] : [{ x: x0, y: y0, width: x1 - x0, height: y1 - y0, part: data.part }])); // prettier-ignore
});
/** As much of a name as its area has room for. */
const cut = (text: string, room: number): string => {
    const fits = Math.floor((room - 14) / 6.6);
    return text.length <= fits ? text : fits < 4 ? '' : `${text.slice(0, fits - 1)}…`;
};
</script>

<template>
    <template v-if="split">
        <div
            v-if="choiceOf(piece, 'form', 'bars') === 'bars'"
            class="mt-1.5 grid grid-cols-[minmax(72px,auto)_1fr_auto_auto] items-center gap-x-2.5 gap-y-0 text-[13.5px]"
            role="table"
            :aria-label="piece.title || split.name"
        >
            <div
                v-for="part in parts"
                :key="name(part)"
                role="row"
                class="col-span-4 grid grid-cols-subgrid items-center"
                :class="{ 'opacity-35': isDim(part) }"
            >
                <span role="rowheader" class="max-w-[150px] truncate text-left">
                    <button
                        type="button"
                        class="min-h-[24px] max-w-full truncate text-left hover:text-brass"
                        :aria-pressed="page.part.value === name(part)"
                        @click="choose(part)"
                    >
                        {{ name(part) }}
                    </button>
                </span>
                <span role="cell" class="relative block h-[13px]">
                    <span
                        class="absolute inset-y-0 left-0"
                        :class="
                            {
                                red: 'bg-red',
                                amber: 'bg-amber',
                                green: 'bg-line opacity-75',
                                'not-judged': 'bg-line opacity-75',
                                'no-data': 'bg-line opacity-75',
                            }[part.status]
                        "
                        :style="{ width: `${(Number(part.share ?? 0) / most) * 100}%` }"
                    />
                    <span
                        v-if="part.target !== null"
                        class="absolute -inset-y-[3px] w-[2px] bg-brass"
                        :style="{ left: `calc(${(Number(part.target) / most) * 100}% - 1px)` }"
                        :title="`should be ${plain(Number(part.target))} %`"
                    />
                </span>
                <b role="cell" class="text-right font-semibold whitespace-nowrap">{{
                    part.actual ? figure(part.actual) : ''
                }}</b>
                <span role="cell" class="w-[40px] text-right whitespace-nowrap text-ink-faint">{{
                    part.share === null ? '' : `${plain(Math.round(Number(part.share)))} %`
                }}</span>
            </div>
        </div>
        <div v-else ref="frame" class="mt-1.5">
            <svg :width="width" :height="HEIGHT" class="block" role="group" :aria-label="piece.title || split.name">
                <g
                    v-for="area in areas"
                    :key="name(area.part)"
                    role="button"
                    tabindex="0"
                    class="cursor-pointer"
                    :class="{ 'opacity-35': isDim(area.part) }"
                    :aria-pressed="page.part.value === name(area.part)"
                    @click="choose(area.part)"
                    @keydown.enter.space.prevent="choose(area.part)"
                >
                    <title>{{ name(area.part) }}: {{ plain(Number(area.part.share ?? 0)) }} %</title>
                    <rect
                        :x="area.x"
                        :y="area.y"
                        :width="area.width"
                        :height="area.height"
                        :class="page.part.value === name(area.part) ? 'fill-brass-tint stroke-brass' : 'fill-fill'"
                        stroke-width="2"
                    />
                    <text
                        v-if="area.height > 20"
                        :x="area.x + 8"
                        :y="area.y + 18"
                        class="fill-ink text-[12.5px] font-semibold"
                    >
                        {{ cut(name(area.part), area.width) }}
                    </text>
                    <text
                        v-if="area.height > 38 && area.width > 44"
                        :x="area.x + 8"
                        :y="area.y + 34"
                        class="fill-ink-soft text-[12.5px]"
                    >
                        {{ area.part.actual ? figure(area.part.actual) : '' }}
                    </text>
                </g>
            </svg>
        </div>
        <p v-if="rest.length > 0" class="mt-1 text-[12.5px] text-ink-faint">
            and {{ rest.length }} more with
            {{ plain(Math.round(rest.reduce((sum, { share }) => sum + Number(share ?? 0), 0))) }} %
        </p>
    </template>
</template>
