import { computed, nextTick, type WritableComputedRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';

// Several parts of an address may change in one go; each replacement alone would take the others back.
let pending: Record<string, string | undefined> = {};
let waiting = false;

/**
 * How a list is ordered, filtered or drawn, kept in the address: it survives back and reload, and can be linked. What is
 * not among the choices counts as the first one.
 */
export function useAddress(name: string, first: string): WritableComputedRef<string>;
export function useAddress<Choice extends string>(
    name: string,
    first: Choice,
    choices: readonly Choice[],
): WritableComputedRef<Choice>;
export function useAddress<Choice extends string>(
    name: string,
    first: Choice,
    choices?: readonly Choice[],
): WritableComputedRef<Choice> {
    const route = useRoute();
    const router = useRouter();

    return computed({
        get: () => {
            const value = route.query[name];
            return typeof value === 'string' && (choices?.includes(value as Choice) ?? true)
                ? (value as Choice)
                : first;
        },
        set: (to) => {
            pending[name] = to === first ? undefined : to;
            if (!waiting) {
                waiting = true;
                void nextTick(async () => {
                    const change = pending;
                    pending = {};
                    waiting = false;
                    await router.replace({ query: { ...route.query, ...change } });
                });
            }
        },
    });
}

/** A switch in the address. */
export function useSwitch(name: string): WritableComputedRef<boolean> {
    const address = useAddress<'' | '1'>(name, '', ['', '1']);
    return computed({ get: () => address.value === '1', set: (to) => (address.value = to ? '1' : '') });
}
