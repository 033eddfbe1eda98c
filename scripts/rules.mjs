// Architecture rules: layers and circles, a pure core, one door for writing, nothing unused.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { bin, ROOT, run } from './lib/setup.mjs';

/** What a place may not say, and why. Tests are free of it. */
const WORDS = [
  {
    within: 'src/core',
    not: /\bDate\.now\(|\bnew Date\(\)|Math\.random\(|randomUUID|performance\.now|\bwindow\.\w|\bdocument\.(?:query|create|body)|localStorage|\bfetch\(/,
    why: 'core knows no clock, randomness or browser',
  },
  { within: 'src/core', not: /parseFloat\(|\.toFixed\(/, why: 'money is never a binary float' },
  {
    within: 'src/areas',
    not: /\.(?:bulkPut|bulkAdd|bulkDelete)\(|bookDb\(\)\.\w+\.(?:put|add|delete|update|clear)\(/,
    why: 'screens write through actions only',
  },
  {
    within: 'src/areas',
    not: /\b(?:db|bookDb\(\))\s*\.\w+\s*\.(?:get|bulkGet|toArray|where|orderBy|count|toCollection|filter|limit|each)\b|\b(?:db\.\w+|bookDb\(\))\s*$/,
    why: 'screens read tables through queries of the store',
  },
  {
    within: 'src/areas',
    except: /areas\/shell\/routes\.ts$/,
    not: /["'`]\/(?:today|sales|receipts|tax|ledger|setup|rescue|open)\b/,
    why: 'addresses stand in shell/routes.ts',
  },
  {
    // Findings of checks and the Workings of a tax have words of their own, which a refusal carries as a fact; so have reports
    // and messages to customers.
    within: 'src/core',
    except:
      /core\/(?:wording|reports|delivery\/firstTemplates|documents\/checks|tax\/packs|einvoice\/(?:rules|check))|\/(?:determine|resolve|lineTax|draftFindings|findings|receivedFile)\.ts$/,
    not: /(['`])[A-Z](?:(?!\1).)* (?:(?!\1).)*(?<! no)[.?]\1/,
    why: 'what a refusal says stands in core/wording',
  },
  { within: 'src', not: /dangerouslySetInnerHTML|\beval\(|new Function\(/, why: 'the security policy forbids it' },
  {
    within: 'src',
    not: /https?:\/\/(?!www\.w3\.org|www\.aiim\.org\/pdfa\/ns)/,
    why: 'nothing is fetched from elsewhere',
  },
];

function filesUnder(folder) {
  return readdirSync(join(ROOT, folder), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !entry.name.endsWith('.test.ts'))
    .map((entry) => join(entry.parentPath, entry.name));
}

let broken = 0;
for (const { within, not, why, except } of WORDS)
  for (const file of filesUnder(within).filter((name) => !except?.test(name)))
    readFileSync(file, 'utf8')
      .split('\n')
      .forEach((line, i) => {
        if (!not.test(line) || /^\s*(?:\/\/|\*|\/\*)/.test(line)) return;
        broken++;
        console.error(`${relative(ROOT, file)}:${i + 1}: ${why}: ${line.trim()}`);
      });

/** Places that the map names, as it writes them: from the root, `src/` or `src/core/`. */
for (const [, named] of readFileSync(join(ROOT, 'docs/architecture.md'), 'utf8').matchAll(
  /`([\w./[\]-]+\/[\w./[\]-]*)`/g,
)) {
  if (['', 'src', 'src/core', 'src/areas/documents'].some((from) => existsSync(join(ROOT, from, named)))) continue;
  broken++;
  console.error(`docs/architecture.md names ${named}, which is not there`);
}

const layers = await run(bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'src']);
const unused = await run(bin('knip'), ['--no-config-hints']);
process.exit(broken === 0 && layers === 0 && unused === 0 ? 0 : 1);
