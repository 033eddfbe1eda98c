// Writes docs/e-invoice-rules.md from the definitions of the rules.
import { writeFileSync } from 'node:fs';
import { register } from 'tsx/esm/api';

register();
const { ruleTable } = await import('../tests/ruleTable.ts');
writeFileSync(new URL('../docs/e-invoice-rules.md', import.meta.url), ruleTable());
