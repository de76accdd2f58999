import { defineConfig } from '@playwright/test';

export default defineConfig({
    testDir: 'tests',
    testMatch: 'browser/*.spec.ts',
    outputDir: `var/playwright/${process.env['LANE'] ?? 'all'}`,
    // The tests share one database and follow the month in its order.
    workers: 1,
    fullyParallel: false,
    // The longest look at many screens with axe; on a busy machine each of them takes seconds.
    timeout: 240_000,
    expect: { timeout: 20_000 },
    use: {
        baseURL: process.env['BASE_URL'] ?? 'http://127.0.0.1:8080',
        viewport: { width: 1280, height: 800 },
        locale: 'en-GB',
        // Recording each step costs as much as the steps; a failure that needs it is run again with TRACE=1.
        trace: process.env['TRACE'] === undefined ? 'off' : 'retain-on-failure',
        screenshot: 'only-on-failure',
        launchOptions: {
            executablePath: '/usr/bin/chromium',
            args: [
                '--no-sandbox',
                '--disable-gpu',
                '--disable-quic',
                '--disable-background-networking',
                '--disable-component-update',
                '--disable-sync',
            ],
        },
    },
});
