// What is quick enough for every commit: types, lint, architecture rules, and the unit tests of what changed.
import { spawn } from 'node:child_process';
import { bin, ensurePackages, ROOT } from './lib/setup.mjs';

await ensurePackages();

/** Runs a program with its output held back, so that those side by side do not mix; resolves to what it said. */
function quietly([name, command, args]) {
  const began = Date.now();
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (text) => {
        said += text;
      });
    child.on('error', reject);
    child.on('exit', (code) => resolve({ name, fine: code === 0, said, seconds: (Date.now() - began) / 1000 }));
  });
}

const done = await Promise.all(
  [
    ['lint and format', bin('biome'), ['check', '--error-on-warnings', '.']],
    ['types', bin('tsc'), ['--noEmit', '--incremental']],
    ['architecture rules', 'node', ['scripts/rules.mjs']],
    ['unit tests of what changed', bin('jest'), ['--onlyChanged', '--passWithNoTests', '--silent']],
  ].map(quietly),
);
for (const { name, fine, said, seconds } of done) {
  if (!fine) console.log(said);
  console.log(`── ${name}: ${fine ? 'fine' : 'FAILED'} (${seconds.toFixed(1)} s)`);
}
process.exitCode = done.every(({ fine }) => fine) ? 0 : 1;
