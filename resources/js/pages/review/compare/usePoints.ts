import { nearest } from '@/graphics/peers';
import { ref, toValue, type MaybeRefOrGetter } from 'vue';

/**
 * Points that are read one by one: by the pointer the nearest, by the arrow keys the next in their order. Enter follows
 * the unit that is read.
 *
 * @param order places of the points, as the arrows pass through them
 * @param points where each place is drawn; null where there is nothing
 */
export function usePoints(
    order: MaybeRefOrGetter<readonly number[]>,
    points: MaybeRefOrGetter<readonly (readonly [number, number] | null)[]>,
    follow: (at: number) => void,
) {
    const REACH = 26;
    const at = ref<number | null>(null);

    function move(by: number, from = at.value): void {
        const places = toValue(order);
        const now = from === null ? -1 : places.indexOf(from);
        at.value = places[now === -1 ? (by > 0 ? 0 : places.length - 1) : Math.max(0, Math.min(places.length - 1, now + by))] ?? null; // prettier-ignore
    }

    return {
        /** the place that is read */
        at,
        onKey(event: KeyboardEvent): void {
            const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
            if (by !== undefined) {
                event.preventDefault();
                move(by);
            } else if (event.key === 'Home' || event.key === 'End') {
                event.preventDefault();
                move(event.key === 'Home' ? 1 : -1, null);
            } else if ((event.key === 'Enter' || event.key === ' ') && at.value !== null) {
                event.preventDefault();
                follow(at.value);
            }
        },
        onMove(event: MouseEvent): void {
            const box = (event.currentTarget as SVGElement).getBoundingClientRect();
            const found = nearest(toValue(points), event.clientX - box.left, event.clientY - box.top, REACH);
            at.value = found === -1 ? null : found;
        },
        onLeave(): void {
            at.value = null;
        },
        onPick(): void {
            if (at.value !== null) {
                follow(at.value);
            }
        },
    };
}

export type Points = Pick<ReturnType<typeof usePoints>, 'onKey' | 'onMove' | 'onLeave' | 'onPick'>;
