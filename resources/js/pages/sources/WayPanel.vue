<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import FormLine from '@/components/FormLine.vue';
import StateNote from '@/components/StateNote.vue';
import { useFreshness } from '@/composables/useFreshness';
import { moment } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useQuery } from '@tanstack/vue-query';
import { computed, reactive, ref, watch } from 'vue';
import { WAYS } from './words';

/** How the records of a set come in by themselves. */
const props = defineProps<{ page: Schemas['SourcePage'] }>();
const renew = useFreshness();
const { busy, message, send, trouble } = useSending();
const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['way', props.page.code]),
    queryFn: () =>
        read(api.GET('/api/record-sets/{recordSet}/way', { params: { path: { recordSet: props.page.code } } })),
    staleTime: 0,
});
const draft = reactive<Pick<Schemas['Way'], 'way' | 'settings'>>({
    way: 'file',
    settings: {
        url: '',
        header: '',
        pageField: '',
        host: '',
        port: 5432,
        database: '',
        user: '',
        sql: '',
        minutes: 1440,
    },
});
const secret = ref<string | null>(null);
const token = ref('');
const kept = ref('');
function begin(way: Schemas['Way']): void {
    draft.way = way.way;
    draft.settings = { ...way.settings };
    secret.value = null;
    kept.value = JSON.stringify(draft);
}
watch(
    data,
    (way) => way !== undefined && JSON.stringify(draft) === (kept.value || JSON.stringify(draft)) && begin(way),
    { immediate: true },
);
const changed = computed(() => kept.value !== '' && (JSON.stringify(draft) !== kept.value || secret.value !== null));
const EVERY = {
    15: 'every quarter of an hour',
    60: 'every hour',
    360: 'every six hours',
    1440: 'every day',
    10080: 'every week',
};

async function save(): Promise<void> {
    await send(async () => {
        const way = await read(
            api.PUT('/api/record-sets/{recordSet}/way', {
                params: { path: { recordSet: props.page.code } },
                body: { way: draft.way, settings: draft.settings, secret: secret.value },
            }),
        );
        token.value = way.token ?? '';
        begin(way);
        await renew();
    });
}
async function ask(): Promise<void> {
    await send(async () => {
        await read(
            api.POST('/api/record-sets/{recordSet}/asking', { params: { path: { recordSet: props.page.code } } }),
        );
        window.setTimeout(() => void renew(), 1500);
    });
}
function fill(): void {
    const stand = data.value?.standIn;
    if (stand) {
        Object.assign(
            draft.settings,
            draft.way === 'address'
                ? { url: stand.url, header: 'X-Key', pageField: 'page' }
                : { host: stand.host, port: stand.port, database: stand.database, user: stand.user, sql: stand.sql },
        );
        secret.value = draft.way === 'address' ? stand.key : stand.password;
    }
}
const origin = window.location.origin;
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <form v-else-if="data" class="max-w-[860px] space-y-[15px]" novalidate @submit.prevent="save">
        <div v-if="token" class="border-l-[3px] border-brass bg-brass-tint px-4 py-3 text-[15px]" role="status">
            <p>The token of this set. Put it where the program finds it: it is shown only now.</p>
            <input
                class="field mt-2 w-full font-mono text-[13.5px]"
                readonly
                :value="token"
                aria-label="The token"
                @focus="($event.target as HTMLInputElement).select()"
            />
            <pre
                class="mt-2 overflow-x-auto text-[13px]"
            ><code>curl -H "Authorization: Bearer $TOKEN" -H "Idempotency-Key: 2026-08-31" -H "Content-Type: text/csv" --data-binary @{{ page.code.toLowerCase() }}.csv {{ origin }}/api/record-sets/{{ page.code }}/records</code></pre>
        </div>
        <p
            v-if="data.problem"
            class="border-l-[3px] border-red bg-sheet px-4 py-2 text-[15px] text-red-text"
            role="alert"
        >
            It did not come in<template v-if="data.asked"> on {{ moment(data.asked) }}</template
            >: {{ data.problem }}
            <template v-if="data.next"> It is tried again {{ moment(data.next) }}.</template>
        </p>
        <fieldset :disabled="!page.changes || busy" class="min-w-0 space-y-[13px]">
            <legend class="sr-only">How records come in</legend>
            <FormLine label="They come in by" :error="message('/way')">
                <div class="space-y-1">
                    <label v-for="(words, way) in WAYS" :key="way" class="flex items-center gap-2.5"
                        ><input v-model="draft.way" type="radio" name="way" :value="way" class="size-4 accent-brass" />
                        {{ words }}</label
                    >
                </div>
            </FormLine>
            <FormLine
                v-if="draft.way === 'folder'"
                label="The folder"
                hint="On the server. A file that has lain still for ten seconds is taken, once."
            >
                <code class="text-[13.5px] break-all">{{ data.folder }}</code>
            </FormLine>
            <template v-if="draft.way === 'address'">
                <FormLine
                    label="Address"
                    for="way-url"
                    :error="message('/settings/url')"
                    hint="CSV, JSON lines or a JSON array, by HTTPS or HTTP."
                >
                    <input
                        id="way-url"
                        v-model="draft.settings.url"
                        class="field w-full"
                        maxlength="2000"
                        autocomplete="off"
                        spellcheck="false"
                        placeholder="https://jobs.example.org/jobs.csv"
                    />
                </FormLine>
                <FormLine
                    label="Secret header"
                    for="way-header"
                    :error="message('/settings/header') ?? message('/secret')"
                    hint="Its name and what it holds. What is kept is shown to nobody again."
                >
                    <input
                        id="way-header"
                        v-model="draft.settings.header"
                        class="field w-[160px]"
                        autocomplete="off"
                        placeholder="X-Key"
                    />
                    <input
                        class="field ml-1.5 w-[220px]"
                        type="password"
                        autocomplete="new-password"
                        :placeholder="data.hasSecret ? 'the one that is kept' : 'none'"
                        aria-label="What the header holds"
                        :value="secret ?? ''"
                        @input="secret = ($event.target as HTMLInputElement).value"
                    />
                </FormLine>
                <FormLine
                    label="Pages"
                    for="way-page"
                    :error="message('/settings/pageField')"
                    hint="The field of the address that counts them from 1, until one is empty. Blank where all comes at once."
                >
                    <input
                        id="way-page"
                        v-model="draft.settings.pageField"
                        class="field w-[160px]"
                        autocomplete="off"
                        placeholder="page"
                    />
                </FormLine>
            </template>
            <template v-if="draft.way === 'query'">
                <FormLine label="Server" for="way-host" :error="message('/settings/host') ?? message('/settings/port')">
                    <input
                        id="way-host"
                        v-model="draft.settings.host"
                        class="field w-[240px]"
                        autocomplete="off"
                        placeholder="ledger.example.org"
                    />
                    port
                    <input
                        v-model.number="draft.settings.port"
                        class="field w-[80px] text-right"
                        type="number"
                        min="1"
                        max="65535"
                        aria-label="Port"
                    />
                </FormLine>
                <FormLine label="Database" for="way-database" :error="message('/settings/database')"
                    ><input
                        id="way-database"
                        v-model="draft.settings.database"
                        class="field w-[240px]"
                        autocomplete="off"
                /></FormLine>
                <FormLine
                    label="Account"
                    for="way-user"
                    :error="message('/settings/user') ?? message('/secret')"
                    hint="One that can only read: any other is refused."
                >
                    <input id="way-user" v-model="draft.settings.user" class="field w-[160px]" autocomplete="off" />
                    <input
                        class="field ml-1.5 w-[220px]"
                        type="password"
                        autocomplete="new-password"
                        :placeholder="data.hasSecret ? 'the password that is kept' : 'its password'"
                        aria-label="Password of the account"
                        :value="secret ?? ''"
                        @input="secret = ($event.target as HTMLInputElement).value"
                    />
                </FormLine>
                <FormLine
                    label="Query"
                    for="way-sql"
                    :error="message('/settings/sql')"
                    hint="A row a record; its columns as the set remembers them."
                >
                    <textarea
                        id="way-sql"
                        v-model="draft.settings.sql"
                        class="field block w-full font-mono text-[13.5px]"
                        rows="4"
                        maxlength="20000"
                        spellcheck="false"
                    />
                </FormLine>
            </template>
            <p v-if="data.standIn && (draft.way === 'address' || draft.way === 'query')" class="sm:pl-[156px]">
                <button type="button" class="quiet-link text-[14px] text-brass" @click="fill">
                    The stand-in of the demonstration
                </button>
            </p>
            <FormLine
                v-if="draft.way === 'address' || draft.way === 'query'"
                label="Asked"
                for="way-every"
                :error="message('/settings/minutes')"
            >
                <select id="way-every" v-model.number="draft.settings.minutes" class="field">
                    <option v-for="(words, minutes) in EVERY" :key="minutes" :value="Number(minutes)">
                        {{ words }}
                    </option>
                </select>
            </FormLine>
            <FormLine
                v-if="draft.way === 'sent'"
                label="A program"
                hint="Saving makes a token of its own for this set; an earlier one is taken no longer."
            >
                {{ data.hasToken ? 'A token is given out.' : 'It comes with a token.' }}
            </FormLine>
        </fieldset>
        <p v-if="trouble" class="error" role="alert">{{ trouble }}</p>
        <p v-if="page.changes" class="flex items-center gap-3 sm:pl-[156px]">
            <button type="submit" class="button" :disabled="busy || (!changed && draft.way !== 'sent')">
                {{ draft.way === 'sent' ? (data.hasToken ? 'Make a new token' : 'Make the token') : 'Save' }}
            </button>
            <button
                v-if="(data.way === 'address' || data.way === 'query') && !changed"
                type="button"
                class="button button-quiet"
                :disabled="busy"
                @click="ask"
            >
                Ask now
            </button>
            <span v-if="data.asked && !data.problem" class="text-[14px] text-ink-soft"
                >Asked last {{ moment(data.asked) }}<template v-if="data.next">, next {{ moment(data.next) }}</template
                >.</span
            >
        </p>
        <p v-if="data.way !== 'file' && data.way !== 'sent'" class="text-[14px] text-ink-faint sm:pl-[156px]">
            Closed months stay as they are; what arrives late is told in Periods.
        </p>
    </form>
</template>
