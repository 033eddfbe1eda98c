import type { Keep } from '@/core/documents/switchMode';
import type { PriceMode } from '@/core/tax/calcTypes';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';

interface SwitchModeDialogProps {
  /** The mode to switch to; null while nothing is asked. */
  readonly to: PriceMode | null;
  readonly onKeep: (keep: Keep) => void;
  readonly onClose: () => void;
}

/** Asks what stays when prices are switched between holding the tax and not. */
export function SwitchModeDialog({ to, onKeep, onClose }: SwitchModeDialogProps) {
  return (
    <Dialog
      open={to !== null}
      onClose={onClose}
      title={to === 'gross' ? 'Prices will include tax' : 'Prices will exclude tax'}
      description="Either each price is recalculated so that the customer pays the same, or the prices stay as typed and the total changes."
    >
      <div className="flex gap-2.5">
        <Button weight="main" onClick={() => onKeep('total')}>
          Keep what the customer pays
        </Button>
        <Button onClick={() => onKeep('prices')}>Keep the prices</Button>
      </div>
    </Dialog>
  );
}
