import type { MailView } from '@/core/delivery/mail';

interface MailViewProps {
  readonly view: MailView;
  /** What it is called, for screen readers. */
  readonly label?: string;
}

/** A document as it stands in a message. */
export function MailViewTable({ view, label = 'The document in the message' }: MailViewProps) {
  const { title, facts, lines, totals } = view;
  const pair = ([label, value]: readonly [string, string], i: number) => (
    <tr key={`${i}-${label}`}>
      <th scope="row" className="py-0.5 pr-3 text-left font-normal text-soft">
        {label}
      </th>
      <td className="py-0.5 text-right tabular-nums">{value}</td>
    </tr>
  );
  return (
    <section aria-label={label} className="mb-4 border border-rule bg-paper px-4 py-3 text-sm">
      <h3 className="mb-1 font-semibold font-serif">{title}</h3>
      <table className="mb-2">
        <tbody>{facts.map(pair)}</tbody>
      </table>
      <table className="mb-2 w-full">
        <tbody>
          {lines.map(([name, detail, value], i) => (
            <tr key={`${i}-${name}`} className="border-rule border-t">
              <td className="py-0.5">
                {name}
                {detail !== '' && <span className="block whitespace-pre-line text-soft">{detail}</span>}
              </td>
              <td className="py-0.5 text-right align-top tabular-nums">{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="ml-auto">
        <tbody>{totals.map(pair)}</tbody>
      </table>
    </section>
  );
}
