<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import { useFreshness } from '@/composables/useFreshness';
import { monthAndYear } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQueryClient } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { LEVELS } from '@/words';

/** Common fields of the chosen KPIs at once; or they are retired, or measured elsewhere from a month on. */
const props = defineProps<{ codes: string[]; register: Schemas['RegisterPage'] | undefined }>();
const emit = defineEmits<{ done: [] }>();

type Input = Schemas['BulkInput'];
const FIELDS = {
    owner: 'owner',
    theme: 'theme',
    objective: 'objective',
    level: 'level',
    source: 'source',
    dueDay: 'due day',
    noteRequired: 'reason required',
    dataAvailable: 'data available',
    definitionAgreed: 'definition agreed',
    department: 'department',
    until: 'retire after',
    move: 'measure elsewhere',
} as const;

const { period } = useView();
const { session } = useSession();
const queries = useQueryClient();
const renew = useFreshness();
const field = ref<keyof typeof FIELDS>('owner');
const value = ref('');
const from = ref('');
const month = ref(period.value);
const { busy, said, send } = useSending();

const options = computed<[string, string][]>(() => {
    const page = props.register;
    const units = (session.value?.units ?? []).map((unit): [string, string] => [unit.code, unit.name]);
    switch (field.value) {
        case 'owner':
            return [
                ['', 'nobody in particular'],
                ...(page?.people ?? []).map((person): [string, string] => [String(person.id), person.name]),
            ];
        case 'theme':
            return [
                ['', 'no theme'],
                ...(page?.themes ?? []).map((theme): [string, string] => [theme.name, theme.name]),
            ];
        case 'objective':
            return [
                ['', 'no objective'],
                ...(page?.objectives ?? []).map((objective): [string, string] => [objective.code, objective.name]),
            ];
        case 'level':
            return Object.entries(LEVELS);
        case 'department':
            return (session.value?.units ?? [])
                .filter(({ kind }) => kind === 'organisation' || kind === 'department')
                .map((unit): [string, string] => [unit.code, unit.name]);
        case 'move':
            return units;
        case 'noteRequired':
        case 'dataAvailable':
        case 'definitionAgreed':
            return [
                ['yes', 'yes'],
                ['no', 'no'],
            ];
        default:
            return [];
    }
});
const units = computed(() =>
    (session.value?.units ?? []).filter(({ code }) =>
        props.codes.some((each) => props.register?.kpis.find((kpi) => kpi.code === each)?.units.includes(code)),
    ),
);

function body(): Input {
    const { codes } = props;
    switch (field.value) {
        case 'owner':
            return { codes, owner: value.value === '' ? (null as unknown as number) : Number(value.value) };
        case 'dueDay':
            return { codes, dueDay: value.value === '' ? (null as unknown as number) : Number(value.value) };
        case 'noteRequired':
        case 'dataAvailable':
        case 'definitionAgreed':
            return { codes, [field.value]: value.value === 'yes' };
        case 'until':
            return { codes, until: month.value };
        case 'move':
            return { codes, moveFrom: from.value, moveTo: value.value, moveAt: month.value };
        default:
            return { codes, [field.value]: value.value };
    }
}

async function apply(): Promise<void> {
    const sent = await send(async () => {
        queries.setQueryData(['register'], await read(api.PATCH('/api/kpis', { body: body() })));
        await renew('register');
    });
    if (sent) {
        emit('done');
    }
}
</script>

<template>
    <form
        class="sticky top-0 z-20 flex flex-wrap items-center gap-x-3 gap-y-2 border-y border-brass bg-sheet px-3 py-2"
        @submit.prevent="apply"
    >
        <b class="font-[650]">{{ codes.length }} chosen</b>
        <label class="flex items-center gap-2"
            ><span class="text-ink-soft">change</span>
            <select
                v-model="field"
                aria-label="Field to change"
                class="field min-h-[29px] py-[2px]"
                @change="value = ''"
            >
                <option v-for="(name, key) in FIELDS" :key="key" :value="key">{{ name }}</option>
            </select>
        </label>
        <template v-if="field === 'until'">
            <input v-model="month" type="month" class="field min-h-[29px] py-[2px]" aria-label="Last month" />
            <span class="text-[13.5px] text-ink-soft"
                >{{ monthAndYear(month) }} is then their last month; history stays.</span
            >
        </template>
        <template v-else>
            <label v-if="field === 'move'" class="flex items-center gap-2"
                ><span class="text-ink-soft">from</span>
                <select v-model="from" aria-label="From unit" class="field min-h-[29px] py-[2px]">
                    <option v-for="unit in units" :key="unit.code" :value="unit.code">{{ unit.name }}</option>
                </select>
            </label>
            <label class="flex items-center gap-2"
                ><span class="text-ink-soft">to</span>
                <select
                    v-if="options.length > 0"
                    v-model="value"
                    aria-label="New value"
                    class="field min-h-[29px] max-w-[230px] py-[2px]"
                >
                    <option v-for="[key, name] in options" :key="key" :value="key">{{ name }}</option>
                </select>
                <input
                    v-else
                    v-model="value"
                    aria-label="New value"
                    class="field min-h-[29px] py-[2px]"
                    :type="field === 'dueDay' ? 'number' : 'text'"
                    :min="1"
                    :max="31"
                    maxlength="200"
                    autocomplete="off"
                />
            </label>
            <label v-if="field === 'move'" class="flex items-center gap-2"
                ><span class="text-ink-soft">as of</span
                ><input v-model="month" type="month" class="field min-h-[29px] py-[2px]"
            /></label>
        </template>
        <button type="submit" class="button py-[4px]" :disabled="busy">Change them</button>
        <button type="button" class="quiet-link text-[14px] text-ink-soft" @click="emit('done')">Choose none</button>
        <span v-if="said" class="error" role="alert">{{ said }}</span>
    </form>
</template>
