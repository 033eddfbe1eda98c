'use client';

import { DropdownMenu } from 'radix-ui';

export interface MenuEntry {
  readonly words: string;
  readonly onSelect: () => void;
  /** Why it can't be done now; it then stands greyed with the reason. */
  readonly not?: string | undefined;
}

/** Further things to do, one below the other. */
export function Menu({ label, entries }: { readonly label: string; readonly entries: readonly MenuEntry[] }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="h-8 cursor-pointer rounded border border-rule bg-sheet px-3 hover:border-soft">
        {label} ▾
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-40 min-w-[220px] border border-rule bg-sheet py-1 shadow-lg"
        >
          {entries.map(({ words, onSelect, not }) => (
            <DropdownMenu.Item
              key={words}
              disabled={not !== undefined}
              onSelect={onSelect}
              className="cursor-pointer px-3 py-1 outline-none data-[disabled]:cursor-default data-[highlighted]:bg-paper data-[disabled]:text-soft"
            >
              {words}
              {not !== undefined && <span className="block max-w-[280px] text-xs">{not}</span>}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
