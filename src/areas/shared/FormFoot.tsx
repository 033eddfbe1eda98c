import { Button } from '@/ui/Button';

interface FormFootProps {
  readonly label: string;
  readonly busy: boolean;
  readonly general: string;
  /** Keys that do the same, shown as the button's tooltip. */
  readonly keys?: string;
}

function General({ words }: { readonly words: string }) {
  return words === '' ? null : (
    <p role="alert" className="mb-3 text-brick">
      ▲ {words}
    </p>
  );
}

/** The end of a form: what is wrong with the whole, and the button that keeps it. */
export function FormFoot({ label, busy, general, keys }: FormFootProps) {
  return (
    <div className="pt-3">
      <General words={general} />
      <Button weight="main" type="submit" disabled={busy} title={keys}>
        {label}
      </Button>
    </div>
  );
}

interface SlipFootProps extends FormFootProps {
  readonly grave?: boolean;
  /** What the way out is called. */
  readonly leave: string;
  readonly onClose: () => void;
}

/** The end of a form on a slip: as above, and the way out. */
export function SlipFoot({ label, busy, general, grave = false, leave, onClose }: SlipFootProps) {
  return (
    <>
      <General words={general} />
      <div className="mt-2 flex gap-2.5">
        <Button weight={grave ? 'grave' : 'main'} type="submit" disabled={busy}>
          {label}
        </Button>
        <Button onClick={onClose}>{leave}</Button>
      </div>
    </>
  );
}
