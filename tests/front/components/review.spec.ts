// @vitest-environment happy-dom
import type { Schemas } from '@/api/client';
import Finder from '@/components/Finder.vue';
import YearRibbon from '@/components/YearRibbon.vue';
import WhatIf from '@/pages/review/kpi/WhatIf.vue';
import WhatItSays from '@/pages/review/kpi/WhatItSays.vue';
import { flushPromises } from '@vue/test-utils';
import { beforeEach, describe, expect, test } from 'vitest';
import { RouterLink } from 'vue-router';
import { answer, asked, expectSound, place, Problem, shown, soon } from './mounting';

/* What leads through the months and to a KPI, and what its chart says in words. */

describe('what a chart says', () => {
    type Page = Schemas['KpiPage'];
    const page = (change: Partial<Page>): Partial<Page> => ({
        measure: 'Ml/d', kind: 'entered', frequency: 'month', polarity: 'lower', accumulation: 'mean', latest: '2026-08',
        trend: null, control: null, projection: null, ...change,
    }); // prettier-ignore
    const says = async (change: Partial<Page>): Promise<string> =>
        (await place(WhatItSays, { page: page(change) })).wrapper.text().replaceAll(/\s+/g, ' ');
    const trend = (direction: 'rising' | 'falling' | 'steady', meaning: 'improving' | 'worsening' | 'steady' | null) => ({ direction, meaning, slope: -0.4567, p: 0.0123 }) as Page['trend']; // prettier-ignore
    const projection = (change: object) => ({ method: 'seasonal', status: 'red', value: shown('62'), low: null, high: null, chance: null, required: null, left: 7, progress: null, elapsed: '41.7', yearTarget: null, ...change }) as Page['projection']; // prettier-ignore

    test.each([
        [{}, 'Too few readings yet to tell a direction.'],
        [{ kind: 'judged' }, 'A person judges this KPI: there are no figures to follow.'],
        [{ trend: trend('falling', 'improving') }, 'Falling by about 0.46 Ml/d a month over the last 12 months, for the better; unlikely to be chance (p 0.012).'],
        [{ trend: trend('rising', 'worsening'), measure: '%', frequency: 'week' }, 'Rising by about 0.46 points a week over the last 12 weeks, for the worse; unlikely to be chance (p 0.012).'],
        [{ trend: trend('rising', null), measure: '£' }, 'Rising by about £0.46 a month over the last 12 months; unlikely to be chance (p 0.012).'],
        [{ trend: trend('steady', 'steady') }, 'No clear direction over the last 12 months: what there is could be chance (p 0.012).'],
        [{ projection: projection({}) }, "At last year's seasonal shape the year ends near 62, off course."],
        [{ projection: projection({ method: 'run-rate', status: 'not-judged' }) }, 'At the pace so far the year ends near 62.'],
        [{ projection: projection({ status: 'green', required: shown('48'), left: 1 }) }, 'the year ends near 62, on course; to end on target the one month left must average 48.'],
        [{ accumulation: 'sum', polarity: 'higher', projection: projection({ required: shown('48'), yearTarget: shown('600'), progress: '38.4' }) }, 'to reach the year target of 600, each of the 7 months left needs 48. 38.4 % of the year target is reached, with 41.7 % of the year gone.'],
        [{ accumulation: 'sum', projection: projection({ required: shown('48'), yearTarget: shown('600') }) }, 'to stay within the year target of 600, each of the 7 months left can take 48.'],
    ] as [Partial<Page>, string][])('%#: %o', async (change, sentence) => {
        expect(await says(change)).toContain(sentence);
    }); // prettier-ignore

    test.each([
        [0.001, 'next to no chance'],
        [0.16, 'about one chance in six'],
        [0.48, 'about an even chance'],
        [0.7, 'about two chances in three'],
        [0.999, 'next to no doubt'],
    ])('tells a chance of %d in words', async (chance, words) => {
        const ends = { low: shown('58.9'), high: shown('63.7'), chance };
        expect(await says({ projection: projection(ends) })).toContain(
            `Four times in five it ends between 58.9 and 63.7, with ${words} to end on target.`,
        );
    });

    test('tells no range where there is none, and no chance without a target', async () => {
        expect(await says({ projection: projection({}) })).not.toContain('Four times in five');
        expect(
            await says({ projection: projection({ low: shown('58.9'), high: shown('63.7'), chance: null }) }),
        ).toMatch(/between 58.9 and 63.7\.$/);
    });

    test('tells only the signals of the latest period', async () => {
        const signals = [{ period: '2026-07', words: '6 in a row rising', side: 'upper' }, { period: '2026-08', words: 'above its upper control limit', side: 'upper' }]; // prettier-ignore
        const text = await says({ control: { signals } as Schemas['ControlLimits'] });
        expect(text).toContain('Above its upper control limit.');
        expect(text).not.toContain('6 in a row');
    });
});

describe('the year ribbon', () => {
    const month = (period: string, reported: number, closed: boolean) => ({ period, expected: 20, reported, status: reported > 0 ? 'amber' : 'no-data', closed }); // prettier-ignore
    beforeEach(() => {
        answer('GET /api/units/{unit}/ribbon', () => ({
            year: '2026/27', open: 3, exceptions: 2,
            months: [month('2026-07', 20, true), month('2026-08', 12, false), month('2026-09', 0, false)],
        })); // prettier-ignore
    });

    test('says of each month what has arrived, and which one is looked at', async () => {
        const { wrapper } = await place(YearRibbon);
        const links = wrapper.findAll('li a');

        expect(links.map((link) => link.attributes('title'))).toEqual([
            'July 2026, 20 of 20 readings are in; closed', 'August 2026, 12 of 20 readings are in', 'September 2026, no readings',
        ]); // prettier-ignore
        expect(links.map((link) => link.attributes('aria-current'))).toEqual([undefined, 'date', undefined]);
        expect(wrapper.get('nav[aria-label=Span] a[aria-current=page]').text()).toBe('Month');
        await expectSound(wrapper.element as Element);
    });

    test('is stepped by month and by year from the keyboard, but not out of a field', async () => {
        const { router } = await place(YearRibbon, {}, '/scorecard?unit=NET&period=2026-08&order=name');
        const press = async (key: string, on: EventTarget = window) => {
            on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
            await flushPromises();
            return router.currentRoute.value.query;
        };
        // A window has no matches(): the page's body is what has the focus.
        expect(await press(']', document.body)).toMatchObject({ period: '2026-09', order: 'name' });
        expect(await press('{', document.body)).toMatchObject({ period: '2025-09' });
        expect(await press('[', document.body)).toMatchObject({ period: '2025-08' });
        const field = document.body.appendChild(document.createElement('input'));
        expect(await press(']', field)).toMatchObject({ period: '2025-08' });
    });

    test('stays readable while nothing has come, and where the server fails', async () => {
        answer('GET /api/units/{unit}/ribbon', () => new Problem(500, 'broken'));
        const { wrapper } = await place(YearRibbon);
        expect(wrapper.text()).toContain('Network · August');
        expect(wrapper.findAll('li')).toHaveLength(0);
    });
});

describe('the finder', () => {
    beforeEach(() => {
        const kpi = (code: string, name: string, units: string[]) => ({ code, name, department: 'NET', units });
        answer('GET /api/kpis', () => ({ kpis: [kpi('LEAK', 'Leakage', ['OST', 'NET']), kpi('BURSTS', 'Bursts repaired', ['WST']), kpi('GONE', 'Nowhere', [])] })); // prettier-ignore
        answer('GET /api/texts', () => [{ kind: 'note', code: 'LEAK', name: 'Leakage', unit: 'NET', month: '2026-06', text: 'Trunk main at the works.' }]); // prettier-ignore
    });
    async function finder() {
        const { wrapper, router } = await place(Finder);
        window.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', ctrlKey: true }));
        await soon(60);
        const field = document.querySelector<HTMLInputElement>('[role=dialog] input');
        if (field === null) {
            throw new Error('The finder is open.');
        }
        const type = async (text: string) => {
            field.value = text;
            field.dispatchEvent(new Event('input', { bubbles: true }));
            await soon(30);
        };
        const offers = () => [...document.querySelectorAll('[role=option]')].map((each) => each.textContent.replaceAll(/\s+/g, ' ').trim()); // prettier-ignore
        return { wrapper, router, field, type, offers };
    }

    test('opens by keyboard and finds by any part of a name or a code, the beginning first', async () => {
        const { type, offers } = await finder();
        await type('le');
        expect(offers()[0]).toContain('Leakage');
        await type('burst repa');
        expect(offers()).toHaveLength(1);
        await type('net leak');
        expect(offers()[0]).toContain('LEAK · Network');
        const dialog = document.querySelector('[role=dialog]');
        expect(dialog).not.toBeNull();
        await expectSound(dialog as Element);
    });

    test.each([
        ['in the chosen unit', 'leakage', 'course', 'LEAK', 'NET'],
        ['where it is measured', 'bursts', 'course', 'BURSTS', 'WST'],
        ['in the register, where it is measured nowhere', 'nowhere', 'kpi', 'GONE', 'NET'],
    ])('leads by keyboard to a KPI %s', async (_, words, screen, code, unit) => {
        const { router, type, field } = await finder();
        await type(words);
        for (const key of ['ArrowDown', 'Enter']) {
            field.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
            await soon(60);
        }
        const at = router.currentRoute.value;
        expect([at.name, at.params['code'], at.query['unit']]).toEqual([screen, code, unit]);
    });

    test('looks into notes from three letters on', async () => {
        const { type, offers } = await finder();
        await type('tr');
        await soon();
        expect(asked.filter(({ path }) => path === '/api/texts')).toEqual([]);
        await type('trunk');
        await soon();
        expect(offers().at(-1)).toContain('Trunk main at the works.');
        expect(asked.findLast(({ path }) => path === '/api/texts')?.query).toEqual({ words: 'trunk' });
    });

    test('says that nothing has that name', async () => {
        const { type } = await finder();
        await type('zzzz');
        expect(document.querySelector('[role=dialog]')?.textContent).toContain('Nothing is called “zzzz”.');
    });
});

describe('what if', () => {
    const ASKED = 'GET /api/units/{unit}/kpis/{kpi}/what-if';
    const limits = (change: Partial<Schemas['TriedLimits']> = {}): Schemas['TriedLimits'] => ({ green: '0', amber: '5', low: '', high: '', marginLow: '', marginHigh: '', periods: null, ...change }); // prettier-ignore
    const found = (change: object = {}): unknown => ({
        reference: 'target', measure: 'percent', polarity: 'lower', now: limits(), tried: limits(), moved: '', same: '', own: false, targets: {},
        replay: {
            periods: [{ period: '2026-07', asIs: 'red', asTyped: 'red', changes: false, actual: '60', target: '56' }, { period: '2026-08', asIs: 'red', asTyped: 'amber', changes: true, actual: '58', target: '56' }],
            asIs: { green: 0, amber: 0, red: 2, notJudged: 0, noData: 0 }, asTyped: { green: 0, amber: 1, red: 1, notJudged: 0, noData: 0 },
            words: 'One month would change, from off course to drifting.', latest: 'August 2026: Drifting.', zones: null,
        },
        ...change,
    }); // prettier-ignore
    const page = { id: 1, code: 'LEAK', measure: 'Ml/d', frequency: 'month' };
    const at = (address = '') => place(WhatIf, { page }, `/kpi/LEAK?unit=NET&period=2026-08${address}`);

    test('asks as it is typed, keeps only what differs in the address, and takes it to the register', async () => {
        answer(ASKED, found);
        const { wrapper, router } = await at();
        await wrapper.get('#if-amber').setValue('8');
        await soon();
        expect(asked.at(-1)?.query).toEqual({ period: '2026-08', amber: '8', as: 'en-GB' });
        expect(router.currentRoute.value.query).toMatchObject({ 'if.amber': '8', 'if.as': 'en-GB' });
        expect(wrapper.text()).toContain('One month would change');
        expect(wrapper.text()).toContain('now 5');
        expect(wrapper.findComponent(RouterLink).props('to')).toMatchObject({
            name: 'kpi',
            params: { code: 'LEAK' },
            query: { 'if.amber': '8' },
        });
        await expectSound(wrapper.element);

        await wrapper.get('#if-amber').setValue('5');
        await soon();
        expect(router.currentRoute.value.query).not.toHaveProperty('if.amber');
        expect(wrapper.text()).not.toContain('Take it to the register');
    });

    test('writes what a link tries in the setting of whoever reads it', async () => {
        answer(ASKED, () => found({ tried: limits({ amber: '7.5' }) }));
        const { wrapper } = await at('&if.amber=7,5&if.as=de-DE');
        expect(asked.at(-1)?.query).toEqual({ period: '2026-08', amber: '7,5', as: 'de-DE' });
        expect(wrapper.get<HTMLInputElement>('#if-amber').element.value).toBe('7.5');
    });

    test('says beside the field what is wrong, and keeps what is typed', async () => {
        answer(ASKED, ({ query }) => (query['amber'] === '-1' ? new Problem(422, 'No.', [{ pointer: '/amber', detail: 'Drifting must reach at least as far as on course.' }]) : found())); // prettier-ignore
        const { wrapper } = await at();
        await wrapper.get('#if-amber').setValue('-1');
        await soon();
        expect(wrapper.get('[role=alert]').text()).toBe('Drifting must reach at least as far as on course.');
        expect(wrapper.get<HTMLInputElement>('#if-amber').element.value).toBe('-1');
    });

    test('offers no targets where nothing is compared with them', async () => {
        answer(ASKED, () => found({ reference: 'recent', now: limits({ periods: 3 }), tried: limits({ periods: 3 }) }));
        const { wrapper } = await at();
        expect(wrapper.find('[role=radiogroup]').exists()).toBe(false);
        await wrapper.get('#if-periods').setValue('6');
        await soon();
        expect(asked.at(-1)?.query).toEqual({ period: '2026-08', periods: '6', as: 'en-GB' });
    });
});
