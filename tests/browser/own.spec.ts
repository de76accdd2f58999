import { expect, test } from '@playwright/test';
import { expectAccessible, expectQuietConsole } from './helpers';

/* From an empty start to a first closed month, by somebody who has never been here. */
test('an organisation is begun with its link, gets units and a KPI, and closes its first month', async ({
    page,
    browser,
}) => {
    const link = process.env['LINK'] ?? '';
    expectQuietConsole(page);
    await page.goto('/');
    await expect(page.getByText('Nobody has begun an organisation here yet.')).toBeVisible();
    await page.goto('/begin#not-the-link');
    await expect(page.getByRole('heading', { name: 'This link does not work' })).toBeVisible();
    await expectAccessible(page);

    await page.goto('about:blank');
    await page.goto(link);
    await page.getByLabel('What the organisation is called').fill('Harbour Clinics');
    await page.getByLabel('Currency').selectOption('EUR');
    await page.getByLabel('Your name').fill('Mara Quist');
    await page.getByLabel('E-mail address').fill('mara@harbour.example');
    await page.getByLabel('Password').fill('password1234');
    await page.keyboard.press('Enter');
    await expect(page.getByText('This password is among those that are tried first.')).toBeVisible();
    await expectAccessible(page);
    await page.setViewportSize({ width: 390, height: 800 });
    await expectAccessible(page);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.getByLabel('Password').fill('seven slow herons at dusk');
    await page.keyboard.press('Enter');

    await expect(page.getByText('One of six steps is done')).toBeVisible();
    const list = page.getByLabel('The list of units');
    await list.focus();
    await page.keyboard.type('Quayside\n');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Outpatients\nNorthgate');
    await expect(page.getByRole('row', { name: 'Outpatients OUTPAT team' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Make three units' }).press('Enter');
    await expect(page.getByText('3 units are made.')).toBeVisible();
    await page.getByRole('button', { name: 'Take back the last three' }).click();
    await expect(page.getByText('They are gone again.')).toBeVisible();
    await list.fill('Quayside\n  Outpatients\nNorthgate');
    await page.getByRole('button', { name: 'Make three units' }).click();
    await expect(page.getByText('Two of six steps are done')).toBeVisible();

    await page.getByRole('link', { name: 'Units', exact: true }).click();
    await page.getByRole('button', { name: 'Change Outpatients' }).press('Enter');
    await expectAccessible(page);
    await page.getByLabel('Name').fill('Day clinic');
    await page.getByLabel('Belongs to').selectOption({ label: '\u2003Northgate' });
    await page.keyboard.press('Enter');
    await expect(page.getByText('Outpatients is called Day clinic, and stands below Northgate.')).toBeVisible();
    await expect(page.getByRole('row').nth(4)).toContainText('Day clinic');
    await page.getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByRole('row').nth(3)).toContainText('Outpatients');
    page.once('dialog', (dialog) => void dialog.accept());
    await page.getByRole('button', { name: 'Change Outpatients' }).click();
    await page.getByRole('button', { name: 'Take away' }).click();
    await expect(page.getByRole('row')).toHaveCount(4);
    await page.goto('/first-month');

    await page.getByRole('button', { name: /^\S?\s*People/ }).click();
    await page.getByRole('link', { name: 'Invite somebody' }).click();
    await page.getByRole('button', { name: 'Invite somebody' }).click();
    await page.getByLabel('Name').fill('Tom Reed');
    await page.getByLabel('E-mail address').fill('tom@harbour.example');
    await page.getByLabel('Belongs to').selectOption({ label: '\u2003Quayside' });
    await page.getByRole('button', { name: 'Make the invitation' }).click();
    const invitation = await page.getByLabel('The link to hand over').inputValue();
    await expectAccessible(page);
    const guest = await (await browser.newContext()).newPage();
    await guest.goto(invitation);
    await expect(guest.getByRole('heading', { name: 'Welcome, Tom Reed' })).toBeVisible();
    await expectAccessible(guest);
    await guest.getByLabel('Password').fill('nine reeds under water');
    await guest.keyboard.press('Enter');
    await expect(guest.getByRole('navigation', { name: 'Working order' })).toBeVisible();
    await expect(guest.getByRole('navigation', { name: 'Working order' }).getByText('People')).toHaveCount(0);
    await guest.context().close();

    await page.goto('/first-month');
    await page.getByRole('button', { name: /KPIs/ }).click();
    await page.getByRole('link', { name: 'Define the first' }).click();
    await page.getByLabel('Name').fill('Patients seen');
    await page.getByLabel('Code').fill('SEEN');
    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page).toHaveURL(/register\/kpi\/SEEN/);

    // The month before the running one: it is over, and can be closed.
    const now = new Date();
    const month = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - 1, 1)).toISOString().slice(0, 7);
    await page.goto(`/logbook?unit=HC&period=${month}`);
    await page.getByLabel('Patients seen', { exact: true }).fill('1204');
    await page.keyboard.press('Tab');
    await expect(page.getByText(/^Saved \d/)).toBeVisible();
    await page.goto(`/periods?unit=HC&period=${month}`);
    await page.getByRole('button', { name: /^Close/ }).click();
    await expect(page.getByRole('heading', { name: /, closed$/ })).toBeVisible();

    await page.goto('/first-month');
    await expect(page.getByText('Six of six steps are done')).toBeVisible();
    await expectAccessible(page);
    await page.goto(`/scorecard?unit=HC&period=${month}`);
    await expect(page.getByRole('row', { name: /Patients seen/ })).toContainText('1,204');
    await page.goto('/first-month');
    await page.getByRole('button', { name: 'Put this away' }).click();
    await expect(page.getByRole('navigation', { name: 'Working order' }).getByText('First month')).toHaveCount(0);

    // The link has done its work.
    await page.goto('about:blank');
    await page.goto(link);
    await expect(page.getByRole('heading', { name: 'This link does not work' })).toBeVisible();
});
