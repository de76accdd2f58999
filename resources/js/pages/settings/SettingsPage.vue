<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormField from '@/components/FormField.vue';
import LogoField from './LogoField.vue';
import MailServer from './MailServer.vue';
import SettingsTabs from '@/components/SettingsTabs.vue';
import StateNote from '@/components/StateNote.vue';
import { longMonth, monthAndYear } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { LOCALES, ROLL_UPS } from '@/words';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, reactive, ref, watch } from 'vue';

/** What the organisation sets for itself, on one page that is saved as a whole. */
useTitle('Settings · Kybernet');
const { load } = useSession();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => read(api.GET('/api/settings')),
    staleTime: 0,
});
const { busy, message, problem, send, trouble } = useSending();
const saved = ref(false);

const draft = reactive<Schemas['SettingsInput']>({
    name: '',
    yearStartMonth: 1,
    timeZone: '',
    currency: '',
    locale: 'en-GB',
    needsSecondFactor: false,
    sessionHours: 10,
    sessionDays: 30,
    trailYears: null,
    lawYears: 0,
    accent: null,
    callers: 'head',
    kpi: {
        green: '',
        amber: '',
        dueDay: null,
        noteRequired: false,
        materiality: '',
        textGreen: '',
        textAmber: '',
        textRed: '',
    },
    rollUp: 'weighted',
    rollUpGreen: '',
    rollUpOther: '',
    version: 0,
});
const asRead = (page: Schemas['Settings']): Schemas['SettingsInput'] => ({
    name: page.name,
    yearStartMonth: page.yearStartMonth,
    timeZone: page.timeZone,
    currency: page.currency,
    locale: page.locale,
    needsSecondFactor: page.needsSecondFactor,
    sessionHours: page.sessionHours,
    sessionDays: page.sessionDays,
    trailYears: page.trailYears,
    lawYears: page.lawYears,
    accent: page.accent,
    callers: page.callers,
    kpi: { ...page.kpi },
    rollUp: page.rollUp,
    rollUpGreen: page.rollUpGreen,
    rollUpOther: page.rollUpOther,
    version: page.version,
});
const changed = computed(
    () => data.value !== undefined && JSON.stringify(draft) !== JSON.stringify(asRead(data.value)),
);
// What is typed is never written over by what is read again.
watch(
    data,
    (page) => {
        if (page !== undefined && (draft.version === 0 || saved.value || !changed.value)) {
            Object.assign(draft, asRead(page));
        }
    },
    { immediate: true },
);

const MONTHS = Array.from({ length: 12 }, (_, at) => ({
    value: at + 1,
    name: longMonth(`2026-${String(at + 1).padStart(2, '0')}`),
}));
const currencies = computed(() => {
    const names = new Intl.DisplayNames('en-GB', { type: 'currency' });
    return (data.value?.currencies ?? []).map((code) => ({ code, name: `${code} ${names.of(code) ?? ''}` }));
});
const CALLERS = {
    head: 'heads of the department and analysts',
    analyst: 'analysts alone',
    nobody: 'nobody: what is computed stands',
} as const;
/** How long the trail may be kept. */
const YEARS = [1, 2, 3, 5, 6, 7, 8, 10, 12, 15, 20, 30];
const sample = (locale: string): string => new Intl.NumberFormat(locale, { minimumFractionDigits: 1 }).format(12345.5);

async function save(): Promise<void> {
    saved.value = await send(async () => {
        await read(api.PUT('/api/settings', { body: draft }));
    });
    if (saved.value) {
        await Promise.all([refetch(), load()]);
    }
}

function putBack(): void {
    if (data.value !== undefined) {
        Object.assign(draft, asRead(data.value));
    }
}

async function leave(): Promise<void> {
    if (
        !window.confirm(
            'Put Ostermere Water away and begin an organisation of your own here? Everything of the demonstration goes, the changes that were made to it too, and everybody is signed out. It cannot be taken back; bin/start --name demo shows it again in a place of its own.',
        )
    ) {
        return;
    }
    await send(async () => {
        const { link } = await read(api.DELETE('/api/demonstration', { body: { name: data.value?.name ?? '' } }));
        window.location.assign(link);
        window.location.reload();
    });
}
</script>

<template>
    <SettingsTabs here="organisation" />
    <h1 class="text-[28px] leading-[1.15]">The organisation</h1>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <section
            v-if="data.demonstration"
            class="mt-4 max-w-[820px] border-l-[3px] border-brass bg-brass-tint px-4 py-3 text-[15px]"
            aria-label="Demonstration"
        >
            <p>
                This is Ostermere Water, a demonstration. You can begin an organisation of your own beside it (<code
                    >bin/start --empty --name NAME</code
                >), or here in its place.
            </p>
            <button type="button" class="button mt-2.5" :disabled="busy" @click="leave">
                Put it away and begin my own
            </button>
        </section>
        <form
            class="mt-4 max-w-[820px] divide-y divide-rule border-t border-rule [&>section]:py-5"
            novalidate
            @submit.prevent="save"
        >
            <section aria-labelledby="set-name">
                <h2 id="set-name" class="mb-3 text-[20px]">Name, time and numbers</h2>
                <div class="grid gap-x-6 gap-y-4 md:grid-cols-2">
                    <FormField label="What the organisation is called" :problem="message('/name')"
                        ><input v-model="draft.name" class="field w-full" maxlength="200"
                    /></FormField>
                    <FormField
                        label="Its year starts in"
                        :problem="message('/yearStartMonth')"
                        :hint="
                            data.closed === null
                                ? draft.yearStartMonth === data.yearStartMonth
                                    ? 'It can be changed until the first month is closed.'
                                    : `Years to date of ${data.readings === 1 ? 'one reading' : `${data.readings} readings`}, year targets and labels of years follow.`
                                : `${monthAndYear(data.closed)} is closed, so it stays.`
                        "
                        ><select
                            v-model.number="draft.yearStartMonth"
                            class="field w-full"
                            :disabled="data.closed !== null"
                        >
                            <option v-for="month in MONTHS" :key="month.value" :value="month.value">
                                {{ month.name }}
                            </option>
                        </select></FormField
                    >
                    <FormField
                        label="Time zone"
                        :problem="message('/timeZone')"
                        hint="Months and days begin by its clock."
                        ><select v-model="draft.timeZone" class="field w-full">
                            <option v-for="zone in data.timeZones" :key="zone">{{ zone }}</option>
                        </select></FormField
                    >
                    <FormField
                        label="Currency"
                        :problem="message('/currency')"
                        hint="New KPIs about money are measured in it."
                        ><select v-model="draft.currency" class="field w-full">
                            <option v-for="each in currencies" :key="each.code" :value="each.code">
                                {{ each.name }}
                            </option>
                        </select></FormField
                    >
                    <FormField
                        label="Numbers are written"
                        hint="For people who are invited from now on; each chooses their own."
                        ><select v-model="draft.locale" class="field w-full">
                            <option v-for="locale in LOCALES" :key="locale" :value="locale">
                                {{ sample(locale) }} ({{ locale }})
                            </option>
                        </select></FormField
                    >
                </div>
            </section>
            <section aria-labelledby="set-kpi">
                <h2 id="set-kpi" class="mb-1 text-[20px]">What a new KPI begins with</h2>
                <p class="mb-3 text-[14.5px] text-ink-soft">
                    KPIs that are defined already stay as they are; each can differ.
                </p>
                <p class="flex flex-wrap items-center gap-x-2 gap-y-2 text-[15px]">
                    On course up to
                    <input
                        v-model="draft.kpi.green"
                        class="field w-[70px] text-right"
                        inputmode="decimal"
                        aria-label="On course up to so many % from target"
                    />
                    % on the bad side of target, drifting up to
                    <input
                        v-model="draft.kpi.amber"
                        class="field w-[70px] text-right"
                        inputmode="decimal"
                        aria-label="Drifting up to so many %"
                    />
                    %, off course beyond.
                </p>
                <p v-if="message('/kpi/green') ?? message('/kpi/amber')" class="error" role="alert">
                    {{ message('/kpi/green') ?? message('/kpi/amber') }}
                </p>
                <div class="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2 text-[15px]">
                    <label class="flex items-center gap-2"
                        >Due on day
                        <input
                            :value="draft.kpi.dueDay ?? ''"
                            class="field w-[60px] text-right"
                            inputmode="numeric"
                            @input="
                                draft.kpi.dueDay =
                                    ($event.target as HTMLInputElement).value === ''
                                        ? null
                                        : Number(($event.target as HTMLInputElement).value)
                            "
                        />
                        after the period</label
                    >
                    <label class="flex items-center gap-2"
                        >Differences below
                        <input v-model="draft.kpi.materiality" class="field w-[90px] text-right" inputmode="decimal" />
                        are of no account</label
                    >
                    <label class="flex items-center gap-2"
                        ><input v-model="draft.kpi.noteRequired" type="checkbox" class="size-4 accent-brass" /> A figure
                        off course needs its reason</label
                    >
                </div>
                <p v-if="message('/kpi/dueDay') ?? message('/kpi/materiality')" class="error" role="alert">
                    {{ message('/kpi/dueDay') ?? message('/kpi/materiality') }}
                </p>
                <div class="mt-4 grid gap-x-6 gap-y-3 md:grid-cols-3">
                    <FormField label="On course means" :problem="message('/kpi/textGreen')">
                        <textarea v-model="draft.kpi.textGreen" class="field h-[64px] w-full" maxlength="300" />
                    </FormField>
                    <FormField label="Drifting means" :problem="message('/kpi/textAmber')">
                        <textarea v-model="draft.kpi.textAmber" class="field h-[64px] w-full" maxlength="300" />
                    </FormField>
                    <FormField label="Off course means" :problem="message('/kpi/textRed')">
                        <textarea v-model="draft.kpi.textRed" class="field h-[64px] w-full" maxlength="300" />
                    </FormField>
                </div>
            </section>
            <section aria-labelledby="set-review">
                <h2 id="set-review" class="mb-3 text-[20px]">Status of the whole</h2>
                <div class="flex flex-wrap items-end gap-x-4 gap-y-3">
                    <FormField label="It follows from its units"
                        ><select v-model="draft.rollUp" class="field w-[280px]">
                            <option v-for="(rule, key) in ROLL_UPS" :key="key" :value="key">{{ rule.name }}</option>
                        </select></FormField
                    >
                    <template v-if="draft.rollUp !== 'worst'">
                        <FormField :label="ROLL_UPS[draft.rollUp].green" :problem="message('/rollUpGreen')"
                            ><input v-model="draft.rollUpGreen" class="field w-[110px] text-right" inputmode="decimal"
                        /></FormField>
                        <FormField :label="ROLL_UPS[draft.rollUp].other" :problem="message('/rollUpOther')"
                            ><input v-model="draft.rollUpOther" class="field w-[110px] text-right" inputmode="decimal"
                        /></FormField>
                    </template>
                </div>
                <FormField class="mt-4 max-w-[360px]" label="Who may call a status other than it was computed"
                    ><select v-model="draft.callers" class="field w-full">
                        <option v-for="(words, key) in CALLERS" :key="key" :value="key">{{ words }}</option>
                    </select></FormField
                >
            </section>
            <section aria-labelledby="set-doors">
                <h2 id="set-doors" class="mb-3 text-[20px]">Signing in</h2>
                <label class="flex flex-wrap items-center gap-2 text-[15px]"
                    >Who does nothing for
                    <input v-model.number="draft.sessionHours" class="field w-[70px] text-right" inputmode="numeric" />
                    hours signs in again,</label
                >
                <label class="mt-2 flex flex-wrap items-center gap-2 text-[15px]"
                    >and everybody does after
                    <input v-model.number="draft.sessionDays" class="field w-[70px] text-right" inputmode="numeric" />
                    days.</label
                >
                <p v-if="message('/sessionHours') ?? message('/sessionDays')" class="error" role="alert">
                    {{ message('/sessionHours') ?? message('/sessionDays') }}
                </p>
                <label class="mt-3 flex items-center gap-2.5 text-[15px]"
                    ><input v-model="draft.needsSecondFactor" type="checkbox" class="size-4 accent-brass" /> Everybody
                    needs a second factor</label
                >
                <p
                    v-if="draft.needsSecondFactor && !data.needsSecondFactor && data.withoutSecondFactor > 0"
                    class="mt-1 text-[13.5px] text-amber-text"
                >
                    {{
                        data.withoutSecondFactor === 1
                            ? 'One person has none yet and sets it up before anything else is answered.'
                            : `${data.withoutSecondFactor} people have none yet and set it up before anything else is answered, you among them if you have none.`
                    }}
                </p>
            </section>
            <section aria-labelledby="set-kept">
                <h2 id="set-kept" class="mb-1 text-[20px]">What is kept</h2>
                <p class="mb-3 text-[14.5px] text-ink-soft">
                    Figures, definitions and notes stay for good. The trail of who changed what stays as long as you
                    say, and says itself when something of it ended.
                </p>
                <div class="flex flex-wrap items-start gap-x-6 gap-y-3">
                    <FormField label="The trail is kept" :problem="message('/trailYears')">
                        <select
                            class="field w-[220px]"
                            :value="draft.trailYears ?? ''"
                            @change="
                                draft.trailYears =
                                    ($event.target as HTMLSelectElement).value === ''
                                        ? null
                                        : Number(($event.target as HTMLSelectElement).value)
                            "
                        >
                            <option value="">for good</option>
                            <option v-for="years in YEARS" :key="years" :value="years">
                                {{ years === 1 ? 'one year' : `${years} years` }}
                            </option>
                        </select>
                    </FormField>
                    <FormField
                        label="Years that the law wants it kept here"
                        :problem="message('/lawYears')"
                        hint="It is never kept for less."
                        ><input v-model.number="draft.lawYears" class="field w-[90px] text-right" inputmode="numeric"
                    /></FormField>
                </div>
            </section>
            <section aria-labelledby="set-paper">
                <h2 id="set-paper" class="mb-1 text-[20px]">On paper</h2>
                <p class="mb-3 text-[14.5px] text-ink-soft">
                    What is printed has your logo and a line in your colour at its head. Statuses keep theirs.
                </p>
                <div class="flex flex-wrap items-start gap-x-8 gap-y-3">
                    <LogoField :logo="data.logo" @changed="(refetch(), load())" />
                    <FormField label="Colour" :problem="message('/accent')"
                        ><span class="flex items-center gap-3"
                            ><input
                                type="color"
                                class="field h-[38px] w-[64px] p-1"
                                :value="draft.accent ?? '#16384f'"
                                @input="draft.accent = ($event.target as HTMLInputElement).value"
                            /><button
                                v-if="draft.accent !== null"
                                type="button"
                                class="quiet-link min-h-6 text-[14px]"
                                @click="draft.accent = null"
                            >
                                Kybernet’s own
                            </button></span
                        ></FormField
                    >
                </div>
            </section>
            <section v-if="data.exports" aria-labelledby="set-out">
                <h2 id="set-out" class="mb-1 text-[20px]">Everything as a file</h2>
                <p class="text-[14.5px] text-ink-soft">
                    As a
                    <RouterLink class="quiet-link" :to="{ name: 'book' }">workbook with a sheet for each</RouterLink>:
                    units, people, definitions, targets and figures, empty or filled, and brought back with a preview.
                    Or <a class="quiet-link" href="/api/settings/everything" download>as JSON</a>, which any
                    installation reads whole.
                </p>
            </section>
            <div
                class="flex flex-wrap items-center gap-x-4 gap-y-2 bg-paper py-3"
                :class="{ 'sticky bottom-0 border-t border-rule': changed }"
            >
                <button type="submit" class="button" :disabled="busy || !changed">Save</button>
                <button v-if="changed" type="button" class="button button-quiet" @click="putBack">Put it back</button>
                <span v-if="trouble" class="error" role="alert">{{ trouble }}</span>
                <span v-else-if="problem" class="error" role="alert">{{ problem.detail }}</span>
                <span v-else-if="saved && !changed" class="text-[14.5px] text-ink-soft" role="status"
                    >Saved; the trail has it.</span
                >
            </div>
        </form>
        <MailServer
            class="mt-6 max-w-[820px] border-t border-rule py-5"
            :mail="data.mail"
            :version="data.version"
            @kept="refetch()"
        />
    </template>
</template>
