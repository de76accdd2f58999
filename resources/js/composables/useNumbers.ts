import type { Schemas, Shown } from '@/api/client';
import { computed } from 'vue';
import { useSession } from './useSession';
import { useVisit } from './useVisit';

const formatters = new Map<string, Intl.NumberFormat>();

/** Formatters are costly to make and few differ. */
function formatter(locale: string, name: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
    const key = `${locale}/${name}`;
    let found = formatters.get(key);
    if (found === undefined) {
        found = new Intl.NumberFormat(locale, options);
        formatters.set(key, found);
    }
    return found;
}

function shape(digits: string, locale: string, sign: boolean): string {
    const decimals = digits.split('.')[1]?.length ?? 0;
    const exact = formatter(locale, `${decimals}/${sign}`, {
        minimumFractionDigits: decimals,
        maximumFractionDigits: decimals,
        signDisplay: sign ? 'exceptZero' : 'negative',
    });
    // A string is formatted exactly; a number would have been rounded to a float first.
    return exact.format(digits as Intl.StringNumericLiteral).replace('-', '−');
}

const isCurrency = (measure: string): boolean => /^\p{Sc}$/u.test(measure);
/** A currency stands before its figure, behind the sign. */
const priced = (text: string, measure: string): string =>
    isCurrency(measure) ? text.replace(/^[+−]?/, (sign) => sign + measure) : text;

/** Figures in the reader's number setting. The server has rounded and scaled them already. */
export function useNumbers() {
    const { user } = useSession();
    const visit = useVisit();
    const locale = computed(() => visit.value?.locale ?? user.value?.locale ?? 'en-GB');

    const figure = (shown: Shown, measure = ''): string => {
        const text = shape(shown.digits, locale.value, false) + shown.suffix;
        return priced(text, measure);
    };

    const signed = (shown: Shown, measure = ''): string => {
        const text = shape(shown.digits, locale.value, true) + shown.suffix;
        return priced(text, measure);
    };

    const sign = (type: 'group' | 'decimal'): string =>
        formatter(locale.value, 'signs', { minimumFractionDigits: 1 })
            .formatToParts(10_000)
            .find((part) => part.type === type)?.value ?? '';
    const comma = computed(() => sign('group'));

    return {
        figure,
        signed,
        /** A figure as it is typed, with its thousands set apart; what is not understood stays as it is. */
        setApart: (text: string): string =>
            /^-?\d+([.,]\d+)?$/.test(text)
                ? text.replace(/^(-?)(\d+)/, (_, minus: string, whole: string) => {
                      return minus.replace('-', '−') + whole.replace(/\B(?=(\d{3})+$)/g, comma.value);
                  })
                : text,
        percent: (digits: string): string => `${shape(digits, locale.value, true)} %`,
        plain: (value: number): string =>
            formatter(locale.value, 'plain', { maximumSignificantDigits: 4 }).format(value).replace('-', '−'),
        /** What stands before decimals. */
        separator: computed(() => sign('decimal')),
        atMost: (value: number, decimals: number): string =>
            formatter(locale.value, `most/${decimals}`, { maximumFractionDigits: decimals })
                .format(value)
                .replace('-', '−'),
        /** With so many decimals, as the steps of a scale have them. */
        fixed: (value: number, decimals: number): string =>
            shape((Number(value.toFixed(decimals)) || 0).toFixed(decimals), locale.value, false),
        /** A figure that is written already, with its measure where it belongs. */
        withMeasure: (text: string, measure: string): string =>
            isCurrency(measure) ? priced(text, measure) : [text, measure].filter(Boolean).join(' '),
        /** What stands behind a figure: nothing for a currency, which stands before it. */
        unitOf: (measure: string): string => (isCurrency(measure) ? '' : measure),
        betterOrWorse: (effect: Schemas['Difference']['effect']): string =>
            ({ favourable: 'better', adverse: 'worse', none: 'no difference' })[effect],
    };
}

const WORDS = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

/** Small numbers in words, as a sentence that is read aloud has them. */
export const counted = (count: number): string => WORDS[count] ?? String(count);

/** What moved since the month before. */
export const movedWords = ({ worse, recovered, better }: Schemas['Moved']): string =>
    [
        worse > 0 ? `${counted(worse)} got worse` : '',
        recovered > 0 ? `${counted(recovered)} recovered` : '',
        better > 0 ? `${counted(better)} got better` : '',
    ]
        .filter((part) => part !== '')
        .join(', ');

/** Keeps a share on one line with its sign. */
export const unbroken = (text: string): string => text.replaceAll(' %', '\u00A0%');

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const ENDINGS = { one: 'st', two: 'nd', few: 'rd', other: 'th', zero: 'th', many: 'th' };
const ordinals = new Intl.PluralRules('en-GB', { type: 'ordinal' });
/** A place in a row: `1st`, `2nd`, `11th`. */
export const ordinal = (place: number): string => `${place}${ENDINGS[ordinals.select(place)]}`;
