<script setup lang="ts">
import { SPAN_PHRASES } from '@/words';
import type { Schemas } from '@/api/client';
import KpiLink from '@/components/KpiLink.vue';
import Needle from '@/components/Needle.vue';
import Wake from '@/components/Wake.vue';
import { capital, counted, ordinal, useNumbers } from '@/composables/useNumbers';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { unitsOfKind } from '@/composables/unitKinds';
import { computed } from 'vue';

/** The same KPI in other units, small and side by side, and where this unit lies among those of its kind. */
const props = defineProps<{
    page: Schemas['KpiPage'];
    unit: Schemas['Unit'];
    span: Schemas['ScorecardPage']['span'];
}>();

const { figure, plain, withMeasure } = useNumbers();
const { units } = useSession();
const { query } = useView();

const comparison = computed(() => ({
    ...query({ unit: props.unit.parent ?? '' }),
    ...{ kind: props.unit.kind, with: props.page.code, large: props.page.code, follow: props.unit.code },
}));
const standing = computed(() => {
    const { standing: at, measure, polarity } = props.page;
    if (at === null) {
        return null;
    }
    const isLast = at.rank + at.sharing - 1 === at.of;
    const isEnd = at.rank === 1 || isLast;
    const others = at.sharing - 1;
    const place =
        at.sharing === at.of
            ? 'level with all others'
            : (at.rank === 1 ? 'the best' : isLast ? 'the worst' : `${ordinal(at.rank)} best`) +
              (others === 0 ? '' : `, with ${counted(others)} other${others === 1 ? '' : 's'}`);
    const spread =
        at.low === null || at.median === null || at.high === null
            ? ''
            : `The median is ${withMeasure(plain(at.median), measure)}; the middle half lies between ${plain(at.low)} and ${plain(at.high)}.`;
    const isOne = at.meeting === 1;
    const aim =
        polarity === 'band' ? `${isOne ? 'is' : 'are'} inside their band` : `${isOne ? 'meets' : 'meet'} their target`;
    return {
        place,
        tenth: at.tenth === '' || isEnd ? '' : `, in the ${at.tenth} tenth`,
        spread,
        meeting: at.aiming === 0 ? '' : `${capital(counted(at.meeting))} of ${counted(at.aiming)} ${aim}.`,
    };
});
</script>

<template>
    <section aria-labelledby="places">
        <h2 id="places" class="text-[18px]">Where else it is measured</h2>
        <p v-if="standing" class="mt-0.5 mb-2 max-w-[64em] text-[15.5px]">
            Of {{ page.standing?.of }} {{ unitsOfKind(unit.kind) }} with a figure for {{ SPAN_PHRASES[span] }},
            {{ unit.name }} is <b class="font-[650]">{{ standing.place }}{{ standing.tenth }}</b
            >. {{ standing.spread }} {{ standing.meeting }}
            <RouterLink
                v-if="unit.parent"
                class="quiet-link whitespace-nowrap"
                :to="{ name: 'compare', query: comparison }"
                >Compare them all</RouterLink
            >
        </p>
        <ul class="mt-2 grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-6 gap-y-1">
            <li v-for="place in page.places" :key="place.id" class="border-t border-rule-soft py-1.5">
                <KpiLink class="flex items-center gap-2 hover:text-brass" :code="place.code" :unit="place.unit">
                    <Needle :status="place.status" size="s" />
                    <span class="min-w-0 truncate">{{ units.get(place.unit)?.name ?? place.unit }}</span>
                    <span v-if="place.rank !== null" class="grow text-[13px] text-ink-faint">{{
                        ordinal(place.rank)
                    }}</span>
                    <b class="ml-auto font-semibold">{{ place.actual ? figure(place.actual, place.measure) : '' }}</b>
                </KpiLink>
                <Wake :points="place.wake" :status="place.monthStatus" :width="180" :height="32" />
            </li>
        </ul>
    </section>
</template>
