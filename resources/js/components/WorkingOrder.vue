<script setup lang="ts">
import { useRibbon } from '@/composables/useRibbon';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute } from 'vue-router';

/** The screens in the order in which the month's work is done, each with what waits there for this user. */
const route = useRoute();
const { query } = useView();
const { data } = useRibbon();
const { session, user } = useSession();
const narrow = useLocalStorage('kybernet:narrow', false);

/** Who only administers looks at no figures. */
const seesUnits = computed(() => (session.value?.units.length ?? 0) > 0);

const screens = computed(() => [
    ...(session.value?.firstSteps === true
        ? [
              {
                  name: 'first-month',
                  title: 'First month',
                  here: ['first-month'],
                  waits: '',
                  // a buoy with a flag
                  icon: 'M8 14V2.5l4.5 2L8 6.5M4 14h8',
              },
          ]
        : []),
    ...(seesUnits.value
        ? [
              {
                  name: 'register',
                  title: 'Register',
                  here: ['register', 'kpi', 'define', 'lists', 'plan', 'import-definitions', 'starters'],
                  waits: '',
                  // a ruled page
                  icon: 'M3 2.5h10v11H3zM5.5 6h5M5.5 8.5h5M5.5 11h3',
              },
              {
                  name: 'logbook',
                  title: 'Logbook',
                  here: ['logbook', 'year-grid', 'import'],
                  waits: data.value !== undefined && data.value.open > 0 ? `${data.value.open} open` : '',
                  // a pen over a line
                  icon: 'M2.5 13.5h11M4 10.5l6.5-7 2 2-6.5 7H4z',
              },
              {
                  name: 'scorecard',
                  title: 'Scorecard',
                  here: ['scorecard', 'course', 'matrix'],
                  waits: '',
                  // three course strips
                  icon: 'M2.5 4h11M2.5 8h11M2.5 12h11M6 2.5v3M10.5 6.5v3M4.5 10.5v3',
              },
              {
                  name: 'exceptions',
                  title: 'Exceptions',
                  here: ['exceptions'],
                  waits: data.value !== undefined && data.value.exceptions > 0 ? String(data.value.exceptions) : '',
                  // a buoy
                  icon: 'M8 2.5v2.5M5 11l1.5-6h3L11 11M3 11.5c1.6 1.4 3.4 1.4 5 0 1.6 1.4 3.4 1.4 5 0',
              },
              {
                  name: 'compare',
                  title: 'Compare',
                  here: ['compare'],
                  waits: '',
                  // marks of unequal height on one line
                  icon: 'M2.5 13.5h11M4.5 13.5V9M8 13.5V3M11.5 13.5V6.5',
              },
              {
                  name: 'briefings',
                  title: 'Briefings',
                  here: ['briefings', 'briefing'],
                  waits: '',
                  // a sheet with a figure and lines
                  icon: 'M3.5 2.5h9v11h-9zM5.5 5h2.5v2.5H5.5zM9.5 5.5h1.5M9.5 7h1.5M5.5 9.5h5M5.5 11.5h5',
              },
              ...(user.value?.sources === true
                  ? [
                        {
                            name: 'sources',
                            title: 'Sources',
                            here: ['sources', 'source', 'source-new'],
                            waits: '',
                            below: true,
                            // streams that come together
                            icon: 'M3 2.5c0 4 5 3.5 5 7.5v3.5M13 2.5c0 4-5 3.5-5 7.5M8 2.5v3',
                        },
                    ]
                  : []),
              {
                  name: 'periods',
                  title: 'Periods',
                  here: ['periods'],
                  waits: '',
                  below: user.value?.sources !== true,
                  // a line made fast
                  icon: 'M1.5 11c3 1.2 5-6.5 7.6-6.5 2.2 0 2.4 3.6.2 3.6-2.5 0-2.4-3.6-.2-3.6M6 8c.3 2.4 3.2 4 8 3',
              },
          ]
        : []),
    {
        name: 'changes',
        title: 'Changes',
        here: ['changes'],
        waits: '',
        // entries under each other
        icon: 'M2.5 4h2M2.5 8h2M2.5 12h2M6.5 4h7M6.5 8h7M6.5 12h4',
    },
    ...(user.value?.administers === true
        ? [
              {
                  name: 'settings',
                  title: 'Settings',
                  here: ['settings', 'units', 'people', 'programs', 'book'],
                  waits: '',
                  // moorings on one line
                  icon: 'M8 3v4M3.5 9.5V7h9v2.5M2 9.5h3v3H2zM11 9.5h3v3h-3zM6.5 2.5h3',
              },
          ]
        : []),
]);
</script>

<template>
    <nav
        aria-label="Working order"
        class="flex shrink-0 gap-5 overflow-x-auto border-b border-rule px-4 py-1 md:overflow-x-visible md:flex-col md:gap-0 md:border-r md:border-b-0 md:py-4 md:pr-0"
        :class="narrow ? 'md:w-[52px] md:pl-3' : 'md:w-[172px] md:pl-[22px]'"
    >
        <template v-for="screen in screens" :key="screen.name">
            <hr v-if="'below' in screen && screen.below" class="hidden border-rule md:my-3 md:mr-4 md:block" />
            <RouterLink
                :to="{ name: screen.name, query: query() }"
                class="flex items-center gap-2 py-[6px] md:-ml-[10px] md:pr-4 md:pl-[10px]"
                :class="[
                    screen.here.includes(String(route.name))
                        ? 'font-[650] text-ink md:shadow-[inset_3px_0_0_var(--color-brass)]'
                        : 'text-ink-soft hover:text-ink',
                ]"
                :aria-current="screen.here.includes(String(route.name)) ? 'page' : undefined"
                :title="narrow ? `${screen.title} ${screen.waits}` : undefined"
            >
                <svg
                    v-if="narrow"
                    width="16"
                    height="16"
                    viewBox="0 0 16 16"
                    class="hidden md:block"
                    aria-hidden="true"
                >
                    <path
                        :d="screen.icon"
                        class="fill-none stroke-current"
                        stroke-width="1.2"
                        stroke-linejoin="round"
                    />
                </svg>
                <span :class="{ 'md:sr-only': narrow }">{{ screen.title }}</span>
                <span
                    v-if="screen.waits"
                    class="ml-auto text-[13px] font-normal whitespace-nowrap text-brass"
                    :class="{ 'md:sr-only': narrow }"
                    >{{ screen.waits }}</span
                >
            </RouterLink>
        </template>
        <button
            type="button"
            class="mt-auto hidden text-left text-[13px] text-ink-faint hover:text-brass md:block"
            :aria-expanded="!narrow"
            @click="narrow = !narrow"
        >
            <span aria-hidden="true">{{ narrow ? '»' : '« ' }}</span>
            <span :class="{ 'sr-only': narrow }">{{ narrow ? 'Widen' : 'Narrow' }}</span>
        </button>
    </nav>
</template>
