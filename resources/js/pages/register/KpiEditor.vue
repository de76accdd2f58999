<script setup lang="ts">
import { ApiError, api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { monthAndYear, step } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { askWhatIf, triedIn, triesAnything } from '@/composables/useTried';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { useEventListener, useTitle } from '@vueuse/core';
import { computed, nextTick, ref, watch } from 'vue';
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router';
import PartCounted from './PartCounted.vue';
import PartGood from './PartGood.vue';
import PartWhat from './PartWhat.vue';
import PartWhere from './PartWhere.vue';
import { ACCUMULATIONS, FREQUENCIES } from '@/words';
import { blank, PARTS, useDraft, type Definition, type Part } from './useDraft';

/** A definition as a full page, in four parts that follow the talk with a department head. */
const props = defineProps<{ code?: string }>();

const router = useRouter();
const route = useRoute();
const { unit, period, query } = useView();
const { user, units, path } = useSession();
const { draft, saved, changed, problem, busy, faultyParts, start, error, save, discard, putBack } = useDraft(period);
const part = ref<Part>('What and why');

const register = useQuery({ queryKey: ['register'], queryFn: () => read(api.GET('/api/kpis')) });
/** A new definition may begin as a copy of another. */
const source = computed(
    () => props.code ?? (typeof route.query['copy'] === 'string' ? route.query['copy'] : undefined),
);
const definition = useQuery({
    queryKey: computed(() => ['kpi', source.value, period.value]),
    queryFn: () =>
        read(
            api.GET('/api/kpis/{kpi}', {
                params: { path: { kpi: source.value ?? '' }, query: { period: period.value } },
            }),
        ),
    enabled: computed(() => source.value !== undefined),
    staleTime: 0,
});

const defaults = useQuery({
    queryKey: ['new-kpi'],
    queryFn: () => read(api.GET('/api/settings/new-kpi')),
    enabled: computed(() => props.code === undefined),
});

const isNew = computed(() => props.code === undefined);
const mayEdit = computed(
    () => user.value?.defines === true && (isNew.value || definition.data.value?.editable !== false),
);

/**
 * What was tried on the KPI's page comes over as if it had been typed: limits that hold from the chosen month on, and
 * targets of periods that are open. Nothing is saved yet.
 */
async function takeOver(loaded: Definition): Promise<void> {
    const asked = triedIn(route.query);
    if (!mayEdit.value || !triesAnything(asked) || taken === route.fullPath) {
        return;
    }
    taken = route.fullPath;
    const home = unit.value.code;
    try {
        const found = await askWhatIf(home, loaded.code, period.value, asked.tried, asked.as);
        const now = draft.value;
        const { periods, ...limits } = found.tried;
        if (found.own) {
            now.units = now.units.map((place) =>
                place.unit === home && place.rule !== null
                    ? { ...place, rule: { ...place.rule, ...limits, periods, from: period.value } }
                    : place,
            );
        } else if (now.rule !== null) {
            now.rule = { ...now.rule, ...limits, periods };
        }
        const open = Object.entries(found.targets).filter(([each]) => !(now.closed[home] ?? []).includes(each));
        now.targets = { ...now.targets, [home]: { ...now.targets[home], ...Object.fromEntries(open) } };
        part.value = 'What good looks like';
        takenNote.value =
            'Taken over from the KPI’s page as if it had been typed. Nothing is saved yet; look from which month it holds.';
    } catch (reason) {
        takenNote.value = `What was tried could not be taken over: ${reason instanceof ApiError ? reason.detail : 'it cannot be worked out at the moment.'}`;
    }
}
let taken = '';
const takenNote = ref('');

/** What the copy on the page was made of; what is loaded again must not take the place of what is typed. */
let copied: string | undefined;
watch(
    () => [props.code, source.value, definition.data.value, defaults.data.value] as const,
    ([code, from, loaded, begins], before) => {
        // What a new one begins with may arrive when somebody types already.
        if (before?.[3] !== begins && before?.[0] === code && before?.[1] === from && changed.value) {
            return;
        }
        if (code !== undefined || from !== copied) {
            copied = undefined;
        }
        if (code === undefined) {
            const home = path(unit.value.code)[1] ?? unit.value;
            // Nothing of a new KPI is coloured yet: its limits hold for the history that is loaded, too.
            const empty = {
                ...blank(home.code, step(period.value, -24), begins),
                level: home.parent === null ? ('organisational' as const) : ('departmental' as const),
            };
            if (from === undefined) {
                start(empty);
            } else if (loaded !== undefined && copied === undefined) {
                copied = from;
                // Targets and history stay with the original.
                start(
                    {
                        ...loaded,
                        code: '',
                        name: '',
                        targets: {},
                        yearTargets: {},
                        history: [],
                        version: 0,
                        rule: loaded.rule === null ? null : { ...loaded.rule, from: period.value },
                    },
                    empty,
                );
            }
        } else if (loaded !== undefined && (!changed.value || saved.value.code !== loaded.code)) {
            start(loaded);
            void takeOver(loaded);
        }
    },
    { immediate: true },
);

const title = computed(() => (draft.value.name !== '' ? draft.value.name : isNew.value ? 'A new KPI' : ''));
const open = computed(() => saved.value.openQuestions.length);
/** The rule as it is typed, when it is not the one that is saved. */
const newRule = computed(
    () => draft.value.rule !== null && JSON.stringify(draft.value.rule) !== JSON.stringify(saved.value.rule),
);
useTitle(computed(() => `${title.value} · Register · Kybernet`));

const subtitle = computed(() =>
    [
        draft.value.code,
        units.value.get(draft.value.department)?.name ?? '',
        draft.value.level,
        draft.value.kind === 'judged'
            ? `judged ${FREQUENCIES[draft.value.frequency]}`
            : `counted ${draft.value.kind === 'records' ? 'from records, ' : ''}${FREQUENCIES[draft.value.frequency]}${/^$|^of /.test(draft.value.measure) ? '' : ` in ${draft.value.measure}`}${draft.value.kind === 'records' ? '' : `, ${ACCUMULATIONS[draft.value.accumulation]} over time`}`,
    ]
        .filter((each) => each !== '')
        .join(' · '),
);

let leaving = false;

async function submit(): Promise<void> {
    const result = await save(props.code ?? null);
    if (result !== null) {
        leaving = true;
        await router.replace({ name: 'kpi', params: { code: result.code }, query: query() });
        leaving = false;
        savedNote.value = `Saved. It is judged like this from ${draft.value.rule === null ? 'the start' : monthAndYear(draft.value.rule.from)} on.`;
        return;
    }
    part.value = PARTS.find((each) => faultyParts.value.has(each)) ?? part.value;
    await nextTick();
    document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
}

async function remove(): Promise<void> {
    const sentence = `Delete ${saved.value.name}? Only a KPI without figures, notes and actions can go; its targets go with it.`;
    if (window.confirm(sentence) && (await discard())) {
        leaving = true;
        await router.replace({ name: 'register', query: query() });
    }
}

const savedNote = ref('');
watch(changed, (now) => {
    if (now) {
        savedNote.value = '';
    }
});

const ask = (): boolean =>
    leaving || !changed.value || window.confirm('This definition has changes that are not saved. Leave it?');
onBeforeRouteLeave(ask);
useEventListener(window, 'beforeunload', (event) => {
    if (changed.value) {
        event.preventDefault();
    }
});
</script>

<template>
    <StateNote v-if="source !== undefined && definition.isPending.value" loading />
    <StateNote
        v-else-if="source !== undefined && definition.error.value"
        :error="definition.error.value"
        @retry="definition.refetch"
    />
    <StateNote v-else-if="isNew && !mayEdit" title="Defining is the analyst's work">
        Your account reads the register.
        <RouterLink class="quiet-link" :to="{ name: 'register', query: query() }">Back to the list</RouterLink>
    </StateNote>
    <form v-else novalidate @submit.prevent="submit">
        <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-2.5">
            <div class="min-w-0">
                <h1 class="text-[28px] leading-[1.15]">{{ title }}</h1>
                <span class="text-[14.5px] text-ink-soft">{{ subtitle }}</span>
                <span
                    v-if="!isNew && open > 0"
                    class="ml-2 text-[14.5px] font-semibold text-amber-text"
                    :title="saved.openQuestions.join(' ')"
                    >{{ open }} {{ open === 1 ? 'question is' : 'questions are' }} open</span
                >
            </div>
            <div class="ml-auto flex items-center gap-2.5">
                <RouterLink
                    class="quiet-link mr-2 text-[13.5px] text-ink-soft"
                    :to="{ name: 'register', query: query() }"
                    >All KPIs</RouterLink
                >
                <RouterLink
                    v-if="!isNew"
                    class="quiet-link mr-2 text-[13.5px] text-ink-soft"
                    :to="{ name: 'changes', query: { ...query(), kpi: code } }"
                    >Changes</RouterLink
                >
                <template v-if="mayEdit">
                    <button
                        v-if="!isNew"
                        type="button"
                        class="quiet-link mr-2 text-[13.5px] text-ink-soft"
                        :disabled="busy"
                        @click="remove"
                    >
                        Delete
                    </button>
                    <RouterLink
                        v-if="!isNew"
                        class="quiet-link mr-2 text-[13.5px] text-ink-soft"
                        :to="{ name: 'define', query: { ...query(), copy: code } }"
                        >Copy</RouterLink
                    >
                    <button type="button" class="button button-quiet" :disabled="!changed || busy" @click="putBack">
                        Put back
                    </button>
                    <button type="submit" class="button" :disabled="!changed || busy">
                        {{
                            isNew
                                ? 'Define it'
                                : newRule && changed
                                  ? `Save from ${monthAndYear(draft.rule!.from).split(' ')[0]}`
                                  : 'Save'
                        }}
                    </button>
                </template>
            </div>
        </div>
        <p v-if="problem" class="error pt-2 text-[14.5px]" role="alert">{{ problem.detail }}</p>
        <p v-else-if="savedNote" class="pt-2 text-[14.5px] text-ink-soft" role="status">{{ savedNote }}</p>
        <p v-else-if="takenNote && changed" class="pt-2 text-[14.5px] text-ink-soft" role="status">{{ takenNote }}</p>
        <div role="tablist" aria-label="Parts of the definition" class="flex flex-wrap gap-x-6 pt-2.5 pb-5">
            <button
                v-for="each in PARTS"
                :id="`tab-${PARTS.indexOf(each)}`"
                :key="each"
                type="button"
                role="tab"
                class="tab"
                :aria-selected="part === each"
                :aria-controls="`part-${PARTS.indexOf(each)}`"
                @click="part = each"
            >
                {{ each }}<span v-if="faultyParts.has(each)" class="ml-1.5 text-[13px] text-red-text">to correct</span>
            </button>
        </div>
        <!-- All parts stay in the page, so that what is typed in one is there when its tab is chosen again. -->
        <fieldset :disabled="!mayEdit || busy" class="min-w-0">
            <legend class="sr-only">Definition</legend>
            <PartWhat
                v-show="part === 'What and why'"
                id="part-0"
                v-model="draft"
                role="tabpanel"
                aria-labelledby="tab-0"
                :error="error"
                :register="register.data.value"
            />
            <PartCounted
                v-show="part === 'How it is counted'"
                id="part-1"
                v-model="draft"
                role="tabpanel"
                aria-labelledby="tab-1"
                :error="error"
                :saved="saved"
                :register="register.data.value"
            />
            <PartGood
                v-show="part === 'What good looks like'"
                id="part-2"
                v-model="draft"
                role="tabpanel"
                aria-labelledby="tab-2"
                :error="error"
                :saved="saved"
                :register="register.data.value"
                :may-edit="mayEdit"
            />
            <PartWhere
                v-show="part === 'Where'"
                id="part-3"
                v-model="draft"
                role="tabpanel"
                aria-labelledby="tab-3"
                :error="error"
                :register="register.data.value"
                :saved="saved"
            />
        </fieldset>
    </form>
</template>
