import { matchKeyBindingPress, parseKeybinding } from 'tinykeys';

interface Key {
  /** Presses that do it, as the key library writes them; `$mod` is Ctrl, and the command key of a Mac. */
  readonly presses: readonly string[];
  readonly shown: string;
  readonly does: string;
}

/** Every key of the app, in the order in which `?` lists them. Places that answer to a key name it from here. */
export const KEY_MAP = {
  area: {
    presses: ['Alt+1', 'Alt+2', 'Alt+3', 'Alt+4', 'Alt+5', 'Alt+6'],
    shown: 'Alt+1 … Alt+6',
    does: 'Go to an area',
  },
  find: { presses: ['$mod+k'], shown: 'Ctrl+K', does: 'Find anything, or do something' },
  write: {
    presses: ['Alt+n'],
    shown: 'Alt+N',
    does: 'New invoice (in Sales), record a receipt (in Receipts)',
  },
  quote: { presses: ['Alt+q'], shown: 'Alt+Q', does: 'New quote (in Sales)' },
  nextCell: { presses: ['Enter'], shown: 'Enter', does: 'On to the next cell of a sheet' },
  nextLine: { presses: ['Alt+Enter'], shown: 'Alt+Enter', does: 'On to the next line, leaving the rest of this one' },
  main: {
    presses: ['$mod+Enter'],
    shown: 'Ctrl+Enter',
    does: 'Issue or record the page’s document, save a form or a dialog',
  },
  send: {
    presses: ['$mod+Shift+Enter'],
    shown: 'Ctrl+Shift+Enter',
    does: 'Issue the document and send it as its customer is sent documents',
  },
  lineUp: { presses: ['Alt+ArrowUp'], shown: 'Alt+↑', does: 'Move the line up' },
  lineDown: { presses: ['Alt+ArrowDown'], shown: 'Alt+↓', does: 'Move the line down' },
  takeOut: { presses: ['Alt+Delete'], shown: 'Alt+Delete', does: 'Remove the line' },
  bringBack: {
    presses: ['$mod+z'],
    shown: 'Ctrl+Z',
    does: 'Bring back the line that was just removed, undo the last bank match',
  },
  copyLine: { presses: ['Alt+Insert'], shown: 'Alt+Insert', does: 'Put a copy of the line below it' },
  furtherText: { presses: ['Shift+Enter'], shown: 'Shift+Enter', does: 'A further text line in a description' },
  back: { presses: ['Escape'], shown: 'Esc', does: 'Step back' },
  // Most keyboards have it on a key with Shift.
  help: { presses: ['?', 'Shift+?'], shown: '?', does: 'These keys' },
} as const satisfies Readonly<Record<string, Key>>;

export type KeyName = keyof typeof KEY_MAP;

const parsed = new Map<KeyName, ReturnType<typeof parseKeybinding>>(
  (Object.keys(KEY_MAP) as KeyName[]).map((name) => [name, KEY_MAP[name].presses.flatMap(parseKeybinding)]),
);

/** Whether a press is that key. */
export function isKey(event: KeyboardEvent, name: KeyName): boolean {
  return (parsed.get(name) ?? []).some((press) => matchKeyBindingPress(event, press));
}
