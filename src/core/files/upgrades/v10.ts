/* Version 10 to version 11; frozen, see `v1.ts`. Journals are kept as templates. */

export function upgradeV10() {
  return { journalTemplates: [] };
}
