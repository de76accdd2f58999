import { expect, test } from '@playwright/test';
import { expectAccessible, expectQuietConsole, signIn } from './helpers';

const ZONES = 'unit=NET&period=2026-08';

test('a manager sees who stands out, follows them, and goes on to the KPI and the unit', async ({ page }) => {
    expectQuietConsole(page);
    await signIn(page, 'head');
    await page.goto(`/scorecard?${ZONES}&span=month`);
    await page.getByRole('navigation', { name: 'Ways to look at it' }).getByRole('link', { name: 'Compare' }).click();
    await expect(page.getByRole('heading', { level: 1, name: '12 zones beside each other, August' })).toBeVisible();
    await expect(page.getByText(/^Fenwick is last in .* of five\./)).toBeVisible();
    await expect(page.getByText(/If each zone had at least reached the median: \d+ bursts fewer/)).toBeVisible();
    const grid = page.getByRole('grid', { name: /12 zones/ });
    await expect(grid.getByRole('row')).toHaveCount(16);
    await expectAccessible(page);

    // By keyboard: through the table, following, to the KPI's page.
    await grid.getByRole('rowheader', { name: /Fenwick/ }).focus();
    await page.keyboard.press('Space');
    await expect(page).toHaveURL(/follow=Z-FENWICK/);
    await expect(grid.getByRole('row', { name: /Fenwick/ })).toHaveAttribute('aria-selected', 'true');
    await page.keyboard.press('ArrowRight');
    await expect(grid.getByRole('gridcell', { name: /^132\s*, should be 111, 12th of 12, among the worst tenth$/ })).toBeFocused(); // prettier-ignore
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/\/kpi\/Z-LEAK\?.*unit=Z-FENWICK/);
    await page.getByRole('link', { name: 'Compare them all' }).click();
    await expect(page).toHaveURL(/large=Z-LEAK/);
    await expect(page.getByRole('heading', { level: 2, name: 'Leakage per connection', exact: true })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page).not.toHaveURL(/large=/);

    // From a unit to its scorecard; what has nothing below it is compared with its like.
    await grid.getByRole('link', { name: 'Pennock' }).click();
    await expect(page.getByRole('heading', { level: 1, name: /Pennock/ })).toBeVisible();
    await page.getByRole('navigation', { name: 'Ways to look at it' }).getByRole('link', { name: 'Compare' }).click();
    await expect(page).toHaveURL(/unit=NET.*follow=Z-PENNOCK/);
});

test('order, search, masks, ranks, two months and KPIs are in the address and hold everywhere', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto(`/compare?${ZONES}&span=month`);
    const grid = page.getByRole('grid', { name: /12 zones/ });
    const first = grid.getByRole('row').nth(2).getByRole('rowheader');
    await expect(first).toContainText('Fenwick');
    await page.getByRole('button', { name: 'Order by Leakage per connection' }).click();
    await page.getByRole('button', { name: 'Order by Leakage per connection, now worst first' }).click();
    await expect(first).toContainText('Pennock');
    await page.reload();
    await expect(first).toContainText('Pennock');
    await page.getByRole('button', { name: 'As in the register' }).click();
    await expect(first).toContainText('Fenwick');

    await page.getByRole('searchbox', { name: 'Find zones' }).fill('h*y');
    await expect(page.getByRole('button', { name: 'only this one' })).toBeVisible();
    await page.getByRole('searchbox', { name: 'Find zones' }).fill('er');
    await page.getByRole('button', { name: 'only these 3' }).click();
    await expect(grid.getByRole('row')).toHaveCount(7);
    await page.keyboard.press('Escape');
    await expect(grid.getByRole('row')).toHaveCount(16);

    await page.getByRole('button', { name: 'Mask names' }).click();
    await expect(first).toContainText('Zone A');
    await expect(page.locator('main')).not.toContainText('Fenwick');
    await expect(page.getByRole('menuitem', { name: 'CSV' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Export' }).click();
    await expect(page.getByRole('menuitem', { name: 'CSV' })).toHaveAttribute('href', /masked=1/);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Show names' }).click();

    await page.getByRole('button', { name: 'Ranks', exact: true }).click();
    await expect(grid.getByTitle(/^Fenwick, Leakage/)).toHaveText(/^12/);
    await page.getByRole('button', { name: 'Two months' }).click();
    await expect(grid.getByTitle(/^Fenwick, Leakage/)).toContainText('108 → 132');
    await page
        .getByRole('button', { name: 'last three' })
        .or(page.getByRole('button', { name: 'better most' }))
        .click();
    await expect(page.getByRole('button', { name: 'worse most' })).toBeVisible();
    await expectAccessible(page);

    await page.getByRole('button', { name: 'Ranks over time' }).click();
    await expect(page.getByRole('group', { name: /ranks of 12 units over thirteen months/ })).toBeVisible();
    await page.getByRole('group', { name: /ranks of 12 units/ }).focus();
    await page.keyboard.press('ArrowUp');
    await expect(page.getByRole('status').filter({ hasText: 'now' })).toHaveText('Fenwick: 12 now, 7 in August 2025');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/follow=Z-FENWICK/);
    await page.locator('section', { has: page.getByRole('heading', { name: /ranks over thirteen/ }) }).getByRole('button', { name: 'as a table' }).click(); // prettier-ignore
    await expect(page.getByRole('row', { name: /^Fenwick 7/ })).toBeVisible();
    await expectAccessible(page);

    await page.getByRole('button', { name: 'Figures' }).click();
    await page.getByRole('button', { name: 'Choose KPIs' }).click();
    await page.getByRole('checkbox', { name: /Discoloured water contacts/ }).uncheck();
    await expect(page).toHaveURL(/kpis=/);
    await page.keyboard.press('Escape');
    await expect(grid.getByRole('columnheader')).toHaveCount(4);
});

test('the graphics are read by keyboard, have a table behind them, and say what it would be worth', async ({
    page,
}) => {
    await signIn(page, 'analyst');
    await page.goto(`/compare?${ZONES}&span=month&follow=Z-FENWICK`);
    // A head chooses the axes: the last two chosen.
    await page
        .getByRole('button', { name: /^Night flow in the zone/ })
        .first()
        .click();
    await page
        .getByRole('button', { name: /^Leakage per connection/ })
        .first()
        .click();
    await expect(page.getByRole('heading', { name: 'Night flow in the zone against leakage per connection' })).toBeVisible(); // prettier-ignore
    const points = page.getByRole('group', { name: /Night flow in the zone against leakage/ });
    await points.focus();
    await page.keyboard.press('End');
    const read = page.getByRole('status').filter({ hasText: 'Fenwick' });
    await expect(read).toHaveText('Fenwick: Leakage per connection 132 l/d, Night flow in the zone 1.81 l/h');
    const two = page.locator('section', { has: page.getByRole('heading', { name: /against leakage/ }) });
    await two.getByRole('button', { name: 'as a table' }).click();
    await expect(two.getByRole('row', { name: 'Fenwick 132 l/d 1.81 l/h' })).toBeVisible();
    await expect(two).toContainText(/with 11 zones|hardly anything to do/);

    await page.getByTitle('Enlarge Bursts in the zone').click();
    await expect(page.getByRole('group', { name: /^Bursts in the zone\. 12 ranked/ })).toBeVisible();
    const worth = page.getByTitle(/^Bursts in the zone: \d+ are worse; −\d+ bursts of all together/);
    const atMedian = await worth.textContent();
    await page.getByLabel('The level that the worse ones reach').selectOption('the best quarter');
    await expect(worth).not.toHaveText(atMedian ?? '');
    await page.getByRole('button', { name: 'Hide targets' }).click();
    await expect(page.getByText('brass: target')).toHaveCount(0);
    await expectAccessible(page);
});

test('a hundred units scroll, and what cannot be compared says what to do', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/compare?unit=MTR&period=2026-08&span=month');
    const grid = page.getByRole('grid', { name: /100 meter models/ });
    await expect(grid).toHaveAttribute('aria-rowcount', '104');
    expect(await grid.getByRole('row').count()).toBeLessThan(60);
    await grid.getByRole('rowheader', { name: /Quill 15$/ }).focus();
    await page.keyboard.press('Control+End');
    await expect(grid.getByTitle(/^Osier 150, Saved/)).toBeFocused();
    await page.goto('/compare?unit=OST&period=2026-08&span=month');
    await page.getByLabel('Which units').selectOption({ label: '8 works' });
    await expect(page.getByRole('heading', { level: 1, name: 'Eight works beside each other, August' })).toBeVisible();
    await page.goto('/compare?unit=Z-PENNOCK&period=2026-08');
    await expect(page.getByRole('heading', { name: 'Nothing under Pennock can be compared' })).toBeVisible();
    await page.getByRole('link', { name: 'Compare Pennock with the others under Network' }).click();
    await expect(page).toHaveURL(/follow=Z-PENNOCK/);
});
