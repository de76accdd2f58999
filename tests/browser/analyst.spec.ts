import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, expectQuietConsole, signIn } from './helpers';

/* The analyst's half of the month. Each test leaves the figures as it found them, or works on its own. */
test.beforeEach(({ page }) => expectQuietConsole(page));

const grid = (page: Page) => page.getByRole('grid');

/** Pastes into the grid as a browser does. */
async function paste(page: Page, text: string): Promise<void> {
    await grid(page).evaluate((element, content) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text/plain', content);
        element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    }, text);
}

/** The cell of a row and a column, both by what their heads say. */
async function cell(page: Page, row: string, column: string) {
    await expect(page.getByRole('columnheader', { name: column })).toBeVisible();
    const heads = await page.getByRole('columnheader').allInnerTexts();
    const at = heads.findIndex((head) => head.trim().startsWith(column));
    return page
        .getByRole('row')
        .filter({ has: page.getByRole('rowheader', { name: row }) })
        .locator(`[role=gridcell][aria-colindex="${at + 1}"]`);
}

test('a formula is completed, marked where it is wrong, and tried on the latest months', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register/new?unit=NET&period=2026-08');
    await page.getByLabel('Name').fill('Bursts per kilometre renewed');
    await page.getByLabel('Code').fill('BURST-KM');
    await page.getByRole('tab', { name: 'How it is counted' }).click();
    await page.getByRole('radio', { name: 'by a formula' }).check({ force: true });
    const formula = page.getByRole('combobox', { name: 'Formula' });
    await formula.pressSequentially('BURS');
    await expect(page.getByRole('option', { name: /^BURSTS/ })).toBeVisible();
    await page.keyboard.press('Enter');
    await formula.pressSequentially(' / NOPE');
    await expect(page.getByText("There is no KPI 'NOPE'.")).toBeVisible();
    await expectAccessible(page);
    await formula.press('End');
    for (let press = 0; press < 4; press++) {
        await formula.press('Backspace');
    }
    await formula.pressSequentially('renewed');
    await page.keyboard.press('Tab');
    await expect(formula).toHaveValue('BURSTS / RENEWED');
    await expect(page.getByText('It gives')).toBeVisible();
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page).toHaveURL(/kpi\/BURST-KM/);
});

test('a band and a judged KPI are defined with the same four parts', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register/new?unit=WST&period=2026-08');
    await page.getByLabel('Name').fill('Dissolved oxygen');
    await page.getByLabel('Code').fill('OXYGEN');
    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await page.getByRole('radio', { name: 'inside a band' }).check({ force: true });
    await page.getByLabel('Compare with').selectOption('none');
    await page.getByLabel('On course from').fill('2');
    await page.getByLabel('On course to').fill('1');
    await page.getByLabel('Drifting below by').fill('0.5');
    await page.getByLabel('Drifting above by').fill('0.5');
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page.getByText('The upper limit must be 2 or more.')).toBeVisible();
    await page.getByLabel('On course to').fill('4');
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page).toHaveURL(/kpi\/OXYGEN/);

    await page.goto('/register/new?unit=WST&period=2026-08');
    await page.getByLabel('Name').fill('Site tidiness');
    await page.getByLabel('Code').fill('TIDY');
    await page.getByRole('tab', { name: 'How it is counted' }).click();
    await page.getByRole('radio', { name: 'a person judges' }).check({ force: true });
    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await page.getByLabel('What on course means').fill('Nothing lies about');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page).toHaveURL(/kpi\/TIDY/);

    await page.goto('/logbook?unit=WST&period=2026-08');
    const row = page.getByRole('row', { name: /Site tidiness/ });
    await row.getByRole('radio', { name: 'drifting' }).click();
    await expect(page.getByText('Say why, then it is saved.')).toBeVisible();
    await expect(page.getByText('Nothing lies about')).toBeVisible();
    await page.getByLabel('Reason for Site tidiness').fill('Pipes in the yard.');
    await page.getByLabel('Reason for Site tidiness').press('Control+Enter');
    await expect(row.getByRole('img', { name: 'Amber: drifting' })).toBeVisible();
    await expect(page.getByText('Saved ', { exact: false })).toBeVisible();
});

test('the replay shows what other limits would have meant, before anything is saved', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register/kpi/LEAK?unit=NET&period=2026-08');
    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await expect(page.getByText('No month would change.')).toBeVisible();
    await page.getByRole('textbox', { name: 'Drifting', exact: true }).fill('8');
    await expect(page.getByText('2 months would change, all from off course to drifting.')).toBeVisible();
    await expect(page.getByLabel('Holds from')).toHaveValue('2026-08');
    await expect(page.getByRole('button', { name: 'Save from August' })).toBeEnabled();
    await expectAccessible(page);
    await page.getByLabel('Holds from').selectOption('2026-05');
    await page.getByRole('button', { name: 'Save from May' }).click();
    await expect(page.getByText('Closed months keep their colours.', { exact: false })).toBeVisible();
    await page.getByRole('button', { name: 'Put back' }).click();
    await expect(page.getByText('No month would change.')).toBeVisible();
});

test('a messy block is pasted, its bad cells stay marked, the rest is saved, and undone in one step', async ({
    page,
}) => {
    await signIn(page, 'analyst');
    await page.goto('/logbook/year?unit=NET&period=2026-08');
    const bursts = await cell(page, 'Mains bursts', 'Jul');
    await expect(bursts).toContainText('62');
    await bursts.click();
    await paste(page, 'Jul 2026\tAug 2026\n£1,066.0\t(5)\n2,3 l\tn/a\n2.9\t\n');
    await expect(page.getByText('6 pasted cells: 4 to save')).toBeVisible();
    await expect(page.getByText('2 refused')).toBeVisible();
    await expect(page.getByText('put by period')).toBeVisible();
    await expect(bursts).toContainText('1,066');
    const refused = await cell(page, 'Burst repairs', 'Jul');
    await expect(refused).toContainText('2,3 l');
    await refused.click();
    await expect(page.getByText("July 2026, Burst repairs within 5 days: '2,3 l' is not a number.")).toBeVisible();
    await expectAccessible(page);

    await page.getByRole('button', { name: 'Save 4' }).click();
    await expect(page.getByText('4 cells are saved.')).toBeVisible();
    await expect(refused).toContainText('2,3 l');
    await page.getByRole('button', { name: 'Undo pasting' }).click();
    await expect(page.getByText('4 cells are saved.')).toBeVisible();
    await expect(bursts).toContainText('62');
    await expect(await cell(page, 'Mains renewed', 'Aug')).toContainText('2.8');
});

test('the grid is worked by keyboard alone: move, type, fill, clear, undo, redo, cells that are locked', async ({
    page,
}) => {
    await signIn(page, 'analyst');
    await page.goto('/logbook/year?unit=NET&period=2026-08');
    await expect(page.getByRole('rowheader', { name: 'Leakage Ml/d' })).toBeVisible();
    await grid(page).focus();
    const footer = page.locator('[aria-live=polite]');
    await expect(footer).toHaveText('August 2026, Leakage');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('ArrowLeft');
    await expect(footer).toHaveText('June 2026, Leakage: closed');
    await page.keyboard.type('5');
    await expect(page.getByRole('textbox', { name: 'June 2026, Leakage' })).toHaveCount(0);

    await page.keyboard.press('ArrowRight');
    await page.keyboard.type('61');
    await page.keyboard.press('Tab');
    await expect(await cell(page, 'Leakage Ml/d', 'Jul')).toContainText('61');
    await page.keyboard.press('F2');
    await page.keyboard.press('Escape');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('Shift+ArrowDown');
    await page.keyboard.press('Shift+ArrowRight');
    await page.keyboard.press('Control+d');
    await expect(await cell(page, 'Mains bursts', 'Jul')).toContainText('61');
    await expect(page.getByText('Selected 4: mean', { exact: false })).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(await cell(page, 'Mains bursts', 'Jul')).toContainText('62');
    await page.keyboard.press('Control+y');
    await expect(await cell(page, 'Mains bursts', 'Jul')).toContainText('61');
    await page.keyboard.press('Delete');
    await expect(await cell(page, 'Mains bursts', 'Jul')).not.toContainText('6');
    page.once('dialog', (dialog) => void dialog.dismiss());
    await page.getByRole('link', { name: 'Scorecard', exact: true }).click();
    await expect(page).toHaveURL(/logbook\/year/);
    page.once('dialog', (dialog) => void dialog.accept());
    await page.getByRole('link', { name: 'Scorecard', exact: true }).click();
    await expect(page).toHaveURL(/scorecard/);
    await page.goBack();
    await expect(page.getByText(/typed before (is|are) still here/)).toBeVisible();
    await expect(await cell(page, 'Mains bursts', 'Jul')).not.toContainText('6');
    await page.getByRole('button', { name: 'Put everything back' }).click();
    await expect(await cell(page, 'Mains bursts', 'Jul')).toContainText('62');
    await page.keyboard.press('Control+Home');
});

test('two people in one cell of the grid: the second sees both and chooses', async ({ page, browser }) => {
    await signIn(page, 'analyst');
    await page.goto('/logbook/year?unit=CUS&period=2026-08');
    const calls = await cell(page, 'Calls answered', 'Aug');
    const before = ((await calls.innerText()).split(',')[0] ?? '').trim();

    const other = await browser.newPage();
    await signIn(other, 'analyst');
    await other.goto('/logbook?unit=CUS&period=2026-08');
    await other.getByLabel('Calls answered in 30 s', { exact: true }).fill('80.1');
    await other.keyboard.press('Enter');
    await expect(other.getByText('Saved ', { exact: false })).toBeVisible();

    await calls.click();
    await page.keyboard.type('79');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /^Save 1/ }).click();
    await expect(page.getByText('1 changed by somebody else in the meantime.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
    await calls.click();
    await expect(page.locator('[aria-live=polite]')).toContainText('Ines Marrow entered 80.1 in the meantime.');
    await page.getByRole('button', { name: 'Take theirs' }).click();
    await expect(calls).toContainText('80.1');
    await other.getByLabel('Calls answered in 30 s', { exact: true }).fill(before);
    await other.keyboard.press('Enter');
    await expect(other.getByText('Saved ', { exact: false })).toBeVisible();
    await other.close();
});

test('a file is understood, previewed with its errors, applied and undone', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/logbook/import?unit=WST&period=2026-08');
    // What comes late must not undo what was corrected meanwhile.
    await page.route('**/api/imports/*', async (route) => {
        await new Promise((resolve) => setTimeout(resolve, 300));
        await route.continue();
    });
    const send = (name: string, text: string) =>
        page.setInputFiles('input[type=file]', { name, mimeType: 'text/csv', buffer: Buffer.from(text) });
    await send('bad.csv', 'kpi\0');
    await expect(page.getByText('The file is neither text nor a spreadsheet.')).toBeVisible();
    await send(
        'figures.csv',
        'KPI;Unit;Month;Amount\nFLOODING;WST;Aug 2026;14\nFLOODING;WST;2026-06;9\nSPILL;WST;2026-08;lots\n',
    );
    await expect(page.getByText('figures.csv: are its columns understood?')).toBeVisible();
    await page.getByLabel('What Amount holds').selectOption('actual');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Show what changes' }).click();
    await expect(page.getByText('figures.csv: 1 cell would change; nothing is written yet.')).toBeVisible();
    await page.getByRole('button', { name: '2 refused' }).click();
    await expect(page.getByText("'lots' is not a number.")).toBeVisible();
    await expect(page.getByText('June 2026 is closed.', { exact: false })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Apply 1' }).click();
    await expect(page.getByText('figures.csv is applied: 1 cell changed.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo all of it' }).click();
    await expect(page.getByText('figures.csv is undone', { exact: false })).toBeVisible();
});

test('a month is checked, handed in, closed, refused, and reopened with a reason that is kept', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/periods?unit=FIN&period=2026-07');
    await expect(page.getByRole('heading', { name: 'July 2026, before it is closed' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Close July' }).click();
    await expect(page.getByRole('heading', { name: 'July 2026, closed' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Period' }).getByTitle(/July 2026.*closed/)).toBeVisible();

    await page.goto('/logbook?unit=FIN&period=2026-07');
    await expect(page.getByText('July is closed', { exact: false })).toBeVisible();
    await expect(page.getByRole('textbox', { name: 'Debtor days' })).toHaveCount(0);
    await page.goto('/periods?unit=FIN&period=2026-07');
    await page.getByRole('button', { name: 'Reopen July' }).click();
    await page.getByRole('button', { name: 'Reopen', exact: true }).click();
    await expect(page.getByText('Say why the month is reopened', { exact: false })).toBeVisible();
    await page.getByLabel('Why is it reopened?', { exact: false }).fill('A late invoice');
    await page.getByRole('button', { name: 'Reopen', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'July 2026, before it is closed' })).toBeVisible();

    await page.getByRole('link', { name: 'Changes', exact: true }).click();
    await expect(page.getByText('“A late invoice”').first()).toBeVisible();
    await page.getByLabel('What').selectOption('closing');
    await expect(page.getByText('reopened', { exact: false }).first()).toBeVisible();
    await expectAccessible(page);
});

test('targets of a department are planned beside last year, and set', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register/plan?unit=CAP&period=2026-08');
    await page.getByRole('radio', { name: 'last year plus' }).check({ force: true });
    await page.getByLabel('Percent').fill('5');
    await page.getByRole('checkbox', { name: 'Defects open at handover' }).check();
    await expect(page.getByText(/[1-9] targets would change; closed months keep theirs/)).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: /^Set [1-9] targets/ }).click();
    await expect(page.getByText(/[1-9] targets are set\./)).toBeVisible();
});

test('many definitions change at once, and a copy begins another', async ({ page }) => {
    await signIn(page, 'analyst');
    await page.goto('/register?unit=CAP&period=2026-08');
    await page.getByRole('checkbox', { name: 'Defects open at handover' }).check();
    await page.getByRole('checkbox', { name: 'Street permits granted in time' }).check();
    await page.getByLabel('Field to change').selectOption('source');
    await page.getByLabel('New value').fill('Handover register');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Change them' }).click();
    await expect(page.getByText('2 chosen')).toHaveCount(0);
    await page.getByRole('link', { name: 'Defects open at handover' }).click();
    await expect(page.getByPlaceholder('A system, a register, a person')).toHaveValue('Handover register');
    await page.getByRole('link', { name: 'Copy' }).click();
    await expect(page.getByLabel('Code')).toHaveValue('');
    await expect(page.getByPlaceholder('A system, a register, a person')).toHaveValue('Handover register');
    page.once('dialog', (dialog) => void dialog.accept());
    await page.goto('/register/lists?unit=OST&period=2026-08');
    await page.getByRole('button', { name: 'Add a theme' }).click();
    await page.getByLabel('Themes, 11').fill('Storms');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
});

test('a data owner sees what is theirs, and a head their units', async ({ page }) => {
    await signIn(page, 'owner');
    await page.goto('/register?unit=OST&period=2026-08');
    await expect(page.getByRole('link', { name: 'Leakage', exact: true })).toBeVisible();
    await expect(page.getByRole('link', { name: 'Sewer blockages' })).toHaveCount(0);
    await page.goto('/logbook/year?unit=NET&period=2026-08');
    await page.getByRole('radio', { name: 'target' }).check({ force: true });
    await expect(page.getByText('Your account reads these figures.')).toBeVisible();
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find' }).fill('blockages');
    await expect(page.getByRole('option', { name: /Sewer blockages/ })).toHaveCount(0);
    await page.goto('/scorecard?unit=WST&period=2026-08');
    await expect(page.getByRole('heading', { level: 1, name: /Network/ })).toBeVisible();
    // The top of what they see is still a department: its rows are grouped by theme.
    await expect(page.getByRole('combobox', { name: /^Group/ })).toContainText('by theme');
    await expect(page.getByRole('combobox', { name: /^Group/ })).not.toContainText('by department');
});
