import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { build } from 'esbuild';

/**
 * Serves an empty page that runs a TypeScript module of ours, so that core and store can be measured
 * and tested in a real browser without the interface.
 */
export async function servePage(module: string): Promise<{ address: string; close: () => void }> {
  const bundle = await build({
    entryPoints: [module],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    alias: { '@': join(process.cwd(), 'src') },
  });
  const script = bundle.outputFiles[0]?.text ?? '';
  const server = createServer((request, response) => {
    const isScript = request.url === '/page.js';
    response.setHeader('Content-Type', isScript ? 'text/javascript' : 'text/html');
    response.end(isScript ? script : '<!doctype html><title>Page</title><script src="/page.js"></script>');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/`, close: () => server.close() };
}
