import AxeBuilder from '@axe-core/playwright';
import { expect, type BrowserContext, type Page } from '@playwright/test';

type Cookies = Awaited<ReturnType<BrowserContext['cookies']>>;
/** Sessions that were begun by hand once, by account: signing in is tested where it is meant. */
const sessions = new Map<string, Cookies>();

/** Signs in as a person does, or goes on with the session that was begun so before. */
export async function signIn(page: Page, account: string): Promise<void> {
    const context = page.context();
    await context.clearCookies({ name: /^(?!theme$)/ });
    await context.addCookies(sessions.get(account) ?? []);
    await page.goto('/');
    const inside = page.getByRole('navigation', { name: 'Working order' });
    const address = page.getByLabel('E-mail address');
    await expect(inside.or(address)).toBeVisible();
    if (await address.isVisible()) {
        await address.fill(`${account}@ostermere.example`);
        await page.getByLabel('Password').fill('ostermere');
        await page.getByRole('button', { name: 'Sign in', exact: true }).click();
        await expect(inside).toBeVisible();
        sessions.set(account, await context.cookies());
    }
}

/** WCAG 2.2 AA as far as a machine can see it, and no sideways scrolling. */
export async function expectAccessible(page: Page): Promise<void> {
    // Colours that are still fading in would be measured half-way.
    await page.waitForTimeout(250);
    const { violations } = await new AxeBuilder({ page })
        .options({ resultTypes: ['violations'] })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
        // The pages have no frames, and sharing results between frames is most of the work otherwise.
        .setLegacyMode(true)
        .analyze();
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html).join(' | ')}`)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)).toBe(
        0,
    );
}

/** Fails a test on what the browser's console calls an error, such as a broken content security policy. */
export function expectQuietConsole(page: Page): void {
    page.on('pageerror', (error) => expect.soft(error.message).toBe(''));
    page.on('console', (message) => {
        if (message.type() === 'error' && !message.text().includes('Failed to load resource')) {
            expect.soft(message.text()).toBe('');
        }
    });
}
