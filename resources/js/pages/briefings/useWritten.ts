import type { Schemas, Shown } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { choiceOf } from './usePage';

/** Figures of a piece, written as it was chosen: short or in full, with its own decimals or others. */
export function useWritten(props: Readonly<{ piece: Schemas['Piece'] }>) {
    const { figure, signed } = useNumbers();

    function shaped(shown: Shown): Shown {
        const full = choiceOf(props.piece, 'written', 'short') === 'full';
        const decimals = choiceOf(props.piece, 'decimals', 'own');
        if (!full && decimals === 'own') {
            return shown;
        }
        const places = decimals === 'own' ? (shown.digits.split('.')[1]?.length ?? 0) : Number(decimals);
        // A figure that was shortened keeps its thousands and millions only where it is to be short.
        const suffix = full ? '' : shown.suffix;
        const unit = { '': 1, k: 1e3, m: 1e6, bn: 1e9 }[suffix];
        return { ...shown, suffix, digits: (Number(shown.exact) / unit).toFixed(full && shown.suffix !== '' && decimals === 'own' ? 0 : places) }; // prettier-ignore
    }
    return {
        written: (shown: Shown, measure = ''): string => figure(shaped(shown), measure),
        difference: (shown: Shown, measure = ''): string => signed(shaped(shown), measure),
    };
}
