// What every script needs: packages as the lock file says, a browser, child processes that are waited for.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';

export const ROOT = join(import.meta.dirname, '..', '..');
const STAMP = join(ROOT, 'node_modules', '.installed-from');

process.env.NEXT_TELEMETRY_DISABLED = '1';

/** Path of a program that a package brought. */
export const bin = (name) => join(ROOT, 'node_modules', '.bin', name);

/** Runs a program to its end, its output shown; resolves to its exit code. */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code) => resolve(code ?? 1));
  });
}

/** Installs packages when they are missing or the lock file has changed since. */
export async function ensurePackages() {
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  console.log('Installing packages…');
  const code = await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  if (code !== 0) throw new Error('npm ci failed: see above');
  writeFileSync(STAMP, wanted);
}

/** Programs of Debian that tests need, and the packages that bring them. */
const PROGRAMS = { chromium: 'chromium', qpdf: 'qpdf', pdfdetach: 'poppler-utils' };

/** Installs those of Debian's programs that are missing, where that is allowed. @throws Error naming what is still missing. */
export function ensurePrograms(names = Object.keys(PROGRAMS)) {
  const missing = () => names.filter((name) => !existsSync(join('/usr/bin', name)));
  if (missing().length === 0) return;
  const packages = missing().map((name) => PROGRAMS[name]);
  console.log(`Installing ${packages.join(', ')}…`);
  const prefix = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = (...args) => {
    const [command, ...rest] = [...prefix, 'apt-get', ...args];
    return spawnSync(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  };
  apt('update', '-q');
  apt('install', '-y', '-q', '--no-install-recommends', ...packages);
  if (missing().length > 0)
    throw new Error(
      `Install these Debian packages for the tests: ${missing()
        .map((name) => PROGRAMS[name])
        .join(', ')}`,
    );
}

/** A port that is free now, `wanted` if it can be had. */
export function freePort(wanted = 0) {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.on('error', () => (wanted === 0 ? reject(new Error('no free port')) : resolve(freePort())));
    server.listen(wanted, () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}
