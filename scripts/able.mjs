// Runs the `able` command straight from its TypeScript sources.
import { register } from 'tsx/esm/api';

register();
await import('../src/cli/able.ts');
