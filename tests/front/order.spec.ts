import type { Schemas } from '@/api/client';
import { useLatest } from '@/composables/useLatest';
import { arrange, type Filter, type Order } from '@/pages/review/scorecard/order';
import { expect, test } from 'vitest';

/* A scorecard in the order and with the rows that are asked for. */

type Row = Schemas['ScorecardRow'];

const row = (name: string, status: Row['status'], movement: Row['movement'], percent: string, adverse = true): Row =>
    ({
        name,
        code: name.toUpperCase(),
        status,
        movement,
        level: name < 'd' ? 'departmental' : 'operational',
        theme: name === 'a' ? 'Mains' : null,
        owner: name === 'c' ? 'Tom' : 'Asha',
        variance: percent === '' ? null : { percent, effect: adverse ? 'adverse' : 'favourable' },
    }) as unknown as Row;

const ROWS = [
    row('a', 'green', 'recovered', '-2', false),
    row('b', 'red', 'none', '-12'),
    row('c', 'amber', 'worse', '3'),
    row('d', 'red', 'worse', '40'),
    row('e', 'no-data', 'none', ''),
    row('f', 'not-judged', 'better', '-50', false),
];
const ALL: Filter = { text: '', status: '', level: '', theme: '', owner: '' };
const names = (order: Order, filter: Partial<Filter> = {}): string =>
    arrange([{ name: 'g', rows: ROWS } as unknown as Schemas['ScorecardGroup']], order, { ...ALL, ...filter })
        .flatMap(({ rows }) => rows.map(({ name }) => name))
        .join('');

for (const [order, found] of [
    ['register', 'abcdef'],
    ['seriousness', 'dbceaf'],
    ['movement', 'dcafbe'],
    ['variance', 'dbcafe'],
] as [Order, string][]) {
    test(`rows by ${order}`, () => expect(names(order)).toBe(found));
}

for (const [filter, found] of [
    [{ status: 'red' }, 'bd'],
    [{ text: 'C' }, 'c'],
    [{ level: 'operational' }, 'def'],
    [{ theme: 'Mains' }, 'a'],
    [{ owner: 'Asha', status: 'red' }, 'bd'],
    [{ text: 'nothing' }, ''],
] as [Partial<Filter>, string][]) {
    test(`rows with ${JSON.stringify(filter)}`, () => expect(names('register', filter)).toBe(found));
}

test('the groups themselves stay as they are', () => {
    names('seriousness');
    expect(ROWS.map(({ name }) => name).join('')).toBe('abcdef');
});

test('of answers only that to the latest question counts', async () => {
    const heard: string[] = [];
    const ask = useLatest<string>(
        (answer) => heard.push(answer),
        (reason) => heard.push(`failed: ${String(reason)}`),
    );
    const answers: ((text: string) => void)[] = [];
    const failures: ((reason: string) => void)[] = [];
    const question = () =>
        new Promise<string>((resolve, reject) => {
            answers.push(resolve);
            failures.push(reject);
        });
    const asked = [ask(question), ask(question), ask(question)];
    answers[2]?.('third');
    failures[0]?.('first');
    answers[1]?.('second');
    expect(await Promise.all(asked)).toEqual([false, false, true]);
    const last = ask(question);
    failures[3]?.('fourth');
    expect(await last).toBe(true);
    expect(heard).toEqual(['third', 'failed: fourth']);
});
