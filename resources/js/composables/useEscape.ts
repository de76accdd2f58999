import { useEventListener } from '@vueuse/core';
import { nextTick, toValue, watch, type MaybeRefOrGetter } from 'vue';

// What was opened last is closed first, and one press closes one thing.
const open: symbol[] = [];

/**
 * Closes a form or panel by Esc, and gives the focus back to what opened it, however it is closed. Where that is gone,
 * the content has it: focus never falls to the page.
 */
export function useEscape(isOpen: MaybeRefOrGetter<boolean>, close: () => void): void {
    const own = Symbol('open');
    let opener: HTMLElement | null = null;

    watch(
        () => toValue(isOpen),
        async (now, before) => {
            if (now && before !== true) {
                opener = document.activeElement instanceof HTMLElement ? document.activeElement : null;
                open.push(own);
            } else if (!now && before === true) {
                open.splice(open.indexOf(own), 1);
                await nextTick();
                if (document.activeElement === document.body || document.activeElement === null) {
                    const back = opener?.isConnected === true ? opener : document.getElementById('content');
                    back?.focus({ preventScroll: true });
                }
            }
        },
        { immediate: true },
    );
    useEventListener('keydown', (event: KeyboardEvent) => {
        if (event.key === 'Escape' && !event.defaultPrevented && open.at(-1) === own) {
            event.preventDefault();
            close();
        }
    });
}
