// Measures speed as ratios; needs Chromium.
import { ensurePackages, ensurePrograms } from './lib/setup.mjs';

await ensurePackages();
ensurePrograms(['chromium']);
const { register } = await import('tsx/esm/api');
register();
await import('../bench/tmprun.ts');
