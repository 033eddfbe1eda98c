import { type Place, placeKeys } from '@/core/tax/place';
import type { PlaceRow } from '../rows';
import { byId, type Columns, cell, last } from './columns';

const ARROW = ' > ';

/** One row for each match of addresses. */
export const PLACE_COLUMNS: Columns<PlaceRow> = {
  title: 'Places',
  agreed: ['name', 'rounding', 'stack'],
  heads: ['place', 'name', 'rounding', 'stack', 'country', 'region', 'postal from', 'postal to', 'city'],
  write: (place) =>
    place.matches.map((m) => [
      place.id,
      place.name,
      place.rounding,
      place.stack.join(ARROW),
      m.country,
      m.region,
      m.postalFrom,
      m.postalTo,
      m.city,
    ]),
  read: (rows) =>
    byId(rows, 'place').map(([id, own]) => {
      const [first] = own;
      const place: Place = {
        id,
        name: first === undefined ? '' : cell(first, 'name'),
        rounding: (first === undefined ? '' : cell(first, 'rounding')) as Place['rounding'],
        stack:
          first === undefined
            ? []
            : cell(first, 'stack')
                .split('>')
                .map((part) => part.trim())
                .filter(Boolean),
        matches: own.map((row) => ({
          country: cell(row, 'country'),
          region: cell(row, 'region'),
          postalFrom: cell(row, 'postal from'),
          postalTo: cell(row, 'postal to'),
          city: cell(row, 'city'),
        })),
      };
      return { rows: own.map((row) => row.row), value: { ...place, keys: placeKeys(place) } };
    }),
  columnOf: (path) => ({ id: 'place', postalFrom: 'postal from', postalTo: 'postal to' })[last(path)] ?? last(path),
};
