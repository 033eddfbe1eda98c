import { DE } from './de';
import { EN } from './en';
import { ES } from './es';
import { FR } from './fr';
import { GA } from './ga';
import type { Wording } from './wording';

/** Languages that documents are written in. */
export const WORDINGS: readonly Wording[] = [EN, GA, DE, FR, ES];

/** The wording of a language; English where it is not among them. */
export function wordingOf(language: string | undefined): Wording {
  return WORDINGS.find((wording) => wording.language === language) ?? EN;
}
