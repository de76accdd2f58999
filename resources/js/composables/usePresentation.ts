import { api, read } from '@/api/client';
import { useQuery } from '@tanstack/vue-query';
import { useEventListener, useIntervalFn } from '@vueuse/core';
import { computed, watch } from 'vue';
import { useRoute, useRouter, type RouteLocationRaw } from 'vue-router';
import { useSession } from './useSession';
import { useView } from './useView';

interface Stop {
    key: string;
    name: string;
    to: RouteLocationRaw;
}

/** A screen without anything around it: the scorecard steps from department to department, briefings from one to the next. */
export function usePresentation() {
    const route = useRoute();
    const router = useRouter();
    const { unit, period, query } = useView();
    const { units } = useSession();

    const ofBriefings = computed(() => route.name === 'briefing');
    const presenting = computed(
        () => (route.name === 'scorecard' || ofBriefings.value) && route.query['present'] === '1',
    );
    const briefings = useQuery({
        queryKey: ['briefings'],
        queryFn: () => read(api.GET('/api/briefings')),
        enabled: () => presenting.value && ofBriefings.value,
    });
    /** The highest unit that this person sees, and those directly below it; or the briefings that were published. */
    const stops = computed<Stop[]>(() => {
        if (ofBriefings.value) {
            return (briefings.data.value ?? [])
                .filter(({ issue, retired }) => issue !== null && !retired)
                .map(({ code, name, unit: of, span }) => ({ key: code, name, to: { name: 'briefing', params: { code }, query: { unit: of, period: period.value, span, present: '1', turn: route.query['turn'] } } })); // prettier-ignore
        }
        const all = [...units.value.values()];
        const top = all.find(({ parent }) => parent === null || !units.value.has(parent));
        return (top === undefined ? [] : [top, ...all.filter(({ parent }) => parent === top.code)]).map(
            ({ code, name }) => ({ key: code, name, to: { query: { ...query({ unit: code }), present: '1' } } }),
        );
    });
    const at = computed(() => stops.value.findIndex(({ key }) => key === (ofBriefings.value ? route.params['code'] : unit.value.code))); // prettier-ignore

    const step = (by: number): void => {
        const to = stops.value[Math.max(0, Math.min(stops.value.length - 1, at.value + by))];
        if (to !== undefined) {
            void router.push(to.to);
        }
    };
    return {
        presenting,
        ofBriefings,
        stops,
        at,
        step,
        start: (): void => void router.push({ query: { ...route.query, present: '1' } }),
        end: (): void => void router.push({ query: { ...route.query, present: undefined, turn: undefined } }),
    };
}

const MINUTE = 60_000;

/** The keys of a presentation, and its slow turning on a wall; heard once, by the shell. */
export function usePresentationKeys(): void {
    const route = useRoute();
    const router = useRouter();
    const { presenting, ofBriefings, stops, at, step, end } = usePresentation();
    const turning = computed(() => presenting.value && ofBriefings.value && route.query['turn'] === '1');
    const { pause, resume } = useIntervalFn(
        () => {
            const next = stops.value[(at.value + 1) % Math.max(1, stops.value.length)];
            if (next !== undefined) {
                void router.replace(next.to);
            }
        },
        MINUTE,
        { immediate: false },
    );
    watch(turning, (now) => (now ? resume() : pause()), { immediate: true });
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
