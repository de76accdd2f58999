import type { Schemas } from '@/api/client';
import { computed, type Ref } from 'vue';
import type { Charted, Mode, Point } from './chart';

/** What stands on the axis of the chart: notes, actions, changes of rules; and signals above their points. */
export function useMarks(
    props: Readonly<{ page: Charted; points: readonly Point[]; mode: Mode }>,
    indexOf: Ref<Map<string, number>>,
    control: Ref<Schemas['ControlLimits'] | null>,
) {
    const marks = computed(() => {
        if (props.mode !== 'months') {
            return [];
        }
        const found: { at: number; kind: 'note' | 'action' | 'rule'; words: string }[] = [];
        const put = (period: string, kind: 'note' | 'action' | 'rule', words: string): void => {
            const index = indexOf.value.get(period) ?? props.points.findIndex((point) => point.period >= period);
            if (index >= 0) {
                found.push({ at: index, kind, words });
            }
        };
        props.page.notes?.forEach((note) => indexOf.value.has(note.period) && put(note.period, 'note', note.text));
        props.page.actions?.forEach(
            (action) => indexOf.value.has(action.period) && put(action.period, 'action', action.what),
        );
        props.page.rules?.forEach((rule) => {
            if (rule.from > (props.points[0]?.period ?? '')) {
                put(rule.from, 'rule', 'limits changed');
            }
        });
        return found;
    });

    /** Signals are told above the point, whatever their number. */
    const signals = computed(() => {
        const by = new Map<number, string[]>();
        control.value?.signals.forEach(({ period, words }) => {
            const index = indexOf.value.get(period);
            if (index !== undefined) {
                by.set(index, [...(by.get(index) ?? []), words]);
            }
        });
        return by;
    });

    return { marks, signals };
}
