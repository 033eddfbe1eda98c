'use client';

import { createStore, type StoreApi } from 'zustand';
import type { Deferral } from '@/core/documents/deferral';
import {
  blankLine,
  type Draft,
  type DraftAdjustment,
  type DraftLine,
  type DraftOverride,
  isBlank,
} from '@/core/documents/draft';
import type { PastedLine } from '@/core/documents/pasteLines';
import type { Refusal } from '@/core/kernel/result';

/** Where the focus is; the margin speaks of it. */
export interface Focus {
  readonly lineId: string;
  readonly field: string;
}

/** A line, a discount or a charge that was taken out, and where it stood. */
export type Removed = { readonly at: number } & (
  | { readonly line: DraftLine }
  | { readonly adjustment: DraftAdjustment }
);

export interface DraftState {
  readonly draft: Draft;
  /** What can be brought back, the last of it first to come. */
  readonly removed: readonly Removed[];
  /** Nothing was typed since the last removal. */
  readonly justRemoved: boolean;
  /** Changed since the last save. */
  readonly dirty: boolean;
  /** Why the last save or issue did not go through. */
  readonly problems: readonly Refusal[];
  readonly focus: Focus | null;
}

export interface DraftStore extends StoreApi<DraftState> {
  change(patch: Partial<Draft>): void;
  /** Makes another draft of the one that is there now, whatever was typed or kept since it was last looked at. */
  rework(change: (draft: Draft) => Draft): void;
  /**
   * Takes what was decided for the lines of a draft: nothing the person did, so that problems stay pointed out. Left alone
   * when the draft has changed since, as it is then decided for what is there now. Whether it was taken.
   */
  decide(of: Draft, decided: Draft): boolean;
  changeLine(id: string, patch: Partial<DraftLine>): void;
  /** Says when a line's revenue belongs; without it, with the invoice. */
  changeDeferral(id: string, deferral: Deferral | undefined): void;
  /** Moves a line by a number of places; the blank last line stays last. */
  moveLine(id: string, by: number): void;
  /** Puts a copy of a line below it. */
  copyLine(id: string): void;
  /** Puts lines in at a line: a blank one gives way, any other stays above them. */
  insertLines(at: string, lines: readonly PastedLine[]): void;
  /** Puts lines behind those that are written. */
  addLines(lines: readonly DraftLine[]): void;
  changeAdjustment(id: string, patch: Partial<DraftAdjustment>): void;
  addAdjustment(adjustment: DraftAdjustment): void;
  removeAdjustment(id: string): void;
  /** Types the tax of a family instead of computing it; an empty amount takes that back. */
  override(tax: string, family: string, patch: Partial<Pick<DraftOverride, 'amount' | 'reason'>>): void;
  removeLine(id: string): void;
  /** Puts what was removed last where it stood, and changes nothing else. Null where nothing was. */
  bringBack(): Removed | null;
  setFocus(focus: Focus): void;
  /** A save went through: what was typed meanwhile stays dirty. */
  kept(sent: Draft, saved: Draft): void;
  setProblems(problems: readonly Refusal[]): void;
  /** Counts a look-up whose answer the draft takes, until it is there. */
  during<T>(lookUp: Promise<T>): Promise<T>;
  /** When every look-up under way has been answered. */
  answered(): Promise<void>;
}

/** What a new line starts with. */
export interface LineDefaults {
  readonly account: string;
  readonly taxCodeOf: (draft: Draft) => string;
}

/** The editing state of one draft. A blank line always waits at the end. `unkept`: the book does not hold it yet. */
export function createDraftStore(initial: Draft, defaults: LineDefaults, unkept = false): DraftStore {
  const withBlank = (draft: Draft): Draft => {
    const last = draft.lines.at(-1);
    if (last !== undefined && isBlank(last)) return draft;
    const line = { ...blankLine(crypto.randomUUID(), defaults.account), taxCode: defaults.taxCodeOf(draft) };
    return { ...draft, lines: [...draft.lines, line] };
  };
  const store = createStore<DraftState>()(() => ({
    draft: withBlank(initial),
    removed: [],
    justRemoved: false,
    dirty: unkept,
    problems: [],
    focus: null,
  }));
  const update = (change: (draft: Draft) => Draft) =>
    store.setState(({ draft }) => ({
      draft: withBlank(change(draft)),
      justRemoved: false,
      dirty: true,
      problems: [],
    }));
  const withLines = (change: (lines: readonly DraftLine[]) => readonly DraftLine[]) =>
    update((draft) => ({ ...draft, lines: change(draft.lines) }));

  const remember = (one: Removed) =>
    store.setState(({ removed }) => ({ removed: [...removed, one], justRemoved: true }));

  const underway = new Set<Promise<unknown>>();

  return {
    ...store,
    during: (lookUp) => {
      underway.add(lookUp);
      return lookUp.finally(() => underway.delete(lookUp));
    },
    answered: async () => {
      while (underway.size > 0) await Promise.allSettled(underway);
    },
    change: (patch) => update((draft) => ({ ...draft, ...patch })),
    rework: update,
    decide: (of, decided) => {
      if (store.getState().draft !== of) return false;
      store.setState({ draft: withBlank(decided), dirty: true });
      return true;
    },
    changeDeferral: (id, deferral) =>
      withLines((lines) =>
        lines.map((line) => {
          if (line.id !== id) return line;
          const { deferral: _, ...rest } = line;
          return deferral === undefined ? rest : { ...rest, deferral };
        }),
      ),
    changeLine: (id, patch) =>
      withLines((lines) => lines.map((line) => (line.id === id ? { ...line, ...patch } : line))),
    moveLine: (id, by) =>
      withLines((lines) => {
        const from = lines.findIndex((line) => line.id === id);
        const to = from + by;
        const line = lines[from];
        if (line === undefined || to < 0 || to >= lines.length - 1 || isBlank(line)) return lines;
        const rest = lines.filter((l) => l.id !== id);
        return [...rest.slice(0, to), line, ...rest.slice(to)];
      }),
    copyLine: (id) =>
      withLines((lines) =>
        lines.flatMap((line) =>
          line.id === id && !isBlank(line) ? [line, { ...line, id: crypto.randomUUID(), of: '' }] : [line],
        ),
      ),
    insertLines: (at, pasted) =>
      update((draft) => {
        const taxCode = defaults.taxCodeOf(draft);
        const lines = pasted.map((line) => ({
          ...blankLine(crypto.randomUUID(), defaults.account),
          taxCode,
          ...line,
        }));
        const index = draft.lines.findIndex((line) => line.id === at);
        const target = draft.lines[index];
        const rest = draft.lines.slice(index + 1);
        const kept = draft.lines.slice(0, target === undefined || isBlank(target) ? Math.max(0, index) : index + 1);
        return { ...draft, lines: [...kept, ...lines, ...rest] };
      }),
    addLines: (lines) =>
      update((draft) => {
        const written = draft.lines.filter((line) => !isBlank(line));
        return { ...draft, lines: [...written, ...lines, ...draft.lines.filter(isBlank)] };
      }),
    changeAdjustment: (id, patch) =>
      update((draft) => ({
        ...draft,
        adjustments: draft.adjustments.map((a) => (a.id === id ? { ...a, ...patch } : a)),
      })),
    addAdjustment: (adjustment) => update((draft) => ({ ...draft, adjustments: [...draft.adjustments, adjustment] })),
    removeAdjustment: (id) => {
      const { adjustments } = store.getState().draft;
      const at = adjustments.findIndex((a) => a.id === id);
      const adjustment = adjustments[at];
      update((draft) => ({ ...draft, adjustments: draft.adjustments.filter((a) => a.id !== id) }));
      if (adjustment !== undefined) remember({ at, adjustment });
    },
    override: (tax, family, patch) =>
      update((draft) => {
        const is = (o: DraftOverride) => o.tax === tax && o.family === family;
        const before = draft.overrides.find(is) ?? { tax, family, amount: '', reason: '' };
        const now = { ...before, ...patch };
        const others = draft.overrides.filter((o) => !is(o));
        return { ...draft, overrides: now.amount.trim() === '' ? others : [...others, now] };
      }),
    removeLine: (id) => {
      const { lines } = store.getState().draft;
      const at = lines.findIndex((line) => line.id === id);
      const line = lines[at];
      withLines((all) => all.filter((one) => one.id !== id));
      if (line !== undefined && !isBlank(line)) remember({ at, line });
    },
    bringBack: () => {
      const { removed } = store.getState();
      const last = removed.at(-1);
      if (last === undefined) return null;
      update((draft) =>
        'line' in last
          ? { ...draft, lines: draft.lines.toSpliced(Math.min(last.at, draft.lines.length - 1), 0, last.line) }
          : { ...draft, adjustments: draft.adjustments.toSpliced(last.at, 0, last.adjustment) },
      );
      store.setState({ removed: removed.slice(0, -1), justRemoved: removed.length > 1 });
      return last;
    },
    setFocus: (focus) => store.setState({ focus }),
    kept: (sent, saved) =>
      store.setState(({ draft }) => ({
        draft: {
          ...draft,
          revision: saved.revision,
          savedAt: saved.savedAt,
          keys: saved.keys,
          // Rates are held from the save on, unless new ones were asked for meanwhile.
          held: draft.held === sent.held ? saved.held : draft.held,
        },
        dirty: draft !== sent,
        problems: [],
      })),
    setProblems: (problems) => store.setState({ problems }),
  };
}
