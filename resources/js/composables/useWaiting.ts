import { refDebounced } from '@vueuse/core';
import { computed, type Ref } from 'vue';

/** Nobody sees a wait that is shorter; to fade what stands there would only flicker. */
const BLINK = 250;

/** Whether something has been on its way for longer than a blink. */
export function useWaiting(isOnItsWay: Ref<boolean>) {
    const late = refDebounced(isOnItsWay, BLINK);
    return computed(() => isOnItsWay.value && late.value);
}
