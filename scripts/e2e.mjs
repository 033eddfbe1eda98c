// Browser tests whose file or title holds the given words, after a build where the sources are newer than the last one.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { bin, ensurePackages, ensurePrograms, freePort, ROOT, run } from './lib/setup.mjs';

await ensurePackages();
ensurePrograms(['chromium']);

const BUILT = join(ROOT, '.next', 'BUILD_ID');
const changed = (folder) =>
  readdirSync(join(ROOT, folder), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .reduce((latest, entry) => Math.max(latest, statSync(join(entry.parentPath, entry.name)).mtimeMs), 0);

const stale = !existsSync(BUILT) || changed('src') > statSync(BUILT).mtimeMs;
if (stale && (await run('npm', ['run', 'build'])) !== 0) process.exit(1);

const words = process.argv.slice(2);
const isFile = words.length === 1 && existsSync(join(ROOT, 'e2e', `${words[0]}.spec.ts`));
const chosen = words.length === 0 ? [] : isFile ? [words[0]] : ['-g', words.join(' ')];
process.exitCode = await run(bin('playwright'), ['test', ...chosen], {
  env: { ...process.env, PORT: String(await freePort()) },
});
