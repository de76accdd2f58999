import { expect, test } from '@playwright/test';
import { expectAccessible, expectQuietConsole, signIn } from './helpers';

/* The month in its order: sign in, define, log, review. Each test goes on from what the ones before it entered. */

test.beforeEach(({ page }) => expectQuietConsole(page));

test('refuses a wrong password beside the field, and takes a right one', async ({ page }) => {
    await page.goto('/scorecard?unit=NET');
    await expectAccessible(page);
    await expect(page.locator('[aria-invalid=true]')).toHaveCount(0);
    await page.getByLabel('E-mail address').fill('analyst@ostermere.example');
    await page.getByLabel('Password').fill('guess');
    await page.keyboard.press('Enter');
    await expect(page.getByText('do not belong together')).toBeVisible();
    await expect(page.locator('[aria-invalid=true]')).toHaveCount(1);
    await expect(page.getByLabel('E-mail address')).toHaveValue('analyst@ostermere.example');
    await page.getByLabel('Password').fill('ostermere');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { level: 1, name: 'Network, August 2026' })).toBeVisible();
});

test('an analyst defines a KPI, and is told what is wrong with it', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register?unit=NET&period=2026-08');
    await expect(page.getByRole('heading', { name: 'What Network tracks' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('link', { name: 'Define a KPI' }).click();

    await page.getByLabel('Name').fill('mains bursts');
    await page.getByLabel('Code').fill('HYDRANTS');
    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await page.getByRole('textbox', { name: 'On course', exact: true }).fill('12');
    await page.getByRole('textbox', { name: 'Drifting', exact: true }).fill('10');
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page.getByText('Mains bursts is already defined, as BURSTS.')).toBeVisible();
    await expectAccessible(page);

    await page.getByLabel('Name').fill('Hydrants inspected');
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page.getByText('Drifting must reach at least as far as on course: 12 % or more.')).toBeVisible();
    await expect(page.getByRole('textbox', { name: 'Drifting', exact: true })).toHaveValue('10');
    await expectAccessible(page);

    await page.getByRole('textbox', { name: 'On course', exact: true }).fill('0');
    await page.getByRole('tab', { name: 'How it is counted' }).click();
    await page.getByLabel('Unit of measure').fill('hydrants');
    await page.getByLabel('Decimals shown').fill('0');
    await page.getByRole('radio', { name: 'added up' }).check({ force: true });
    await page.getByLabel('Entered by').selectOption({ label: 'Tom Fairley' });
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page).toHaveURL(/register\/kpi\/HYDRANTS/);
    await expect(page.getByText('Saved.')).toBeVisible();

    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await page.getByLabel('the same each month').fill('1,200');
    await page.getByRole('button', { name: 'Fill' }).click();
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    // Its history and targets can be entered until the next closing, also where others are closed.
    await expect(page.getByText('Saved.')).toBeVisible();
    await expect(page.getByLabel('Aug 2026')).toHaveValue('1200');
});

test('leaving a changed definition asks first', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register/kpi/LEAK?unit=NET&period=2026-08');
    await page.getByLabel('Name').fill('Losses');
    page.once('dialog', (dialog) => void dialog.dismiss());
    await page.getByRole('link', { name: 'Scorecard', exact: true }).click();
    await expect(page).toHaveURL(/register\/kpi\/LEAK/);
    await page.getByRole('button', { name: 'Put back' }).click();
    await expect(page.getByLabel('Name')).toHaveValue('Leakage');
    await page.getByRole('link', { name: 'Scorecard', exact: true }).click();
    await expect(page).toHaveURL(/scorecard/);
});

test('a session that ends in the middle keeps what was typed', async ({ page, context }) => {
    await signIn(page, 'analyst');
    await page.goto('/register/kpi/LEAK?unit=NET&period=2026-08');
    await page.getByLabel('Name').fill('Losses');
    // An answer on its way would bring the session back.
    await page.waitForLoadState('networkidle');
    await context.clearCookies();
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByLabel('E-mail address').fill('analyst@ostermere.example');
    await page.getByLabel('Password').fill('ostermere');
    await page.getByLabel('Password').press('Enter');
    await expect(page.getByLabel('Name')).toHaveValue('Losses');
});

test('a data owner fills the month by keyboard, and explains what is bad', async ({ page }) => {
    await signIn(page, 'owner');
    await page.goto('/exceptions?unit=NET&period=2026-08');
    const late = page.locator('a[href="#late"]');
    const before = await late.innerText();
    await page.getByRole('link', { name: 'Logbook 6 open' }).click();

    const cell = page.getByLabel('Hydrants inspected', { exact: true });
    await cell.fill('1,o80');
    await cell.press('Enter');
    await expect(page.getByText("'1,o80' is not a number.")).toBeVisible();
    await expect(cell).toHaveValue('1,o80');

    await cell.fill('1,100');
    const row = page.getByRole('row', { name: 'Hydrants inspected hydrants' });
    await expect(row.locator('[data-status=amber]')).toBeVisible();
    await cell.fill('1,000');
    await expect(row.locator('[data-status=red]')).toBeVisible();
    await expect(row).toContainText('a reason is needed');
    await expect(page.getByText('Off course: 16.7 % under target')).toBeVisible();
    await expectAccessible(page);

    await page.getByLabel('Reason for Hydrants inspected').focus();
    await page.keyboard.type('Two inspectors on leave until the 4th.');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText('Saved ', { exact: false })).toBeVisible();
    await expect(row).toContainText('Two inspectors on leave');
    await expect(page.getByRole('link', { name: 'Logbook 5 open' })).toBeVisible();
    await expect(page.locator('input:focus')).toHaveAttribute('placeholder', 'type');
    await expect(page.locator('input:focus')).toHaveValue('');
    // Screens that were looked at before know of it.
    await page.getByRole('link', { name: /^Exceptions/ }).click();
    await expect(late).toContainText('readings late');
    await expect(late).not.toHaveText(before);
});

test('nothing typed is lost when the connection drops', async ({ page, context }) => {
    await signIn(page, 'owner');
    await page.goto('/logbook?unit=NET&period=2026-08');
    const cell = page.getByLabel('Valves exercised', { exact: true });
    await expect(cell).toBeVisible();
    await context.route('**/api/**', (route) => route.abort());
    await cell.fill('702');
    await cell.press('Enter');
    await expect(page.getByText('No connection: one kept here')).toBeVisible();

    page.once('dialog', (dialog) => void dialog.accept());
    await context.unroute('**/api/**');
    await page.reload();
    await expect(page.getByText('Saved ', { exact: false })).toBeVisible();
    await page.reload();
    await expect(cell).toHaveValue('702');
});

test('a figure typed again before the first answer has come goes after it', async ({ page }) => {
    await signIn(page, 'owner');
    await page.goto('/logbook?unit=NET&period=2026-08');
    const cell = page.getByLabel('Valves exercised', { exact: true });
    await page.route('**/readings/2026-08', async (route) => {
        await new Promise((resolve) => setTimeout(resolve, 500));
        await route.continue();
    });
    const answers: number[] = [];
    page.on('response', (response) => {
        if (response.request().method() === 'PUT') {
            answers.push(response.status());
        }
    });
    for (const figure of ['700', '702']) {
        await cell.fill(figure);
        await cell.press('Enter');
    }
    await expect.poll(() => answers).toEqual([200, 200]);
    // It stands there when one comes back, and when the page is loaded again.
    await page.getByRole('link', { name: /Jul : July 2026/ }).click();
    await expect(cell).not.toHaveValue('702');
    await page.getByRole('link', { name: /Aug : August 2026/ }).click();
    await expect(cell).toHaveValue('702');
    await page.reload();
    await expect(cell).toHaveValue('702');
});

test('the second of two people sees both values and chooses', async ({ page, browser }) => {
    await signIn(page, 'analyst');
    await page.goto('/logbook?unit=NET&period=2026-08');
    const cell = page.getByLabel('Night flow per connection', { exact: true });
    await expect(cell).toHaveValue('');

    const other = await browser.newPage();
    await signIn(other, 'owner');
    await other.goto('/logbook?unit=NET&period=2026-08');
    await other.getByLabel('Night flow per connection', { exact: true }).fill('1.72');
    await other.keyboard.press('Enter');
    await expect(other.getByText('Saved ', { exact: false })).toBeVisible();
    await other.close();

    await cell.fill('1.81');
    await cell.press('Enter');
    await expect(page.getByText('Tom Fairley entered 1.72 in the meantime. You typed 1.81.')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Take theirs' }).click();
    await expect(cell).toHaveValue('1.72');
});

test('an executive reads the scorecard, for the month and for the year to date', async ({ page }) => {
    await signIn(page, 'executive');
    await page.goto('/scorecard?unit=NET&period=2026-08');
    await expect(page.getByText(/Of \d+ judged/)).toBeVisible();
    const row = page.getByRole('row', { name: /Hydrants inspected/ });
    await expect(row).toContainText('1,000');
    await expect(row).toContainText('−200');
    await expect(row.getByRole('img', { name: 'Red: off course' })).toBeVisible();
    await expectAccessible(page);

    await page.getByRole('link', { name: 'Year to date' }).click();
    await expect(page).toHaveURL(/span=yearToDate/);
    await expect(row).toContainText('1 of 5 readings');

    await row.getByRole('button', { name: 'Open Hydrants inspected here' }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByText('Two inspectors on leave until the 4th.')).toBeVisible();
    await expect(page.getByText('periods are added up')).toBeVisible();
    await expectAccessible(page);

    await page.keyboard.press('Escape');
    await page.keyboard.press('[');
    await expect(page).toHaveURL(/period=2026-07/);
    await page.getByRole('button', { name: 'Hide targets' }).click();
    await expect(page.getByRole('columnheader', { name: 'to target' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Show targets' }).click();

    await page.getByRole('link', { name: /Fenwick/ }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Fenwick, year to date' })).toBeVisible();
});

test('the finder goes anywhere, the path to siblings, and the look can be changed', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find' }).fill('turbid');
    await expect(page.getByRole('option', { name: /Final water turbidity/ })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('combobox', { name: 'Find' }).fill('harrow');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { level: 1, name: /Harrow Lane/ })).toBeVisible();

    await page.getByRole('button', { name: 'Harrow Lane' }).click();
    await page.getByRole('menuitem', { name: 'Stonewell' }).click();
    await expect(page).toHaveURL(/unit=W-STONEWELL/);

    await page.getByRole('button', { name: 'Ines Marrow' }).click();
    await page.getByRole('button', { name: 'dark' }).click();
    const kept = page.waitForResponse((response) => response.request().method() === 'PATCH');
    await page.getByLabel('Numbers are written').selectOption('de-DE');
    await kept;
    await page.keyboard.press('Escape');
    await page.goto('/scorecard?unit=OST&period=2026-08');
    await expect(page.getByRole('row', { name: /Energy used/ })).toContainText('10.961');
    await expectAccessible(page);
    await page.goto('/logbook?unit=NET&period=2026-08');
    await expect(page.getByLabel('Leakage', { exact: true })).toHaveValue('64,9');
    await expectAccessible(page);
    await page.goto('/register/kpi/LEAK?unit=NET&period=2026-08');
    await expect(page.getByLabel('Code')).toHaveValue('LEAK');
    await expectAccessible(page);
});

test('says what to do where there is nothing, and where something is wrong', async ({ page, context }) => {
    await signIn(page, 'executive');
    await page.goto('/logbook?unit=NET&period=2026-08');
    await expect(page.getByRole('heading', { name: 'Nothing here is yours to enter' })).toBeVisible();
    await page.goto('/logbook?unit=NET&period=2099-01');
    await expect(page.getByRole('heading', { name: 'January 2099 has not begun yet' })).toBeVisible();
    await page.goto('/register/new?unit=NET&period=2026-08');
    await expect(page.getByRole('heading', { name: "Defining is the analyst's work" })).toBeVisible();
    await page.goto('/nowhere');
    await expect(page.getByRole('heading', { name: 'There is no such screen' })).toBeVisible();
    await page.goto('/scorecard?unit=XYZ&period=2026-13');
    await expect(page.getByText('There is no unit XYZ: this is ')).toContainText('2026-13 is not a month');
    await page.goto('/scorecard?unit=NET&period=2019-01');
    await expect(page.getByText('No KPI here has a reading for January 2019.')).toBeVisible();

    await context.route('**/scorecard?*period*', (route) =>
        route.request().resourceType() === 'fetch' ? route.abort() : route.continue(),
    );
    await page.goto('/scorecard?unit=NET&period=2026-08');
    await expect(page.getByRole('heading', { name: 'No connection' })).toBeVisible({ timeout: 15_000 });
    await context.unroute('**/scorecard?*period*');
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByText(/Of \d+ judged/)).toBeVisible();
});

test('can be read at 390 wide', async ({ page }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    await signIn(page, 'executive');
    for (const path of [
        '/scorecard?unit=NET',
        '/kpi/LEAK?unit=NET',
        '/exceptions?unit=NET',
        '/matrix?unit=NET',
        '/logbook?unit=NET',
        '/register?unit=NET',
        '/register/kpi/LEAK?unit=NET',
    ]) {
        await page.goto(`${path}&period=2026-08`);
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        await expectAccessible(page);
    }
});
