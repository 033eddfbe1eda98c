import dynamic from 'next/dynamic';
import type { ComponentType } from 'react';
import type { RecordSection } from '../shared/RecordSheet';

/** A part of Setup. */
interface Section extends RecordSection {
  /** What stands in the margin beside it. */
  readonly Margin?: ComponentType;
}

/** The parts of Setup in their groups, as the index shows them; each is loaded when it is gone to. */
export const SECTIONS: readonly { readonly title: string; readonly sections: readonly Section[] }[] = [
  {
    title: 'Our business',
    sections: [
      { path: 'business', name: 'Business', Page: dynamic(async () => (await import('./BusinessForm')).BusinessForm) },
      {
        path: 'registrations',
        name: 'Registrations',
        Page: dynamic(async () => (await import('./registrations/RegistrationPages')).RegistrationList),
        Record: dynamic(async () => (await import('./registrations/RegistrationPages')).RegistrationPage),
      },
      {
        path: 'bank-accounts',
        name: 'Bank accounts',
        Page: dynamic(async () => (await import('./bank/BankAccountPages')).BankAccountList),
        Record: dynamic(async () => (await import('./bank/BankAccountPages')).BankAccountPage),
      },
    ],
  },
  {
    title: 'Tax',
    sections: [
      { path: 'packs', name: 'Starter packs', Page: dynamic(async () => (await import('./packs/PackList')).PackList) },
      {
        path: 'jurisdictions',
        name: 'Jurisdictions and rates',
        Page: dynamic(async () => (await import('./jurisdictions/JurisdictionTree')).JurisdictionTree),
        Record: dynamic(async () => (await import('./jurisdictions/JurisdictionPage')).JurisdictionPage),
      },
      {
        path: 'places',
        name: 'Places',
        Page: dynamic(async () => (await import('./places/PlaceList')).PlaceList),
        Record: dynamic(async () => (await import('./places/PlaceList')).PlacePage),
      },
      {
        path: 'tax-codes',
        name: 'Tax codes',
        Page: dynamic(async () => (await import('./codes/TaxCodePages')).TaxCodeList),
        Record: dynamic(async () => (await import('./codes/TaxCodePages')).TaxCodePage),
      },
      {
        path: 'table',
        name: 'Decision table',
        Page: dynamic(async () => (await import('./table/DecisionTable')).DecisionTable),
        Margin: dynamic(async () => (await import('./table/Tester')).Tester),
      },
      {
        path: 'withholding',
        name: 'Withholding',
        Page: dynamic(async () => (await import('./withholding/WithholdingPages')).WithholdingList),
        Record: dynamic(async () => (await import('./withholding/WithholdingPages')).WithholdingPage),
      },
      {
        path: 'rate-change',
        name: 'What if a rate changes',
        Page: dynamic(async () => (await import('./rates/RateChange')).RateChange),
      },
      {
        path: 'exchange-rates',
        name: 'Exchange rates',
        Page: dynamic(async () => (await import('./rates/ExchangeRates')).ExchangeRates),
      },
    ],
  },
  {
    title: 'Documents',
    sections: [
      {
        path: 'numbers',
        name: 'Numbers',
        Page: dynamic(async () => (await import('./series/SeriesPages')).SeriesList),
        Record: dynamic(async () => (await import('./series/SeriesPages')).SeriesPage),
      },
      {
        path: 'styles',
        name: 'Document styles',
        Page: dynamic(async () => (await import('./styles/StylePages')).StyleList),
        Record: dynamic(async () => (await import('./styles/StylePages')).StylePage),
      },
    ],
  },
  {
    title: 'Messages',
    sections: [
      {
        path: 'messages',
        name: 'Words of messages',
        Page: dynamic(async () => (await import('./messages/TemplatePages')).TemplateList),
        Record: dynamic(async () => (await import('./messages/TemplatePages')).TemplatePage),
      },
      {
        path: 'reminders',
        name: 'Reminders',
        Page: dynamic(async () => (await import('./reminders/ReminderRulesForm')).ReminderRulesForm),
      },
    ],
  },
  {
    title: 'Files',
    sections: [
      { path: 'csv', name: 'Tables as CSV', Page: dynamic(async () => (await import('./files/CsvFiles')).CsvFiles) },
      { path: 'book', name: 'Book file', Page: dynamic(async () => (await import('./files/BookFile')).BookFile) },
    ],
  },
];
