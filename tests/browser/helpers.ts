import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Signs in the way a person does. */
export async function signIn(page: Page, account: string): Promise<void> {
    await page.goto('/');
    await page.getByLabel('E-mail address').fill(`${account}@ostermere.example`);
    await page.getByLabel('Password').fill('ostermere');
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await expect(page.getByRole('navigation', { name: 'Working order' })).toBeVisible();
}

/** WCAG 2.2 AA as far as a machine can see it, and no sideways scrolling. */
export async function expectAccessible(page: Page): Promise<void> {
    // Colours that are still fading in would be measured half-way.
    await page.waitForTimeout(250);
    const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
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
