'use client';

import { filledIn, type MessageTemplate } from '@/core/delivery/messageTemplate';
import { useBook } from '../../shell/book';
import { sampleValues } from '../../shell/delivery/sampleValues';

/** A message as it would go out about the newest document that it fits. */
export function TemplatePreview({ template }: { readonly template: MessageTemplate }) {
  const { purpose, language } = template;
  const sample = useBook((db) => sampleValues(db, purpose, language), [purpose, language]);
  if (sample === undefined) return null;
  const subject = filledIn(template.subject, sample.values);
  const text = filledIn(template.text, sample.values);
  const missing = [...new Set([...subject.missing, ...text.missing])];
  return (
    <section aria-label="Preview" className="mb-4 border border-rule bg-paper px-4 py-3">
      <p className="mb-2 text-soft text-sm">
        {sample.of === '' ? 'There is nothing of this kind yet to show it with.' : `As for ${sample.of}`}
      </p>
      <p className="mb-2 font-semibold">{subject.text}</p>
      <p className="whitespace-pre-line">{text.text}</p>
      {sample.of !== '' && missing.length > 0 && (
        <p className="mt-2 text-brick">▲ Nothing is known for {missing.join(', ')} there.</p>
      )}
    </section>
  );
}
