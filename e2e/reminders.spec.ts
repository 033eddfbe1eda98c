import { expect, test } from '@playwright/test';
import { bytesOf, expectAccessible, more, openSample, pdfText } from './support';

test('customers are reminded, one letter each; what is promised or disputed is left out and comes back', async ({
  page,
}) => {
  await openSample(page);
  const margin = page.getByRole('complementary', { name: 'Margin' });
  const main = page.getByRole('main');
  await test.step('a fee and interest, by law', async () => {
    await page.goto('/setup/reminders');
    await page.getByLabel('Days after the due date, reminder 2').fill('5');
    await page.getByRole('button', { name: 'Save the reminders' }).click();
    await expect(page.getByText(/comes more days after the due date/)).toBeVisible();
    await page.getByLabel('Days after the due date, reminder 2').fill('21');
    await page.getByLabel('Fee, EUR, reminder 1').fill('40');
    await page.getByLabel('Interest, percent a year').fill('10.15');
    await page.getByLabel('By which law or contract').fill('late payment regulations');
    await page.getByRole('button', { name: 'Save the reminders' }).click();
    await expect(page.getByText('The reminders are saved')).toBeVisible();
  });
  await test.step('a promise and a dispute', async () => {
    for (const [number, action, day] of [
      ['INV-2026-0010', 'Payment promised…', '30 nov 2026'],
      ['INV-2026-0011', 'Disputed…', '15 dec 2026'],
    ] as const) {
      await page.goto('/sales');
      await page.getByRole('table', { name: 'Documents' }).getByRole('link', { name: number }).click();
      await more(page, action);
      const slip = page.getByRole('dialog');
      await slip.getByRole('textbox').first().fill('told us by telephone');
      await slip.getByRole('textbox').nth(1).fill(day);
      await slip.getByRole('button', { name: 'Hold reminders' }).click();
      await expect(page.getByText(`${number} is left out of reminders`)).toBeVisible();
    }
  });
  const due = page.getByRole('table', { name: 'Reminders due' });
  await test.step('the letters are looked at', async () => {
    await page.goto('/today');
    await page.getByRole('link', { name: /^Remind \d customers$/ }).click();
    // 2,570.00 at 10.15 % for 95 days of 365: 67.89.
    await expect(due.getByRole('row', { name: /Reederei Nordlicht/ })).toContainText(
      /First.*95 days.*2,570\.00.*40\.00.*67\.89/,
    );
    await expect(due.getByRole('row', { name: /Orcas/ })).toHaveCount(0);
    const out = page.getByRole('region', { name: 'Left out' });
    await expect(out).toContainText('Orcas Marina, disputed: told us by telephone, until 15 Dec 2026');
    await expect(out).toContainText(/INV-2026-0010.*payment promised: told us by telephone, until 30 Nov 2026/);
    await due.getByRole('button', { name: /Ballyvaughan/ }).click();
    await expect(margin.getByText(/by mail to office@ballyvaughan\.example/)).toBeVisible();
    await expect(margin.getByText(/INV-2026-0013, 29 Oct 2026: 595\.86 EUR/)).toBeVisible();
    await expectAccessible(page, 'reminders');
  });
  await test.step('one message is changed before it goes', async () => {
    await margin.getByRole('button', { name: 'Change the message…' }).click();
    const slip = page.getByRole('dialog');
    await slip.getByLabel('Subject').fill('As we said on the telephone');
    await expectAccessible(page, 'changing a reminder');
    await slip.getByRole('button', { name: 'Save the message' }).click();
    await expect(margin.getByText('As we said on the telephone')).toBeVisible();
    await due.getByRole('button', { name: /Reederei Nordlicht/ }).click();
    await margin.getByRole('button', { name: 'Change the message…' }).click();
    // It goes by post: there is nobody to mail it to.
    await expect(slip.getByLabel('To', { exact: true })).toHaveCount(0);
    await slip.getByLabel('Message', { exact: true }).fill('Bitte zahlen Sie wie besprochen.');
    await slip.getByRole('button', { name: 'Save the message' }).click();
  });
  await test.step('they go out together: by mail, and those without an address as one PDF', async () => {
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: /^Send \d reminders$/ }).click();
    const { text } = await pdfText(await bytesOf(await saved));
    expect(text).toContain('Zahlungserinnerung');
    expect(text).toContain('wie besprochen');
    await expect(main.getByText(/on their way by mail; those for the post are saved as one PDF\./)).toBeVisible();
    // Nobody is reminded twice.
    await expect(page.getByText(/^Nobody is to be reminded today/)).toBeVisible();
    await page.goto('/sales');
    await page.getByRole('table', { name: 'Documents' }).getByRole('link', { name: 'INV-2026-0013' }).click();
    const timeline = margin.getByRole('region', { name: 'Timeline' });
    await expect(timeline.getByText('reminded')).toBeVisible();
    await margin.getByRole('button', { name: 'See the message' }).first().click();
    await expect(page.getByRole('dialog')).toContainText('As we said on the telephone');
    await page.keyboard.press('Escape');
    await expect(timeline.getByText(/delivered: office@ballyvaughan\.example/)).toBeVisible();
  });
  await test.step('fee and interest wait as drafts; what was promised comes back after its day', async () => {
    await page.goto('/sales');
    await page
      .getByRole('link', { name: /Draft.*Ballyvaughan.*/ })
      .first()
      .click();
    await page.clock.setSystemTime(new Date('2026-12-01T09:00:00'));
    await page.goto('/receipts/reminders');
    await expect(
      page.getByRole('table', { name: 'Reminders due' }).getByRole('row', { name: /Inishmaan/ }),
    ).toBeVisible();
  });
});
