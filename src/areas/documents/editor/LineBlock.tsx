'use client';

import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { type DraftLine, isBlank } from '@/core/documents/draft';
import type { Currency } from '@/core/kernel/currency';
import type { Refusal } from '@/core/kernel/result';
import type { FindOption } from '@/ui/FindBox';
import type { DraftStore } from './draftStore';
import { LineRow } from './LineRow';

/** Lines that are drawn, and left undrawn, together: a key in a long document costs one block, not every line. */
export const BLOCK = 25;

/** Blocks that are drawn at once: 200 lines. Those behind wait until they come near the window. */
const AT_ONCE = 8;
/** How near, so that neither the wheel nor the keys ever reach an undrawn line. */
const NEAR = '1500px';
/** Height of a line of one row of text, in pixels. */
const LINE_HEIGHT = 29;

interface LineBlockProps {
  readonly store: DraftStore;
  readonly lines: readonly DraftLine[];
  /** Place of its first line among all. */
  readonly from: number;
  /** Its end is the end of the draft. */
  readonly last: boolean;
  /** Computed value of each line; undefined while it can't be computed. */
  readonly values: readonly (bigint | undefined)[];
  readonly currency: Currency;
  readonly units: readonly (readonly [string, string])[];
  readonly taxes: readonly (readonly [string, string])[];
  readonly problems: readonly Refusal[];
  /** The line whose item is looked up, or '' when it is in another block. */
  readonly written: string;
  readonly options: readonly FindOption[];
  readonly pending: boolean;
  /** A line is being dragged: it must not be cut off where its block ends. */
  readonly dragging: boolean;
  readonly onPickItem: (lineId: string, itemId: string) => void;
  readonly onNewItem: (lineId: string, name: string) => void;
  readonly onHurry: (lineId: string, title: string) => void;
}

const NO_OPTIONS: readonly never[] = [];

/** Equal item by item; lists are made anew at each key, what they hold is not. */
function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((one, i) => Object.is(one, b[i]));
}

const sameProps = (a: LineBlockProps, b: LineBlockProps): boolean =>
  (Object.keys(a) as (keyof LineBlockProps)[]).every((key) => same(a[key], b[key]));

/** Room for lines that are not drawn yet; `focusField` finds by it where a line will stand. */
function Undrawn({ lines, from, onNear }: Pick<LineBlockProps, 'lines' | 'from'> & { readonly onNear: () => void }) {
  const room = useRef<HTMLTableSectionElement>(null);
  useEffect(() => {
    const watch = new IntersectionObserver((seen) => seen.some((one) => one.isIntersecting) && onNear(), {
      rootMargin: NEAR,
    });
    if (room.current !== null) watch.observe(room.current);
    return () => watch.disconnect();
  }, [onNear]);
  return (
    <tbody
      ref={room}
      className="block"
      data-undrawn-from={from}
      data-undrawn-until={from + lines.length}
      style={{ height: lines.length * LINE_HEIGHT }}
    />
  );
}

/** Some neighbouring lines of the sheet. Out of sight they cost neither layout nor paint. */
export const LineBlock = memo(function LineBlock(props: LineBlockProps) {
  const { lines, from, problems, written, dragging, last } = props;
  const [near, setNear] = useState(false);
  const onNear = useCallback(() => setNear(true), []);
  if (!near && !last && from >= AT_ONCE * BLOCK) return <Undrawn lines={lines} from={from} onNear={onNear} />;
  const wrongOn = (index: number) =>
    problems
      .filter((problem) => problem.path.startsWith(`lines[${index}].`))
      .map((problem) => problem.path.split('.')[1])
      .join(' ');
  return (
    <tbody
      // The handles stand left of the lines, inside what is cut off at the block's edge.
      className={`-ml-4 block pl-4 ${dragging ? '' : '[content-visibility:auto]'}`}
      style={{ containIntrinsicHeight: `auto ${lines.length * LINE_HEIGHT}px` }}
    >
      {lines.map((line, i) => (
        <LineRow
          key={line.id}
          store={props.store}
          line={line}
          index={from + i}
          value={props.values[i]}
          currency={props.currency}
          units={props.units}
          taxes={props.taxes}
          wrong={wrongOn(from + i)}
          waiting={last && i === lines.length - 1 && isBlank(line)}
          options={line.id === written ? props.options : NO_OPTIONS}
          pending={line.id === written && props.pending}
          onPickItem={props.onPickItem}
          onNewItem={props.onNewItem}
          onHurry={props.onHurry}
        />
      ))}
    </tbody>
  );
}, sameProps);
