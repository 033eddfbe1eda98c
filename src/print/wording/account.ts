import type { AccountEvent } from '@/core/settlement/account';

/** What statements of account, receipts and letters about certificates say in one language. `{name}` is filled in. */
export interface AccountWording {
  readonly statement: string;
  readonly receipt: string;
  readonly letter: string;
  readonly asAt: string;
  readonly period: string;
  readonly opening: string;
  readonly document: string;
  readonly date: string;
  readonly due: string;
  readonly amount: string;
  readonly open: string;
  readonly debit: string;
  readonly credit: string;
  readonly balance: string;
  readonly events: Readonly<Record<AccountEvent, string>>;
  readonly notYetDue: string;
  /** `{days}` such as 1–30. */
  readonly overdue: string;
  readonly over: string;
  readonly held: string;
  readonly cheque: string;
  readonly reference: string;
  readonly received: string;
  readonly withheld: string;
  readonly onAccount: string;
  readonly thanks: string;
  /** The letter, below its list. */
  readonly asks: string;
  readonly please: string;
  readonly type: string;
}

const EN: AccountWording = {
  statement: 'Statement of account',
  receipt: 'Receipt',
  letter: 'Withholding certificates',
  asAt: 'As at',
  period: '{from} to {until}',
  opening: 'Opening balance',
  document: 'Document',
  date: 'Date',
  due: 'Due',
  amount: 'Amount',
  open: 'Open',
  debit: 'Debit',
  credit: 'Credit',
  balance: 'Balance',
  events: {
    invoice: 'Invoice',
    opening: 'Opening invoice',
    'credit-note': 'Credit note',
    receipt: 'Payment received',
    dishonoured: 'Payment returned unpaid',
    refund: 'Refund',
    'refund-undone': 'Refund cancelled',
    'write-off': 'Written off',
    'write-off-undone': 'Write-off cancelled',
    difference: 'Difference',
    'difference-undone': 'Difference cancelled',
    'settled-by': 'Settled from another account',
    'settled-by-undone': 'Settlement cancelled',
    'used-for': 'Used for another account',
    'used-for-undone': 'Use cancelled',
  },
  notYetDue: 'Not yet due',
  overdue: '{days} days overdue',
  over: 'Over {days} days overdue',
  held: 'Held on account',
  cheque: 'Cheque {number} dated {date}, not counted yet: {amount}',
  reference: 'Reference',
  received: 'Received {how}',
  withheld: 'Withheld: {type}',
  onAccount: 'Unallocated, on account',
  thanks: 'Received with thanks.',
  asks: 'You withheld the tax listed above from your payments to us. We have not received the certificates for it yet.',
  please: 'Please send them to us, so that we can claim it.',
  type: 'Withheld tax',
};

const DE: AccountWording = {
  statement: 'Kontoauszug',
  receipt: 'Quittung',
  letter: 'Bescheinigungen über Abzugsteuer',
  asAt: 'Stand',
  period: '{from} bis {until}',
  opening: 'Anfangssaldo',
  document: 'Beleg',
  date: 'Datum',
  due: 'Fällig',
  amount: 'Betrag',
  open: 'Offen',
  debit: 'Soll',
  credit: 'Haben',
  balance: 'Saldo',
  events: {
    invoice: 'Rechnung',
    opening: 'Eröffnungsposten',
    'credit-note': 'Rechnungskorrektur',
    receipt: 'Zahlungseingang',
    dishonoured: 'Rückläufer',
    refund: 'Erstattung',
    'refund-undone': 'Erstattung storniert',
    'write-off': 'Ausgebucht',
    'write-off-undone': 'Ausbuchung storniert',
    difference: 'Differenz',
    'difference-undone': 'Differenz storniert',
    'settled-by': 'Von anderem Konto ausgeglichen',
    'settled-by-undone': 'Ausgleich storniert',
    'used-for': 'Für anderes Konto verwendet',
    'used-for-undone': 'Verwendung storniert',
  },
  notYetDue: 'Noch nicht fällig',
  overdue: '{days} Tage überfällig',
  over: 'Über {days} Tage überfällig',
  held: 'Guthaben',
  cheque: 'Scheck {number} vom {date}, noch nicht angerechnet: {amount}',
  reference: 'Verwendungszweck',
  received: 'Erhalten {how}',
  withheld: 'Einbehalten: {type}',
  onAccount: 'Als Guthaben geführt',
  thanks: 'Betrag dankend erhalten.',
  asks: 'Sie haben von Ihren Zahlungen an uns die oben genannte Steuer einbehalten. Die Bescheinigungen darüber liegen uns noch nicht vor.',
  please: 'Bitte senden Sie sie uns, damit wir die Steuer geltend machen können.',
  type: 'Abzugsteuer',
};

const FR: AccountWording = {
  statement: 'Relevé de compte',
  receipt: 'Reçu',
  letter: 'Attestations de retenue',
  asAt: 'Au',
  period: 'du {from} au {until}',
  opening: 'Solde initial',
  document: 'Pièce',
  date: 'Date',
  due: 'Échéance',
  amount: 'Montant',
  open: 'Restant dû',
  debit: 'Débit',
  credit: 'Crédit',
  balance: 'Solde',
  events: {
    invoice: 'Facture',
    opening: 'Poste d’ouverture',
    'credit-note': 'Avoir',
    receipt: 'Paiement reçu',
    dishonoured: 'Paiement revenu impayé',
    refund: 'Remboursement',
    'refund-undone': 'Remboursement annulé',
    'write-off': 'Passé en perte',
    'write-off-undone': 'Perte annulée',
    difference: 'Écart',
    'difference-undone': 'Écart annulé',
    'settled-by': 'Réglé par un autre compte',
    'settled-by-undone': 'Règlement annulé',
    'used-for': 'Utilisé pour un autre compte',
    'used-for-undone': 'Utilisation annulée',
  },
  notYetDue: 'Non échu',
  overdue: '{days} jours de retard',
  over: 'Plus de {days} jours de retard',
  held: 'À valoir',
  cheque: 'Chèque {number} daté du {date}, pas encore compté : {amount}',
  reference: 'Référence',
  received: 'Reçu {how}',
  withheld: 'Retenu : {type}',
  onAccount: 'Laissé à valoir',
  thanks: 'Reçu avec nos remerciements.',
  asks: 'Vous avez retenu l’impôt ci-dessus sur vos paiements. Nous n’en avons pas encore reçu les attestations.',
  please: 'Merci de nous les envoyer afin que nous puissions le récupérer.',
  type: 'Impôt retenu',
};

const ES: AccountWording = {
  statement: 'Extracto de cuenta',
  receipt: 'Recibo',
  letter: 'Certificados de retención',
  asAt: 'A fecha de',
  period: 'del {from} al {until}',
  opening: 'Saldo inicial',
  document: 'Documento',
  date: 'Fecha',
  due: 'Vence',
  amount: 'Importe',
  open: 'Pendiente',
  debit: 'Debe',
  credit: 'Haber',
  balance: 'Saldo',
  events: {
    invoice: 'Factura',
    opening: 'Partida de apertura',
    'credit-note': 'Factura rectificativa',
    receipt: 'Pago recibido',
    dishonoured: 'Pago devuelto',
    refund: 'Reembolso',
    'refund-undone': 'Reembolso anulado',
    'write-off': 'Dado de baja',
    'write-off-undone': 'Baja anulada',
    difference: 'Diferencia',
    'difference-undone': 'Diferencia anulada',
    'settled-by': 'Saldado por otra cuenta',
    'settled-by-undone': 'Compensación anulada',
    'used-for': 'Usado para otra cuenta',
    'used-for-undone': 'Uso anulado',
  },
  notYetDue: 'No vencido',
  overdue: '{days} días vencido',
  over: 'Más de {days} días vencido',
  held: 'A cuenta',
  cheque: 'Cheque {number} con fecha {date}, aún no contado: {amount}',
  reference: 'Referencia',
  received: 'Recibido {how}',
  withheld: 'Retenido: {type}',
  onAccount: 'Queda a cuenta',
  thanks: 'Recibido con agradecimiento.',
  asks: 'De sus pagos retuvo usted el impuesto arriba indicado. Aún no hemos recibido los certificados.',
  please: 'Le rogamos que nos los envíe para poder reclamarlo.',
  type: 'Impuesto retenido',
};

const GA: AccountWording = {
  statement: 'Ráiteas cuntais',
  receipt: 'Admháil',
  letter: 'Deimhnithe coinneála',
  asAt: 'Amhail ar',
  period: '{from} go {until}',
  opening: 'Iarmhéid tosaigh',
  document: 'Cáipéis',
  date: 'Dáta',
  due: 'Dlite',
  amount: 'Méid',
  open: 'Gan íoc',
  debit: 'Dochar',
  credit: 'Sochar',
  balance: 'Iarmhéid',
  events: {
    invoice: 'Sonrasc',
    opening: 'Mír tosaigh',
    'credit-note': 'Nóta creidmheasa',
    receipt: 'Íocaíocht faighte',
    dishonoured: 'Íocaíocht seolta ar ais gan íoc',
    refund: 'Aisíocaíocht',
    'refund-undone': 'Aisíocaíocht curtha ar ceal',
    'write-off': 'Díscríofa',
    'write-off-undone': 'Díscríobh curtha ar ceal',
    difference: 'Difríocht',
    'difference-undone': 'Difríocht curtha ar ceal',
    'settled-by': 'Socraithe ó chuntas eile',
    'settled-by-undone': 'Socrú curtha ar ceal',
    'used-for': 'Úsáidte do chuntas eile',
    'used-for-undone': 'Úsáid curtha ar ceal',
  },
  notYetDue: 'Gan a bheith dlite fós',
  overdue: '{days} lá thar am',
  over: 'Breis is {days} lá thar am',
  held: 'Ar cuntas',
  cheque: 'Seic {number} dar dáta {date}, gan áireamh fós: {amount}',
  reference: 'Tagairt',
  received: 'Faighte {how}',
  withheld: 'Coinnithe siar: {type}',
  onAccount: 'Coinnithe ar cuntas',
  thanks: 'Faighte le buíochas.',
  asks: 'Choinnigh sibh siar an cháin thuas as bhur n-íocaíochtaí linn. Níl na deimhnithe faighte againn fós.',
  please: 'Seolaigí chugainn iad, le bhur dtoil, ionas gur féidir linn í a éileamh.',
  type: 'Cáin choinnithe siar',
};

const WORDINGS: Readonly<Record<string, AccountWording>> = { en: EN, de: DE, fr: FR, es: ES, ga: GA };

/** The words of a language; English where there are none. */
export function accountWordingOf(language: string): AccountWording {
  return WORDINGS[language] ?? EN;
}
