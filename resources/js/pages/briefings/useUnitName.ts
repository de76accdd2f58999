import { useSession } from '@/composables/useSession';
import { useVisit } from '@/composables/useVisit';

/** What a unit is called for whoever reads. */
export function useUnitName(): (code: string, otherwise?: string) => string {
    const { units } = useSession();
    const visit = useVisit();
    return (code, otherwise = code) => visit.value?.units[code] ?? units.value.get(code)?.name ?? otherwise;
}
