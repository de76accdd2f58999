import type { Schemas } from '@/api/client';
import { inject, provide, type ComputedRef, type InjectionKey, type WritableComputedRef } from 'vue';

/** What the pieces of a page follow, and what choosing in one of them does. */
export interface PageChoices {
    /** nobody is signed in: nothing leads to other screens */
    isPublic: boolean;
    home: ComputedRef<string>;
    unit: ComputedRef<string>;
    period: ComputedRef<string>;
    colour: WritableComputedRef<string>;
    /** a part of a split, by its name */
    part: WritableComputedRef<string>;
    /** unit that stands out in comparisons, lists and maps */
    follow: WritableComputedRef<string>;
    /** Chooses a unit; the one that is chosen no longer. */
    chooseUnit: (code: string) => void;
}

const PAGE: InjectionKey<PageChoices> = Symbol('page');

export function providePage(page: PageChoices): void {
    provide(PAGE, page);
}

/** For a piece: what it follows. */
export function usePage(): PageChoices {
    const page = inject(PAGE);
    if (page === undefined) {
        throw new Error('This piece stands on no page.');
    }
    return page;
}

export interface PieceProps {
    piece: Schemas['Piece'];
    answer: Schemas['PieceAnswer'];
}

/** What has been chosen, or else stands first. */
export const choiceOf = (piece: Schemas['Piece'], name: string, first: string): string => piece.choices[name] ?? first;
