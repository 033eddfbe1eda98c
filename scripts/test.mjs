// Everything: types, lint, architecture rules, Jest, build, Playwright. The last line has the counts.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { bin, ensurePackages, ensurePrograms, freePort, ROOT, run } from './lib/setup.mjs';

const CACHE = join(ROOT, '.cache');
const JEST_REPORT = join(CACHE, 'jest.json');
const PLAYWRIGHT_REPORT = join(CACHE, 'playwright.json');

await ensurePackages();
ensurePrograms();
mkdirSync(CACHE, { recursive: true });
for (const report of [JEST_REPORT, PLAYWRIGHT_REPORT]) rmSync(report, { force: true });

const failed = [];
async function stage(name, command, args, options) {
  const began = Date.now();
  console.log(`\n── ${name}`);
  const code = await run(command, args, options);
  console.log(`── ${name}: ${code === 0 ? 'fine' : 'FAILED'} (${((Date.now() - began) / 1000).toFixed(1)} s)`);
  if (code !== 0) failed.push(name);
  return code === 0;
}

const report = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
};

await stage('prepare', 'node', ['scripts/prepare.mjs']);
await stage('lint and format', bin('biome'), ['check', '--error-on-warnings', '.']);
await stage('route types', bin('next'), ['typegen']);
await stage('types', bin('tsc'), ['--noEmit']);
await stage('architecture rules', 'node', ['scripts/rules.mjs']);
await stage('Jest', bin('jest'), ['--json', `--outputFile=${JEST_REPORT}`]);
if (await stage('build', 'npm', ['run', '--silent', 'build']))
  await stage('Playwright', bin('playwright'), ['test'], {
    env: { ...process.env, PORT: String(await freePort()), PLAYWRIGHT_JSON_OUTPUT_NAME: PLAYWRIGHT_REPORT },
  });

const jest = report(JEST_REPORT);
const playwright = report(PLAYWRIGHT_REPORT)?.stats;
if (jest === null) failed.push('Jest report');
if (!playwright) failed.push('Playwright report');
const passedCount = (jest?.numPassedTests ?? 0) + (playwright ? playwright.expected + playwright.flaky : 0);
// A suite that did not even start has no failed tests of its own, but it is not green either.
const failedCount =
  (jest?.numFailedTests ?? 0) + (jest?.numRuntimeErrorTestSuites ?? 0) + (playwright?.unexpected ?? 0);
if (failed.length > 0) console.log(`\nFailed: ${failed.join(', ')}`);
console.log(`\n${passedCount} passed, ${failedCount} failed`);
process.exitCode = failed.length === 0 && failedCount === 0 ? 0 : 1;
