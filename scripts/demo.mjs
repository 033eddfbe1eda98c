// Installs what is missing, builds, and serves the app; the address it prints opens the sample book.
import { spawn } from 'node:child_process';
import { bin, ensurePackages, freePort, ROOT, run } from './lib/setup.mjs';

await ensurePackages();
if ((await run('npm', ['run', '--silent', 'build'])) !== 0) process.exit(1);
const port = await freePort(Number(process.env.PORT ?? 3000));
// Nobody else on the network is served: the book is this machine's.
const server = spawn(bin('next'), ['start', '-H', '127.0.0.1', '-p', String(port)], {
  cwd: ROOT,
  stdio: ['ignore', 'pipe', 'inherit'],
});
server.stdout.on('data', (chunk) => {
  if (String(chunk).includes('Ready'))
    console.log(`\nAble Ledger with the sample book: http://localhost:${port}/open/demo\nCtrl+C ends it.`);
});
server.on('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
