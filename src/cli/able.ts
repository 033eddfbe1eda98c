import { parseArgs } from 'node:util';
import type { Profile } from '@/core/einvoice/rules/rule';
import type { Syntax } from '@/core/einvoice/syntax';
import { runCalc } from './calc';
import { runCheck, runConvert } from './check';

const USAGE = `usage: able calc FILE.json                            (- reads standard input)
       able check [--profile en16931|peppol] FILE…
       able convert --to ubl|cii FILE
       able replay SCENARIO.json                     (- reads standard input)
       able prove BOOK.able
       able report BOOK.able NAME [--from DATE --to DATE] [--of VALUE] [--csv]
`;

const isProfile = (text: string | undefined): text is Profile | undefined =>
  text === undefined || text === 'en16931' || text === 'peppol';
const isSyntax = (text: string | undefined): text is Syntax => text === 'ubl' || text === 'cii';

/** Runs a command; null when it was called wrongly. */
async function run(): Promise<0 | 1 | 2 | null> {
  const [command, ...args] = process.argv.slice(2);
  const options = {
    profile: { type: 'string' },
    to: { type: 'string' },
    from: { type: 'string' },
    of: { type: 'string' },
    csv: { type: 'boolean' },
  } as const;
  let parsed: ReturnType<typeof parseArgs<{ options: typeof options; allowPositionals: true }>>;
  try {
    parsed = parseArgs({ args, options, allowPositionals: true });
  } catch {
    return null;
  }
  const { values, positionals: files } = parsed;
  const [file = '', name = ''] = files;
  if (command === 'calc' && files.length === 1) return runCalc(file);
  if (command === 'replay' && files.length === 1) return (await import('./replay/replay')).runReplay(file);
  if (command === 'prove' && files.length === 1) return (await import('./prove')).runProve(file);
  if (command === 'report' && files.length === 2) return (await import('./report')).runReport(file, name, values);
  if (command === 'check' && files.length > 0 && isProfile(values.profile)) return runCheck(files, values.profile);
  if (command === 'convert' && files.length === 1 && isSyntax(values.to)) return runConvert(file, values.to);
  return null;
}

// Whoever reads may have read enough, as `head` has: what is left is not wanted.
process.stdout.on('error', () => process.exit(2));

const code = await run();
if (code === null) process.stderr.write(USAGE);
process.exitCode = code ?? 2;
