import { ApiError, api, read, whenSignedOut, type Schemas } from '@/api/client';
import { computed, readonly, shallowRef, watch } from 'vue';
import type { LOCALES } from '@/words';
import { writeDatesIn } from './usePeriods';

// One of each for the whole page: components that ask are many, and so are the units.
const session = shallowRef<Schemas['Session'] | null>(null);
const user = computed(() => session.value?.user ?? null);
const units = computed(() => new Map((session.value?.units ?? []).map((unit) => [unit.code, unit])));
const root = computed(() => session.value?.units.find((unit) => unit.parent === null) ?? null);

watch(
    () => user.value?.dateLanguage,
    (language) => writeDatesIn(language ?? 'en-GB'),
);

whenSignedOut(() => {
    if (session.value !== null) {
        session.value = { ...session.value, user: null };
    }
});

/** Who is signed in, and the units that everybody sees. */
export function useSession() {
    /** From the organisation down to the unit. */
    function path(code: string): Schemas['Unit'][] {
        const unit = units.value.get(code);
        return unit === undefined ? [] : [...(unit.parent === null ? [] : path(unit.parent)), unit];
    }

    function childrenOf(code: string | null): Schemas['Unit'][] {
        return (session.value?.units ?? []).filter((unit) => unit.parent === code);
    }

    async function load(): Promise<void> {
        session.value = await read(api.GET('/api/session'));
    }

    /** Strangers have no session, and so nothing yet that protects them against forged requests: the first answer brings it. */
    async function asStranger<T>(attempt: () => Promise<T>): Promise<T> {
        try {
            return await attempt();
        } catch (error) {
            if (!(error instanceof ApiError) || error.status !== 419) {
                throw error;
            }
            await read(api.GET('/api/session'));
            return attempt();
        }
    }

    async function signIn(email: string, password: string, code = ''): Promise<void> {
        session.value = await asStranger(() => read(api.POST('/api/session', { body: { email, password, code } })));
    }

    /** Begins an organisation, and is signed in to its first account. */
    async function begin(body: Schemas['BeginningInput']): Promise<void> {
        await asStranger(() => read(api.POST('/api/beginning', { body })));
        await load();
    }

    /** Chooses a password by a link that was handed over. */
    async function enter(body: Schemas['EntryInput']): Promise<void> {
        await asStranger(() => read(api.POST('/api/entry', { body })));
        await load();
    }

    async function signOut(): Promise<void> {
        await read(api.DELETE('/api/session'));
        window.location.assign('/');
    }

    /** How numbers and dates are written for the person. */
    async function setWriting(writing: {
        locale?: (typeof LOCALES)[number];
        dateLanguage?: Schemas['User']['dateLanguage'];
    }): Promise<void> {
        session.value = await read(api.PATCH('/api/session', { body: writing }));
    }

    return {
        session: readonly(session),
        user,
        units,
        root,

        path,

        childrenOf,
        load,
        signIn,
        begin,
        enter,
        signOut,
        setWriting,
    };
}
