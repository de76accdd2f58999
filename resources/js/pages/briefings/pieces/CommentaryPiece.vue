<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers, unbroken } from '@/composables/useNumbers';
import { STATUSES } from '@/words';
import { computed } from 'vue';
import PieceKpi from '../PieceKpi.vue';
import type { PieceProps } from '../usePage';

/** Words in which figures follow the page. The first text of a page is its head sentence. */
const props = defineProps<PieceProps>();
const { figure, signed, percent, unitOf } = useNumbers();
type Part = Schemas['TextPart'];

/** Paragraphs, which a blank line parts. */
const paragraphs = computed(() => {
    const found: Part[][] = [[]];
    for (const part of props.answer.text ?? []) {
        if (part.live) {
            found.at(-1)?.push(part);
            continue;
        }
        part.words.split(/\n\s*\n/).forEach((words, at) => {
            if (at > 0) {
                found.push([]);
            }
            if (words !== '') {
                found.at(-1)?.push({ ...part, words });
            }
        });
    }
    return found.filter((parts) => parts.length > 0);
});
const written = (part: Part): string => {
    if (part.figure !== null) {
        return unbroken([figure(part.figure, part.measure), unitOf(part.measure)].filter(Boolean).join(' ')).replaceAll(
            ' ',
            '\u00A0',
        );
    }
    if (part.difference !== null) {
        const { difference, percent: share, points } = part.difference;
        return points
            ? `${signed(difference)} points`
            : share === null
              ? signed(difference, part.measure)
              : percent(share);
    }
    return part.code === '' ? part.words : 'no figure yet';
};
const TONES: Record<string, string> = { red: 'text-red-text', amber: 'text-amber-text', green: 'text-green-text' };
</script>

<template>
    <div
        v-if="paragraphs.length > 0"
        :class="piece.title === '' ? 'text-[16.5px] leading-[1.42]' : 'text-[15px] leading-[1.42]'"
        class="max-w-[68em]"
    >
        <p v-for="(parts, at) in paragraphs" :key="at" class="mt-1.5 first:mt-0.5">
            <template v-for="(part, index) in parts" :key="index"
                ><template v-if="!part.live">{{ part.words }}</template
                ><PieceKpi
                    v-else-if="part.code !== ''"
                    :code="part.code"
                    :unit="part.unit"
                    class="font-[650]"
                    :class="TONES[part.status ?? '']"
                    :title="part.status ? STATUSES[part.status] : ''"
                    >{{ written(part) }}</PieceKpi
                ><span
                    v-else
                    class="bg-brass-tint px-1 text-ink-soft"
                    title="This KPI is not measured here, or is not for you"
                    >{{ part.words }}</span
                ></template
            >
        </p>
    </div>
    <p v-else class="py-2 text-ink-faint">Nothing is written yet.</p>
</template>
