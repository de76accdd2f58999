import { ApiError } from '@/api/client';
import { computed, ref, shallowRef } from 'vue';

/** What is sent to be kept: whether it is on its way, and in what words it came back. */
export function useSending() {
    const busy = ref(false);
    const problem = shallowRef<ApiError | null>(null);

    /** Whether it went through. What was typed is never touched here. */
    async function send(doing: () => Promise<void>): Promise<boolean> {
        busy.value = true;
        problem.value = null;
        try {
            await doing();
            return true;
        } catch (failure) {
            if (!(failure instanceof ApiError)) {
                throw failure;
            }
            problem.value = failure;
            return false;
        } finally {
            busy.value = false;
        }
    }

    return {
        busy,
        problem,
        send,
        /** What is wrong with a field, to be said beside it. */
        message: (field: string): string | undefined => problem.value?.fields[field],
        /** What is wrong, where no field can be blamed. */
        trouble: computed(() =>
            problem.value === null || Object.keys(problem.value.fields).length > 0
                ? ''
                : `${problem.value.detail} What you typed is kept.`,
        ),
        /** What is wrong, in one place. */
        said: computed(() => Object.values(problem.value?.fields ?? {})[0] ?? problem.value?.detail ?? ''),
    };
}
