import { chromium } from '@playwright/test';

/*
 * Measures the screens of a running Kybernet in a headless Chromium: the first contentful paint, when the contents
 * stand, and how long the page takes to answer what a person does (from the input to the next frame, by the browser's
 * own event timing, whose grain is 8 ms).
 */
const [, , base, unit = 'NET', kpi = 'LEAK', shared = 'Z-LEAK', month = '2026-08', compared = 'MTR'] = process.argv;
const LOADS = 5;
// An even number: what is shown is hidden again.
const TIMES = 6;
const view = `unit=${unit}&period=${month}`;

const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-sync'],
});
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
const page = await context.newPage();
await page.addInitScript(() => {
    window.answers = [];
    new PerformanceObserver((list) =>
        window.answers.push(...list.getEntries().map(({ duration }) => duration)),
    ).observe({ type: 'event', durationThreshold: 16, buffered: true });
});
await page.goto(base);
await page.getByLabel('E-mail address').fill('analyst@ostermere.example');
await page.getByLabel('Password').fill('ostermere');
await page.getByRole('button', { name: 'Sign in', exact: true }).click();
await page.getByRole('navigation', { name: 'Working order' }).waitFor();

const median = (values) => values.toSorted((one, other) => one - other)[Math.floor(values.length / 2)] ?? 0;
const ms = (value) => `${Math.round(value)} ms`.padStart(8);

/** @param doing  what a person does, by name; each is done several times */
async function screen(name, path, contents, doing) {
    const paints = [];
    const stands = [];
    for (let load = 0; load < LOADS; load++) {
        await page.goto(base + path);
        await contents().first().waitFor();
        stands.push(await page.evaluate(() => performance.now()));
        paints.push(
            await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0),
        );
    }
    console.log(`${name.padEnd(44)} first paint ${ms(median(paints))}, contents ${ms(median(stands))}`);
    await page.waitForLoadState('networkidle');
    for (const [what, act] of Object.entries(doing)) {
        const worst = [];
        for (let time = 0; time < TIMES; time++) {
            await page.evaluate(() => (window.answers = []));
            await act(time);
            await page.waitForTimeout(400);
            // Below 16 ms the browser reports nothing.
            worst.push(Math.max(16, ...(await page.evaluate(() => window.answers))));
        }
        console.log(`  ${what.padEnd(42)} answers in  ${ms(median(worst))}, at worst ${ms(Math.max(...worst))}`);
    }
}

const button = (name) => page.getByRole('button', { name }).first();
const click = (name) => () => button(name).click();
const key = (name) => () => page.keyboard.press(name);
const cell = (time) => page.locator('tbody [role=gridcell]').nth(time).click();
const nextChoice = (name) => async () => {
    await page.getByRole('combobox', { name }).focus();
    await page.keyboard.press('ArrowDown');
};

await screen(`scorecard of ${unit}`, `/scorecard?${view}&span=yearToDate`, () => page.locator('[data-row]'), {
    'opening and closing a row': click(/^(Open|Close) .* here$/),
    'another order': nextChoice(/^Order/),
    'how it adds up, shown and hidden': click('How it adds up'),
    'the finder, opened and closed': (time) => page.keyboard.press(time % 2 === 0 ? 'Control+k' : 'Escape'),
    'another span': (time) =>
        page
            .getByRole('navigation', { name: 'Span' })
            .getByRole('link')
            .nth(time % 4)
            .click(),
});
await screen(`matrix of ${unit}, units × KPIs`, `/matrix?${view}&span=month`, () => page.getByRole('gridcell'), {
    'opening a cell': cell,
    'moving by arrow': key('ArrowDown'),
    'worst first, and back': click(/^(Worst first|Register order)$/),
    'figures, shown and hidden': click(/^(Show|Hide) figures$/),
});
await screen(
    `matrix of ${unit}, ${shared} over 36 months`,
    `/matrix?${view}&span=month&crossing=units-months&kpi=${shared}&months=36`,
    () => page.getByRole('gridcell'),
    {
        'opening a cell': cell,
        'moving by arrow': key('ArrowRight'),
        'figures, shown and hidden': click(/^(Show|Hide) figures$/),
    },
);
await screen(
    `comparison under ${compared}`,
    `/compare?unit=${compared}&period=${month}&span=month`,
    () => page.getByRole('gridcell').nth(40),
    {
        'order, turned': (time) =>
            page
                .getByRole('button', { name: /^Order by / })
                .nth(Math.floor(time / 3))
                .click(),
        'a letter of a search': (time) =>
            time === 0
                ? page.getByRole('searchbox').pressSequentially('1')
                : page.keyboard.press(time % 2 === 0 ? '0' : 'Backspace'),
        'following another unit': (time) =>
            page
                .getByRole('button', { name: /^(No longer f|F)ollow / })
                .nth(time)
                .click(),
        'scrolling a page': async () => {
            await page.mouse.move(400, 560);
            await page.mouse.wheel(0, 600);
        },
        'ranks, figures': (time) => button(time % 2 === 0 ? 'Ranks' : 'Figures').click(),
    },
);
await screen(`exceptions of ${unit}`, `/exceptions?${view}&span=yearToDate`, () => page.locator('article'), {
    'points, shown and hidden': click(/^(Show|Hide) points$/),
    'all of them, and the first': click(/(less serious|^Only the first)/),
});
await screen(`page of ${kpi}`, `/kpi/${kpi}?${view}&span=month`, () => page.getByRole('slider'), {
    'reading the next point': async (time) => {
        if (time === 0) {
            await page.getByRole('slider', { name: 'Points of the chart' }).focus();
        }
        await page.keyboard.press('ArrowLeft');
    },
    'a layer, shown and hidden': () =>
        page.getByRole('group', { name: 'Shown on the chart' }).getByRole('button').first().click(),
    'another way to draw': (time) =>
        page
            .getByRole('group', { name: 'Periods' })
            .getByRole('button')
            .nth(time % 3)
            .click(),
});
await browser.close();
