// @vitest-environment happy-dom
import type { Schemas } from '@/api/client';
import { fresh, partsOf } from '@/pages/logbook/entry';
import LogbookRow from '@/pages/logbook/LogbookRow.vue';
import type { SheetRow } from '@/pages/logbook/useEntries';
import { describe, expect, test } from 'vitest';
import { defineComponent, h } from 'vue';
import { expectSound, place, shown } from './mounting';

/* A line of the month sheet. */

type Row = Schemas['LogbookRow'];

const verdict = (change: Partial<Schemas['Verdict']> = {}): Schemas['Verdict'] => ({
    status: 'red',
    reason: 'Off course: 63.1 Ml/d against a target of 55.',
    streak: null,
    wantsNote: true,
    question: '',
    ...change,
});
function line(change: Partial<Row> = {}, figure: Partial<SheetRow['figure']> = {}): SheetRow {
    const row: Row = {
        id: 7, period: '2026-08', code: 'LEAK', name: 'Leakage', measure: 'Ml/d', unit: 'Network', unitCode: 'NET', kind: 'entered',
        lastMonth: shown('60.1'), lastYear: shown('57.7'), lastStatus: 'amber', lastYearStatus: 'green',
        target: shown('55'), upper: null, typed: '63.1', version: 3, state: 'entered', asOf: null, lock: '', formula: '',
        counted: null, byHand: false, overable: false, parts: [], split: false, asksReason: false, needsNote: true, texts: { green: '', amber: '', red: '' }, verdict: verdict(), note: null, wake: [],
        ...change,
    }; // prettier-ignore
    return {
        key: '7/2026-08',
        row,
        figure: { ...fresh(row.typed, row.version), ...figure },
        note: fresh({ text: row.note?.text ?? '', outlook: '', doing: '' }, 0),
        parts: fresh(partsOf(row), row.version),
        verdict: row.verdict,
    };
}

/** A row stands in a table. */
async function opened(of: SheetRow, isOpen = false) {
    const said: [string, ...unknown[]][] = [];
    const heard = (name: string) => (...more: unknown[]) => said.push([name, ...more]); // prettier-ignore
    const { wrapper } = await place(
        defineComponent({
            render: () =>
                h('table', [
                    h('tbody', [
                        h(LogbookRow, {
                            line: of,
                            opened: isOpen,
                            onFocus: heard('focus'),
                            onType: heard('type'),
                            onSave: heard('save'),
                            onGo: heard('go'),
                            onPutBack: heard('put back'),
                            onSettle: heard('settle'),
                        }),
                    ]),
                ]),
        }),
    );
    return { wrapper, said };
}

describe('a figure', () => {
    test('has a field of its name, says how it stands, and that a reason is missing', async () => {
        const { wrapper } = await opened(line());
        const field = wrapper.get('input');

        expect(field.element.value).toBe('63.1');
        expect(wrapper.get('label').attributes('for')).toBe(field.attributes('id'));
        expect(wrapper.text()).toContain('must be explained when bad');
        expect(wrapper.text()).toContain('a reason is needed');
        expect(wrapper.findAll('svg[role=img]').map((each) => each.attributes('aria-label'))).toContain(
            'Red: off course',
        );
        await expectSound(wrapper.element as Element);
    });

    test('is typed, saved and left by keyboard, and put back', async () => {
        const { wrapper, said } = await opened(line());
        const field = wrapper.get('input');
        await field.setValue('64');
        await field.trigger('keydown', { key: 'Enter' });
        await field.trigger('keydown', { key: 'ArrowUp' });
        await field.trigger('keydown', { key: 'Escape' });

        expect(said.filter(([name]) => name !== 'focus')).toEqual([
            ['type', '64'], ['save', 'figure'], ['save', 'figure'], ['go', 'open'], ['save', 'figure'], ['go', 'previous'], ['put back'],
        ]); // prettier-ignore
    });

    test('that is refused says why beside its field', async () => {
        const { wrapper } = await opened(
            line({}, { state: 'refused', value: '-1', message: 'The figure cannot be below 0.' }),
        );
        const field = wrapper.get('input');

        expect(field.attributes('aria-invalid')).toBe('true');
        expect(wrapper.get(`#${field.attributes('aria-describedby') ?? ''}`).text()).toBe(
            'The figure cannot be below 0.',
        );
        await expectSound(wrapper.element as Element);
    });

    test('that somebody else changed lets one choose', async () => {
        const { wrapper, said } = await opened(
            line({}, { state: 'conflict', value: '61', message: 'Bea entered 62.' }),
        );
        const [mine, theirs] = wrapper.findAll('[role=alert] button');

        expect(wrapper.get('[role=alert]').text()).toContain('Bea entered 62. You typed 61.');
        await mine?.trigger('click');
        await theirs?.trigger('click');
        expect(said).toEqual([['settle', 'figure', true], ['settle', 'figure', false]]); // prettier-ignore
    });

    test.each([
        ['closed', '', 'cannot be typed: closed'],
        ['gathered', '', 'cannot be typed: gathered from the units below'],
        ['formula', 'A / B', 'cannot be typed: worked out: A / B'],
        ['not-theirs', '', 'cannot be typed: not yours to enter'],
    ] as const)('that is locked as %s is read, and says why', async (lock, formula, words) => {
        const note = null;
        const { wrapper } = await opened(
            line({ lock, formula, note, verdict: verdict({ wantsNote: false, status: 'green' }) }),
        );

        expect(wrapper.find('input').exists()).toBe(false);
        expect(wrapper.text()).toContain(words);
        await expectSound(wrapper.element as Element);
    });

    test('that waits for the server is not lost', async () => {
        const { wrapper } = await opened(line({}, { state: 'waiting', value: '61' }));
        expect(wrapper.text()).toContain('kept here, not sent yet');
    });
});

describe('a colour', () => {
    const judged = (typed: string) =>
        line({ kind: 'judged', asksReason: true, typed, texts: { green: 'nobody waits', amber: '', red: '' } });

    test('is chosen from a group with one stop, by arrows and the space bar', async () => {
        const { wrapper, said } = await opened(judged(''));
        const group = wrapper.get('[role=radiogroup]');
        const radios = group.findAll('[role=radio]');

        expect(radios.map((each) => [each.attributes('aria-label'), each.attributes('tabindex')])).toEqual([
            ['on course: nobody waits', '0'], ['drifting', '-1'], ['off course', '-1'],
        ]); // prettier-ignore
        (radios[0]?.element as HTMLElement).focus();
        await group.trigger('keydown', { key: 'ArrowRight' });
        expect(document.activeElement).toBe(radios[1]?.element);
        await group.trigger('keydown', { key: 'ArrowLeft' });
        await group.trigger('keydown', { key: 'ArrowLeft' });
        expect(document.activeElement).toBe(radios[2]?.element);
        await radios[2]?.trigger('click');
        expect(said).toEqual([['focus'], ['type', 'red'], ['save', 'figure']]);
        await expectSound(wrapper.element as Element);
    });

    test('that is chosen again is taken back', async () => {
        const { wrapper, said } = await opened(judged('red'));
        await wrapper.findAll('[role=radio]')[2]?.trigger('click');
        expect(said[1]).toEqual(['type', '']);
    });
});

test('an opened row asks for the three parts of a note, each with its label', async () => {
    const { wrapper } = await opened(line(), true);
    const fields = wrapper.findAll('textarea');

    expect(fields.map((field) => wrapper.get(`label[for="${field.attributes('id') ?? ''}"]`).text())).toEqual([
        'Reason for Leakage', 'Outlook for Leakage', 'Being done for Leakage',
    ]); // prettier-ignore
    expect(wrapper.text()).toContain('Off course: 63.1 Ml/d against a target of 55.');
    await expectSound(wrapper.element as Element);
});
