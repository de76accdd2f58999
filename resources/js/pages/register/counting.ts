import type { Schemas } from '@/api/client';

export type Counted = Schemas['Counted'];
export type Members = Record<string, unknown>;
export type SourceField = Schemas['SourceField'];
type FieldType = NonNullable<SourceField['type']>;

/** What is taken of records, as the sentence says it. */
export const TAKES: Record<Counted['take'], string> = {
    count: 'how many',
    distinct: 'how many different',
    sum: 'the sum of',
    mean: 'the mean of',
    median: 'the median of',
    percentile: 'the percentile of',
    minimum: 'the lowest',
    maximum: 'the highest',
    share: 'the share',
    open: 'how many are open',
};

/** What a longer span is, said in full. */
export const OVER_TIME: Record<Counted['take'], (noun: string) => string> = {
    count: (noun) => `all ${noun} of the span`,
    distinct: (noun) => `how many different in all ${noun} of the span`,
    sum: (noun) => `the sum over all ${noun} of the span`,
    mean: (noun) => `the mean of all ${noun} of the span, not a mean of means`,
    median: (noun) => `the median of all ${noun} of the span`,
    percentile: (noun) => `the percentile of all ${noun} of the span`,
    minimum: (noun) => `the lowest of all ${noun} of the span`,
    maximum: (noun) => `the highest of all ${noun} of the span`,
    share: (noun) => `the share of all ${noun} of the span, not a mean of shares`,
    open: () => 'what is open at the end of the span',
};

export const takesValues = (take: Counted['take']): boolean => !['count', 'share', 'open'].includes(take);

/** How a comparison is said. Whether something is there is two of them. */
export const OPERATORS = {
    is: 'is',
    isNot: 'is not',
    oneOf: 'is one of',
    noneOf: 'is none of',
    contains: 'contains',
    beginsWith: 'begins with',
    atLeast: 'is at least',
    atMost: 'is at most',
    moreThan: 'is more than',
    lessThan: 'is less than',
    between: 'is between',
    empty: 'is empty',
    filled: 'is not empty',
} as const;
export type Operator = keyof typeof OPERATORS;

const ORDERED: Operator[] = ['atMost', 'atLeast', 'lessThan', 'moreThan', 'between', 'is', 'isNot', 'empty', 'filled'];
export const operatorsFor = (type: FieldType): Operator[] =>
    ({
        text: ['is', 'isNot', 'oneOf', 'noneOf', 'contains', 'beginsWith', 'empty', 'filled'] as Operator[],
        number: ORDERED,
        date: ORDERED,
        time: ORDERED,
        yesno: ['is', 'empty', 'filled'] as Operator[],
    })[type];

/** One comparison while it is written. */
export interface Comparison {
    of: string;
    operator: Operator;
    one: string;
    other: string;
}

const texts = (value: unknown): string[] => (Array.isArray(value) ? value.map(String) : [String(value)]);

export function readComparison(members: Members): Comparison {
    const name = Object.keys(members).find((each) => each !== 'of') ?? 'is';
    const value = members[name];
    const operator = (name === 'empty' ? (value === false ? 'filled' : 'empty') : name) as Operator;
    const isList = operator === 'oneOf' || operator === 'noneOf';
    const [one = '', other = ''] = typeof value === 'boolean' ? [value ? 'yes' : 'no'] : texts(value ?? '');
    return {
        of: typeof members['of'] === 'string' ? members['of'] : '',
        operator,
        one: isList ? texts(value ?? '').join(', ') : one,
        other,
    };
}

export function writeComparison({ of, operator, one, other }: Comparison, type: FieldType): Members {
    const list = (): string[] =>
        one
            .split(',')
            .map((each) => each.trim())
            .filter((each) => each !== '');
    switch (operator) {
        case 'empty':
        case 'filled':
            return { of, empty: operator === 'empty' };
        case 'oneOf':
        case 'noneOf':
            return { of, [operator]: list() };
        case 'between':
            return { of, between: [one.trim(), other.trim()] };
        default:
            return { of, [operator]: type === 'yesno' ? one !== 'no' : one.trim() };
    }
}

/** A condition is one comparison, or several of which one must hold. */
export const readCondition = (members: Members): Members[] =>
    Array.isArray(members['any']) ? (members['any'] as Members[]) : [members];
export const writeCondition = (comparisons: Members[]): Members =>
    comparisons.length === 1 ? (comparisons[0] ?? {}) : { any: comparisons };

export const typeOf = (of: string, fields: readonly SourceField[]): FieldType => {
    const field = fields.find(({ name }) => name === of);
    return field === undefined || field.type === null ? 'number' : field.type;
};

/** What one calls a field in a sentence. */
export const fieldWords = (field: SourceField): string => field.name.replaceAll('_', ' ');

export const blankCounted = (records: string): Counted => ({ records, take: 'count', datedBy: '', met: [], where: [] });
