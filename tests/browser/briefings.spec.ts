import { expect, test } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { expectAccessible, expectQuietConsole, signIn } from './helpers';

/** How much of a picture is dark. */
const inkOf = (picture: Buffer): number => picture.subarray(20).filter((pixel) => pixel < 200).length / picture.length;

const BOARD = '/briefings/board?unit=OST&period=2026-08&span=yearToDate';

test('a reader opens the board’s page, narrows it, asks a figure, and sees it presented and printed', async ({
    page,
}) => {
    expectQuietConsole(page);
    await signIn(page, 'executive');
    await page.goto('/briefings?unit=OST&period=2026-08');
    await page.getByRole('link', { name: 'Board', exact: true }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Board, August' })).toBeVisible();
    await expect(page.getByText(/^Issue 2, published/)).toBeVisible();
    await expect(page.getByText(/^Customers notice that supply is on course/)).toBeVisible();
    await expect(page.getByRole('link', { name: 'Change', exact: true })).toHaveCount(0);
    await expect(page.getByRole('button', { name: /^Fenwick: 132, off course$/ })).toBeVisible();
    await expectAccessible(page);

    // A region makes the page follow it; Esc takes it back.
    await page.getByRole('button', { name: /^Fenwick: 132/ }).click();
    await expect(page.getByRole('button', { name: 'Fenwick only: take away' })).toBeVisible();
    await expect(page).toHaveURL(/unit=Z-FENWICK.*follow=Z-FENWICK/);
    await page.keyboard.press('Escape');
    await expect(page).not.toHaveURL(/Z-FENWICK/);
    // By keyboard from region to region.
    await page.getByRole('button', { name: /^Fenwick: 132/ }).focus();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('button', { name: /^Holm Bay:/ })).toBeFocused();

    // A part of a split stands out in what shows it too.
    await page.getByRole('button', { name: '31 to 60 days' }).click();
    await expect(page.getByRole('button', { name: '31 to 60 days: take away' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page).not.toHaveURL(/part=/);

    await page.getByRole('button', { name: 'Present' }).click();
    await expect(page.getByRole('navigation', { name: 'Presentation' })).toBeVisible();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('heading', { level: 1, name: 'Monday meeting, August' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('navigation', { name: 'Presentation' })).toHaveCount(0);

    await page.goto(BOARD);
    await page.getByRole('button', { name: 'More' }).click();
    const [file] = await Promise.all([page.waitForEvent('download', { timeout: 60_000 }), page.getByRole('button', { name: 'PDF, A4' }).click()]); // prettier-ignore
    const pdf = await file.path();
    const about = execFileSync('pdfinfo', [pdf]).toString();
    expect(about).toMatch(/Tagged:\s+yes/);
    expect(about).toMatch(/Page size:\s+841\.\d+ x 59\d/);
    const pages = Number(/Pages:\s+(\d+)/.exec(about)?.[1]);
    for (let at = 1; at <= pages; at++) {
        // Words that can be selected, and ink on the paper, on each page.
        const words = execFileSync('pdftotext', ['-f', String(at), '-l', String(at), pdf, '-']).toString();
        expect(words).toContain(`${at} of ${pages}`);
        expect(words.length).toBeGreaterThan(150);
        const picture = execFileSync('pdftoppm', ['-f', String(at), '-l', String(at), '-r', '20', '-gray', pdf]);
        expect(inkOf(picture)).toBeGreaterThan(0.005);
    }
    expect(execFileSync('pdftotext', [pdf, '-']).toString()).toContain('Board, August 2026');
    expect(execFileSync('pdffonts', [pdf]).toString().split('\n').slice(2).filter(Boolean)).not.toEqual([]);
    expect(execFileSync('pdffonts', [pdf]).toString()).not.toMatch(/\bno\s+(yes|no)\s+(yes|no)\s+\d+/);

    const [slides] = await Promise.all([page.waitForEvent('download', { timeout: 60_000 }), page.getByRole('button', { name: 'Slides' }).click()]); // prettier-ignore
    // A general-purpose office suite opens them, and turns each into a page with words and ink.
    const folder = mkdtempSync(`${tmpdir()}/slides-`);
    copyFileSync(await slides.path(), `${folder}/board.pptx`);
    execFileSync('soffice', [`-env:UserInstallation=file://${folder}/office`, '--headless', '--convert-to', 'pdf', '--outdir', folder, `${folder}/board.pptx`], { stdio: 'ignore' }); // prettier-ignore
    expect(execFileSync('pdfinfo', [`${folder}/board.pdf`]).toString()).toMatch(/Pages:\s+5/);
    const told = execFileSync('pdftotext', ['-layout', `${folder}/board.pdf`, '-']).toString();
    expect(told).toContain('60.9');
    expect(told).toContain('Supply interruptions');
    expect(told).toContain('Customers notice that supply is on course');
    for (const at of ['2', '3', '4', '5']) {
        expect(inkOf(execFileSync('pdftoppm', ['-f', at, '-l', at, '-r', '20', '-gray', `${folder}/board.pdf`]))).toBeGreaterThan(0.005); // prettier-ignore
    }
    const listing = execFileSync('unzip', ['-l', await slides.path()]).toString();
    expect(listing).toMatch(/ppt\/media\/.*\.png/);
    rmSync(folder, { recursive: true });
});

test('an analyst writes a page from nothing by keyboard alone, and publishes it', async ({ page }) => {
    test.slow();
    expectQuietConsole(page);
    await signIn(page, 'analyst');
    await page.goto('/briefings?unit=NET&period=2026-08&span=month');
    await page.getByRole('button', { name: 'Write a new one' }).press('Enter');
    await page.getByLabel('What is the page called?').fill('Leaks in short');
    await page.getByRole('radio', { name: /^Nothing/ }).press('Space');
    await page.getByRole('button', { name: 'Begin writing' }).press('Enter');
    await expect(page.getByRole('textbox', { name: 'What the page is called' })).toHaveValue('Leaks in short');

    await page
        .getByRole('group', { name: 'Another band' })
        .getByRole('button', { name: 'figure', exact: true })
        .press('Enter');
    const piece = page.locator('[data-write]');
    await expect(piece).toHaveCount(1);
    await expect(piece.first()).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('combobox', { name: 'KPI', exact: true })).toBeFocused();
    await page.getByRole('combobox', { name: 'KPI', exact: true }).selectOption('LEAK');
    await expect(piece.first()).toContainText('64.9');
    await page.getByRole('checkbox', { name: '13 columns' }).press('Space');
    await expect(piece.first().getByRole('img', { name: /The last 13/, includeHidden: true })).toHaveCount(1);
    await page.getByRole('textbox', { name: 'Title' }).fill('What leaks');

    await page.getByRole('group', { name: 'Another band' }).getByRole('button', { name: 'commentary' }).press('Enter');
    await expect(piece).toHaveCount(2);
    await page.getByRole('button', { name: /Draft it from this month/ }).press('Enter');
    await expect(page.getByRole('textbox', { name: 'What is to be said' })).toHaveValue(
        /^Leakage is off course at \{LEAK\}/,
    );
    await piece.nth(1).focus();
    await page.keyboard.press('Alt+ArrowUp');
    await expect(piece.first()).toContainText('Leakage is off course at 64.9');
    await piece.nth(1).focus();
    await page.keyboard.press('+');
    await expect(piece.nth(1)).toHaveAttribute('aria-label', /What leaks, 4 twelfths/);
    await page.keyboard.press('Control+z');
    await expect(piece.nth(1)).toHaveAttribute('aria-label', /What leaks, 3 twelfths/);
    await expect(page.getByText(/^Draft kept/)).toBeVisible();
    await expectAccessible(page);

    await page.getByRole('button', { name: 'See as readers do' }).press('Enter');
    await expect(page.locator('[data-write]')).toHaveCount(0);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Publish August' }).press('Enter');
    await expect(page.getByText(/^Issue 1, published/)).toBeVisible();
    await expect(page.getByRole('heading', { level: 1, name: 'Leaks in short, August' })).toBeVisible();
});

test('an issue stays as it was when a figure changes, and says which', async ({ page }) => {
    await signIn(page, 'analyst');
    const sheet = (await (await page.request.get('/api/units/CUS/logbook?period=2026-08')).json()) as {
        rows: { code: string; id: number; version: number }[];
    };
    const row = sheet.rows.find(({ code }) => code === 'FIRST') ?? { id: 0, version: 0 };
    const token = (await page.context().cookies()).find(({ name }) => name === 'XSRF-TOKEN')?.value ?? '';
    await page.goto('/briefings/customers?unit=CUS&period=2026-08&span=month');
    await expect(page.getByText(/changed since issue/)).toHaveCount(0);
    const kept = await page.request.put(`/api/measurements/${row.id}/readings/2026-08`, {
        headers: { 'X-XSRF-TOKEN': decodeURIComponent(token) },
        data: { typed: '61.5', version: row.version, note: null },
    });
    expect(kept.status()).toBe(200);
    await page.reload();
    await expect(page.getByRole('note')).toContainText('One figure has changed since issue 2, which stays as it was');
    await expect(page.getByRole('note')).toContainText(/80\.4 then, 61\.5 now/);
    await expect(page.locator('[data-piece=scale]').nth(1)).toContainText('80.4');
});

test('a link is read without an account, and leads nowhere else', async ({ page, browser }) => {
    await signIn(page, 'analyst');
    await page.goto(BOARD);
    await page.getByRole('button', { name: 'More' }).click();
    await page.getByRole('button', { name: 'Make a link' }).click();
    await page.getByRole('textbox', { name: 'For whom' }).fill('Regulator');
    await page.getByLabel('units as letters').check();
    await page.getByRole('button', { name: 'Make the link' }).click();
    const link = await page.getByLabel(/The link, shown this once/).inputValue();
    expect(link).toMatch(/\/read#kbl_/);

    const stranger = await (await browser.newContext()).newPage();
    await stranger.goto(link);
    await expect(stranger.getByRole('heading', { level: 1, name: 'Board, August 2026' })).toBeVisible();
    await expect(stranger.getByText(/^Customers notice that supply/)).toBeVisible();
    await expect(stranger.getByText('Fenwick', { exact: true })).toHaveCount(0);
    await expect(stranger.locator('a:not([href^="#"])')).toHaveCount(0);
    await expectAccessible(stranger);
    await stranger.goto(new URL('/scorecard', link).toString());
    await expect(stranger.getByRole('button', { name: 'Sign in' })).toBeVisible();

    await page.getByRole('button', { name: 'End the link for Regulator' }).first().click();
    await stranger.goto('about:blank');
    await stranger.goto(link);
    await expect(stranger.getByRole('heading', { name: 'This link leads nowhere' })).toBeVisible();
});
