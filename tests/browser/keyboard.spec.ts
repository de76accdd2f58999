import { expect, test } from '@playwright/test';
import { expectAccessible, expectQuietConsole, signIn } from './helpers';

/* The small manners that make a month quick. Nothing here is saved. */
test.beforeEach(({ page }) => expectQuietConsole(page));

test('the scorecard is read with arrows, and the ribbon stepped by month and year', async ({ page }) => {
    await signIn(page, 'head');
    await page.goto('/scorecard?unit=NET&period=2026-08');
    const leakage = page.getByRole('link', { name: 'Leakage', exact: true });
    await leakage.focus();
    await page.keyboard.press('ArrowDown');
    await expect(page.getByRole('link', { name: 'Mains bursts' })).toBeFocused();
    await page.keyboard.press('ArrowUp');
    await expect(leakage).toBeFocused();
    const toggle = page.getByRole('button', { name: 'Open Leakage here' });
    await expect(toggle).toHaveAttribute('aria-expanded', 'false');
    await page.keyboard.press('Space');
    await expect(toggle).toHaveAttribute('aria-expanded', 'true');
    await expect(page.getByText('Off course: 15.9 % over target.')).toBeVisible();
    await page.keyboard.press('Space');

    await page.keyboard.press('{');
    await expect(page).toHaveURL(/period=2025-08/);
    await expect(page.getByRole('region', { name: 'Period' })).toContainText('2025/26');
    await page.keyboard.press(']');
    await expect(page).toHaveURL(/period=2025-09/);
    await page.goBack();
    await expect(page).toHaveURL(/period=2025-08/);
});

test('Escape puts a figure back, arrows go to the neighbour, and open ones can be shown alone', async ({ page }) => {
    await signIn(page, 'head');
    await page.goto('/logbook?unit=Z-SANDRY&period=2026-08');
    const cell = page.getByLabel('Leakage per connection', { exact: true });
    const before = await cell.inputValue();
    await cell.fill('999');
    await expect(page.getByText(/^Off course: /)).toBeVisible();
    await cell.press('Escape');
    await expect(cell).toHaveValue(before);
    await cell.press('ArrowDown');
    await expect(page.getByLabel('Bursts in the zone', { exact: true })).toBeFocused();

    await page.getByRole('button', { name: 'all mine' }).click();
    await expect(page.getByRole('textbox', { name: 'Discoloured water contacts', exact: true })).toBeVisible();
    await expect(cell).toHaveCount(0);
    await page.getByRole('button', { name: 'open ones' }).click();
    await expect(cell).toBeVisible();
});

test('twelve targets are pasted from a spreadsheet, and the units of a KPI are chosen together', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register/kpi/LEAK?unit=NET&period=2026-08');
    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await page.getByLabel('May 2026').evaluate((field) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text', '55.1\t55.2\t55.3');
        field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await expect(page.getByLabel('Apr 2026')).toHaveValue('56.0');
    // Closed months keep theirs.
    await expect(page.getByLabel('May 2026')).toHaveValue('56.0');
    await expect(page.getByLabel('Jul 2026')).toHaveValue('55.3');
    await expect(page.getByLabel('Aug 2026')).toHaveValue('56.0');
    await page.getByLabel('the same each month').fill('55');
    await page.getByRole('button', { name: 'Fill' }).click();
    await expect(page.getByText('3 closed months are left as they are.')).toBeVisible();
    await expect(page.getByLabel('Jun 2026')).toHaveValue('56.0');
    await expect(page.getByLabel('Aug 2026')).toHaveValue('55');

    await page.getByRole('tab', { name: 'Where' }).click();
    await page.getByRole('button', { name: 'All 12 inside Network' }).click();
    await expect(page.getByRole('checkbox', { name: 'Pennock' })).toBeChecked();
    await page.getByRole('button', { name: 'None of those inside' }).click();
    await expect(page.getByRole('checkbox', { name: 'Pennock' })).not.toBeChecked();
    await page.getByRole('button', { name: 'Put back' }).click();
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
});

test('an analyst alone defines: others read the definition', async ({ page }) => {
    await signIn(page, 'executive');
    await page.goto('/register?unit=OST&period=2026-08');
    await expect(page.getByRole('link', { name: 'Define a KPI' })).toHaveCount(0);
    await page.getByLabel('Filter', { exact: true }).fill('fairley supply');
    await expect(page.getByRole('link', { name: 'Reservoir stock' })).toBeVisible();
    await expect(page.getByRole('link', { name: 'Leakage', exact: true })).toHaveCount(0);
    await page.getByLabel('Filter', { exact: true }).fill('zzz');
    await expect(page.getByRole('heading', { name: 'No KPI fits' })).toBeVisible();
    await page.getByRole('button', { name: 'Show all again' }).click();
    await page.getByRole('link', { name: 'Leakage', exact: true }).click();
    await expect(page.getByLabel('Name')).toBeDisabled();
    await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);
});

test('every component reads in both palettes', async ({ page }) => {
    expectQuietConsole(page);
    await signIn(page, 'executive');
    await page.goto('/components');
    await expect(page.getByRole('region', { name: 'The dark palette' })).toBeVisible();
    await expectAccessible(page);
    await page.goto('/problems/conflict');
    await expect(page.getByRole('link', { name: 'Somebody else was faster' })).toBeVisible();
    await expectAccessible(page);
});
