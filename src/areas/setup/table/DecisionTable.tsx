'use client';

import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { DecisionRow } from '@/core/tax/decisionTable';
import { tableFaults } from '@/core/tax/tableFaults';
import { prepareSetup } from '@/core/tax/taxSetup';
import { wordRefusals } from '@/core/wording/refusals';
import { keepDecisionTable } from '@/store/setup/actions/taxSetup';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Mark } from '@/ui/Mark';
import { Empty, SheetTitle } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { GapList, TogetherList } from './GapList';
import { RowForm } from './RowForm';
import { conditionWords, resultWords } from './rowWords';

const BLANK: Omit<DecisionRow, 'id'> = {
  name: '',
  registeredIn: [],
  supply: [],
  taxClass: [],
  customer: [],
  number: [],
  shipFrom: [],
  shipTo: [],
  from: '',
  until: '',
  result: { kind: 'stack' },
  source: '',
};

/** The decision table: rows in their order, what can never be reached, and what no row catches. */
export function DecisionTable() {
  const { records, business } = useOpenBook();
  const { rows } = records;
  const [wrong, setWrong] = useState('');
  const [editing, setEditing] = useState<DecisionRow | null>(null);
  const faults = useMemo(() => tableFaults(prepareSetup(records), business.address), [records, business]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const keep = async (next: readonly DecisionRow[]) => {
    const result = await act(keepDecisionTable, { rows: next, before: rows });
    setWrong(result.ok ? '' : wordRefusals(result.refusals));
    return result;
  };
  const moved = ({ active, over }: DragEndEvent) => {
    const from = rows.findIndex((row) => row.id === active.id);
    const to = rows.findIndex((row) => row.id === over?.id);
    if (from >= 0 && to >= 0 && from !== to) void keep(arrayMove([...rows], from, to));
  };
  const faultOf = (id: string): readonly ['wrong' | 'note', string] | null => {
    if (faults.unreachable.includes(id)) return ['wrong', 'never reached: rows above already cover it'];
    if (faults.unknownCode.includes(id)) return ['wrong', 'its code is not in Setup'];
    if (faults.waiting.includes(id)) return ['note', 'waits: we are not registered there'];
    return null;
  };
  return (
    <>
      <SheetTitle
        aside={
          <Button weight="main" onClick={() => setEditing({ ...BLANK, id: crypto.randomUUID() })}>
            New row
          </Button>
        }
      >
        Decision table
      </SheetTitle>
      <p className="mb-3 text-soft">
        The first row whose conditions are met decides. Move one with its handle: drag it, or press Space, the arrows,
        and Space again.
      </p>
      {wrong !== '' && (
        <p role="alert" className="mb-3 text-brick">
          ▲ {wrong}
        </p>
      )}
      {rows.length === 0 && <Empty>No rows yet: a starter pack brings those of a country.</Empty>}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved} id="decision-table">
        <SortableContext items={rows.map((row) => row.id)} strategy={verticalListSortingStrategy}>
          <ol>
            {rows.map((row, i) => (
              <TableRow
                key={row.id}
                row={row}
                place={i + 1}
                conditions={conditionWords(row, records)}
                result={resultWords(row, records)}
                fault={faultOf(row.id)}
                onOpen={() => setEditing(row)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <TogetherList pairs={faults.together} />
      <GapList gaps={faults.gaps} />
      <Dialog
        open={editing !== null}
        onClose={() => setEditing(null)}
        title={editing?.name || 'New row'}
        description="A condition with nothing ticked is not asked."
        wide
      >
        {editing !== null && (
          <RowForm
            row={editing}
            onKeep={(row) =>
              keep(rows.some((r) => r.id === row.id) ? rows.map((r) => (r.id === row.id ? row : r)) : [...rows, row])
            }
            onDrop={
              rows.some((r) => r.id === editing.id)
                ? () => void keep(rows.filter((r) => r.id !== editing.id)).then(() => setEditing(null))
                : undefined
            }
            onDone={() => setEditing(null)}
          />
        )}
      </Dialog>
    </>
  );
}

interface TableRowProps {
  readonly row: DecisionRow;
  readonly place: number;
  readonly conditions: string;
  readonly result: string;
  readonly fault: readonly ['wrong' | 'note', string] | null;
  readonly onOpen: () => void;
}

function TableRow({ row, place, conditions, result, fault, onOpen }: TableRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: row.id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className="flex items-start gap-2 border-rule border-b bg-sheet py-1.5"
    >
      <button
        type="button"
        className="mt-0.5 cursor-grab text-soft"
        {...attributes}
        {...listeners}
        aria-label={`Move row ${place}, ${row.name}`}
      >
        <GripVertical size={16} aria-hidden />
      </button>
      <span className="w-7 shrink-0 text-right text-soft tabular-nums">{place}</span>
      <div className="min-w-0 flex-1">
        <TextButton className="text-left" onClick={onOpen}>
          {row.name}
        </TextButton>
        <div className="text-soft text-sm">{conditions}</div>
        {fault !== null && (
          <div className="text-sm">
            <Mark kind={fault[0]} /> {fault[1]}
          </div>
        )}
      </div>
      <div className="w-[34%] text-sm">
        {result}
        {row.source !== '' && <div className="text-soft text-xs">{row.source}</div>}
      </div>
    </li>
  );
}
