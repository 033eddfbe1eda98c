import fc from 'fast-check';
import { act, documentOf, issued, momentOn, newBook, refusalCodes } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import type { MailToQueue } from '@/core/decisions/delivery/mailing';
import type { Mail } from '@/core/delivery/mail';
import type { MailServer, MailToSend } from '@/core/delivery/mailServer';
import { later } from '@/core/delivery/queue';
import { digest } from '@/core/kernel/digest';
import { writeEml } from '@/print/eml';
import { simulatedMailServer } from '@/standins/mailServer';
import { keepMessageTemplate, sendMailAgain, sendMails, setMailAside } from '@/store/delivery/actions/mail';
import { mailsAbout, mailsIn } from '@/store/delivery/queries/mail';
import { perform } from '@/store/perform';
import { cancelDocument } from '@/store/sales/actions/afterIssue';
import { historyOf } from '@/store/sales/queries/family';
import type { BookDb } from '@/store/schema';
import { mailJob } from './mailRound';

const DAY = '2026-01-15';
const START = `${DAY}T12:00:00.000Z`;

function mailTo(documentId: string, to: readonly string[], over: Partial<MailToQueue> = {}): MailToQueue {
  const data = Buffer.from('%PDF').toString('base64');
  return {
    purpose: 'invoice',
    language: 'en',
    customerId: 'ballyvaughan',
    documentIds: [documentId],
    about: 'INV-2026-0001',
    to,
    cc: [],
    bcc: [],
    subject: 'Invoice',
    text: 'It is attached.',
    copy: false,
    view: null,
    files: [{ name: 'invoice.pdf', type: 'application/pdf', size: 4, sha256: digest(data), data }],
    replaces: '',
    ...over,
  };
}

/** A mail server that notes everything it is given. */
function watched(over: Partial<MailServer> = {}): MailServer & { readonly given: MailToSend[] } {
  const given: MailToSend[] = [];
  const server = simulatedMailServer();
  return {
    ...server,
    given,
    send: (mail) => {
      given.push(mail);
      return server.send(mail);
    },
    ...over,
  };
}

async function bookWith(...to: string[]): Promise<{ readonly db: BookDb; readonly mail: Mail }> {
  const db = await newBook();
  const invoice = await issued(db);
  const [mail] = await act(db, sendMails, { mails: [mailTo(invoice.id, to)] }, DAY);
  if (mail === undefined) throw new Error('nothing was queued');
  return { db, mail };
}

/** All rounds that are due so many seconds after the start. */
async function rounds(db: BookDb, server: MailServer, seconds: number): Promise<void> {
  const moment = () => ({ ...momentOn(DAY), now: later(START, seconds) });
  const job = mailJob(server, writeEml);
  for (let round = await job.round(db, moment); round.ok && round.value > 0; ) round = await job.round(db, moment);
}

const stateOf = async (db: BookDb, id: string) => {
  const mail = await db.mails.get(id);
  return [mail?.phase, mail?.news.map(({ kind }) => kind)];
};

test('a message goes out once, its document is sent, and what is heard of it is kept', async () => {
  const { db, mail } = await bookWith('opens@a.example');
  const server = watched();
  await rounds(db, server, 0);
  expect((await documentOf(db, mail.documentIds[0] ?? '')).sentOn).toBe(DAY);
  await rounds(db, server, 5);
  await rounds(db, server, 60);
  expect(server.given.map(({ id, recipients }) => [id, recipients])).toEqual([[mail.id, ['opens@a.example']]]);
  expect(await stateOf(db, mail.id)).toEqual(['closed', ['delivered', 'opened']]);
  const events = (await historyOf(db, mail.documentIds[0] ?? '')).map(({ action }) => action);
  expect(events.slice(-3)).toEqual(['queue mail', 'try mail', 'hear of mail']);
  await expectSoundBook(db);
});

test('one of several receivers that bounces asks for somebody; written anew it is resolved', async () => {
  const { db, mail } = await bookWith('unknown@a.example', 'b@a.example');
  const server = watched();
  await rounds(db, server, 0);
  await rounds(db, server, 5);
  expect((await stateOf(db, mail.id))[0]).toBe('asks');
  const again = mailTo(mail.documentIds[0] ?? '', ['c@a.example'], { replaces: mail.id });
  await act(db, sendMails, { mails: [again] }, DAY);
  expect((await stateOf(db, mail.id))[0]).toBe('closed');
  expect(await mailsAbout(db, mail.documentIds[0] ?? '')).toHaveLength(2);
  // The same file is kept once for both.
  expect(await db.mailFiles.count()).toBe(1);
});

test('a document whose message waits or went out is not cancelled; removed from the queue, it is', async () => {
  const { db, mail } = await bookWith('a@a.example');
  const cancelled = () =>
    perform(db, cancelDocument, { documentId: mail.documentIds[0] ?? '', reason: 'Twice' }, momentOn(DAY));
  expect(refusalCodes(await cancelled())).toEqual(['on-its-way']);
  await act(db, setMailAside, { id: mail.id, words: 'not yet' }, DAY);
  expect((await cancelled()).ok).toBe(true);
  const sent = await bookWith('a@a.example');
  await rounds(sent.db, watched(), 0);
  const input = { documentId: sent.mail.documentIds[0] ?? '', reason: 'Twice' };
  expect(refusalCodes(await perform(sent.db, cancelDocument, input, momentOn(DAY)))).toEqual(['sent']);
});

test('a full mailbox is heard of twice: delayed, and at last bounced', async () => {
  const { db, mail } = await bookWith('full@a.example');
  const server = watched();
  await rounds(db, server, 0);
  for (const seconds of [70, 3700, 86_400, 200_000, 300_000]) await rounds(db, server, seconds);
  expect(await stateOf(db, mail.id)).toEqual(['asks', ['delayed', 'bounced']]);
  expect(refusalCodes(await perform(db, setMailAside, { id: mail.id, words: ' ' }, momentOn(DAY)))).toEqual([
    'missing',
  ]);
  await act(db, setMailAside, { id: mail.id, words: 'telephoned' }, DAY);
  expect(await mailsIn(db, 'asks', 10)).toEqual([]);
});

test('a server that is down is tried ever later and then left to a person; one that refuses is not tried again', async () => {
  const { db, mail } = await bookWith('down@a.example');
  for (const seconds of [0, 5, 35, 335, 3935, 25_535, 90_000]) await rounds(db, watched(), seconds);
  expect((await db.mails.get(mail.id))?.tries).toHaveLength(6);
  expect((await stateOf(db, mail.id))[0]).toBe('asks');
  await act(db, sendMailAgain, { id: mail.id }, '2026-01-17');
  const up = watched({ send: async () => ({ kind: 'taken', reference: 'M', again: false }) });
  await rounds(db, up, 2 * 86_400);
  expect((await stateOf(db, mail.id))[0]).toBe('sent');
  const blocked = await bookWith('blocked@a.example');
  await rounds(blocked.db, watched(), 0);
  await rounds(blocked.db, watched(), 90_000);
  expect((await blocked.db.mails.get(blocked.mail.id))?.tries).toHaveLength(1);
  expect(await stateOf(blocked.db, blocked.mail.id)).toEqual(['asks', []]);
});

test('under any cut no message is taken twice, and none is lost', async () => {
  /** What happens to a try: it goes well, nobody is reached, the answer is lost, the page is closed midway. */
  const luck = fc.constantFrom('well', 'unreached', 'answer lost', 'closed');
  await fc.assert(
    fc.asyncProperty(fc.array(luck, { maxLength: 6 }), fc.boolean(), async (fates, twoTabs) => {
      const { db, mail } = await bookWith('a@a.example');
      const taken: string[] = [];
      const inner = simulatedMailServer();
      const left = [...fates];
      const server: MailServer = {
        news: inner.news,
        send: async (given) => {
          const fate = left.shift() ?? 'well';
          if (fate === 'unreached') return { kind: 'unreachable', words: 'nobody' };
          const answer = await inner.send(given);
          if (answer.kind === 'taken' && !answer.again) taken.push(given.id);
          if (fate === 'closed') throw new Error('the page was closed');
          return fate === 'answer lost' ? { kind: 'unreachable', words: 'lost' } : answer;
        },
      };
      for (let seconds = 0; seconds < 40_000; seconds += 3600) {
        const round = () => rounds(db, server, seconds).catch(() => undefined);
        await (twoTabs ? Promise.all([round(), round()]) : round());
      }
      const found = await db.mails.get(mail.id);
      if (found?.phase === 'asks') {
        await act(db, sendMailAgain, { id: mail.id }, '2026-01-17');
        await rounds(db, server, 2 * 86_400);
      }
      expect(taken).toEqual([mail.id]);
      expect((await db.mails.get(mail.id))?.receipt).not.toBeNull();
      await db.delete();
    }),
    { numRuns: 15 },
  );
});

test.each([
  [{ to: [] }, 'to', 'missing'],
  [{ to: ['nobody'] }, 'to', 'invalid'],
  [{ bcc: ['x@'] }, 'bcc', 'invalid'],
  [{ subject: ' ' }, 'subject', 'missing'],
  [{ text: '' }, 'text', 'missing'],
  [{ to: Array.from({ length: 51 }, (_, i) => `p${i}@a.example`) }, 'to', 'too-large'],
])('a message with %j is refused at its field', async (over, path, code) => {
  const db = await newBook();
  const invoice = await issued(db);
  const mails = [mailTo(invoice.id, ['a@a.example'], over)];
  const result = await perform(db, sendMails, { mails }, momentOn(DAY));
  expect(result.ok ? [] : result.refusals.map((one) => [one.path, one.code])).toContainEqual([path, code]);
  expect(await db.mails.count()).toBe(0);
});

test('words of messages are kept until they are again those that come with the program', async () => {
  const db = await newBook();
  const own = { id: 'invoice|en', purpose: 'invoice' as const, language: 'en', subject: 'Yours {number}', text: 'x' };
  await act(db, keepMessageTemplate, own, DAY);
  expect(await db.messageTemplates.count()).toBe(1);
  const wrong = await perform(db, keepMessageTemplate, { ...own, text: '{nummer}' }, momentOn(DAY));
  expect(wrong).toMatchObject({ ok: false, refusals: [{ path: 'text', wanted: { what: 'placeholder' } }] });
  const { firstTemplate } = await import('@/core/delivery/messageTemplate');
  await act(db, keepMessageTemplate, firstTemplate('invoice', 'en'), DAY);
  expect(await db.messageTemplates.count()).toBe(0);
});
