'use client';

import { Popover } from 'radix-ui';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';

export interface FindOption {
  readonly id: string;
  readonly label: string;
  /** Softer words at the right. */
  readonly detail?: string;
}

interface FindBoxProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly FindOption[];
  readonly placeholder?: string;
  readonly invalid?: boolean;
  readonly className?: string;
  readonly fieldName?: string;
  /** The page begins in it. */
  readonly autoFocus?: boolean;
  readonly onType: (text: string) => void;
  readonly onPick: (option: FindOption) => void;
  readonly onFocus?: () => void;
  readonly onLeave?: () => void;
  /** Any text is an answer: a row is then chosen by itself only when it begins with what is typed. */
  readonly free?: boolean;
  /** What fits is still being looked up; Enter then waits for it. */
  readonly pending?: boolean;
  /** A last row that makes something new from what is typed. */
  readonly create?: { readonly label: string; readonly onCreate: () => void };
}

const CREATE = 'create';

/** The row that Enter takes when no arrow key has chosen one; −1 for none. */
function rowByItself(rows: readonly FindOption[], typed: string, free: boolean): number {
  const text = typed.trim().toLowerCase();
  if (text === '') return -1;
  return free ? rows.findIndex((row) => row.id !== CREATE && row.label.toLowerCase().startsWith(text)) : 0;
}

/**
 * A text field with a list of what fits below it. Arrow keys choose, Enter takes; Enter with nothing
 * chosen, Tab and every other key go on to whoever holds the field.
 */
export function FindBox(props: FindBoxProps) {
  const { label, value, options, create, onPick, free = false, pending = false } = props;
  const listId = useId();
  const [open, setOpen] = useState(false);
  /** Row the arrow keys are on; null before they were used. */
  const [moved, setMoved] = useState<number | null>(null);
  /** Enter was pressed before the list was there. */
  const [eager, setEager] = useState(false);
  const rows: readonly FindOption[] =
    create === undefined || pending ? options : [...options, { id: CREATE, label: create.label }];
  const shown = open && rows.length > 0;
  const chosen = moved ?? rowByItself(rows, value, free);

  const take = (row: FindOption) => {
    setOpen(false);
    setMoved(null);
    if (row.id === CREATE && create !== undefined) create.onCreate();
    else onPick(row);
  };
  const latestTake = useRef(take);
  useEffect(() => {
    latestTake.current = take;
  });
  const waitedFor = eager && !pending ? rows[chosen] : undefined;
  useEffect(() => {
    if (!eager || pending) return;
    setEager(false);
    if (waitedFor !== undefined) latestTake.current(waitedFor);
  }, [eager, pending, waitedFor]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && pending && !free && value.trim() !== '' && !event.ctrlKey) {
      event.preventDefault();
      setEager(true);
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      if (event.altKey || (!shown && rows.length === 0)) return;
      event.preventDefault();
      event.stopPropagation();
      setOpen(true);
      const step = event.key === 'ArrowDown' ? 1 : -1;
      setMoved((chosen + step + rows.length + (chosen < 0 && step < 0 ? 1 : 0)) % rows.length);
    } else if (event.key === 'Enter' && shown && rows[chosen] !== undefined && !event.ctrlKey) {
      event.preventDefault();
      event.stopPropagation();
      take(rows[chosen]);
    } else if (event.key === 'Escape' && shown) {
      event.stopPropagation();
      setOpen(false);
    }
  };
  return (
    <Popover.Root open={shown} onOpenChange={setOpen}>
      <Popover.Anchor asChild>
        <input
          role="combobox"
          aria-label={label}
          aria-expanded={shown}
          aria-controls={listId}
          aria-autocomplete="list"
          aria-activedescendant={shown && chosen >= 0 ? `${listId}-${chosen}` : undefined}
          aria-invalid={props.invalid}
          data-field={props.fieldName}
          // biome-ignore lint/a11y/noAutofocus: where a new document begins; nothing stands before it
          autoFocus={props.autoFocus}
          autoComplete="off"
          className={props.className ?? 'cell'}
          placeholder={props.placeholder}
          value={value}
          title={value}
          onChange={(event) => {
            props.onType(event.target.value);
            setOpen(true);
            setMoved(null);
          }}
          onFocus={props.onFocus}
          onBlur={() => {
            setOpen(false);
            setMoved(null);
            props.onLeave?.();
          }}
          onKeyDown={onKeyDown}
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={3}
          onOpenAutoFocus={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => event.preventDefault()}
          onInteractOutside={(event) => event.preventDefault()}
          className="z-50 max-h-[300px] min-w-[320px] overflow-auto border border-rule bg-sheet py-1 shadow-lg"
        >
          <div role="listbox" id={listId} aria-label={label}>
            {rows.map((row, i) => (
              // biome-ignore lint/a11y/useFocusableInteractive: focus stays in the field; aria-activedescendant points here
              // biome-ignore lint/a11y/useKeyWithClickEvents: keys are handled by the field
              <div
                key={row.id}
                id={`${listId}-${i}`}
                role="option"
                aria-selected={i === chosen}
                className={`flex cursor-pointer justify-between gap-6 px-3 py-1 ${i === chosen ? 'bg-paper' : ''} ${row.id === CREATE ? 'border-rule border-t text-rust' : ''}`}
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => take(row)}
              >
                <span>{row.label}</span>
                <span className="text-soft">{row.detail}</span>
              </div>
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
