import type { Mail } from '@/core/delivery/mail';
import { newMail } from '@/core/delivery/mail';
import { mailHtml, writeEml } from './eml';

const mail: Mail = newMail(
  {
    id: '0b1c-22',
    purpose: 'invoice',
    language: 'de',
    customerId: 'c',
    customerName: 'Who',
    documentIds: [],
    about: 'INV-1',
    from: 'wir@haus.example',
    fromName: 'Größe & Söhne',
    to: ['a@x.example', 'b@x.example'],
    cc: ['c@x.example'],
    bcc: ['still@x.example'],
    subject: 'Rechnung über 100 €',
    text: 'Guten Tag,\n\n1 < 2 & "so"\nund weiter',
    view: {
      title: 'Rechnung <b>1</b>',
      facts: [['Fällig', '1. Februar']],
      lines: [['Boje', 'gelb\n2 Stück', '100,00']],
      totals: [['Summe', '100,00']],
    },
    files: [{ name: 'Rechnung "ü".pdf', type: 'application/pdf', size: 4, sha256: 'x' }],
    operator: 'T',
    replaces: '',
  },
  '2026-01-15T12:00:00.000Z',
);
const files = [{ sha256: 'x', size: 4, data: Buffer.from('%PDF').toString('base64') }];

/** The parts of a message by the type of their contents. */
function parts(eml: string): Readonly<Record<string, string>> {
  return Object.fromEntries(
    [
      ...eml.matchAll(
        /Content-Type: ([a-z/]+);[^\n]*\r?\n(?:[A-Z][^\n]*\r?\n)*\r?\n([A-Za-z0-9+/=\s]+?)\r?\n(?:\r?\n)?--/g,
      ),
    ].map(([, type = '', data = '']) => [type, Buffer.from(data, 'base64').toString()]),
  );
}

test('a message reads back: words, page, file; those who get a blind copy stand only in a file of our own', () => {
  const eml = writeEml(mail, files);
  const read = parts(eml);
  expect(read['text/plain']).toBe('Guten Tag,\r\n\r\n1 < 2 & "so"\r\nund weiter');
  expect(read['text/html']).toContain('Rechnung &lt;b&gt;1&lt;/b&gt;');
  expect(read['application/pdf']).toBe('%PDF');
  expect(eml).toMatch(/To: <a@x\.example>,\s+<b@x\.example>/);
  expect(eml).toMatch(/Date: Thu, 15 Jan 2026 12:00:00 \+0000/);
  expect(eml).toContain('Message-ID: <0b1c-22@haus.example>');
  expect(eml).toContain('name="Rechnung _u_.pdf"');
  expect(eml).not.toContain('still@x.example');
  const withBlind = true;
  expect(writeEml(mail, files, withBlind)).toContain('still@x.example');
});

test('the same message is the same file, byte for byte', () => {
  expect(writeEml(mail, files)).toBe(writeEml(mail, files));
});

test('nothing in its words becomes part of the page', () => {
  const html = mailHtml({ ...mail, text: '<script>alert(1)</script>' });
  expect(html).not.toContain('<script>');
  expect(html).toContain('&lt;script&gt;');
});
