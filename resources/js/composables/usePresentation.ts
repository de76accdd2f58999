import { useEventListener } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useSession } from './useSession';
import { useView } from './useView';

/** The scorecard without anything around it, stepping from department to department. */
export function usePresentation() {
    const route = useRoute();
    const router = useRouter();
    const { unit, query } = useView();
    const { units } = useSession();

    const presenting = computed(() => route.name === 'scorecard' && route.query.present === '1');
    /** The highest unit that this person sees, and those directly below it. */
    const stops = computed(() => {
        const all = [...units.value.values()];
        const top = all.find(({ parent }) => parent === null || !units.value.has(parent));
        return top === undefined ? [] : [top, ...all.filter(({ parent }) => parent === top.code)];
    });
    const at = computed(() => stops.value.findIndex(({ code }) => code === unit.value.code));

    const show = (code: string): void => void router.push({ query: { ...query({ unit: code }), present: '1' } });
    const step = (by: number): void => {
        const to = stops.value[Math.max(0, Math.min(stops.value.length - 1, at.value + by))];
        if (to !== undefined) {
            show(to.code);
        }
    };
    return {
        presenting,
        stops,
        at,
        step,
        start: (): void => void router.push({ query: { ...route.query, present: '1' } }),
        end: (): void => void router.push({ query: { ...route.query, present: undefined } }),
    };
}

/** The keys of a presentation; heard once, by the shell. */
export function usePresentationKeys(): void {
    const { presenting, step, end } = usePresentation();
    useEventListener('keydown', (event: KeyboardEvent) => {
        if (!presenting.value || event.ctrlKey || event.metaKey || event.altKey) {
            return;
        }
        if (event.key === 'ArrowRight' || event.key === 'PageDown') {
            step(1);
        } else if (event.key === 'ArrowLeft' || event.key === 'PageUp') {
            step(-1);
        } else if (event.key === 'Escape') {
            end();
        } else {
            return;
        }
        event.preventDefault();
    });
}
