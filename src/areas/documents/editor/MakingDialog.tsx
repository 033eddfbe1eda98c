'use client';

import type { CustomerRow } from '@/core/book/rows';
import { Dialog } from '@/ui/Dialog';
import { CustomerForm } from '../../shared/CustomerForm';
import { ItemForm } from '../../shared/ItemForm';

/** What is made or mended without leaving the document; an item goes to the line it was asked for. */
export type Making =
  | { readonly what: 'customer' | 'edit'; readonly name: string; readonly lineId: string }
  | { readonly what: 'item'; readonly name: string; readonly lineId: string }
  | null;

interface MakingDialogProps {
  readonly making: Making;
  readonly customer: CustomerRow | null;
  /** What the document is called. */
  readonly title: string;
  readonly onClose: () => void;
  readonly onCustomer: (id: string) => void;
  readonly onItem: (lineId: string, id: string) => void;
}

/** A new customer or item, or the customer's details, in a slip over the document. */
export function MakingDialog({ making, customer, title, onClose, onCustomer, onItem }: MakingDialogProps) {
  const heading = { customer: 'New customer', edit: customer?.name ?? 'Customer', item: 'New item' };
  const picked = (id: string) => {
    onClose();
    onCustomer(id);
  };
  return (
    <Dialog
      open={making !== null}
      onClose={onClose}
      title={making === null ? '' : heading[making.what]}
      description={`It is saved in Setup and put on this ${title.toLowerCase()}.`}
      wide
    >
      {making?.what === 'customer' && <CustomerForm name={making.name} onSaved={picked} />}
      {making?.what === 'edit' && customer !== null && <CustomerForm customer={customer} onSaved={picked} />}
      {making?.what === 'item' && (
        <ItemForm
          name={making.name}
          onSaved={(id) => {
            onClose();
            onItem(making.lineId, id);
          }}
        />
      )}
    </Dialog>
  );
}
