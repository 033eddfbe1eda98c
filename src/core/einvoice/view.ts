import type { Group } from './model';
import { type GroupId, TERMS, type TermId } from './terms';

/** A term to be shown: its name in the standard, its value as it stands in the file, and the line it stands in. */
export interface ViewTerm {
  readonly id: TermId;
  readonly name: string;
  readonly value: string;
  readonly scheme: string;
  /** Line of the file, from 1; 0 for a model without one. */
  readonly line: number;
}

/** A group to be shown; plain data, so that a worker can hand it over. */
export interface ViewGroup {
  readonly id: GroupId;
  readonly line: number;
  readonly terms: readonly ViewTerm[];
  readonly groups: readonly ViewGroup[];
}

/** A model as plain data for a screen, terms and groups in the order in which the file has them. */
export function viewOf(group: Group): ViewGroup {
  const terms = (Object.entries(group.terms) as [TermId, Group['terms'][TermId]][]).flatMap(([id, list]) =>
    (list ?? []).map(({ value, scheme, at }) => ({
      id,
      name: TERMS.get(id)?.name ?? id,
      value,
      scheme,
      line: at?.line ?? 0,
    })),
  );
  const groups = Object.values(group.groups).flatMap((list) => (list ?? []).map(viewOf));
  return { id: group.id, line: group.at?.line ?? 0, terms, groups };
}

/** The first value of a term in a group, '' where there is none. */
export function valueIn(group: ViewGroup | undefined, id: TermId): string {
  return group?.terms.find((term) => term.id === id)?.value ?? '';
}

export function groupsIn(group: ViewGroup, id: GroupId): readonly ViewGroup[] {
  return group.groups.filter((one) => one.id === id);
}
