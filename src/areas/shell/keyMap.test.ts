import { isKey, KEY_MAP, type KeyName } from './keyMap';

const press = (key: string, held: readonly string[] = []) =>
  ({ key, code: '', getModifierState: (mod: string) => held.includes(mod) }) as unknown as KeyboardEvent;

const named = (event: KeyboardEvent) => (Object.keys(KEY_MAP) as KeyName[]).filter((name) => isKey(event, name));

test.each([
  ['Enter alone goes to the next cell', press('Enter'), ['nextCell']],
  ['with Alt to the next line', press('Enter', ['Alt']), ['nextLine']],
  ['with Ctrl it does the main thing', press('Enter', ['Control']), ['main']],
  ['with Shift it writes a further line', press('Enter', ['Shift']), ['furtherText']],
  ['a letter alone is text', press('n'), []],
  ['Alt and a digit go to an area', press('4', ['Alt']), ['area']],
  ['Alt and Ctrl together write signs on many keyboards', press('q', ['Alt', 'Control']), []],
  ['? with Shift lists the keys', press('?', ['Shift']), ['help']],
])('%s', (_, event, names) => expect(named(event)).toEqual(names));

test('no two keys are pressed the same way', () => {
  const presses = Object.values(KEY_MAP).flatMap((key) => [...key.presses]);
  expect(new Set(presses).size).toBe(presses.length);
});
