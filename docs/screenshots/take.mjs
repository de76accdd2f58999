import { chromium } from '@playwright/test';
import { fileURLToPath } from 'node:url';

const [, , base] = process.argv;
const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
    ],
});

async function take(name, { account, path, width = 1280, height = 800, theme = 'light', before }) {
    const page = await browser.newPage({ viewport: { width, height }, colorScheme: theme, locale: 'en-GB' });
    await page.goto(base);
    if (account !== undefined) {
        await page.getByLabel('E-mail address').fill(`${account}@ostermere.example`);
        await page.getByLabel('Password').fill('ostermere');
        await page.getByRole('button', { name: 'Sign in', exact: true }).click();
        await page.getByRole('navigation', { name: 'Working order' }).waitFor();
        await page.goto(base + path);
    }
    await page.waitForLoadState('networkidle');
    await before?.(page);
    await page.waitForTimeout(500);
    await page.screenshot({ path: fileURLToPath(new URL(`${name}.png`, import.meta.url)) });
    await page.close();
}

const network = 'unit=NET&period=2026-08';
const open = (page) => page.getByRole('button', { name: 'Leakage', exact: true }).click();

await take('sign-in', {});
await take('scorecard', { account: 'analyst', path: `/scorecard?${network}&span=yearToDate` });
await take('scorecard-organisation', { account: 'executive', path: '/scorecard?unit=OST&period=2026-08&span=month' });
await take('scorecard-row-dark', {
    account: 'head',
    path: `/scorecard?${network}&span=yearToDate`,
    theme: 'dark',
    before: open,
});
await take('scorecard-phone', { account: 'executive', path: `/scorecard?${network}`, width: 390, height: 844 });
await take('logbook', {
    account: 'owner',
    path: `/logbook?${network}`,
    // Typed and not left: nothing is saved.
    before: (page) => page.getByLabel('Night flow per connection', { exact: true }).pressSequentially('1.93'),
});
await take('register', { account: 'analyst', path: '/register?unit=OST&period=2026-08' });
await take('register-editor', {
    account: 'analyst',
    path: `/register/LEAK?${network}`,
    before: (page) => page.getByRole('tab', { name: 'What good looks like' }).click(),
});
await browser.close();
