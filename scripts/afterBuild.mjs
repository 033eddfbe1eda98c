// What the built app needs to know of itself: the hashes of its inline scripts, for the security policy, and the
// worker that keeps the build in the browser, with the integrity of every file. Of the app in this folder, or in the
// one that is named.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, relative, resolve, sep } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib/setup.mjs';

const APP = resolve(process.argv[2] ?? ROOT);
const NEXT = join(APP, '.next');
const PUBLIC = join(APP, 'public');
const WORKER = 'offline.js';

const read = (...path) => readFileSync(join(NEXT, ...path));
const json = (name) => JSON.parse(read(name).toString('utf8'));
const sha256 = (content) => `sha256-${createHash('sha256').update(content).digest('base64')}`;

const filesIn = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => relative(folder, join(entry.parentPath, entry.name)).split(sep).join('/'))
    .sort();

const pages = [];
const files = {};
for (const route of Object.keys(json('prerender-manifest.json').routes).sort()) {
  const name = route === '/' ? 'index' : route.slice(1);
  // A page without a shell, shown when even the fault screen can't be; the server alone makes it.
  if (route === '/_global-error') continue;
  const body = join('server', 'app', `${name}.body`);
  if (existsSync(join(NEXT, body))) {
    files[route] = sha256(read(body));
    continue;
  }
  pages.push(read('server', 'app', `${name}.html`).toString('utf8'));
  files[route] = sha256(pages.at(-1));
  files[`${route}?_rsc`] = sha256(read('server', 'app', `${name}.rsc`));
}
for (const name of filesIn(join(NEXT, 'static')))
  if (!name.endsWith('.map')) files[`/_next/static/${name}`] = sha256(read('static', name));
for (const name of filesIn(PUBLIC)) if (name !== WORKER) files[`/${name}`] = sha256(readFileSync(join(PUBLIC, name)));

const INLINE = /<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g;
const hashes = new Set(pages.flatMap((page) => [...page.matchAll(INLINE)].map(([, script]) => `'${sha256(script)}'`)));
writeFileSync(join(NEXT, 'script-hashes.txt'), `${[...hashes].sort().join('\n')}\n`);

const rewrites = json('routes-manifest.json').rewrites.afterFiles.map(({ regex, destination }) => [regex, destination]);
const name = createHash('sha256')
  .update(JSON.stringify([files, rewrites]))
  .digest('hex')
  .slice(0, 16);
await build({
  entryPoints: [join(ROOT, 'src/offline/worker.ts')],
  outfile: join(PUBLIC, WORKER),
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  logLevel: 'warning',
  define: { BUILD: JSON.stringify({ name, files, rewrites }) },
});
