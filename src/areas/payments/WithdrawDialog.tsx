'use client';

import { toast } from 'sonner';
import { withdrawCertificate } from '@/store/payments/actions/withholding';
import { Dialog } from '@/ui/Dialog';
import { SlipFoot } from '../shared/FormFoot';
import { useActionForm } from '../shared/useActionForm';
import { act } from '../shell/book';

interface WithdrawDialogProps {
  readonly id: string;
  readonly number: string;
  readonly onClose: () => void;
}

/** Takes back a certificate that was entered wrongly: what it covered is without one again. */
export function WithdrawDialog({ id, number, onClose }: WithdrawDialogProps) {
  const { submit, general, busy } = useActionForm({
    initial: {},
    run: () => act(withdrawCertificate, { id }),
    onDone: () => {
      toast(`Certificate ${number} is withdrawn`);
      onClose();
    },
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Withdraw certificate ${number}`}
      description="For one that was entered wrongly: what it covered has no certificate again, and it can be entered again."
    >
      <form onSubmit={submit}>
        <SlipFoot label="Withdraw it" busy={busy} general={general} leave="Leave it as it is" onClose={onClose} />
      </form>
    </Dialog>
  );
}
