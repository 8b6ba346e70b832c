/** Plan: from a few answers to a wiring that is proved, drawn and printed. */
import { readFileSync } from 'node:fs';
import { expect, expectAccessible, message, openSample, sheet, startFromParts, test } from './careful.ts';
import type { Page } from '@playwright/test';

const EXAMPLE = new URL('../docs/examples/ten-faults.garden.json', import.meta.url).pathname;
const view = (page: Page, of: string, name: string) =>
  page.getByRole('navigation', { name: `Views of ${of}` }).getByRole('link', { name, exact: true });
const answer = (page: Page, question: string, text: string) =>
  page.getByRole('group', { name: question }).getByText(text, { exact: true }).click();

async function openTenFaults(page: Page): Promise<void> {
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles(EXAMPLE);
  await page.waitForURL(/bench\/readout/);
  await sheet(page, 'Wiring').click();
}

test('a newcomer answers questions, takes a choice of their own, and gets a wiring that holds', async ({
  page,
}) => {
  await startFromParts(page, { pump: true });
  await sheet(page, 'Parts').click();
  await expect(page.getByText('0 of 9 answered')).toBeVisible();
  await answer(page, 'What power is there?', 'USB');
  await answer(page, 'Does Wi-Fi reach?', 'well');
  await answer(page, 'Where does the water come from?', 'a tank');
  await answer(page, 'A number, or only a lamp?', 'a number to log');
  await answer(page, 'Where do the plants stand?', 'indoors');
  await expect(page.getByText('5 of 9 answered')).toBeVisible();
  const power = page.locator('details').filter({ has: page.locator('summary', { hasText: /^Power/ }) });
  await expect(power).toContainText('USB supply, 5 V, 2 A');

  const probe = page.locator('details').filter({ has: page.locator('summary', { hasText: /^Probe/ }) });
  await probe.locator('summary').click();
  await expect(probe).toContainText('What would change the order');
  await probe.getByRole('button', { name: 'Take resistive fork' }).click();
  await page.getByLabel(/Why resistive fork/).fill('two lie in the drawer');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(probe.locator('summary')).toContainText('“two lie in the drawer”');
  await expect(probe.locator('summary')).toContainText('capacitive stick leads');

  // The garden says stick, the plan says fork: which holds is asked, not guessed.
  await page.getByRole('button', { name: 'Lay out and wire these' }).click();
  const ask = page.getByRole('dialog', { name: 'Lay out and wire' });
  await expect(ask.getByText('Probe B1: which holds?')).toBeVisible();
  await ask.getByText('The plan: resistive fork').click();
  await ask.getByRole('button', { name: 'Lay out and wire' }).click();
  await page.waitForURL(/plan\/wiring/);
  await expect(page.getByRole('heading', { level: 1 })).not.toContainText('fault');
  await expect(page.getByText(/\d+ checks passed, \d+ not needed/)).toBeVisible();
  await view(page, 'Wiring', 'Table').click();
  await expect(page.getByRole('heading', { name: /^Pins of/ })).toBeVisible();
  // The page says where the probe of the garden is read now.
  await sheet(page, 'Readout').click();
  await expect(page.getByText(/My board, (P|IN)\d+/)).toBeVisible();
});

test('a garden of names alone is filled from the plan: board, probes, pins, each cable by its plot; laid out again it says what would go', async ({
  page,
}) => {
  await page.goto('/new');
  await page.getByRole('button', { name: 'Make the garden' }).click();
  await expect(page.getByText('Give the plot a name, such as Chilli crate.')).toBeVisible();
  await page.getByLabel('Plot', { exact: true }).fill('Pot');
  await page.getByLabel('What it is').selectOption('pot');
  await page.getByLabel('How many alike').fill('3');
  await page.getByRole('button', { name: 'Make the garden' }).click();
  await page.waitForURL(/plan\/parts/);
  await sheet(page, 'Readout').click();
  await expect(page.getByText('Nothing can be read here before a probe stands in Pot.')).toBeVisible();
  await page.getByRole('link', { name: 'Choose them with Plan' }).click();
  await answer(page, 'What power is there?', 'USB');
  await answer(page, 'Does Wi-Fi reach?', 'well');
  await answer(page, 'A number, or only a lamp?', 'a number to log');
  await answer(page, 'Where does the water come from?', 'an irrigation timer that is there');
  await page.getByLabel('Zones that our board permits').fill('2');
  await page.getByLabel('Zones that our board permits').press('Enter');
  await page.getByLabel('Longest cable, one way, in metres').fill('3');
  await page.getByLabel('Longest cable, one way, in metres').press('Enter');
  await page.getByLabel('Cable to Pot 2 in metres').fill('1.5');
  await page.getByLabel('Cable to Pot 2 in metres').press('Enter');
  await page.getByLabel('Add what you have').selectOption('board-wifi-two-groups');
  const board = page.locator('details').filter({ has: page.locator('summary', { hasText: /^Board/ }) });
  await expect(board.locator('summary')).toContainText('It lies in your drawer.');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Lay out and wire these' }).click();
  await page.waitForURL(/plan\/wiring/);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Before you connect it: 1 caution');
  await expect(page.getByText(/backflow preventer/).first()).toBeVisible();
  await expect(page.getByText('10 parts, 23 wires, 5 cables.')).toBeVisible();
  await view(page, 'Wiring', 'Cables').click();
  await expect(page.getByLabel('Length of cable P2, m')).toHaveValue('1.5');
  await expect(page.getByLabel('Length of cable P3, m')).toHaveValue('3');
  await sheet(page, 'Readout').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Pot, probe P1');
  // Nothing to buy of what lies in the drawer.
  await sheet(page, 'Parts').click();
  await view(page, 'Parts', 'List').click();
  const row = page.getByRole('row').filter({ hasText: '3.3 V Wi-Fi board, 12-bit, two converter groups' });
  await expect(row.getByRole('cell').nth(4)).toHaveText('0');
  await view(page, 'Parts', 'Questions').click();
  await answer(page, 'Where does the water come from?', 'I water by hand');
  await page.getByRole('button', { name: 'Lay out and wire again' }).click();
  const ask = page.getByRole('dialog', { name: 'Lay out and wire' });
  await expect(ask.getByText(/^Would go: Timer, Zone 1 valve/)).toBeVisible();
  await ask.getByRole('button', { name: 'Leave it as it is' }).click();
  await expect(ask).toBeHidden();
});

test('the example with ten faults: all ten are found, light their wires, and its remedies mend it', async ({
  page,
}) => {
  await openTenFaults(page);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Before you connect it: 10 faults to mend',
  );
  const findings = page.getByRole('region', { name: 'Findings' });
  for (const says of [
    /Battery feeds 5 V regulator and Pump without a fuse/,
    /Shed board and Tank eye are joined by a signal but have no ground in common/,
    /Bus transceiver data out can put 5\.0 V on Shed board P17, which bears 3\.60 V/,
    /Shed board P35 is shared by A2 signal and A3 signal/,
    /Shed board P25 reads nothing while the radio is on/,
    /Lamp has no series resistor: 74 mA would flow/,
    /Pump has no flyback diode/,
    /Pump switch wants 10\.0 V at its gate; Shed board P19 gives 3\.30 V/,
    /Display 1 and Display 2 share address 0x3c/,
    /A and B are mixed/,
  ])
    await expect(findings.getByRole('button', { name: says })).toBeVisible();

  await expect(page.locator('path.wire').first()).toBeAttached();
  await findings.getByRole('button', { name: /share address 0x3c/ }).click();
  await expect(page.locator('path.wire-on')).toHaveCount(2);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Give Display 2 address 0x3d' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Before you connect it: 9 faults to mend');
  await message(page, /0x3d: done/)
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Before you connect it: 10 faults to mend',
  );

  for (let left = 10; left > 0; left -= 1) {
    await findings
      .getByRole('button', { expanded: false, name: /^(danger|fault)/ })
      .first()
      .click();
    await findings
      .getByRole('listitem')
      .filter({ has: page.getByRole('button', { expanded: true }) })
      .getByRole('button')
      .nth(1)
      .click();
    const title =
      left > 1 ? `${left - 1} ${left === 2 ? 'fault' : 'faults'} to mend` : /checks passed|caution/;
    await expect(page.getByRole('heading', { level: 1 })).toContainText(title);
  }
});

test('a wire is drawn from terminal to terminal, rerouted and removed; the table does the same by keyboard', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Wiring').click();
  await expect(page.getByText('28 parts, 63 wires, 11 cables.')).toBeVisible();
  await page.getByLabel('free pins too').check();
  const terminal = (part: string, name: string) =>
    page.locator('.react-flow__handle').and(page.getByTitle(`${part} ${name}`, { exact: true }));
  await expect(terminal('Stern board', 'P4')).toBeVisible();
  await page.getByRole('button', { name: 'Fill the screen' }).click();
  await page.waitForTimeout(500);
  // Opened at a size that is read; both parts are wanted in sight.
  await expect(page.getByRole('img', { name: 'Map of the whole wiring' })).toBeVisible();
  await page.getByRole('button', { name: 'Fit View' }).click();
  await page.waitForTimeout(500);
  await terminal('Stern board', 'P4').dragTo(terminal('Pump switch', 'gate'));
  await page.keyboard.press('Escape');
  await expect(page.getByText('28 parts, 64 wires, 11 cables.')).toBeVisible();

  await view(page, 'Wiring', 'Table').click();
  const drawn = page.getByRole('button', { name: 'Change the wire from Stern board P4 to Pump switch gate' });
  await drawn.focus();
  await page.keyboard.press('Enter');
  await page
    .getByLabel('From, wire Stern board P4 to Pump switch gate')
    .selectOption({ label: 'Stern board P5' });
  await page
    .getByRole('button', { name: 'Remove the wire from Stern board P5 to Pump switch gate' })
    .press('Enter');
  await expect(page.getByText('28 parts, 63 wires, 11 cables.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('28 parts, 64 wires, 11 cables.')).toBeVisible();
});

test('one part at a time: every wire of it to the part at its other end, on the phone as well; a press goes on to that part, a wire is chosen', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Wiring').click();
  await page.getByText('one at a time', { exact: true }).click();
  const wire = page.getByRole('button', { name: 'Wire 37: Roof board P34 to L1 signal, cable L1, yellow' });
  await expect(wire).toBeVisible();
  // All that end at the board, under the numbers of the table.
  await expect(page.getByRole('button', { name: /^Wire \d+: Roof board / })).toHaveCount(26);
  await expectAccessible(page);
  await wire.click();
  await expect(page.getByRole('button', { name: /^Remove/ })).toBeVisible();
  await page.getByRole('button', { name: 'Look at L1' }).click();
  await expect(page.getByLabel('Part in the middle')).toHaveValue(/.+/);
  await expect(page.getByRole('button', { name: /^Wire \d+: L1 / })).toHaveCount(3);
  await page.getByRole('button', { name: 'Next part' }).click();
  await expect(page.getByRole('button', { name: /^Wire \d+: L1 / })).toHaveCount(0);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByLabel('Part in the middle').selectOption({ label: 'Roof board' });
  await expect(wire).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await expectAccessible(page);
});

test('a wire pressed in the table, in the picture or on paper is lit in all three; nothing of the light is printed or saved', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Wiring').click();
  await view(page, 'Wiring', 'Table').click();
  const light = page.getByRole('button', { name: 'Light wire 37, here, in the picture and on paper' });
  await light.click();
  await expect(light).toHaveAttribute('aria-pressed', 'true');
  await view(page, 'Wiring', 'Picture').click();
  await expect(page.locator('path.wire-on')).toHaveCount(1);
  await expect(page.getByRole('heading', { name: /P34 – .*signal|signal – .*P34/ })).toBeVisible();
  await view(page, 'Wiring', 'Paper').click();
  // In its drawing and in the list.
  const lights = page.locator('svg.sheet-page rect.no-print');
  await expect(lights).toHaveCount(2);
  await page.emulateMedia({ media: 'print' });
  await expect(lights.first()).toBeHidden();
  await page.emulateMedia({ media: 'screen' });
  const files: string[] = [];
  page.on('download', (file) => void file.path().then((path) => files.push(readFileSync(path, 'utf8'))));
  await page.getByRole('button', { name: 'Save as SVG' }).click();
  await expect.poll(() => files.length).toBeGreaterThan(2);
  for (const file of files) expect(file).not.toContain('no-print');
  // Another one, pressed on paper, then seen in the table.
  await page.locator('svg.sheet-page').first().getByText('38 blue').click();
  await view(page, 'Wiring', 'Table').click();
  await expect(light).toHaveAttribute('aria-pressed', 'false');
  await expect(page.getByRole('button', { name: /^Light wire 38,/ })).toHaveAttribute('aria-pressed', 'true');
});

test('one part at a time follows the finding that is looked at, and lets one go on from there', async ({
  page,
}) => {
  await openTenFaults(page);
  await page.getByText('one at a time', { exact: true }).click();
  const middle = page.getByLabel('Part in the middle');
  const findings = page.getByRole('region', { name: 'Findings' });
  await findings.getByRole('button', { name: /Lamp has no series resistor/ }).click();
  await expect(middle.locator('option:checked')).toHaveText('Lamp');
  await findings.getByRole('button', { name: /share address 0x3c/ }).click();
  await expect(middle.locator('option:checked')).toHaveText(/^Display [12]$/);
  await page.getByRole('button', { name: 'Next part' }).click();
  await expect(middle.locator('option:checked')).not.toHaveText('Display 1');
});

test('the wire of a step of building is lit in the table and in the picture', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Wiring').click();
  await view(page, 'Wiring', 'Build').click();
  await page.getByRole('button', { name: 'Done, next' }).click();
  const number = await page.getByText(/^Ground, wire \d+$/).textContent();
  await view(page, 'Wiring', 'Table').click();
  await expect(
    page.getByRole('button', { name: `Light wire ${number?.replace('Ground, wire ', '') ?? ''}, here` }),
  ).toHaveAttribute('aria-pressed', 'true');
  await view(page, 'Wiring', 'Picture').click();
  await expect(page.locator('path.wire-on')).toHaveCount(1);
});

test('a board with too few inputs: the planner says who is in the way and adds the converter that helps', async ({
  page,
}) => {
  await startFromParts(page);
  await sheet(page, 'Wiring').click();
  const add = async (part: string, label: string) => {
    await page.getByRole('button', { name: 'Add a part' }).click();
    await page.getByLabel('Part', { exact: true }).selectOption({ label: part });
    await page.getByRole('dialog').getByLabel('Label', { exact: true }).fill(label);
    await page.getByRole('button', { name: 'Add it' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
  };
  await add('3.3 V Wi-Fi board, one 0–1 V input', 'Sill board');
  await add('USB supply, 5 V, 2 A', 'Plug');
  await add('capacitive stick', 'A1');
  await add('capacitive stick', 'A2');
  await page.getByRole('button', { name: 'Wire what is open' }).click();
  // Nothing is drawn that leaves a probe unread; the part that helps is offered.
  const preview = page.getByRole('dialog', { name: 'What would be drawn' });
  await expect(preview.getByText(/2 signals want an analog input \(A1 and A2\)/)).toBeVisible();
  await expect(preview.getByRole('button', { name: 'Draw all of it' })).toBeDisabled();
  await expectAccessible(page);
  await preview.getByRole('button', { name: 'Leave it' }).click();
  await expect(
    page.getByText('A1 and A2 want 2 analog inputs; Sill board has only 1 left (Sill board IN0).'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Add an I2C converter with four inputs' }).first().click();
  await expect(page.getByText('A1 and A2 want 2 analog inputs')).toBeHidden();
  await expect(page.getByRole('heading', { level: 1 })).not.toContainText('fault');
});

test('the solved circuit answers: the way of a current, what to measure, and what happens when one wire comes off', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Wiring').click();
  // The picture may move under the pointer while the sheet is still being laid out; a hand would press again.
  await expect(async () => {
    await page.locator('.react-flow__node').filter({ hasText: 'Roof pump' }).first().click();
    await expect(page.getByText('Battery → F1 → Roof pump → Pump switch → Battery')).toBeVisible({
      timeout: 8000,
    });
  }).toPass({ timeout: 180_000 });
  await expect(page.locator('path.wire-on')).toHaveCount(4);
  await page.getByRole('button', { name: /^Current of Roof pump: / }).click();
  await expect(page.getByRole('complementary', { name: 'Working' })).toContainText('Nodal equations');

  await view(page, 'Wiring', 'Table').click();
  const meter = page.getByRole('group', { name: 'With the multimeter' });
  await expect(
    meter.getByRole('row', { name: /power on, boards out Battery \+ Battery − 11\.\d to 14\.\d V/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Work it out', exact: true }).click();
  await expect(
    page.getByText(/^Of 63 wires \d+ are a danger when they come off, \d+ go unnoticed\.$/),
  ).toBeVisible();
  await expect(
    page.getByRole('row', {
      name: /R3 other end – Pump switch source danger .*floats while the board starts/,
    }),
  ).toBeVisible();
  await expectAccessible(page);

  // A part is taken out; what would be drawn again is shown first, and one line of it is refused.
  await page.getByRole('button', { name: 'Remove the wire from Roof board P34 to L1 signal' }).click();
  await page.getByRole('button', { name: 'Remove the wire from Roof board P35 to C2 signal' }).click();
  await expect(page.getByText('The wiring has changed since; work it out again.')).toBeVisible();
  await page.getByRole('button', { name: 'Wire what is open' }).click();
  const preview = page.getByRole('dialog', { name: 'What would be drawn' });
  await expect(preview.getByText(/After this the sheet would say: “All of \d+ checks passed”/)).toBeVisible();
  await preview.getByRole('checkbox', { name: /C2 signal/ }).uncheck();
  await preview.getByRole('button', { name: 'Draw 1 line' }).click();
  await expect(page.getByText('28 parts, 62 wires, 11 cables.')).toBeVisible();
});

test('prices, spares and lives make a cost per year; the list sorts and leaves as CSV', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Parts').click();
  await view(page, 'Parts', 'List').click();
  await page.getByLabel('Unit price of resistor, 180 Ω').fill('0,10');
  await page.getByLabel('Unit price of resistor, 180 Ω').press('Enter');
  await expect(page.getByText('4 lines without a price')).toBeVisible();
  await page.getByLabel('Spares of diaphragm pump, 12 V').fill('x');
  await page.getByLabel('Spares of diaphragm pump, 12 V').press('Enter');
  await expect(page.getByLabel('Spares of diaphragm pump, 12 V')).toHaveAttribute('aria-invalid', 'true');
  await page.getByLabel('Spares of diaphragm pump, 12 V').press('Escape');
  await page
    .getByRole('columnheader', { name: /^A year/ })
    .getByRole('button')
    .click();
  await expect(page.getByRole('columnheader', { name: /^A year/ })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
  await expect(page.getByRole('row').nth(1)).toContainText('12 V lead-acid battery');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export as CSV' }).click(),
  ]);
  const csv = readFileSync(await file.path(), 'utf8');
  expect(csv.split('\r\n')[0]).toContain('cost per year (£)');
  expect(csv).toContain('"resistor, 180 Ω",R5,1,pieces,0,0,1,0.1,10,0.1,0.01');
});

test('the supply budget follows its habits and what the programs do of them, and a sum shows its working', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Parts').click();
  await view(page, 'Parts', 'Power').click();
  const days = page.getByRole('button', { name: /^Battery life: / }).first();
  const before = await days.textContent();
  await page.getByLabel('The boards sleep between readings').check();
  // Both boards hold something that would be dark meanwhile: nothing is promised for a sleep that there is not.
  const programs = page.getByRole('list', { name: 'What the programs do' });
  await expect(programs).toContainText(/Roof board \(Dry lamp\) is to sleep .* It is counted awake here/);
  await expect(days).toHaveText(before ?? '');
  const runs = page.getByRole('textbox', { name: 'Pump or valve runs' });
  await runs.fill('9000');
  await runs.press('Enter');
  await expect(days).not.toHaveText(before ?? '');
  await expect(page.getByRole('button', { name: /^Solar panel: / })).toBeVisible();
  await sheet(page, 'Wiring').click();
  await view(page, 'Wiring', 'Sums').click();
  await page.getByLabel('Wanted current').fill('10');
  await page.getByLabel('Wanted current').press('Enter');
  // (3.3 − 2.0) / 10 mA = 130 Ω, next E12 value 150 Ω; E24 has 130 Ω
  const answerOf = page.getByRole('button', { name: /^LED resistor: / });
  await expect(answerOf).toHaveText('150 Ω');
  await page.getByText('E24', { exact: true }).click();
  await expect(answerOf).toHaveText('130 Ω');
  await expect(page.getByRole('complementary', { name: 'Working' })).toContainText('IEC 60063');
});

test('an own catalogue entry is made by form, exported, and taken in again elsewhere', async ({ page }) => {
  await openSample(page);
  await sheet(page, 'Parts').click();
  await view(page, 'Parts', 'Catalogue').click();
  await page.getByRole('button', { name: 'New probe' }).click();
  await page.getByLabel('Name, by its traits').fill('long fork, gilded');
  await page.getByLabel('life under constant power').fill('1.5');
  await page.getByLabel('signal: behind it').fill('2200');
  await page.getByLabel('signal: behind it').press('Enter');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep entry' }).click();
  await expect(page.getByRole('cell', { name: /^long fork, gilded/ })).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export all' }).click(),
  ]);
  const saved = await file.path();
  expect(JSON.parse(readFileSync(saved, 'utf8'))).toMatchObject({
    format: 'plain-trowel-catalogue',
    version: 1,
  });
  await page.getByRole('button', { name: 'Remove your long fork, gilded' }).click();
  await expect(page.getByRole('cell', { name: /^long fork, gilded/ })).toBeHidden();
  await page.getByLabel('Catalogue file').setInputFiles({
    name: 'broken.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":1}'),
  });
  await expect(
    message(page, /broken\.json is JSON, but not a catalogue\. Nothing was taken in/),
  ).toBeVisible();
  await page.getByLabel('Catalogue file').setInputFiles(saved);
  await expect(page.getByRole('cell', { name: /^long fork, gilded/ })).toBeVisible();
});

test('the sheets come out as print, SVG and PNG, with what was written for the placement', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Wiring').click();
  await view(page, 'Wiring', 'Paper').click();
  await expect(page.getByRole('img', { name: /^Wiring sheet, page 1 of \d+$/ })).toBeVisible();
  await page.getByText('placement sheet', { exact: true }).click();
  await page.getByLabel('Where in the pot, C2').fill('by the third chilli');
  await page.getByLabel('Where in the pot, C2').blur();
  await expect(page.getByRole('img', { name: /^Placement sheet, page 1/ })).toContainText(
    'by the third chilli',
  );
  await page.getByText('cable labels', { exact: true }).click();
  await expect(page.getByRole('img', { name: /^Cable labels, page 1/ })).toContainText(
    'here: Roof board: ground, 3.3 V out, P34',
  );
  // There are two pages of labels, each a file of its own: the first of either kind is looked at.
  const saved = (ending: string) =>
    page.waitForEvent('download', (file) => file.suggestedFilename().endsWith(ending));
  const [svg] = await Promise.all([saved('.svg'), page.getByRole('button', { name: 'Save as SVG' }).click()]);
  expect(readFileSync(await svg.path(), 'utf8')).toMatch(
    /^<svg[^>]*viewBox="0 0 210 297"[\s\S]*@font-face[\s\S]*Cable labels/,
  );
  const [png] = await Promise.all([saved('.png'), page.getByRole('button', { name: 'Save as PNG' }).click()]);
  const bytes = readFileSync(await png.path());
  // A4 at 8 dots to the millimetre
  expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)]).toEqual([1680, 2376]);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeHidden();
  expect(
    await page
      .pdf({ preferCSSPageSize: true })
      .then((pdf) => pdf.toString('latin1').match(/\/Type \/Page\b/g)?.length),
  ).toBe(2);
});

test('a part’s own figures, board, kind and sum are changed beside the picture, and each change can be undone', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Wiring').click();
  await view(page, 'Wiring', 'Table').click();
  await page.getByRole('button', { name: 'R4', exact: true }).click();
  await page.getByText('Figures of this part').click();
  await page.getByLabel('R4: resistance').fill('');
  await page.getByLabel('R4: resistance').press('Enter');
  await page.getByRole('button', { name: 'Pump switch', exact: true }).click();
  await page.getByLabel('It is').selectOption({ label: 'MOSFET, needs 10 V at its gate' });
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 fault to mend');
  await expect(page.getByRole('button', { name: /Pump switch wants 10\.0 V at its gate/ })).toBeVisible();
  await message(page, /Pump switch replaced/)
    .getByRole('button', { name: 'Undo' })
    .click();
  // R4 has no value any more, so two checks cannot tell; one more step back and it has.
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^\d+ checks passed, \d+ cannot tell/);
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^All of \d+ checks passed$/);

  await page.getByRole('button', { name: 'T1', exact: true }).click();
  await page.getByRole('button', { name: 'Thermistor divider …' }).click();
  await page.getByLabel('Coldest').fill('20');
  await page.getByLabel('Coldest').press('Enter');
  const answerOf = page.getByRole('button', { name: /^Thermistor divider: / });
  await expect(answerOf).toBeVisible();
  await page.getByRole('button', { name: 'Use it here' }).click();
  // Between 20 and 45 °C the thermistor has 12.5 to 4.3 kΩ; the resistor that suits it is smaller than 10 kΩ.
  await expect(page.getByLabel('T1: resistance')).not.toHaveValue('10000.0');

  await view(page, 'Wiring', 'Cables').click();
  await page.getByLabel('Length of cable Roof pump, m').fill('60');
  await page.getByLabel('Length of cable Roof pump, m').press('Enter');
  await view(page, 'Wiring', 'Picture').click();
  await page.getByRole('button', { name: /Cable Roof pump \(60\.0 m, 1\.00 mm²\) loses 1\.95 V/ }).click();
  await expect(page.getByRole('complementary', { name: 'Working' })).toContainText(
    '2 × 60.0 × 929 ÷ 1000 × 0.0175 ÷ 1.00',
  );
  await page.getByRole('button', { name: 'Take 4 mm²' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^All of \d+ checks passed$/);
});

test('the wiring is built along step by step: in the order of the bench, by keys, its ticks kept over a reload', async ({
  page,
}) => {
  await openSample(page);
  await page.goto('/g/marigold-hare/plan/wiring?view=build');
  const card = page.getByRole('region', { name: /^Step \d+ of \d+$/ });
  await expect(card).toContainText('Everything off');
  const next = page.getByRole('button', { name: 'Done, next' });
  await next.press('Enter');
  await expect(card).toContainText(/Ground, wire \d+/);
  await expectAccessible(page);
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/^2 of \d+ steps done\.$/)).toBeVisible();
  await expect(page.getByRole('region', { name: /^Step 4 of/ })).toBeVisible();
  // What was ticked is there after a break, and the first open step is shown.
  await page.reload();
  await expect(page.getByRole('region', { name: /^Step 3 of/ })).toContainText(/Ground, wire \d+/);
  const list = page.getByRole('region', { name: 'All steps' });
  const boxes = list.getByRole('checkbox');
  const kinds = await list.getByRole('listitem').allTextContents();
  const of = (text: string) =>
    text.startsWith('Measure') ? 'measure' : (/, (ground|supply|signal)/.exec(text)?.[1] ?? 'off');
  const order = kinds.map(of).filter((kind, at, all) => kind !== all[at - 1]);
  expect(order).toEqual(['off', 'ground', 'supply', 'signal', 'measure']);
  // Measured is what the table of the meter says.
  await list
    .getByRole('button', { name: /^Measure, without power/ })
    .first()
    .click();
  await expect(card).toContainText('It should show: no beep: a beep is a short');
  await list.getByRole('button', { name: 'Take all ticks away' }).click();
  await expect(boxes.first()).not.toBeChecked();
});
