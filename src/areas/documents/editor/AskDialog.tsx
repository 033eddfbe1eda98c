import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Mark } from '@/ui/Mark';
import type { Issuing } from './useIssuing';

/** Asks before an invoice is issued that should still have something. */
export function AskDialog({ number, issuing }: { readonly number: string; readonly issuing: Issuing }) {
  const { asking, issueAllTheSame, stepBack } = issuing;
  return (
    <Dialog
      open={asking !== null}
      onClose={stepBack}
      title={`Issue ${number} anyway?`}
      description="An issued invoice cannot be changed, only credited. This is still open:"
    >
      <ul className="mb-4">
        {asking?.map((finding) => (
          <li key={finding.rule + finding.field} className="flex gap-1.5">
            <Mark kind="warning" /> {finding.message}
          </li>
        ))}
      </ul>
      <div className="flex gap-2.5">
        <Button weight="main" onClick={issueAllTheSame}>
          Issue {number}
        </Button>
        <Button onClick={stepBack}>Back to the draft</Button>
      </div>
    </Dialog>
  );
}
