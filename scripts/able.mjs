// Runs the `able` command straight from its TypeScript sources, from whatever folder.
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { register } from 'tsx/esm/api';

// Files may be large and are read once: what is thrown away is better thrown away soon.
setFlagsFromString('--optimize-for-size');
setFlagsFromString('--max-semi-space-size=1');
// Names of modules are found by the project's settings, not by those of the folder it runs in.
process.env.TSX_TSCONFIG_PATH = join(import.meta.dirname, '..', 'tsconfig.json');
// npm runs its scripts in the project; a file is meant from where the person is.
if (process.env.npm_lifecycle_event === 'able' && process.env.INIT_CWD !== undefined)
  process.chdir(process.env.INIT_CWD);
register();
await import('../src/cli/able.ts');
