import 'fake-indexeddb/auto';
import type { Moment } from '@/core/book/changes';
import { currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Refusal } from '@/core/kernel/result';
import { BookDb } from '@/store/schema';
import { asError } from '../calc';
import { readJson } from '../readJson';
import { beginScenario } from './begin';
import { reportOf } from './report';
import { readScenario, type Scenario } from './scenario';
import { doStep } from './steps';

let books = 0;

/** The world of a scenario: its days, and ids that count up. */
function clock(): (day: IsoDate) => Moment {
  let made = 0;
  return (today) => ({
    now: `${today}T12:00:00.000Z`,
    today,
    operator: 'Scenario',
    newId: () => `id-${String(++made).padStart(7, '0')}`,
  });
}

/** Does the steps of a scenario in an empty book in memory, by the real actions, and says what the book then says. */
async function replay(scenario: Scenario): Promise<{ readonly ok: boolean; readonly output: unknown }> {
  const db = new BookDb(`replay-${++books}`);
  const momentOn = clock();
  const begun = await beginScenario(db, scenario, momentOn);
  if (!begun.ok) return { ok: false, output: asError(begun.refusals[0] as Refusal) };
  const ids = new Map<string, string>();
  const refused: { step: number; code: string }[] = [];
  for (const [step, what] of scenario.steps.entries()) {
    // A period is filed when one looks at the book; all else is done on its own day.
    const moment = momentOn(what.do === 'file' ? scenario.at : what.date);
    const done = await doStep({ db, home: currency(scenario.home), ids, moment }, what);
    if (!done.ok) refused.push({ step, code: done.refusals[0]?.code ?? 'invalid' });
  }
  const report = await reportOf(db, ids, scenario.at, currency(scenario.home));
  await db.delete();
  return { ok: true, output: { refused, ...report } };
}

async function replayOne(data: unknown): Promise<{ readonly ok: boolean; readonly output: unknown }> {
  const scenario = readScenario(data);
  return scenario.ok ? replay(scenario.value) : { ok: false, output: asError(scenario.refusals[0] as Refusal) };
}

/**
 * Prints what a book says after the steps of a scenario, or of each of an array of them. A step that is refused is named,
 * and the rest goes on. Returns the exit code: 0, or 2 for bad input.
 */
export async function runReplay(file: string): Promise<0 | 2> {
  const read = readJson(file);
  if (!read.ok) {
    process.stdout.write(`${JSON.stringify(asError(read.refusals[0] as Refusal))}\n`);
    return 2;
  }
  const results: { readonly ok: boolean; readonly output: unknown }[] = [];
  for (const one of Array.isArray(read.value) ? read.value : [read.value]) results.push(await replayOne(one));
  const outputs = results.map(({ output }) => output);
  process.stdout.write(`${JSON.stringify(Array.isArray(read.value) ? outputs : outputs[0], null, 2)}\n`);
  return results.every(({ ok }) => ok) ? 0 : 2;
}
