import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, expectQuietConsole, signIn } from './helpers';

/* The managers' half of the month. */
test.beforeEach(({ page }) => expectQuietConsole(page));

const NETWORK = 'unit=NET&period=2026-08';
const headline = (page: Page, words: string | RegExp) => page.getByRole('heading', { level: 1, name: words });

test('a director reads one sentence and reaches the reason for a colour in two clicks', async ({ page }) => {
    await signIn(page, 'executive');
    await page.goto('/scorecard?unit=OST&period=2026-08&span=yearToDate');
    await expect(page.getByText(/Of \d+ judged/)).toBeVisible();
    await page.getByRole('button', { name: 'Open Lost-time injuries here' }).click();
    await expect(page.getByText(/^Off course: /).first()).toBeVisible();
    await page.getByRole('link', { name: 'The page of this KPI' }).click();
    await expect(headline(page, 'Lost-time injuries')).toBeVisible();
    await expect(page.getByRole('heading', { name: 'What it says' })).toBeVisible();
    await expectAccessible(page);
});

test('a scorecard is grouped, ordered, filtered and explained, and one click restores it', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/scorecard?unit=OST&period=2026-08&span=month');
    await expect(page.getByText(/Of \d+ judged/)).toBeVisible();
    const names = () => page.locator('[data-row]').allInnerTexts();
    const register = await names();
    await page.getByRole('combobox', { name: /^Group/ }).selectOption('none');
    await expect(page.getByRole('heading', { name: 'All KPIs' })).toBeVisible();
    await page.getByRole('combobox', { name: /^Order/ }).selectOption('seriousness');
    await expect(page.locator('tr:has([data-row]) [data-status]').first()).toHaveAttribute('data-status', 'red');
    await page.getByRole('button', { name: 'Restore' }).click();
    await page.getByRole('combobox', { name: /^Group/ }).selectOption('');
    await expect.poll(names).toEqual(register);

    await page.getByRole('button', { name: 'Filter' }).click();
    await page.getByRole('combobox', { name: /^Status/ }).selectOption('amber');
    await page.getByRole('combobox', { name: /^Owner/ }).selectOption('Tom Fairley');
    await expect(page.getByRole('button', { name: /^Filtered: \d+ of \d+$/ })).toBeVisible();
    await expect(page.locator('[data-row]', { hasText: 'Burst repairs' })).toBeVisible();
    await page.getByRole('searchbox', { name: 'Name' }).fill('no such thing');
    await expect(page.getByText('No KPI fits.')).toBeVisible();
    await page.getByRole('button', { name: 'Show all' }).first().click();
    await expect(page.locator('[data-row]')).toHaveCount(register.length);

    await page.getByRole('button', { name: 'How it adds up' }).click();
    await expect(page.getByText('The weighted mean of the scores')).toBeVisible();
    await page.getByRole('button', { name: 'Show the month before' }).click();
    await expect(page.getByRole('columnheader', { name: 'to the month before' })).toBeVisible();
    await page.getByRole('button', { name: 'Hide the month before' }).click();
    await expectAccessible(page);
});

test('a scorecard is presented without anything around it, department by department, and printed', async ({ page }) => {
    await signIn(page, 'executive');
    await page.goto('/scorecard?unit=OST&period=2026-08&span=yearToDate');
    await page.getByRole('button', { name: 'Present' }).click();
    await expect(page.getByRole('navigation', { name: 'Working order' })).toHaveCount(0);
    await page.keyboard.press('ArrowRight');
    await expect(headline(page, /^Treatment/)).toBeVisible();
    await page.keyboard.press('PageDown');
    await expect(headline(page, /^Network/)).toBeVisible();
    await expectAccessible(page);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('navigation', { name: 'Working order' })).toBeVisible();

    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation', { name: 'Working order' })).toBeHidden();
    await expect(page.getByRole('button', { name: 'Export' })).toBeHidden();
    await expect(headline(page, /^Network/)).toBeVisible();
});

test('the page of a KPI is read by keyboard, drawn in three ways, and kept as a picture', async ({ page }) => {
    // The number setting of this account is as it was; other tests change the analyst's.
    await signIn(page, 'executive');
    await page.goto('/kpi/Z-LEAK?unit=Z-FENWICK&period=2026-08');
    await expect(
        page.getByText(/Of 12 zones with a figure for the month, Fenwick is the worst\. The median is \d+ l\/d/),
    ).toBeVisible();
    await page.goto(`/kpi/LEAK?${NETWORK}`);
    await expect(page.getByText(/Rising by about 0.55 Ml\/d a month/)).toBeVisible();
    await expect(page.getByText(/the year ends near \d+\.\d/)).toBeVisible();

    const points = page.getByRole('slider', { name: 'Points of the chart' });
    await points.focus();
    await page.keyboard.press('ArrowLeft');
    await expect(points).toHaveAttribute('aria-valuetext', /^August 2026: [a-z ]+ 64\.9 Ml\/d, target/);
    await page.keyboard.press('ArrowLeft');
    await expect(points).toHaveAttribute('aria-valuetext', /^July 2026: [a-z ]+ 62\.4/);
    await page.keyboard.press('Escape');

    await page.getByRole('button', { name: 'control limits' }).click();
    await expect(page.getByText(/^upper control limit/)).toBeAttached();
    await page.getByRole('button', { name: 'control limits' }).click();
    await page.getByRole('button', { name: 'Gathered' }).click();
    await points.focus();
    await page.keyboard.press('ArrowLeft');
    await expect(points).toHaveAttribute('aria-valuetext', /^Year to date, August 2026: [a-z ]+ 60\.9/);
    await page.getByRole('button', { name: 'Quarters' }).click();
    await expect(page.getByRole('button', { name: 'control limits' })).toHaveCount(0);
    await expectAccessible(page);

    for (const [name, file] of [
        ['SVG', 'LEAK-NET-2026-08.svg'],
        ['PNG', 'LEAK-NET-2026-08.png'],
    ] as const) {
        const download = page.waitForEvent('download');
        await page.getByRole('button', { name }).click();
        expect((await download).suggestedFilename()).toBe(file);
    }
    await page.getByRole('link', { name: 'Mains bursts' }).click();
    await expect(headline(page, 'Mains bursts')).toBeVisible();
});

test('what if is tried by keyboard, opened from its link, and taken to the register unsaved', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto(`/kpi/LEAK?${NETWORK}`);
    await page.getByRole('button', { name: 'What if …' }).press('Enter');
    await page.getByLabel('drifting up to').fill('8');
    await expect(page.getByText('2 months would change, all from off course to drifting.')).toBeVisible();
    await expect(page).toHaveURL(/if\.amber=8/);
    await expectAccessible(page);
    await page.reload();
    await expect(page.getByText('2 months would change, all from off course to drifting.')).toBeVisible();
    await expect(page.getByLabel('drifting up to')).toHaveValue('8');

    await page.getByRole('link', { name: 'Take it to the register' }).click();
    await expect(page.getByText('Taken over from the KPI’s page as if it had been typed.')).toBeVisible();
    await expect(page.getByRole('textbox', { name: 'Drifting', exact: true })).toHaveValue('8');
    await page.getByRole('button', { name: 'Put back' }).click();
    await expect(page.getByRole('textbox', { name: 'Drifting', exact: true })).toHaveValue('5');
});

test('an action is agreed, followed up and seen to work; a status is called and the call taken back', async ({
    page,
}) => {
    await signIn(page, 'head');
    await page.goto(`/kpi/BURSTS?${NETWORK}`);
    await page.getByRole('button', { name: 'Agree an action' }).click();
    await page.getByRole('button', { name: 'Agree', exact: true }).click();
    await expect(page.getByText('Say what is to be done.')).toBeVisible();
    await page.getByLabel('What is to be done').fill('Slower valves in the east');
    await page.getByLabel('Who').fill('Mains crew');
    await page.getByLabel('By when').fill('2026-12-24');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Agree', exact: true }).click();
    await expect(page.getByText('Slower valves in the east')).toBeVisible();
    await expect(page.getByText('due 24 December')).toBeVisible();
    await page.getByRole('button', { name: 'Follow up' }).click();
    await page.getByRole('radio', { name: 'dropped' }).check();
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText('Say why it is dropped.')).toBeVisible();
    await page.getByLabel('Why it is dropped').fill('Not needed after all');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText(/dropped \d+ \w+ · Not needed after all/)).toBeVisible();

    await page.getByRole('button', { name: 'Call the status' }).click();
    await page.getByRole('button', { name: 'Call it' }).click();
    await expect(page.getByText('A call needs its reason.')).toBeVisible();
    await page.getByLabel('Because').fill('Two of them were counted twice');
    await page.getByRole('button', { name: 'Call it' }).click();
    await expect(page.getByRole('img', { name: "Green: on course, a person's call" }).first()).toBeVisible();
    await expect(page.getByText('called; computed')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Call the status' }).click();
    await page.getByRole('button', { name: 'Take the call back' }).click();
    await expect(page.getByText('called; computed')).toHaveCount(0);
});

test('exceptions say what to do next, who is on it, and what has been seen', async ({ page }) => {
    await signIn(page, 'head');
    await page.goto(`/exceptions?${NETWORK}&span=month`);
    const first = page.getByRole('article').first();
    await expect(first).toContainText('Leakage');
    await expect(first).toContainText('(150 points)');
    await expect(page.getByRole('heading', { name: /actions are overdue/ })).toBeVisible();
    await page.getByRole('button', { name: 'Show points' }).click();
    await expect(first).toContainText('75 × weight 2 = 150 points');
    await page.getByRole('button', { name: 'Seen: Leakage', exact: true }).click();
    await expect(page.getByRole('article').first()).not.toContainText('Survey of the Fenwick trunk main');
    await page.getByRole('button', { name: 'Show 1 seen' }).click();
    await page.getByRole('button', { name: 'Not seen: Leakage', exact: true }).click();
    await page.getByRole('radio', { name: 'owner' }).check({ force: true });
    await expect(page.getByRole('heading', { level: 2, name: /Tom Fairley/ })).toBeVisible();
    await page.getByRole('radio', { name: 'nothing' }).check({ force: true });
    await expect(page.getByRole('heading', { name: 'Good news' })).toBeVisible();
    await expect(page.getByRole('link', { name: 'Ask Tom Fairley' }).first()).toBeVisible();
    await expectAccessible(page);
});

test('a matrix is crossed in place by keyboard alone, and the cell stays in focus', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto(`/matrix?${NETWORK}&span=month`);
    const cell = page.getByRole('gridcell', { name: 'Fenwick, Leakage per connection: off course, 132' });
    await cell.focus();
    await page.keyboard.press('ArrowDown');
    await expect(page.getByRole('gridcell', { name: /^Holm Bay, Leakage per connection/ })).toBeFocused();
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Enter');
    const panel = page.getByRole('complementary', { name: 'The cell in focus' });
    await expect(panel).toContainText('18.9 % over target');
    await expect(panel).toContainText('Two bursts on the trunk main');
    await expectAccessible(page);

    await page.keyboard.press('2');
    await expect(page.getByRole('gridcell', { name: 'Fenwick, August 2026: off course, 132' })).toBeFocused();
    await page.keyboard.press('3');
    await expect(page).toHaveURL(/unit=Z-FENWICK/);
    await expect(
        page.getByRole('gridcell', { name: 'Leakage per connection, August 2026: off course, 132' }),
    ).toBeFocused();
    await page.keyboard.press('1');
    await expect(cell).toBeFocused();

    await page.getByRole('button', { name: 'Mask names' }).click();
    await expect(page.getByRole('rowheader', { name: 'Fenwick' })).toHaveCount(0);
    await expect(page.getByRole('rowheader', { name: 'Zone A', exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Show names' }).click();
    await page.getByRole('button', { name: 'Zones × months' }).click();
    await page.getByRole('button', { name: 'three years' }).click();
    await expect(page.getByRole('columnheader')).toHaveCount(37);
    await page.goto('/matrix?unit=OST&period=2026-08&span=month');
    // Departments share but one KPI: their roll-ups come instead, and what was asked for shows the one.
    await expect(page.getByRole('button', { name: 'Departments × months' })).toHaveAttribute('aria-pressed', 'true');
    await page.getByRole('button', { name: 'Departments × KPIs' }).click();
    await expect(page.getByRole('columnheader', { name: 'Safety visits' })).toBeVisible();
});

test('reviews read in the dark theme too, and the finder looks into notes', async ({ page }) => {
    await page.emulateMedia({ colorScheme: 'dark' });
    await signIn(page, 'executive');
    for (const path of ['/scorecard', '/kpi/LEAK', '/exceptions', '/matrix', '/compare']) {
        await page.goto(`${path}?${NETWORK}&span=yearToDate`);
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        await expect(page.getByText('Reading the log')).toHaveCount(0);
        await expectAccessible(page);
    }
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find' }).fill('apology');
    await page.getByRole('option', { name: /Letters of apology/ }).click();
    await expect(headline(page, /complaints/i)).toBeVisible();
});
