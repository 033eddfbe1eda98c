// What every script needs: packages as the lock file says, a browser, child processes that are waited for.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';

export const ROOT = join(import.meta.dirname, '..', '..');
export const CHROMIUM = '/usr/bin/chromium';
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

/** Installs Debian's Chromium where it is missing and may be installed. */
export function ensureChromium() {
  if (existsSync(CHROMIUM)) return;
  console.log('Installing Chromium…');
  const prefix = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = (...args) => {
    const [command, ...rest] = [...prefix, 'apt-get', ...args];
    return spawnSync(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  };
  apt('update', '-q');
  apt('install', '-y', '-q', '--no-install-recommends', 'chromium');
  if (!existsSync(CHROMIUM))
    throw new Error('Chromium is needed for the browser tests: install the Debian package chromium');
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
