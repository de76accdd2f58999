import type { Schemas } from '@/api/client';

/** Of a unit what a person can change of it. */
export const placeOf = ({
    code,
    name,
    kind,
    parent,
    weight,
    rollUp,
    rollUpGreen,
    rollUpOther,
}: Schemas['UnitPlace']): Schemas['UnitPlace'] => ({
    code,
    name,
    kind,
    parent,
    weight,
    rollUp,
    rollUpGreen,
    rollUpOther,
});
