'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { GroupRule, RunRow } from '@/core/documents/run';
import { CUSTOMER_KINDS } from '@/core/tax/decisionTable';
import { wordRefusals } from '@/core/wording/refusals';
import { addToRun, dropGroup, keepGroup } from '@/store/sales/actions/runs';
import { allGroups, membersOf } from '@/store/sales/queries/runs';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { Fold } from '@/ui/Fold';
import { COUNTRY_CHOICES } from '../../shared/choices';
import { act, bookDb, useBook } from '../../shell/book';

interface AddCustomersProps {
  readonly runId: string;
  readonly rows: readonly RunRow[];
}

const ANY: GroupRule = { country: '', kind: '', text: '' };

/** Takes customers into a run: those that a search finds, or those of a group; and keeps groups. */
export function AddCustomers({ runId, rows }: AddCustomersProps) {
  const [rule, setRule] = useState<GroupRule>(ANY);
  const [groupId, setGroupId] = useState('');
  const [name, setName] = useState('');
  const groups = useBook(allGroups) ?? [];
  const isRule = rule.country !== '' || rule.kind !== '' || rule.text.trim() !== '';
  const found = useBook(
    async (db) => (isRule ? await membersOf(db, { id: '', name: '', customerIds: [], rule }) : []),
    [rule.country, rule.kind, rule.text],
  );
  const there = new Set(rows.map(({ customerId }) => customerId));
  const fresh = (found ?? []).filter(({ id }) => !there.has(id));
  const add = async (customerIds: readonly string[]) => {
    const result = await act(addToRun, { runId, customerIds });
    toast(result.ok ? `${result.value} customers are added` : wordRefusals(result.refusals));
  };
  const group = groups.find(({ id }) => id === groupId);
  const addGroup = async () => {
    if (group !== undefined) await add((await membersOf(bookDb(), group)).map(({ id }) => id));
  };
  const keep = async () => {
    const customerIds = rows.map(({ customerId }) => customerId);
    const kept = await act(keepGroup, {
      id: crypto.randomUUID(),
      name: name.trim(),
      customerIds,
      rule: isRule ? rule : null,
    });
    if (kept.ok) setName('');
    toast(kept.ok ? `${kept.value.name} is saved` : wordRefusals(kept.refusals));
  };
  return (
    <Fold words="Customers: add by search or group" open={rows.length < 2}>
      <div className="grid grid-cols-[2fr_1fr_1fr_auto] items-end gap-x-4">
        <TextField
          label="Name holds"
          value={rule.text}
          onChange={({ target: { value } }) => setRule({ ...rule, text: value })}
        />
        <ChoiceField
          label="Country"
          options={[['', 'any'], ...COUNTRY_CHOICES]}
          value={rule.country}
          onChange={({ target: { value } }) => setRule({ ...rule, country: value })}
        />
        <ChoiceField
          label="Customer type"
          options={[['', 'any'], ...CUSTOMER_KINDS.map((kind) => [kind, kind] as const)]}
          value={rule.kind}
          onChange={({ target: { value } }) => setRule({ ...rule, kind: value as GroupRule['kind'] })}
        />
        <div className="pb-[18px]">
          <Button disabled={fresh.length === 0} onClick={() => void add(fresh.map(({ id }) => id))}>
            Add {fresh.length}
          </Button>
        </div>
      </div>
      <p className="mb-3 text-soft text-sm">{fresh.map((one) => one.name).join(', ')}</p>
      <div className="grid grid-cols-[1.4fr_auto_auto_1.4fr_auto] items-end gap-x-3">
        <ChoiceField
          label="Group"
          options={[['', 'choose…'], ...groups.map((one) => [one.id, one.name] as const)]}
          value={groupId}
          onChange={({ target: { value } }) => setGroupId(value)}
        />
        <div className="pb-[18px]">
          <Button disabled={group === undefined} onClick={() => void addGroup()}>
            Add the group
          </Button>
        </div>
        <div className="pb-[18px]">
          <Button
            weight="quiet"
            disabled={group === undefined}
            onClick={() => void act(dropGroup, { id: groupId }).then(() => setGroupId(''))}
          >
            Delete it
          </Button>
        </div>
        <TextField
          label="Save these customers as a group"
          hint={isRule ? 'and whoever the search above finds, now and later' : ''}
          value={name}
          onChange={({ target: { value } }) => setName(value)}
        />
        <div className="pb-[18px]">
          <Button disabled={name.trim() === ''} onClick={() => void keep()}>
            Save
          </Button>
        </div>
      </div>
    </Fold>
  );
}
