import fc from 'fast-check';
import { EUR } from 'tests/book';
import type { Currency } from '@/core/kernel/currency';
import { minor, total } from '@/core/kernel/money';
import type { Category } from '@/core/tax/calcTypes';
import { PACK_TITLES, packOf } from '@/core/tax/packs';
import { type FormBox, fillIn, formFaults, type ReturnForm, rowsInto, weightInDue } from '../form';
import type { TaxBalance } from '../return';
import type { TypedBox } from '../statedForm';
import { formOf, RETURN_FORMS } from '.';

interface Said {
  readonly code: string;
  readonly base: bigint;
  readonly tax?: bigint;
  readonly category?: Category;
  readonly kind?: TaxBalance['kind'];
  readonly taxId?: string;
  readonly boxBase?: string;
  readonly boxTax?: string;
  /** False for taxes after the first of a code, whose base counts already. */
  readonly first?: boolean;
}

/** A row of a return, all in the currency of the return. */
function row({
  code,
  base,
  tax = 0n,
  category = 'S',
  kind = 'due',
  taxId = '',
  boxBase = '',
  boxTax = '',
  first = true,
}: Said) {
  return {
    code,
    codeName: code,
    category,
    kind,
    taxId,
    boxBase,
    boxTax,
    filingBase: minor(base),
    filingBaseOnce: first ? minor(base) : minor(0n),
    filingTax: minor(tax),
  } as TaxBalance;
}

const form = (id: string): ReturnForm => {
  const found = formOf({ jurisdictionId: id });
  if (found === null) throw new Error(`no form ${id}`);
  return found;
};

/** A row as the pack of a country has its codes send it. */
const coded = (pack: string, code: string, base: bigint, tax = 0n, over: Partial<Said> = {}) => {
  const own = packOf(pack).codes.find(({ id }) => id === code);
  if (own === undefined) throw new Error(`no code ${code}`);
  const { category, boxBase, boxTax } = own;
  return row({ code, base, tax, category, boxBase, boxTax, ...over });
};

const typed = (box: string, amount: bigint): TypedBox => ({
  box,
  amount: minor(amount),
  words: 'purchases',
  account: '',
});

const stated = (
  id: string,
  rows: readonly TaxBalance[],
  typedBoxes: readonly TypedBox[] = [],
  currency = 'EUR',
  inWhole = false,
) => {
  const { boxes, due } = fillIn(form(id), rows, typedBoxes, currency as Currency, inWhole);
  const amounts = Object.fromEntries(
    boxes.filter(({ amount }) => amount !== 0n).map(({ box, amount }) => [box, amount]),
  );
  return { ...amounts, due };
};

describe('the forms that come with the program', () => {
  const isWorked = ({ sum, less }: FormBox) => sum !== undefined || less !== undefined;
  test.each(RETURN_FORMS.map((one) => [one.id, one] as const))('%s is whole', (_, { boxes, due, source, title }) => {
    const seen = new Set<string>();
    for (const box of boxes) {
      for (const id of [...(box.sum ?? []), ...(box.less ?? [])])
        expect([box.id, seen.has(id)]).toEqual([box.id, true]);
      expect(seen.has(box.id)).toBe(false);
      expect(box.words).not.toBe('');
      seen.add(box.id);
    }
    for (const id of [...(due.sum ?? []), ...(due.less ?? [])]) expect(seen.has(id)).toBe(true);
    expect(source.length).toBeGreaterThan(10);
    expect(title).not.toBe('');
  });

  const STACKED = new Set(['US-WA', 'CA', 'IN']);
  const packs = PACK_TITLES.flatMap(({ id }) => {
    const pack = packOf(id);
    return pack.registration === null ? [] : [[id, pack, form(pack.registration.jurisdictionId)] as const];
  });
  test.each(packs)(
    '%s: every entry of its codes and places stands in exactly the boxes that its form says',
    (_, pack, own) => {
      const ids = new Map(own.boxes.map((box) => [box.id, box]));
      const rows = pack.codes.map((code, i) => {
        const base = BigInt(1000 + i);
        const tax = code.components.length > 0 ? base / 5n : 0n;
        for (const id of [code.boxBase, code.boxTax].filter(Boolean)) {
          expect([code.id, id, ids.has(id)]).toEqual([code.id, id, true]);
          expect(isWorked(ids.get(id) as FormBox)).toBe(false);
        }
        const { category, boxBase, boxTax } = code;
        return row({ code: code.id, base, tax, category, boxBase, boxTax, taxId: code.components[0]?.taxId ?? '' });
      });
      // Where places decide, a line carries the stack of one, with each of its taxes.
      const stacks = STACKED.has(pack.id)
        ? pack.taxes.map((tax, at) =>
            row({ code: '@place/standard', base: 500n, tax: 40n, taxId: tax.id, first: at === 0 }),
          )
        : [];
      expect(formFaults(own, [...rows, ...stacks])).toEqual([]);
      // What is charged is due, and nothing else.
      const all = [...rows, ...stacks];
      const { due } = fillIn(own, all, [], EUR, false);
      const charged = total(all.map(({ filingTax }) => filingTax));
      const roundedAway = 100n * BigInt(own.boxes.length);
      expect(due - charged <= roundedAway && charged - due <= roundedAway).toBe(true);
    },
  );

  test('what no box takes, and what two take, is named', () => {
    const odd = {
      ...form('GB'),
      boxes: [...form('GB').boxes, { id: 'X', words: 'Again', takes: [{ figure: 'tax' as const }] }],
    };
    const sale = coded('GB', 'GB-S', 10_000n, 2_000n);
    expect(formFaults(odd, [sale])).toEqual([{ codeName: 'GB-S', what: 'tax', boxes: ['1', 'X'] }]);
    const inland = coded('DE', 'DE-S', 10_000n, 1_900n);
    expect(formFaults(form('DE'), [{ ...inland, boxTax: '' }])).toEqual([{ codeName: 'DE-S', what: 'tax', boxes: [] }]);
    // Where one box takes all tax, a code of one's own stands in it whatever it names.
    expect(formFaults(form('GB'), [{ ...sale, boxTax: '' }])).toEqual([]);
    expect(formFaults(form('DE'), [row({ code: 'OWN', base: 100n })])).toEqual([
      { codeName: 'OWN', what: 'base', boxes: [] },
    ]);
    // Ireland asks for no box of what is exported.
    expect(formFaults(form('IE'), [coded('IE', 'IE-EX', 100n)])).toEqual([]);
  });
});

describe('a quarter worked by hand', () => {
  test('Ireland: sales at two rates, goods and services to the EU, purchases typed', () => {
    const rows = [
      coded('IE', 'IE-S', 10_000_00n, 2_300_00n), // 10,000.00 × 23 %
      coded('IE', 'IE-R', 2_000_00n, 270_00n), // 2,000.00 × 13.5 %
      coded('IE', 'IE-IC', 5_250_75n),
      coded('IE', 'IE-RC', 1_499_99n),
      coded('IE', 'IE-EX', 3_000_00n),
    ];
    // T1 = 2,300.00 + 270.00; T3 = 2,570.00 − 812.40; E1 and ES1 in whole euro, the cents left out.
    expect(stated('IE', rows, [typed('T2', 812_40n)])).toEqual({
      T1: 2_570_00n,
      T2: 812_40n,
      T3: 1_757_60n,
      E1: 5_250_00n,
      ES1: 1_499_00n,
      due: 1_757_60n,
    });
    // More purchases than sales: T4 = 3,000.00 − 2,570.00 comes back.
    expect(stated('IE', rows, [typed('T2', 3_000_00n)])).toMatchObject({ T4: 430_00n, due: -430_00n });
  });

  test('Germany: bases in whole euro, tax to the cent', () => {
    const rows = [
      coded('DE', 'DE-S', 12_345_67n, 2_345_68n), // 12,345.67 × 19 % = 2,345.6773
      coded('DE', 'DE-R', 999_99n, 70_00n), // 999.99 × 7 % = 69.9993
      coded('DE', 'DE-IC', 4_000_50n),
      coded('DE', 'DE-EX', 1_200_00n),
      coded('DE', 'DE-RC', 800_00n),
    ];
    // 83 = 2,345.68 + 70.00 − 315.68.
    expect(stated('DE', rows, [typed('66', 315_68n)])).toEqual({
      '81': 12_345_00n,
      '81 tax': 2_345_68n,
      '86': 999_00n,
      '86 tax': 70_00n,
      '41': 4_000_00n,
      '43': 1_200_00n,
      '21': 800_00n,
      '66': 315_68n,
      '83': 2_100_00n,
      due: 2_100_00n,
    });
  });

  test('France: every line to the nearest euro, half up, and sums of what is stated', () => {
    const rows = [
      coded('FR', 'FR-S', 3_333_33n, 666_67n), // × 20 % = 666.666
      coded('FR', 'FR-R10', 1_005_00n, 100_50n), // × 10 %
      coded('FR', 'FR-R', 200_00n, 11_00n), // × 5.5 %
      coded('FR', 'FR-IC', 700_49n),
      coded('FR', 'FR-EX', 150_50n),
    ];
    // A1 = 3,333.33 + 1,005.00 + 200.00 = 4,538.33; 16 = 667 + 101 + 11; 28 = 779 − 300.
    expect(stated('FR', rows, [typed('20', 299_60n)])).toEqual({
      A1: 4_538_00n,
      E1: 151_00n,
      F2: 700_00n,
      '08 base': 3_333_00n,
      '08': 667_00n,
      '9B base': 1_005_00n,
      '9B': 101_00n,
      '09 base': 200_00n,
      '09': 11_00n,
      '16': 779_00n,
      '20': 300_00n,
      '23': 300_00n,
      '28': 479_00n,
      due: 479_00n,
    });
  });

  test('United Kingdom: box 5 has no sign, boxes 6 and 7 no pence', () => {
    const rows = [
      coded('GB', 'GB-S', 1_000_55n, 200_11n), // × 20 %
      coded('GB', 'GB-R', 400_00n, 20_00n), // × 5 %
      coded('GB', 'GB-Z', 99_99n),
      coded('GB', 'GB-E', 50_00n),
    ];
    // 3 = 220.11; 5 = |220.11 − 300.00|; 6 = 1,000.55 + 400.00 + 99.99 + 50.00 = 1,550.54.
    expect(stated('GB', rows, [typed('4', 300_00n), typed('7', 1_500_75n)], 'GBP')).toEqual({
      '1': 220_11n,
      '3': 220_11n,
      '4': 300_00n,
      '5': 79_89n,
      '6': 1_550_00n,
      '7': 1_500_00n,
      due: -79_89n,
    });
  });

  test('Washington: taxable is gross without what is exempt; local tax beside that of the state', () => {
    const stack = (base: bigint, parts: readonly (readonly [string, bigint])[], over: Partial<Said> = {}) =>
      parts.map(([taxId, tax], i) => row({ code: '@WA/goods', base, tax, taxId, first: i === 0, ...over }));
    const rows = [
      // Seattle: 6.5 % state, 2.45 % city and county, 1.4 % transit of 1,000.00.
      ...stack(1_000_00n, [
        ['US-WA-SALES', 65_00n],
        ['US-WA-SEATTLE-SALES', 24_50n],
        ['US-WA-RTA-SALES', 14_00n],
      ]),
      // San Juan: 6.5 % and 1.8 % of 500.00.
      ...stack(500_00n, [
        ['US-WA-SALES', 32_50n],
        ['US-WA-SANJUAN-SALES', 9_00n],
      ]),
      // A university with its certificate, and a delivery to Oregon.
      ...stack(300_00n, [['US-WA-SALES', 0n]], { kind: 'exempt' }),
      coded('US-WA', 'US-WA-OUT', 200_00n),
    ];
    // Gross 2,000.00, deductions 300.00 + 200.00, taxable 1,500.00; 65.00 + 32.50; 24.50 + 14.00 + 9.00.
    expect(stated('US-WA', rows, [], 'USD')).toEqual({
      Gross: 2_000_00n,
      Deductions: 500_00n,
      Taxable: 1_500_00n,
      'State tax': 97_50n,
      'Local tax': 47_50n,
      Total: 145_00n,
      due: 145_00n,
    });
  });

  test('Canada: GST and HST on line 103, what a province collects apart', () => {
    const rows = [
      row({ code: '@CA-ON/standard', base: 2_000_00n, tax: 260_00n, taxId: 'CA-ON-HST' }), // 13 %
      row({ code: '@CA-BC/standard', base: 1_000_00n, tax: 50_00n, taxId: 'CA-GST' }), // 5 %
      row({ code: '@CA-BC/standard', base: 1_000_00n, tax: 70_00n, taxId: 'CA-BC-PST', first: false }), // 7 %
      coded('CA', 'CA-EX', 400_50n),
    ];
    // 101 = 3,400.50, in whole dollars 3,401; 109 = 310.00 − 110.00; 113A = 200.00 − 150.00; and 70.00 to the province.
    expect(stated('CA', rows, [typed('106', 110_00n), typed('110', 150_00n)], 'CAD')).toEqual({
      '101': 3_401_00n,
      '103': 310_00n,
      '105': 310_00n,
      '106': 110_00n,
      '108': 110_00n,
      '109': 200_00n,
      '110': 150_00n,
      '113A': 50_00n,
      Provincial: 70_00n,
      due: 120_00n,
    });
  });

  test('Australia: whole dollars, cents left out; G1 holds G2, G3 and G4', () => {
    const rows = [
      coded('AU', 'AU-S', 5_454_90n, 545_49n), // × 10 %
      coded('AU', 'AU-EX', 1_000_00n),
      coded('AU', 'AU-Z', 250_99n),
      coded('AU', 'AU-E', 100_00n),
    ];
    // G1 = 5,454.90 + 1,000.00 + 250.99 + 100.00 = 6,805.89; 9 = 545 − 120.
    expect(stated('AU', rows, [typed('1B', 120_80n)], 'AUD', true)).toEqual({
      G1: 6_805_00n,
      G2: 1_000_00n,
      G3: 250_00n,
      G4: 100_00n,
      '1A': 545_00n,
      '1B': 120_00n,
      '9': 425_00n,
      due: 425_00n,
    });
  });

  test('India: integrated, central and state tax apart, the value once', () => {
    const rows = [
      coded('IN', 'IN-I-STANDARD', 100_000_00n, 18_000_00n, { taxId: 'IN-IGST' }), // 18 %
      row({ code: '@IN-KA/standard', base: 50_000_00n, tax: 4_500_00n, taxId: 'IN-CGST' }), // 9 %
      row({ code: '@IN-KA/standard', base: 50_000_00n, tax: 4_500_00n, taxId: 'IN-KA-SGST', first: false }), // 9 %
      coded('IN', 'IN-EX', 20_000_00n),
      coded('IN', 'IN-E', 5_000_40n),
    ];
    // 3.1(a) = 150,000; 6.1 = 18,000 + 4,500 + 4,500 − 7,000.
    expect(stated('IN-KA', rows, [typed('4 IGST', 7_000_00n)], 'INR', true)).toEqual({
      '3.1(a)': 150_000_00n,
      '3.1(a) IGST': 18_000_00n,
      '3.1(a) CGST': 4_500_00n,
      '3.1(a) SGST': 4_500_00n,
      '3.1(b)': 20_000_00n,
      '3.1(c)': 5_000_00n,
      '4 IGST': 7_000_00n,
      '6.1': 20_000_00n,
      due: 20_000_00n,
    });
  });
});

describe('a form', () => {
  const EXACT: ReturnForm = {
    id: 'X',
    title: 'X',
    source: 'made up',
    boxes: [
      { id: 'tax', words: 'Tax', takes: [{ figure: 'tax' }], typed: true },
      { id: 'input', words: 'Input', takes: [], typed: true },
      { id: 'to pay', words: 'To pay', sum: ['tax'], less: ['input'], least: 0 },
      { id: 'back', words: 'Back', sum: ['input'], less: ['tax'], least: 0 },
      { id: 'base', words: 'Base', takes: [{ figure: 'base' }] },
    ],
    due: { sum: ['to pay'], less: ['back'] },
  };
  const rows = fc.array(
    fc.record({ base: fc.bigInt({ min: -99999n, max: 99999n }), tax: fc.bigInt({ min: -9999n, max: 9999n }) }),
    { maxLength: 8 },
  );
  test('states what its entries come to, and each typed amount moves what is due by its weight', () => {
    fc.assert(
      fc.property(rows, fc.bigInt({ min: 0n, max: 99999n }), (said, amount) => {
        const own = said.map((one) => row({ code: 'S', ...one }));
        const tax = said.reduce((sum, one) => sum + one.tax, 0n);
        expect(fillIn(EXACT, own, [], EUR, false).due).toBe(tax);
        for (const box of ['tax', 'input', 'base']) {
          const { due } = fillIn(EXACT, own, [typed(box, amount)], EUR, false);
          expect(due - tax).toBe(amount * BigInt(weightInDue(EXACT, box)));
        }
      }),
    );
    expect(['tax', 'input', 'base', 'none'].map((box) => weightInDue(EXACT, box))).toEqual([1, -1, 0, 0]);
  });
  test('opens each box to the rows that something of went into it', () => {
    const [boxTax, , , , boxBase] = EXACT.boxes;
    const own = [row({ code: 'A', base: 100n, tax: 20n }), row({ code: 'B', base: 50n })];
    expect(rowsInto(boxTax as FormBox, own).map(({ code }) => code)).toEqual(['A']);
    expect(rowsInto(boxBase as FormBox, own).map(({ code }) => code)).toEqual(['A', 'B']);
  });
});
