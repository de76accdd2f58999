import { expect, test } from '@playwright/test';
import { createHmac } from 'node:crypto';
import { expectAccessible, expectQuietConsole } from './helpers';

const UNITS = `Quayside
  Outpatients
  Day clinic
  Theatre
  Pharmacy
Northgate
  Reception
  Imaging
  Laboratory
  Ward
Services
  Cleaning
  Kitchen
  Transport
  Estates`;
const square = (west: number) => ({
    type: 'Polygon',
    coordinates: [
        [
            [west, 55],
            [west + 1, 55],
            [west + 1, 56],
            [west, 56],
            [west, 55],
        ],
    ],
});
const SHAPES = {
    type: 'FeatureCollection',
    features: [
        { type: 'Feature', properties: { name: 'Northgate' }, geometry: square(2) },
        { type: 'Feature', properties: { name: 'The water side' }, geometry: square(3) },
    ],
};
const PEOPLE = `Name;E-mail;Role;Unit
Tom Reed;tom@harbour.example;data owner;Quayside
Ana Voss;ana@harbour.example;department head;Northgate
Ben Ide;ben@harbour.example;executive
Ivy Lund;ivy@harbour.example;auditor`;
/** With what they are worked out from they are 23. */
const CHOSEN = [
    'Operating margin',
    'Current ratio',
    'Days until customers pay',
    'Share of offers won',
    'Share of customers lost',
    'Complaints',
    'Absence',
    'Frequency of injuries',
    'Service available',
];

/** RFC 6238, as a device works it out. */
function timeCode(secret: string): string {
    const bits = Array.from(secret.replace(/\s/g, ''))
        .map((letter) => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(letter).toString(2).padStart(5, '0'))
        .join('');
    const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => parseInt(byte, 2)));
    const step = Buffer.alloc(8);
    step.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30_000)));
    const hash = createHmac('sha1', key).update(step).digest();
    return String((hash.readUInt32BE((hash.at(-1) ?? 0) & 15) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}

const monthsBefore = (count: number): string => {
    const now = new Date();
    return new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - count, 1)).toISOString().slice(0, 7);
};

/* The first hour, from an empty start to a printed scorecard, by somebody who has never been here. */
test('an organisation is begun with its link and comes to its first closed month, without leaving the screens', async ({
    page,
    browser,
}) => {
    test.slow();
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
    await page.setViewportSize({ width: 390, height: 800 });
    await expectAccessible(page);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.getByLabel('Password').fill('seven slow herons at dusk');
    await page.keyboard.press('Enter');

    // Three departments with twelve units, taken back once, one of them moved and taken away.
    await expect(page.getByText('One of six steps is done')).toBeVisible();
    const list = page.getByLabel('The list of units');
    await list.focus();
    await page.keyboard.type('Quayside\n');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Outpatients');
    await expect(page.getByRole('row', { name: 'Outpatients OUTPAT team' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Make two units' }).press('Enter');
    await expect(page.getByText('2 units are made.')).toBeVisible();
    await page.getByRole('button', { name: 'Take back the last two' }).click();
    await expect(page.getByText('They are gone again.')).toBeVisible();
    await list.fill(`${UNITS}\n  Attic`);
    await page.getByRole('button', { name: 'Make 16 units' }).click();
    await expect(page.getByText('Two of six steps are done')).toBeVisible();

    const settings = page.getByRole('navigation', { name: 'Settings' });
    await page.getByRole('link', { name: 'Settings', exact: true }).click();
    await settings.getByRole('link', { name: 'Units' }).click();
    await page.getByRole('button', { name: 'Change Attic' }).press('Enter');
    await expectAccessible(page);
    await page.getByLabel('Name').fill('Store');
    await page.getByLabel('Belongs to').selectOption({ label: '\u2003Northgate' });
    await page.keyboard.press('Enter');
    await expect(page.getByText('Attic is called Store, and stands below Northgate.')).toBeVisible();
    await page.getByRole('button', { name: 'Take it back' }).click();
    page.once('dialog', (dialog) => void dialog.accept());
    await page.getByRole('button', { name: 'Change Attic' }).click();
    await page.getByRole('button', { name: 'Take away' }).click();
    await expect(page.getByRole('row')).toHaveCount(17);

    // Where a unit lies, out of a file, and its own page.
    await page.getByRole('button', { name: 'Shapes for a map' }).click();
    await page.locator('input[type=file]').setInputFiles({
        name: 'quays.geojson',
        mimeType: 'application/geo+json',
        buffer: Buffer.from(JSON.stringify(SHAPES)),
    });
    await expect(page.getByText('quays.geojson has 2 regions; one is left out.')).toBeVisible();
    await expectAccessible(page);
    await page.getByLabel('Unit of region 2').selectOption({ label: '\u2003Quayside' });
    await page.getByRole('button', { name: 'Take 2 shapes' }).press('Enter');
    await expect(page.getByText('2 units have their shapes.')).toBeVisible();
    await page.getByRole('link', { name: 'Northgate' }).click();
    await expect(page.getByRole('heading', { name: 'Northgate' })).toBeVisible();
    const map = page.getByRole('group', { name: 'Northgate among those beside it' });
    await expect(map).toBeVisible();
    await map.getByRole('link', { name: 'Quayside' }).press('Enter');
    await expect(page.getByRole('heading', { name: 'Quayside' })).toBeVisible();
    await page.goBack();
    await expect(page.getByRole('heading', { name: 'Northgate' })).toBeVisible();
    await expectAccessible(page);
    await page.goBack();

    // What is set for everybody.
    await settings.getByRole('link', { name: 'Organisation' }).click();
    await page.getByLabel('Due on day').fill('6');
    await page.getByLabel('The trail is kept').selectOption('10 years');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved; the trail has it.')).toBeVisible();
    await page.getByPlaceholder('smtp.example.org').fill('127.0.0.1');
    await page.getByRole('textbox', { name: /^Port/ }).fill('1');
    await page.getByLabel('Comes from').fill('kybernet@harbour.example');
    await page.getByRole('button', { name: 'Set the server' }).click();
    await page.getByRole('button', { name: 'Send me a trial' }).click();
    await expect(page.getByText(/^It did not go through/)).toBeVisible();
    await page.getByPlaceholder('smtp.example.org').fill('');
    await page.getByRole('button', { name: 'Set the server' }).click();
    await expect(page.getByText('Nobody is written to.')).toBeVisible();
    await expectAccessible(page);

    // Four people from a list; one comes in and proves that they hold their device.
    await settings.getByRole('link', { name: 'People' }).click();
    await page.getByRole('button', { name: 'Many at once' }).click();
    await page.getByLabel('The list of people').fill(PEOPLE);
    await expect(page.getByRole('row', { name: /Tom Reed.*data owner, Quayside is invited/ })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Invite four' }).click();
    const invitation = await page.getByLabel('The link for tom@harbour.example').inputValue();
    await page.getByRole('button', { name: 'Change Ben Ide' }).click();
    await page.getByRole('button', { name: 'Another role besides' }).click();
    await page.getByLabel('Role 2', { exact: true }).selectOption('data owner');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('row', { name: /^Ben Ide ben@/ })).toContainText('data owner');
    await expectAccessible(page);

    const guest = await (await browser.newContext()).newPage();
    expectQuietConsole(guest);
    await guest.goto(invitation);
    await expect(guest.getByRole('heading', { name: 'Welcome, Tom Reed' })).toBeVisible();
    await expectAccessible(guest);
    await guest.getByLabel('Password').fill('nine reeds under water');
    await guest.keyboard.press('Enter');
    const order = guest.getByRole('navigation', { name: 'Working order' });
    await expect(order).toBeVisible();
    await expect(order.getByText('Settings')).toHaveCount(0);
    await guest.goto('/account');
    await guest.getByRole('button', { name: 'Set it up' }).click();
    const secret = (await guest.getByText(/^[A-Z2-7]{4}( [A-Z2-7]{4})+$/).textContent()) ?? '';
    await guest.getByLabel('The code that it shows').fill(timeCode(secret));
    await guest.keyboard.press('Enter');
    const recovery = guest.getByRole('listitem').filter({ hasText: /^[a-z2-7]{4}-/ });
    await expect(recovery).toHaveCount(10);
    await expectAccessible(guest);
    const code = (await recovery.first().textContent()) ?? '';
    await guest.getByRole('button', { name: 'I have put them away' }).click();
    await guest.getByRole('button', { name: 'Tom Reed' }).click();
    await guest.getByRole('button', { name: 'Sign out' }).click();
    await guest.getByLabel('E-mail address').fill('tom@harbour.example');
    await guest.getByLabel('Password').fill('nine reeds under water');
    await guest.keyboard.press('Enter');
    await guest.getByLabel('The code of your device').fill(code);
    await expectAccessible(guest);
    await guest.keyboard.press('Enter');
    await expect(order).toBeVisible();
    await guest.context().close();

    // Twenty-three KPIs and one of one's own.
    await page.goto('/first-month');
    await page.getByRole('button', { name: /KPIs/ }).click();
    await page.getByRole('link', { name: 'Choose common measures' }).click();
    await page.getByLabel('Find a measure').fill('margin');
    await expect(page.getByRole('checkbox')).toHaveCount(2);
    await page.getByLabel('Find a measure').fill('');
    for (const name of CHOSEN) {
        await page.getByRole('checkbox', { name: new RegExp(`^${name} [A-Z]`) }).check();
    }
    await expectAccessible(page);
    await page.getByRole('button', { name: /^Take \w+ into the register$/ }).click();
    await expect(page.getByText(/drafts are in the/)).toBeVisible();
    await page.goto('/register/new');
    await page.getByLabel('Name').fill('Patients seen');
    await page.getByLabel('Code').fill('SEEN');
    await page.getByRole('tab', { name: 'What good looks like' }).click();
    await page.getByRole('button', { name: 'Define it' }).click();
    await expect(page).toHaveURL(/register\/kpi\/SEEN/);
    await page.goto('/register');
    await expect(page.getByText('24 KPIs', { exact: false }).first()).toBeVisible();

    // Two years from a sheet.
    await page.goto('/logbook/import?unit=HC');
    const rows = Array.from({ length: 24 }, (_, at) =>
        [
            `REVENUE;${monthsBefore(at + 2)};${400_000 + at * 1000}`,
            `COSTSALES;${monthsBefore(at + 2)};${210_000 - at * 500}`,
            `OPERCOST;${monthsBefore(at + 2)};150000`,
            `SEEN;${monthsBefore(at + 2)};${1100 + at}`,
        ].join('\n'),
    );
    await page.setInputFiles('input[type=file]', {
        name: 'history.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from(`KPI;Month;Actual\n${rows.join('\n')}\n`),
    });
    await page.getByRole('button', { name: 'Show what changes' }).click();
    await page.getByRole('button', { name: 'Apply 96' }).click();
    await expect(page.getByText('history.csv is applied: 96 cells changed.')).toBeVisible();

    // The month before the running one: it is over, and can be closed.
    const month = monthsBefore(1);
    await page.goto(`/logbook?unit=HC&period=${month}`);
    await page.getByLabel('Patients seen', { exact: true }).fill('1204');
    await page.keyboard.press('Tab');
    await expect(page.getByText(/^Saved \d/)).toBeVisible();
    await page.goto(`/periods?unit=HC&period=${month}`);
    await page.getByRole('button', { name: /^Close/ }).click();
    await expect(page.getByRole('heading', { name: /, closed$/ })).toBeVisible();

    await page.goto('/first-month');
    await expect(page.getByText('Six of six steps are done')).toBeVisible();
    await page.goto(`/scorecard?unit=HC&period=${month}`);
    await expect(page.getByRole('row', { name: /Patients seen/ })).toContainText('1,204');
    expect((await page.pdf({ preferCSSPageSize: true })).subarray(0, 5).toString()).toBe('%PDF-');

    // A program may come; the trail has all of it.
    await page.goto('/programs');
    await page.getByRole('button', { name: 'Make a token' }).click();
    await page.getByLabel('What the program is called').fill('Ledger');
    await page.getByRole('button', { name: 'Make the token' }).click();
    await expect(page.getByLabel('The token')).toHaveValue(/^kyb_/);
    await expectAccessible(page);
    await page.goto('/changes?subject=settings');
    await expect(page.getByText('added the program: person Ledger')).toBeVisible();
    await page.goto('/first-month');
    await page.getByRole('button', { name: 'Put this away' }).click();
    await expect(page.getByRole('navigation', { name: 'Working order' }).getByText('First month')).toHaveCount(0);

    // The link has done its work.
    await page.goto('about:blank');
    await page.goto(link);
    await expect(page.getByRole('heading', { name: 'This link does not work' })).toBeVisible();
});
