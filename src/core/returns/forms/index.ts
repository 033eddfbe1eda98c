import type { Registration } from '@/core/tax/registration';
import type { ReturnForm } from '../form';
import AU from './data/AU.json';
import CA from './data/CA.json';
import CH from './data/CH.json';
import DE from './data/DE.json';
import ES from './data/ES.json';
import FR from './data/FR.json';
import GB from './data/GB.json';
import IE from './data/IE.json';
import IN from './data/IN.json';
import IT from './data/IT.json';
import KE from './data/KE.json';
import NL from './data/NL.json';
import NO from './data/NO.json';
import NZ from './data/NZ.json';
import SG from './data/SG.json';
import US_WA from './data/US-WA.json';
import ZA from './data/ZA.json';

/** The forms that come with the program, one for each authority of a starter pack. */
export const RETURN_FORMS = [
  AU,
  CA,
  CH,
  DE,
  ES,
  FR,
  GB,
  IE,
  IN,
  IT,
  KE,
  NL,
  NO,
  NZ,
  SG,
  US_WA,
  ZA,
] as readonly unknown[] as readonly ReturnForm[];

/** The form that a registration files; null where none comes with the program: its codes name the boxes themselves. */
export function formOf({ jurisdictionId }: Pick<Registration, 'jurisdictionId'>): ReturnForm | null {
  // A state of India files the form of all of them.
  const id = jurisdictionId.startsWith('IN-') ? 'IN' : jurisdictionId;
  return RETURN_FORMS.find((form) => form.id === id) ?? null;
}
