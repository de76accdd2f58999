// @vitest-environment happy-dom
import type { Schemas } from '@/api/client';
import FormulaField from '@/pages/register/FormulaField.vue';
import RuleFields from '@/pages/register/RuleFields.vue';
import { blank, blankRule, type Definition, type Rule } from '@/pages/register/useDraft';
import { beforeEach, describe, expect, test } from 'vitest';
import { answer, asked, expectSound, place, Problem, soon, valueOf } from './mounting';

/* The fields of a definition that know more than one value. */

const draft = (change: Partial<Definition>): Definition => ({
    ...blank('NET', '2026-08'),
    code: 'LEAK',
    measure: 'Ml/d',
    ...change,
});

describe('a rule', () => {
    beforeEach(() => {
        const of = (polarity: string, accumulation: string, reference: string, ...measures: string[]) => ({
            polarity,
            accumulation,
            reference,
            measures,
        });
        answer('GET /api/pairings', () => [
            of('higher', 'sum', 'target', 'percent', 'absolute', 'reached'),
            of('higher', 'sum', 'recent', 'percent', 'absolute', 'reached'),
            of('higher', 'sum', 'year-target', 'reached'),
            of('higher', 'sum', 'none', 'level'),
            of('band', 'mean', 'target', 'percent', 'absolute'),
            of('band', 'mean', 'none', 'level'),
        ]);
    });
    const rule = (change: Partial<Rule> = {}): Rule => ({
        ...blankRule('2026-08'),
        reference: 'target',
        measure: 'percent',
        green: '0',
        amber: '5',
        ...change,
    });
    async function fields(
        of: Partial<Definition>,
        value: Rule,
        error: (field: string) => string | undefined = () => undefined,
    ) {
        const { wrapper } = await place(RuleFields, { draft: draft(of), saved: null, idPrefix: 'kpi', error, modelValue: value, 'onUpdate:modelValue': (next: Rule) => void wrapper.setProps({ modelValue: next }) }); // prettier-ignore
        return wrapper;
    }
    const choices = (select: { findAll: (what: string) => { text: () => string }[] }) => select.findAll('option').map((option) => option.text()); // prettier-ignore

    test('offers what the server says goes with the KPI, and nothing else', async () => {
        const total = await fields({ polarity: 'higher', accumulation: 'sum' }, rule());
        expect(choices(total.get('select[aria-label="Compare with"]'))).toEqual([
            'the target',
            'recent periods',
            'the year target',
            'fixed levels',
        ]);
        expect(total.get('[role=radiogroup]').text()).toContain('share reached');

        const band = await fields({ polarity: 'band', accumulation: 'mean' }, rule());
        expect(choices(band.get('select[aria-label="Compare with"]'))).toEqual(['the band', 'fixed levels']);
        expect(band.get('[role=radiogroup]').text()).not.toContain('share reached');
        await expectSound(document.body);
    });

    test('takes the way of measuring that goes with another comparison, with limits that make sense there', async () => {
        const wrapper = await fields({ polarity: 'higher', accumulation: 'sum' }, rule());
        const select = wrapper.get('select[aria-label="Compare with"]');
        await select.setValue('year-target');
        expect(valueOf(wrapper)).toMatchObject({
            reference: 'year-target',
            measure: 'reached',
            pace: 'even',
            green: '100',
            amber: '90',
        });
        await select.setValue('recent');
        expect(valueOf(wrapper)).toMatchObject({
            reference: 'recent',
            measure: 'reached',
            pace: 'whole',
            periods: 3,
            green: '100',
        });
        await select.setValue('none');
        expect(valueOf(wrapper)).toMatchObject({
            reference: 'none',
            measure: 'level',
            periods: null,
            green: '',
            amber: '',
        });
    });

    test('says beside each limit what is wrong with it', async () => {
        const wrapper = await fields({ polarity: 'higher', accumulation: 'sum' }, rule({ amber: '-1' }), (field) => (field === 'amber' ? 'Drifting must reach at least as far as on course.' : undefined)); // prettier-ignore
        const field = wrapper.get('#kpi-amber');
        expect(field.attributes('aria-invalid')).toBe('true');
        expect(wrapper.text()).toContain('Drifting must reach at least as far as on course.');
    });
});

describe('a formula', () => {
    const kpis = [
        { code: 'BILLED', name: 'Water billed', kind: 'entered' },
        { code: 'SYS-IN', name: 'System input', kind: 'entered' },
        { code: 'BALANCE', name: 'Balance judged', kind: 'judged' },
        { code: 'LEAK', name: 'Leakage itself', kind: 'formula' },
    ] as Schemas['RegisterLine'][];
    async function field(formula = '') {
        const { wrapper } = await place(FormulaField, { draft: draft({ kind: 'formula' }), kpis, invalid: false, modelValue: formula, 'onUpdate:modelValue': (next: string) => void wrapper.setProps({ modelValue: next }) }); // prettier-ignore
        const area = wrapper.get('textarea');
        area.element.insertAdjacentHTML('beforebegin', '<label for="formula">Formula</label>');
        const type = async (text: string) => {
            area.element.value = text;
            area.element.setSelectionRange(text.length, text.length);
            await area.trigger('input');
        };
        return { wrapper, area, type };
    }

    test('completes codes by name or code with the arrows, and quotes those that are no words', async () => {
        const { wrapper, area, type } = await field();
        await type('b');
        expect(wrapper.findAll('[role=option]').map((each) => each.text())).toEqual(['BILLEDWater billed']);
        await type('s');
        expect(wrapper.get('[role=option][aria-selected=true]').text()).toBe('SYS-INSystem input');
        expect(area.attributes()).toMatchObject({
            'aria-expanded': 'true',
            'aria-activedescendant': 'formula-offer-0',
        });
        await area.trigger('keydown', { key: 'Enter' });
        await soon(5);
        expect(valueOf(wrapper)).toBe('"SYS-IN"');
        expect(wrapper.find('[role=listbox]').exists()).toBe(false);
    });

    test('offers neither itself nor what has no number, and Escape takes the offers away', async () => {
        const { wrapper, area, type } = await field();
        await type('l');
        expect(wrapper.find('[role=option]').exists()).toBe(false);
        await type('w');
        expect(wrapper.findAll('[role=option]')).toHaveLength(1);
        await area.trigger('keydown', { key: 'Escape' });
        expect(wrapper.find('[role=option]').exists()).toBe(false);
    });

    test('marks the sign at fault where the server says it is', async () => {
        answer('POST /api/formula', () => ({ problem: "There is no KPI 'NOPE'.", place: 10, values: [] }));
        const { wrapper, area } = await field('BILLED + NOPE');
        await soon();
        expect(wrapper.get('mark').text()).toBe('N');
        expect(wrapper.get('[role=status]').text()).toContain("There is no KPI 'NOPE'.");
        expect(area.attributes('aria-invalid')).toBe('true');
        expect(asked.findLast(({ path }) => path === '/api/formula')?.body).toMatchObject({
            code: 'LEAK',
            unit: 'NET',
            formula: 'BILLED + NOPE',
        });
    });

    test('shows what it gives month by month, and why it gives nothing', async () => {
        answer('POST /api/formula', () => ({
            problem: '',
            place: null,
            values: [{ period: '2026-07', digits: '17.4', reason: '' }, { period: '2026-08', digits: null, reason: 'BILLED has no figure' }],
        })); // prettier-ignore
        const { wrapper } = await field('BILLED / 2');
        await soon();
        expect(wrapper.findAll('th').map((each) => each.text())).toEqual(['Jul', 'Aug']);
        expect(wrapper.findAll('td').map((each) => [each.text(), each.attributes('title')])).toEqual([['17.4', ''], ['none', 'BILLED has no figure']]); // prettier-ignore
        await expectSound(document.body);
    });

    test('keeps what is typed when the server cannot be asked', async () => {
        answer('POST /api/formula', () => new Problem(500, 'broken'));
        const { wrapper, area } = await field('BILLED / 2');
        await soon();
        expect(area.element.value).toBe('BILLED / 2');
        expect(wrapper.get('[role=status]').text()).toContain('Arithmetic over KPI codes');
    });
});
