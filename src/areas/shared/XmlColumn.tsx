'use client';

import { useEffect, useMemo, useRef } from 'react';
import { TextButton } from '@/ui/TextButton';

/** Lines beyond this are not shown: who reads more of them uses an editor. */
const MOST_LINES = 5000;

interface XmlColumnProps {
  readonly xml: string;
  /** The line that is pointed at, from 1; 0 for none. */
  readonly line: number;
  readonly onLine: (line: number) => void;
  readonly onClose: () => void;
  /** Words that stand where there is no text. */
  readonly instead?: string;
}

/** The text of an e-invoice beside its sheet; what is pointed at in one is marked in the other. */
export function XmlColumn({ xml, line, onLine, onClose, instead = '' }: XmlColumnProps) {
  const all = useMemo(() => xml.split('\n'), [xml]);
  const frame = useRef<HTMLOListElement>(null);
  const pointed = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another line is to be brought into view
  useEffect(() => {
    const [list, at] = [frame.current, pointed.current];
    // The list alone is scrolled: the browser's own way would move the whole desk.
    if (list !== null && at !== null) list.scrollTop = at.offsetTop - list.offsetTop - list.clientHeight / 2;
  }, [line]);
  return (
    <aside
      aria-label="XML"
      className="flex min-h-0 w-[440px] shrink-0 flex-col border-margin-rule border-l-[3px] border-double px-3 pt-4 pb-3"
    >
      <div className="mb-2 flex justify-between">
        <h2 className="font-semibold font-serif">XML</h2>
        <TextButton onClick={onClose}>Back to the margin</TextButton>
      </div>
      {instead !== '' && <p className="text-soft">{instead}</p>}
      <ol ref={frame} className="min-h-0 flex-1 overflow-auto border border-rule bg-sheet py-1 font-mono text-xs">
        {all.slice(0, MOST_LINES).map((text, i) => {
          const here = i + 1 === line;
          return (
            <li key={i} className="[contain-intrinsic-height:auto_18px] [content-visibility:auto]">
              <button
                ref={here ? pointed : null}
                type="button"
                aria-current={here}
                aria-label={`Line ${i + 1}`}
                tabIndex={here ? 0 : -1}
                className={`block w-max min-w-full cursor-pointer whitespace-pre px-2 text-left ${here ? 'bg-rust/15 outline-1 outline-rust' : ''}`}
                onClick={() => onLine(i + 1)}
              >
                {text === '' ? ' ' : text}
              </button>
            </li>
          );
        })}
      </ol>
      {all.length > MOST_LINES && <p className="mt-1 text-soft text-sm">The first {MOST_LINES} lines are shown.</p>}
    </aside>
  );
}
