import { useNumbers } from '@/composables/useNumbers';
import { spread } from '@/graphics/labels';
import type { columned } from '@/graphics/plane';
import { computed, type Ref } from 'vue';
import type { Charted, Point } from './chart';
import type { useCourse } from './useCourse';

const TEXTS = { green: 'fill-green', amber: 'fill-amber-text', red: 'fill-red-text' } as Record<string, string>;

/** What is written at the right of the chart: target, year end, control limits, none upon another. */
export function useCaptions(
    props: Readonly<{ page: Charted; points: readonly Point[] }>,
    { targets, control, projected }: ReturnType<typeof useCourse>,
    plane: Ref<ReturnType<typeof columned>>,
    edge: Ref<{ top: number; right: number; bottom: number }>,
) {
    const { figure, plain } = useNumbers();

    return computed(() => {
        const found: { x: number; y: number; text: string; look: string; anchor: string }[] = [];
        const right = edge.value.right - 4;
        const last = targets.value.findLastIndex((value) => value !== null);
        const target = props.points[last]?.target;
        if (target) {
            found.push({
                x: right,
                y: plane.value.y(Number(target.exact)) + 15,
                text: props.points[last]?.upper
                    ? `band ${figure(target)} to ${figure(props.points[last].upper)}`
                    : `target ${figure(target, props.page.measure)}`,
                look: 'fill-ink font-semibold',
                anchor: 'end',
            });
        }
        const end = projected.value?.at(-1);
        const { projection } = props.page;
        if (end !== undefined && projection?.value) {
            found.push({
                x: right,
                y: Math.min(...(projected.value ?? []).slice(-4).map(({ value }) => plane.value.y(value))) - 9,
                text: `year end about ${figure(projection.value, props.page.measure)}`,
                look: `font-semibold ${TEXTS[projection.status] ?? 'fill-ink-soft'}`,
                anchor: 'end',
            });
        }
        if (control.value !== null) {
            found.push({
                x: right,
                y: plane.value.y(control.value.upper) - 5,
                text: `upper control limit ${plain(control.value.upper)}`,
                look: 'fill-ink-soft',
                anchor: 'end',
            });
            if (control.value.lower !== null) {
                found.push({
                    x: right,
                    y: plane.value.y(control.value.lower) + 13,
                    text: `lower control limit ${plain(control.value.lower)}`,
                    look: 'fill-ink-soft',
                    anchor: 'end',
                });
            }
        }
        return spread(found, 15, edge.value.top + 11, edge.value.bottom - 4);
    });
}
