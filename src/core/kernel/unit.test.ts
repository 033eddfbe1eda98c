import { accepted, draftOf, lineOf, refusalCodes, settingOf } from 'tests/book';
import { itemSchema } from '@/core/catalogue/item';
import { saveBusiness } from '@/core/decisions/setup/begin';
import { figuresOf } from '@/core/documents/content';
import { freezeDraft } from '@/core/documents/freeze';
import { linesFromCells } from '@/core/documents/pasteLines';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { DEMO_BUSINESS, DEMO_CUSTOMERS, DEMO_ITEMS } from '@/demo/setup';
import { Writer } from '@/print/writer';
import { currency } from './currency';
import { decimal } from './decimal';
import { isUnit, unitCode, unitsOf, unitWord } from './unit';

const REEL = { word: 'reel', code: 'XRL' };

describe('an own unit', () => {
  test('prints its word in any language and goes into e-invoices as its code', () => {
    const content = accepted(
      freezeDraft(draftOf({ lines: [lineOf({ unit: 'XRL:reel' })] }), 'INV-1', DEMO_CUSTOMERS[0] ?? null, settingOf()),
    );
    expect(content.lines[0]?.unit).toBe('XRL:reel');
    const written = (language: string, quantity: string, unit: string) =>
      new Writer(language, currency('EUR')).quantity(decimal(quantity), unit);
    expect(written('de', '2', 'XRL:reel')).toBe('2 reel');
    // French counts in the plural from 2 on, German and English anything but 1, Irish in the singular.
    expect(['en', 'de', 'fr', 'ga'].map((language) => written(language, '1.5', 'HUR'))).toEqual([
      '1.5 hours',
      '1,5 Stunden',
      '1,5 heure',
      '1.5 uair',
    ]);
    expect([written('en', '1', 'DAY'), written('es', '2', 'WEE')]).toEqual(['1 day', '2 semanas']);
    expect(JSON.stringify(einvoiceOf(content, figuresOf(content)))).toContain('"XRL"');
  });
  test('is offered behind the others, and found in pasted cells by its word', () => {
    expect(unitsOf([REEL]).at(-1)).toEqual(['XRL:reel', 'reel']);
    const rows = [['Cable', '2', 'Reel', '40.00']];
    expect(linesFromCells(rows, [REEL])[0]).toMatchObject({ quantity: '2', unit: 'XRL:reel', price: '40.00' });
    // Without it the word is one of the description.
    expect(linesFromCells(rows)[0]).toMatchObject({ description: 'Cable\nReel', unit: 'C62' });
  });
  test('has a code of the recommendation, and a word without a colon', () => {
    const book = { id: 'book', business: DEMO_BUSINESS, begunAt: '' } as const;
    const kept = (unit: typeof REEL) => refusalCodes(saveBusiness({ ...DEMO_BUSINESS, units: [unit] }, book));
    expect(kept(REEL)).toEqual([]);
    expect(kept({ ...REEL, code: 'QQQ' })).toEqual(['unknown']);
    expect(kept({ ...REEL, code: 'reel' })).toEqual(['invalid']);
    expect(kept({ ...REEL, word: 'a:b' })).toEqual(['invalid']);
  });
});

test('units are told apart from what is none', () => {
  expect(['C62', 'HUR', 'XRL:reel', 'XRL', 'C62:', ':reel', 'C62:a:b'].map(isUnit)).toEqual([
    true,
    true,
    true,
    false,
    false,
    false,
    false,
  ]);
  expect([unitCode('XRL:reel'), unitCode('HUR'), unitWord('HUR'), unitWord('XRL')]).toEqual([
    'XRL',
    'HUR',
    'hour',
    'XRL',
  ]);
  const asItem = (unit: string) => itemSchema.isValidSync({ ...DEMO_ITEMS[0], unit });
  expect([asItem('XRL'), asItem('XRL:reel')]).toEqual([false, true]);
});
