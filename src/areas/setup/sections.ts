import type { ComponentType } from 'react';
import { BusinessForm } from './BusinessForm';
import { TaxCodeList, TaxCodePage } from './codes/TaxCodePages';
import { CustomerList, CustomerPage } from './customers/Customers';
import { BookFile } from './files/BookFile';
import { CsvFiles } from './files/CsvFiles';
import { ItemList, ItemPage } from './items/ItemPages';
import { JurisdictionPage } from './jurisdictions/JurisdictionPage';
import { JurisdictionTree } from './jurisdictions/JurisdictionTree';
import { PackList } from './packs/PackList';
import { PlaceList, PlacePage } from './places/PlaceList';
import { PriceListPage, PriceLists } from './prices/PriceListPages';
import { ExchangeRates } from './rates/ExchangeRates';
import { RateChange } from './rates/RateChange';
import { RegistrationList, RegistrationPage } from './registrations/RegistrationPages';
import { SeriesList, SeriesPage } from './series/SeriesPages';
import { StyleList, StylePage } from './styles/StylePages';
import { DecisionTable } from './table/DecisionTable';
import { Tester } from './table/Tester';
import { WithholdingList, WithholdingPage } from './withholding/WithholdingPages';

/** A part of Setup. */
export interface Section {
  /** Behind `/setup/`. */
  readonly path: string;
  readonly name: string;
  /** Its own page: a list, or what there is one of. */
  readonly Page: ComponentType;
  /** One record of its list; `id` is `new` for one that is yet to be made. */
  readonly Record?: ComponentType<{ readonly id: string }>;
  /** What stands in the margin beside it. */
  readonly Margin?: ComponentType;
}

/** The parts of Setup in their groups, as the index shows them. */
export const SECTIONS: readonly { readonly title: string; readonly sections: readonly Section[] }[] = [
  {
    title: 'Who we are',
    sections: [
      { path: 'business', name: 'Business', Page: BusinessForm },
      {
        path: 'registrations',
        name: 'Registrations',
        Page: RegistrationList,
        Record: RegistrationPage,
      },
    ],
  },
  {
    title: 'Tax',
    sections: [
      { path: 'packs', name: 'Starter packs', Page: PackList },
      {
        path: 'jurisdictions',
        name: 'Jurisdictions and rates',
        Page: JurisdictionTree,
        Record: JurisdictionPage,
      },
      { path: 'places', name: 'Places', Page: PlaceList, Record: PlacePage },
      { path: 'tax-codes', name: 'Tax codes', Page: TaxCodeList, Record: TaxCodePage },
      { path: 'table', name: 'Decision table', Page: DecisionTable, Margin: Tester },
      {
        path: 'withholding',
        name: 'Withholding',
        Page: WithholdingList,
        Record: WithholdingPage,
      },
      { path: 'rate-change', name: 'What if a rate changes', Page: RateChange },
      { path: 'exchange-rates', name: 'Exchange rates', Page: ExchangeRates },
    ],
  },
  {
    title: 'Who buys what',
    sections: [
      {
        path: 'customers',
        name: 'Customers',
        Page: CustomerList,
        Record: CustomerPage,
      },
      { path: 'items', name: 'Items', Page: ItemList, Record: ItemPage },
      { path: 'prices', name: 'Price lists', Page: PriceLists, Record: PriceListPage },
    ],
  },
  {
    title: 'Documents',
    sections: [
      { path: 'numbers', name: 'Numbers', Page: SeriesList, Record: SeriesPage },
      { path: 'styles', name: 'Document styles', Page: StyleList, Record: StylePage },
    ],
  },
  {
    title: 'Files',
    sections: [
      { path: 'csv', name: 'Tables as CSV', Page: CsvFiles },
      { path: 'book', name: 'Book file', Page: BookFile },
    ],
  },
];
