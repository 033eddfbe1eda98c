import { createMimeMessage } from 'mimetext/browser';
import type { Mail, MailFileData, MailView } from '@/core/delivery/mail';

const LINE = /.{1,76}/g;

/** Base64 in lines of 76 characters (RFC 2045, 6.8). */
const inLines = (base64: string): string => (base64.match(LINE) ?? []).join('\r\n');

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string => text.replace(/[&<>"]/g, (sign) => ESCAPES[sign] ?? '');

const broken = (text: string): string => escaped(text).replaceAll('\n', '<br>');
const CELL = 'style="padding:2px 12px 2px 0;vertical-align:top"';
const SUM = 'style="padding:2px 0;text-align:right"';

function viewHtml({ title, facts, lines, totals }: MailView): string {
  const row = (cells: string) => `<tr>${cells}</tr>`;
  const pair = ([label, value]: readonly [string, string]) =>
    row(`<td ${CELL}>${escaped(label)}</td><td ${SUM}>${escaped(value)}</td>`);
  const line = ([name, detail, value]: readonly [string, string, string]) =>
    row(
      `<td ${CELL}>${escaped(name)}${detail === '' ? '' : `<br><small>${broken(detail)}</small>`}</td><td ${SUM}>${escaped(value)}</td>`,
    );
  return `<h2>${escaped(title)}</h2><table>${facts.map(pair).join('')}</table><hr><table>${lines.map(line).join('')}</table><hr><table>${totals.map(pair).join('')}</table>`;
}

/** What a message says as a web page without anything that is fetched or run. */
export function mailHtml({ text, view, language }: Pick<Mail, 'text' | 'view' | 'language'>): string {
  const paragraphs = text.split(/\n{2,}/).map((one) => `<p>${broken(one)}</p>`);
  return `<!doctype html><html lang="${escaped(language)}"><body>${paragraphs.join('')}${view === null ? '' : viewHtml(view)}</body></html>`;
}

/** A name that every mail program reads: letters without their marks, nothing beyond ASCII. */
const plainName = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\x20-\x7e]|["\\]/g, '_');

/**
 * A message as it goes to a mail server or into a file (RFC 5322, MIME), byte for byte the same each time. Those who get a
 * blind copy stand in it only where `withBlind` asks for them, as in a file for the person's own mail program.
 */
export function writeEml(mail: Mail, data: readonly MailFileData[], withBlind = false): string {
  const message = createMimeMessage();
  const mark = mail.id.replace(/[^\w-]/g, '');
  message.boundaries = { mixed: `mixed-${mark}`, alt: `alt-${mark}`, related: `related-${mark}` };
  message.setHeader('Date', new Date(mail.queuedAt).toUTCString().replace('GMT', '+0000'));
  message.setHeader('Message-ID', `<${mark}@${mail.from.split('@')[1] ?? 'able-ledger.invalid'}>`);
  message.setSender({ name: mail.fromName, addr: mail.from });
  message.setTo([...mail.to]);
  if (mail.cc.length > 0) message.setCc([...mail.cc]);
  if (withBlind && mail.bcc.length > 0) message.setBcc([...mail.bcc]);
  message.setSubject(mail.subject);
  for (const [contentType, text] of [
    ['text/plain', mail.text],
    ['text/html', mailHtml(mail)],
  ] as const)
    message.addMessage({
      contentType,
      charset: 'UTF-8',
      encoding: 'base64',
      data: inLines(message.toBase64(text.replaceAll('\n', '\r\n'))),
    });
  const bytesOf = new Map(data.map((one) => [one.sha256, one.data]));
  for (const { name, type, sha256 } of mail.files)
    message.addAttachment({
      filename: plainName(name),
      contentType: type === '' ? 'application/octet-stream' : type,
      data: inLines(bytesOf.get(sha256) ?? ''),
    });
  return message.asRaw();
}
