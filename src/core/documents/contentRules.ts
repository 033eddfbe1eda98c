import type { CalcResult } from '@/core/tax/calcTypes';
import { checkPackOf } from './checks';
import { factsOf } from './checks/facts';
import { packFindings, rulesFor } from './checks/pack';
import type { Content } from './content';
import type { Finding } from './finding';

/** What the content rules of the place of registration find; empty when all hold. */
export function contentFindings(content: Content, figures: CalcResult): readonly Finding[] {
  return packFindings(checkPackOf(content.checks), factsOf(content, figures));
}

/** What looked at a document: the name of its pack, and how many of its rules. */
export function contentChecks(
  content: Content,
  figures: CalcResult,
): { readonly title: string; readonly rules: number } {
  const pack = checkPackOf(content.checks);
  const rules = rulesFor(pack, factsOf(content, figures)).length;
  const small = rules < pack.rules.length;
  return { title: small ? (pack.simplified?.title ?? pack.title) : pack.title, rules };
}
