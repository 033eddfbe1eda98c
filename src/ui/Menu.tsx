'use client';

import { DropdownMenu } from 'radix-ui';

export interface MenuEntry {
  readonly words: string;
  readonly onSelect: () => void;
  /** Why it can't be done now; it then stands greyed with the reason. */
  readonly not?: string | undefined;
}

const CONTENT = 'z-40 min-w-[220px] border border-rule bg-sheet py-1 shadow-lg';
const ITEM =
  'cursor-pointer px-3 py-1 outline-none data-[disabled]:cursor-default data-[highlighted]:bg-paper data-[disabled]:text-soft';
const QUIET = 'h-8 cursor-pointer px-1 text-soft underline-offset-4 hover:text-ink hover:underline';

interface MenuProps {
  readonly label: string;
  readonly entries: readonly MenuEntry[];
}

/** Further things to do, one below the other. */
export function Menu({ label, entries }: MenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="h-8 cursor-pointer rounded border border-rule bg-sheet px-3 hover:border-soft">
        {label} ▾
      </DropdownMenu.Trigger>
      <Entries entries={entries} />
    </DropdownMenu.Root>
  );
}

/** The same behind three dots, for a row of a list; its label is read out. */
export function SmallMenu({ label, entries }: MenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger aria-label={label} title={label} className="-my-1 h-6 cursor-pointer px-1.5 hover:bg-paper">
        …
      </DropdownMenu.Trigger>
      <Entries entries={entries} />
    </DropdownMenu.Root>
  );
}

function Entries({ entries }: Pick<MenuProps, 'entries'>) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content align="start" sideOffset={4} className={CONTENT}>
        {entries.map(({ words, onSelect, not }) => (
          <DropdownMenu.Item key={words} disabled={not !== undefined} onSelect={onSelect} className={ITEM}>
            {words}
            {not !== undefined && <span className="block max-w-[280px] text-xs">{not}</span>}
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

interface CheckMenuProps {
  readonly label: string;
  readonly entries: readonly string[];
  readonly checked: (entry: string) => boolean;
  readonly onCheck: (entry: string, on: boolean) => void;
}

/** Things that are on or off, one below the other; it stays open while they are chosen. */
export function CheckMenu({ label, entries, checked, onCheck }: CheckMenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={QUIET}>{label} ▾</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className={CONTENT}>
          {entries.map((entry) => (
            <DropdownMenu.CheckboxItem
              key={entry}
              checked={checked(entry)}
              onCheckedChange={(on) => onCheck(entry, on)}
              onSelect={(event) => event.preventDefault()}
              className={ITEM}
            >
              <span aria-hidden="true" className="inline-block w-5">
                {checked(entry) ? '✓' : ''}
              </span>
              {entry}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
