// @vitest-environment happy-dom
import type { Schemas } from '@/api/client';
import PlanPage from '@/pages/logbook/PlanPage.vue';
import { beforeEach, expect, test } from 'vitest';
import { answer, asked, expectSound, Problem, soon, visit } from './mounting';

/* Planning targets: seen first, then set. */

type Row = Schemas['TargetPlan']['rows'][number];

const MONTHS = Array.from(
    { length: 12 },
    (_, index) => `${index < 9 ? 2026 : 2027}-${String(((index + 3) % 12) + 1).padStart(2, '0')}`,
);
const row = (change: Partial<Row> = {}): Row => ({
    id: 7, code: 'LEAK', name: 'Leakage', measure: 'Ml/d', unit: 'Network', periods: MONTHS, planned: Array<string>(12).fill('50'),
    current: ['56', '50', ...Array<string>(10).fill('')], prior: Array<string>(12).fill('57'), kept: [true, ...Array<boolean>(11).fill(false)],
    yearFigure: '50', lastYear: '57', gathered: '50', remainder: '', remainderAt: null, problem: '', ...change,
}); // prettier-ignore
const planned = (...rows: Row[]): Schemas['TargetPlan'] => ({ year: '2026/27', rows });

beforeEach(() => {
    answer('POST /api/targets/plan', () => planned(row(), row({ id: 8, name: 'Night line', problem: 'A band is planned in the editor or the year grid.' }))); // prettier-ignore
});
const plan = async () => {
    const { wrapper } = await visit(PlanPage, '/plan?unit=NET&period=2026-08');
    const button = () => wrapper.get<HTMLButtonElement>('button.button');
    const box = (name: string) => wrapper.get<HTMLInputElement>(`input[type=checkbox][aria-label="${name}"]`);
    return { wrapper, button, box };
};

test('shows what would be set beside last year, and sets nothing before it is said', async () => {
    const { wrapper, button, box } = await plan();

    expect(wrapper.get('h1').text()).toBe('Targets 2026/27, for Network');
    expect(button().element.disabled).toBe(true);
    expect(box('Night line').element.disabled).toBe(true);
    expect(wrapper.text()).toContain('A band is planned in the editor or the year grid.');
    await box('Leakage').trigger('change');
    // The closed month keeps its own, and one is planned as it is already.
    expect(wrapper.get('[role=status]').text()).toBe('10 targets would change; closed months keep theirs.');
    await expectSound(wrapper.element as Element);
});

test('sends what changes with what was seen, and says what came of it', async () => {
    answer('PUT /api/units/{unit}/cells', () => ({ outcomes: [...Array<object>(9).fill({ outcome: 'saved', reason: '' }), { outcome: 'conflict', reason: 'Somebody else set June.' }], rows: [] })); // prettier-ignore
    const { wrapper, button, box } = await plan();
    await box('All KPIs').trigger('change');
    await button().trigger('click');
    await soon(30);

    const sent = asked.find(({ method }) => method === 'PUT')?.body as { layer: string; cells: object[] };
    expect(sent.layer).toBe('target');
    expect(sent.cells).toHaveLength(10);
    expect(sent.cells[0]).toEqual({ measurement: 7, period: '2026-06', typed: '50', was: '' });
    expect(wrapper.get('[role=status]').text()).toBe('9 targets are set. 1 are not: Somebody else set June.');
});

test('asks again with the figure, the method and the weights as they are typed', async () => {
    const { wrapper } = await plan();
    await wrapper.get('input[aria-label="Year\'s figure of Leakage"]').setValue('600');
    await soon();
    await wrapper.get('input[type=radio][value=weights]').setValue();
    await wrapper.findAll('label input.field')[0]?.setValue('3');
    await soon();

    expect(asked.findLast(({ path }) => path === '/api/targets/plan')?.body).toMatchObject({
        unit: 'NET', period: '2026-08', method: 'weights', figures: { 7: '600' }, weights: ['3', ...Array<string>(11).fill('1')],
    }); // prettier-ignore
});

test('says where rounding left something over', async () => {
    answer('POST /api/targets/plan', () => planned(row({ remainder: '0.4', remainderAt: '2027-03' })));
    const { wrapper } = await plan();
    expect(wrapper.text()).toContain('Mar takes what rounding left over: 0.4.');
});

test('a wrong number is said, and what was planned before stays', async () => {
    const { wrapper } = await plan();
    answer(
        'POST /api/targets/plan',
        () => new Problem(422, 'Nothing was saved.', [{ pointer: '/figures/7', detail: 'This is not a number.' }]),
    );
    await wrapper.get('input[aria-label="Year\'s figure of Leakage"]').setValue('6o0');
    await soon();

    expect(wrapper.get('[role=alert]').text()).toBe('This is not a number.');
    const field = wrapper.get<HTMLInputElement>('input[aria-label="Year\'s figure of Leakage"]');
    expect([field.element.value, field.attributes('aria-invalid')]).toEqual(['6o0', 'true']);
});

test('a unit without targets says so', async () => {
    answer('POST /api/targets/plan', () => planned());
    const { wrapper } = await plan();
    expect(wrapper.text()).toContain('Nothing to plan here');
    expect(wrapper.text()).toContain('Network has no KPI that takes targets.');
});
