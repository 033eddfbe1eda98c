// Measures speed as ratios; needs Chromium.
import { ensureChromium, ensurePackages } from './lib/setup.mjs';

await ensurePackages();
ensureChromium();
const { register } = await import('tsx/esm/api');
register();
await import('../bench/run.ts');
