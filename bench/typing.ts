import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';

const ROOT = join(import.meta.dirname, '..');
const PORT = 4777;
/** Lines that the sheet draws together (`BLOCK` in `LineBlock.tsx`). */
const BLOCK = 25;
const KEYS = '1234567890123456789012345678901234567890';

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly pid: number;
  readonly tid: number;
  readonly dur?: number;
  readonly args?: { readonly name?: string };
}

/** Main-thread tasks of the page while `work` runs, in milliseconds, longest first. */
async function tasksDuring(page: Page, work: () => Promise<void>): Promise<readonly number[]> {
  const session = await page.context().newCDPSession(page);
  const events: TraceEvent[] = [];
  session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as TraceEvent[])));
  const done = new Promise<void>((resolve) => session.once('Tracing.tracingComplete', () => resolve()));
  await session.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['toplevel'] },
  });
  await work();
  await session.send('Tracing.end');
  await done;
  const mains = new Set(
    events
      .filter((event) => event.name === 'thread_name' && event.args?.name === 'CrRendererMain')
      .map(({ pid, tid }) => `${pid}|${tid}`),
  );
  return events
    .filter(
      ({ name, pid, tid, dur }) =>
        name === 'ThreadControllerImpl::RunTask' && dur !== undefined && mains.has(`${pid}|${tid}`),
    )
    .map(({ dur = 0 }) => dur / 1000)
    .sort((a, b) => b - a);
}

async function writeLines(page: Page, count: number): Promise<void> {
  await page.getByRole('heading', { name: 'Sales', level: 1 }).waitFor();
  await page.getByRole('link', { name: 'Invoice', exact: true }).click();
  await page.getByRole('heading', { name: 'Invoice', exact: true }).waitFor();
  await page.getByRole('combobox', { name: 'Customer' }).fill('clew');
  await page.getByRole('listbox').getByRole('option').first().click();
  await page.getByRole('combobox', { name: 'Item or description, line 1', exact: true }).focus();
  await page.evaluate((lines) => {
    const data = new DataTransfer();
    const rows = Array.from({ length: lines }, (_, i) => `Sensor ${i}\t${1 + (i % 9)}\t${10 + i}.37`);
    data.setData('text/plain', rows.join('\n'));
    const paste = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
    document.activeElement?.dispatchEvent(paste);
  }, count);
  // The draft is kept and drawn: what comes now is typing alone.
  await page.getByText(/^kept \d\d:\d\d/).waitFor({ timeout: 60_000 });
}

/** Types into the price of a line in the middle; gives the longest and the middle of each key's longest task. */
async function typed(page: Page, line: number): Promise<{ readonly longest: number; readonly middle: number }> {
  const cell = page.getByLabel(`Price, line ${line}`, { exact: true });
  // Lines far from the window are drawn when they come near it.
  const undrawn = page.locator(`[data-undrawn-from="${line - 1 - ((line - 1) % BLOCK)}"]`);
  if ((await undrawn.count()) > 0) await undrawn.scrollIntoViewIfNeeded();
  await cell.waitFor();
  await cell.fill('');
  await cell.focus();
  const each: number[] = [];
  for (const key of KEYS) {
    const tasks = await tasksDuring(page, async () => {
      await page.keyboard.press(key);
      await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0))));
    });
    each.push(tasks[0] ?? 0);
  }
  each.sort((a, b) => a - b);
  return { longest: each.at(-1) ?? 0, middle: each[Math.floor(each.length / 2)] ?? 0 };
}

/** (f) Keys typed into a document of 500 lines, against the same in one of 5. Needs a build. */
export async function typingAgainstShort(): Promise<void> {
  if (!existsSync(join(ROOT, '.next', 'BUILD_ID'))) {
    console.log('(f) typing: build first (npm run build)');
    return;
  }
  const server = spawn(join(ROOT, 'node_modules/.bin/next'), ['start', '-p', String(PORT)], {
    cwd: ROOT,
    stdio: 'ignore',
  });
  const profile = mkdtempSync(join(tmpdir(), 'able-typing-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage'],
    viewport: { width: 1280, height: 800 },
  });
  try {
    const page = await context.newPage();
    const address = `http://localhost:${PORT}`;
    for (let i = 0; i < 40; i++) {
      const up = await fetch(address).then(
        (answer) => answer.ok,
        () => false,
      );
      if (up) break;
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
    await page.goto(`${address}/open/demo`);
    await page.waitForURL(/\/sales$/, { timeout: 60_000 });
    await writeLines(page, 5);
    const short = await typed(page, 3);
    await page.goto(`${address}/sales`);
    await page.getByRole('heading', { name: 'Sales', level: 1 }).waitFor();
    await writeLines(page, 500);
    const long = await typed(page, 250);
    const ratio = (long.middle / short.middle).toFixed(2);
    console.log(
      `(f) a key in a document of 500 lines: longest main-thread task ${long.longest.toFixed(1)} ms, usual ${long.middle.toFixed(1)} ms; of 5 lines: ${short.longest.toFixed(1)} ms, ${short.middle.toFixed(1)} ms; ratio ${ratio}`,
    );
  } finally {
    await context.close();
    server.kill();
    rmSync(profile, { recursive: true, force: true });
  }
}
