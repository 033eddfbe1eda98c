// Writes the states and provinces of ISO 3166-2 for countries whose taxes go by them.
import { writeFileSync } from 'node:fs';
import { iso31662 } from 'iso-3166';

const COUNTRIES = ['AU', 'BR', 'CA', 'IN', 'MX', 'US'];

/** English names in India are written without the marks of their transcription. */
const plain = (name) => name.normalize('NFD').replace(/\p{Mn}/gu, '');

const regions = Object.fromEntries(
  COUNTRIES.map((country) => [
    country,
    Object.fromEntries(
      iso31662
        .filter(({ parent }) => parent === country)
        .map(({ code, name }) => [code.slice(country.length + 1), country === 'IN' ? plain(name) : name]),
    ),
  ]),
);
writeFileSync(
  new URL('../src/core/kernel/data/regions.json', import.meta.url),
  `${JSON.stringify(regions, null, 2)}\n`,
);
