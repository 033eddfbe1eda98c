import { RULES } from '@/core/einvoice/check';
import { ALL_LISTS } from '@/core/einvoice/codes';
import { type GroupId, groupName, type TermId, termName } from '@/core/einvoice/terms';

const nameOf = (term: TermId | GroupId) =>
  term.startsWith('BT-') ? termName(term as TermId) : groupName(term as GroupId);
const cell = (text: string) => text.replaceAll('|', '\\|');

/** `docs/e-invoice-rules.md`, made from the definitions of the rules. */
export function ruleTable(): string {
  const rows = RULES.map(
    ({ id, profile, severity, term, demands }) =>
      `| ${id} | ${profile === 'peppol' ? 'Peppol' : 'EN 16931'} | ${severity} | ${cell(nameOf(term))} | ${cell(demands)} |`,
  );
  const lists = ALL_LISTS.map(({ name, edition }) => `| ${cell(name)} | ${cell(edition)} |`);
  return [
    '# Rules of e-invoices',
    '',
    'Made from the definitions in `src/core/einvoice/rules/` by `npm run docs:rules`; a test holds it to them.',
    'Each rule is broken by one change to a small valid invoice in `src/core/einvoice/rules.test.ts`, which',
    'without the change keeps them all. Ids are those of EN 16931-1 and of Peppol BIS Billing 3.0; those that',
    'begin with FORMAT are ours, for what must hold before a rule can be asked.',
    '',
    'BR-CO-05 to BR-CO-08 (a reason and its code mean the same) are not there: no machine can tell, and the',
    'published artefacts accept them always.',
    '',
    `| Rule | Of | Severity | About | Demands |`,
    '|---|---|---|---|---|',
    ...rows,
    '',
    '## Code lists',
    '',
    'Units of measure and the schemes of UNTDID 1153 and 7143 are known by the shape of their codes where the',
    'lists run to thousands; what has such a shape is taken.',
    '',
    '| List | Edition |',
    '|---|---|',
    ...lists,
    '',
  ].join('\n');
}
