import { Button } from '@/ui/Button';

interface FormFootProps {
  readonly label: string;
  readonly busy: boolean;
  readonly general: string;
}

/** The end of a form: what is wrong with the whole, and the button that keeps it. */
export function FormFoot({ label, busy, general }: FormFootProps) {
  return (
    <div className="pt-3">
      {general !== '' && (
        <p role="alert" className="mb-3 text-brick">
          ▲ {general}
        </p>
      )}
      <Button weight="main" type="submit" disabled={busy}>
        {label}
      </Button>
    </div>
  );
}
