import { expect, test } from '@playwright/test';
import { expectAccessible, expectQuietConsole, signIn } from './helpers';

/* Figures that come from records, from the file to the records behind a figure; and parts that are typed. */
test.beforeEach(({ page }) => expectQuietConsole(page));

const CHECKS = `Check;Zone;Checked on;Minutes;Passed
C-1;Z-FENWICK;03/08/2026;12.5;yes
C-2;Z-FENWICK;04/08/2026;30;no
C-3;Z-SANDRY;20/08/2026;8;yes
C-4;Nowhere;21/08/2026;9;yes
C-5;Z-SANDRY;22/07/2026;4;no
`;

test('records come in from a file, a KPI is counted from them, and its figure leads to the very records', async ({
    page,
}) => {
    await signIn(page, 'analyst');
    await page.goto('/sources?unit=NET&period=2026-08');
    await expect(page.getByRole('link', { name: 'Repair jobs' })).toBeVisible();
    await expectAccessible(page);
    await page.goto('/sources/new?unit=NET&period=2026-08');
    await page
        .locator('input[type=file]')
        .setInputFiles({ name: 'valve checks.csv', mimeType: 'text/csv', buffer: Buffer.from(CHECKS) });
    await expect(page.getByLabel('Called')).toHaveValue('Valve checks');
    await page.getByLabel('Short code').fill('CHECKS');
    await page.getByLabel('Several of them').fill('checks');
    await page.getByLabel('Complete from').fill('2026-07-01');
    await page.getByLabel('Complete up to').fill('2026-08-31');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Make it and read the file' }).click();
    await page.getByRole('button', { name: 'Bring it in' }).click();
    await expect(page.getByRole('cell', { name: /5 new/ })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: /Whose they are/ }).click();
    await expect(page.getByText('Nowhere', { exact: true })).toBeVisible();

    await page.goto('/register/new?unit=NET&period=2026-08');
    await page.getByLabel('Name').fill('Valve checks passed');
    await page.getByLabel('Code').fill('CHECKS-PASSED');
    await page.getByRole('tab', { name: 'How it is counted' }).click();
    await page.getByRole('radio', { name: 'from records' }).check({ force: true });
    await page.getByLabel('Records', { exact: true }).selectOption('CHECKS');
    await page.getByLabel('What is taken').selectOption('count');
    await page.getByLabel('Dated by').selectOption('checked_on');
    await expect(page.getByRole('combobox', { name: 'Unit', exact: true })).toHaveValue('zone');
    // Three of August name a zone of the Network; the one that names nothing counts nowhere.
    await expect(page.getByText(/in August.*3 checks/)).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page).toHaveURL(/kpi\/CHECKS-PASSED/);
    await page.goto('/kpi/CHECKS-PASSED?unit=NET&period=2026-08&span=month&look=records');
    await expect(page.getByText('3 checks', { exact: true })).toBeVisible();
    await expect(page.getByRole('cell', { name: 'C-1', exact: true })).toBeVisible();
    await page.getByRole('searchbox').fill('sandry');
    await expect(page.getByText('1 found')).toBeVisible();
    await expectAccessible(page);
});

test('cases show each record over its value, and a goal is moved without keeping anything', async ({ page }) => {
    await signIn(page, 'executive');
    await page.goto('/kpi/REPAIR-SHARE?unit=NET&period=2026-08&span=month&look=cases');
    await expect(page.getByText(/meet the goal of 8 days/)).toBeVisible();
    await page.getByRole('slider', { name: 'The goal' }).fill('6');
    await expect(page.getByText(/If the goal were 6 days/)).toBeVisible();
    await page.getByRole('button', { name: 'by step' }).click();
    await expectAccessible(page);
    await page.reload();
    await expect(page.getByText(/meet the goal of 8 days/)).toBeVisible();
});

test('parts are typed under their figure and add up to it', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/logbook?unit=WST&period=2026-08');
    const row = page.getByRole('row').filter({ hasText: 'Sewer blockages' });
    await row.getByRole('button', { name: 'in parts' }).click();
    await page.getByLabel('fat and grease').fill('160');
    await page.getByLabel('wipes').fill('120');
    await page.getByLabel('roots').fill('50');
    await page.getByLabel('other', { exact: true }).fill('31');
    await page.getByLabel('other', { exact: true }).press('Enter');
    await expect(row.getByText('361')).toBeVisible();
    await expectAccessible(page);
    await page.goto('/kpi/BLOCKAGES?unit=WST&period=2026-08&span=month&look=parts');
    await expect(page.getByRole('row', { name: /wipes.*120/ })).toBeVisible();
    await expectAccessible(page);
    await page.goto('/logbook?unit=WST&period=2026-08');
    await row.getByRole('button', { name: 'Sewer blockages' }).click();
    for (const part of ['fat and grease', 'wipes', 'roots', 'other']) {
        await page.getByLabel(part, { exact: true }).fill('');
    }
    await page.getByLabel('other', { exact: true }).press('Enter');
    await expect(row.getByRole('button', { name: 'in parts' })).toBeVisible();
});
