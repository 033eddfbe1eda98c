'use client';

import { useEffect, useState } from 'react';
import { type DraftXml, draftXml } from '@/core/decisions/sales/draftXml';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import type { Setting } from '@/core/documents/setting';
import type { Customer } from '@/core/parties/customer';
import { wordRefusals } from '@/core/wording/refusals';
import { inChecker } from '@/workers/client';
import { XmlColumn } from '../../shared/XmlColumn';
import { focusField } from './moveOn';

/** The text is written again this long after the last key. */
const PAUSE = 300;

interface DraftXmlColumnProps {
  readonly draft: Draft;
  readonly customer: Customer | null;
  readonly number: string;
  readonly setting: Setting;
  readonly onClose: () => void;
}

/** The field of the sheet that has the focus, or had it last; '' for none. */
function useFocusedField(): string {
  const [field, setField] = useState('');
  useEffect(() => {
    const look = ({ target }: Pick<FocusEvent, 'target'>) => {
      const found = target instanceof Element ? target.closest<HTMLElement>('[data-field]')?.dataset.field : undefined;
      if (found !== undefined) setField(found);
    };
    // The column comes a moment after it was asked for; a field may have taken the focus meanwhile.
    look({ target: document.activeElement });
    document.addEventListener('focusin', look);
    return () => document.removeEventListener('focusin', look);
  }, []);
  return field;
}

/** The e-invoice that the draft would go out as, a moment behind the keys; each shows what is pointed at in the other. */
export function DraftXmlColumn({ draft, customer, number, setting, onClose }: DraftXmlColumnProps) {
  const [shown, setShown] = useState<DraftXml | null>(null);
  const [missing, setMissing] = useState('');
  const [clicked, setClicked] = useState(0);
  const field = useFocusedField();
  useEffect(() => {
    let current = true;
    const write = async () => {
      const frozen = freezeDraft(draft, number || 'DRAFT', customer, setting);
      if (!frozen.ok) return setMissing(wordRefusals(frozen.refusals));
      const { value } = frozen;
      const next = await inChecker(
        (face) => face.draftXml(value),
        () => draftXml(value),
      );
      if (!current) return;
      setMissing('');
      setShown(next);
    };
    const timer = setTimeout(() => void write(), PAUSE);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [draft, customer, number, setting]);
  const places = shown?.places ?? [];
  const focused = places.find((place) => place.field === field)?.line ?? 0;
  const point = (line: number) => {
    setClicked(line);
    const place = places.find((one) => one.line === line);
    if (place !== undefined) focusField(place.field);
  };
  const stays = places.find((place) => place.line === clicked)?.field === field || focused === 0;
  return (
    <XmlColumn
      xml={missing === '' ? (shown?.xml ?? '') : ''}
      line={stays && clicked !== 0 ? clicked : focused}
      onLine={point}
      onClose={onClose}
      {...(missing !== '' && { instead: `The text appears here once this is complete: ${missing}` })}
    />
  );
}
