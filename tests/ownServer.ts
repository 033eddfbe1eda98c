import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const ROOT = process.cwd();

/** A port that is free now. */
function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer().listen(0, () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });
}

/** The built app on a server of its own, which can be stopped, and come back with a later build. */
export interface OwnServer {
  readonly url: string;
  /** Starts it with the build in a folder; resolves once it answers. */
  readonly start: (folder?: string) => Promise<void>;
  /** Ends it; resolves once nobody answers any more. */
  readonly stop: () => Promise<void>;
}

export async function ownServer(): Promise<OwnServer> {
  const port = await freePort();
  const url = `http://localhost:${port}`;
  let running: ChildProcess | null = null;
  const answers = () =>
    fetch(url).then(
      () => true,
      () => false,
    );
  const until = async (wanted: boolean) => {
    while ((await answers()) !== wanted) await new Promise((resolve) => setTimeout(resolve, 50));
  };
  return {
    url,
    start: async (folder = ROOT) => {
      running = spawn(join(ROOT, 'node_modules/.bin/next'), ['start', '-p', String(port)], {
        cwd: folder,
        stdio: 'ignore',
        // A group of its own, so that it ends whole, and at once: a browser keeps connections open.
        detached: true,
        env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
      });
      await until(true);
    },
    stop: async () => {
      if (running?.pid !== undefined) process.kill(-running.pid, 'SIGKILL');
      running = null;
      await until(false);
    },
  };
}

/** What a build remembers of earlier ones, and of pages it has served. */
const LEFT_BEHIND = /\.next\/(?:cache|server\/route-cache)$/;

/** A copy of the build whose pages have another title, as a later version would; its folder, and what removes it. */
export function laterBuild(title: string): { readonly folder: string; readonly remove: () => void } {
  const folder = mkdtempSync(join(tmpdir(), 'able-later-'));
  for (const name of ['.next', 'public'])
    cpSync(join(ROOT, name), join(folder, name), { recursive: true, filter: (path) => !LEFT_BEHIND.test(path) });
  for (const name of ['package.json', 'next.config.ts']) cpSync(join(ROOT, name), join(folder, name));
  symlinkSync(join(ROOT, 'node_modules'), join(folder, 'node_modules'));
  const pages = join(folder, '.next/server/app');
  for (const name of readdirSync(pages, { recursive: true, encoding: 'utf8' }))
    if (/\.(html|rsc)$/.test(name)) {
      const page = readFileSync(join(pages, name), 'utf8');
      // In the page itself, and in what the page tells its router.
      writeFileSync(join(pages, name), page.replace(/(<title>|children\\?":\\?")Able Ledger/g, `$1${title}`));
    }
  execFileSync('node', [join(ROOT, 'scripts/afterBuild.mjs'), folder]);
  return { folder, remove: () => rmSync(folder, { recursive: true }) };
}
