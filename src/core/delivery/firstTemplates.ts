import type { MailPurpose } from './mail';

/** The words of messages in one language: subject and body by purpose, between a greeting and a closing. */
interface FirstWords {
  readonly greeting: string;
  readonly closing: string;
  readonly words: Readonly<Record<MailPurpose, readonly [subject: string, body: string]>>;
}

/** Words of messages that come with the program, until a book has its own. */
export const FIRST_TEMPLATES = {
  en: {
    greeting: 'Dear {contact},',
    closing: 'Kind regards',
    words: {
      quote: [
        'Quote {number}',
        'thank you for your enquiry. Our quote {number} of {date} for {total} is attached; it holds until {due}.',
      ],
      invoice: [
        'Invoice {number} from {business}',
        'invoice {number} of {date} for {total} is attached. Please pay {open} by {due}.',
      ],
      'credit-note': ['Credit note {number}', 'credit note {number} of {date} for {total} is attached.'],
      receipt: ['Receipt {number}', 'thank you for your payment. Receipt {number} of {date} for {total} is attached.'],
      statement: [
        'Statement of account as at {as at}',
        'your statement of account as at {as at} is attached. {amount due} is open.\n\n{documents}',
      ],
      'reminder-1': [
        'Payment reminder: {amount due} is due',
        'perhaps you overlooked it: as at {as at} the following was due and not paid yet.\n\n{documents}\n\nPlease pay {amount due}. If you have paid meanwhile, please disregard this message.',
      ],
      'reminder-2': [
        'Second reminder: {amount due} is overdue',
        'we have not received your payment yet. As at {as at} the following is overdue, the oldest for {days late} days.\n\n{documents}\n\nPlease pay {amount due} within seven days.',
      ],
      'reminder-3': [
        'Final reminder: {amount due} is overdue',
        'despite our reminders the following is still not paid as at {as at}, the oldest for {days late} days.\n\n{documents}\n\nPlease pay {amount due} at once. Otherwise we shall have to take further steps.',
      ],
      recurring: [
        'Invoice {number} from {business}',
        'your regular invoice {number} of {date} for {total} is attached. Please pay {open} by {due}.',
      ],
      certificate: [
        'Withholding certificate missing: {amount due}',
        'you withheld tax from our invoices, and we have not received your certificate yet.\n\n{documents}\n\nPlease send it to us.',
      ],
    },
  },
  ga: {
    greeting: 'A {contact}, a chara,',
    closing: 'Le gach dea-ghuí',
    words: {
      quote: [
        'Luachan {number}',
        'go raibh maith agat as d’fhiosrúchán. Tá ár luachan {number} dar dáta {date} ar {total} ceangailte; tá sé bailí go dtí {due}.',
      ],
      invoice: [
        'Sonrasc {number} ó {business}',
        'tá sonrasc {number} dar dáta {date} ar {total} ceangailte. Íoc {open} faoi {due}, le do thoil.',
      ],
      'credit-note': [
        'Nóta creidmheasa {number}',
        'tá nóta creidmheasa {number} dar dáta {date} ar {total} ceangailte.',
      ],
      receipt: [
        'Admháil {number}',
        'go raibh maith agat as d’íocaíocht. Tá admháil {number} dar dáta {date} ar {total} ceangailte.',
      ],
      statement: [
        'Ráiteas cuntais ar {as at}',
        'tá do ráiteas cuntais ar {as at} ceangailte. Tá {amount due} fós le híoc.\n\n{documents}',
      ],
      'reminder-1': [
        'Meabhrúchán íocaíochta: tá {amount due} dlite',
        'b’fhéidir nár thug tú faoi deara é: ar {as at} bhí an méid seo a leanas dlite agus gan íoc.\n\n{documents}\n\nÍoc {amount due}, le do thoil. Má íoc tú é idir an dá linn, déan neamhaird den teachtaireacht seo.',
      ],
      'reminder-2': [
        'Dara meabhrúchán: tá {amount due} thar téarma',
        'níor tháinig d’íocaíocht fós. Ar {as at} tá an méid seo a leanas thar téarma, an ceann is sine le {days late} lá.\n\n{documents}\n\nÍoc {amount due} laistigh de sheacht lá, le do thoil.',
      ],
      'reminder-3': [
        'Meabhrúchán deiridh: tá {amount due} thar téarma',
        'in ainneoin ár meabhrúchán tá an méid seo a leanas fós gan íoc ar {as at}, an ceann is sine le {days late} lá.\n\n{documents}\n\nÍoc {amount due} láithreach. Mura n-íocfar, beidh orainn céimeanna breise a ghlacadh.',
      ],
      recurring: [
        'Sonrasc {number} ó {business}',
        'tá do shonrasc rialta {number} dar dáta {date} ar {total} ceangailte. Íoc {open} faoi {due}, le do thoil.',
      ],
      certificate: [
        'Deimhniú cánach siarchoinneálta ar iarraidh: {amount due}',
        'choinnigh tú cáin siar ónár sonraisc, agus níl do dheimhniú faighte againn fós.\n\n{documents}\n\nSeol chugainn é, le do thoil.',
      ],
    },
  },
  de: {
    greeting: 'Guten Tag {contact},',
    closing: 'Mit freundlichen Grüßen',
    words: {
      quote: [
        'Angebot {number}',
        'vielen Dank für Ihre Anfrage. Anbei unser Angebot {number} vom {date} über {total}; es gilt bis {due}.',
      ],
      invoice: [
        'Rechnung {number} von {business}',
        'anbei die Rechnung {number} vom {date} über {total}. Bitte zahlen Sie {open} bis {due}.',
      ],
      'credit-note': ['Gutschrift {number}', 'anbei die Gutschrift {number} vom {date} über {total}.'],
      receipt: [
        'Quittung {number}',
        'vielen Dank für Ihre Zahlung. Anbei die Quittung {number} vom {date} über {total}.',
      ],
      statement: [
        'Kontoauszug zum {as at}',
        'anbei Ihr Kontoauszug zum {as at}. Offen sind {amount due}.\n\n{documents}',
      ],
      'reminder-1': [
        'Zahlungserinnerung: {amount due} sind fällig',
        'vielleicht ist es Ihnen entgangen: Zum {as at} war Folgendes fällig und noch nicht bezahlt.\n\n{documents}\n\nBitte zahlen Sie {amount due}. Haben Sie inzwischen gezahlt, betrachten Sie diese Nachricht als gegenstandslos.',
      ],
      'reminder-2': [
        'Zweite Mahnung: {amount due} sind überfällig',
        'wir haben Ihre Zahlung noch nicht erhalten. Zum {as at} ist Folgendes überfällig, das älteste seit {days late} Tagen.\n\n{documents}\n\nBitte zahlen Sie {amount due} innerhalb von sieben Tagen.',
      ],
      'reminder-3': [
        'Letzte Mahnung: {amount due} sind überfällig',
        'trotz unserer Mahnungen ist Folgendes zum {as at} noch immer nicht bezahlt, das älteste seit {days late} Tagen.\n\n{documents}\n\nBitte zahlen Sie {amount due} sofort. Andernfalls müssen wir weitere Schritte einleiten.',
      ],
      recurring: [
        'Rechnung {number} von {business}',
        'anbei Ihre regelmäßige Rechnung {number} vom {date} über {total}. Bitte zahlen Sie {open} bis {due}.',
      ],
      certificate: [
        'Steuerbescheinigung fehlt: {amount due}',
        'Sie haben von unseren Rechnungen Steuer einbehalten; Ihre Bescheinigung liegt uns noch nicht vor.\n\n{documents}\n\nBitte senden Sie sie uns zu.',
      ],
    },
  },
  fr: {
    greeting: 'Bonjour {contact},',
    closing: 'Cordialement',
    words: {
      quote: [
        'Devis {number}',
        'merci de votre demande. Vous trouverez ci-joint notre devis {number} du {date} de {total}, valable jusqu’au {due}.',
      ],
      invoice: [
        'Facture {number} de {business}',
        'vous trouverez ci-joint la facture {number} du {date} de {total}. Merci de régler {open} avant le {due}.',
      ],
      'credit-note': ['Avoir {number}', 'vous trouverez ci-joint l’avoir {number} du {date} de {total}.'],
      receipt: [
        'Reçu {number}',
        'merci de votre paiement. Vous trouverez ci-joint le reçu {number} du {date} de {total}.',
      ],
      statement: [
        'Relevé de compte au {as at}',
        'vous trouverez ci-joint votre relevé de compte au {as at}. Il reste {amount due} à régler.\n\n{documents}',
      ],
      'reminder-1': [
        'Rappel : {amount due} à régler',
        'sauf erreur de notre part, au {as at} les montants suivants étaient échus et non réglés.\n\n{documents}\n\nMerci de régler {amount due}. Si vous avez payé entre-temps, ne tenez pas compte de ce message.',
      ],
      'reminder-2': [
        'Deuxième rappel : {amount due} en retard',
        'nous n’avons pas encore reçu votre paiement. Au {as at} les montants suivants sont en retard, le plus ancien depuis {days late} jours.\n\n{documents}\n\nMerci de régler {amount due} sous sept jours.',
      ],
      'reminder-3': [
        'Dernier rappel : {amount due} en retard',
        'malgré nos rappels, les montants suivants ne sont toujours pas réglés au {as at}, le plus ancien depuis {days late} jours.\n\n{documents}\n\nMerci de régler {amount due} sans délai. À défaut, nous devrons engager d’autres démarches.',
      ],
      recurring: [
        'Facture {number} de {business}',
        'vous trouverez ci-joint votre facture périodique {number} du {date} de {total}. Merci de régler {open} avant le {due}.',
      ],
      certificate: [
        'Attestation de retenue manquante : {amount due}',
        'vous avez retenu un impôt sur nos factures et nous n’avons pas encore reçu votre attestation.\n\n{documents}\n\nMerci de nous l’envoyer.',
      ],
    },
  },
  es: {
    greeting: 'Estimado/a {contact}:',
    closing: 'Un saludo',
    words: {
      quote: [
        'Presupuesto {number}',
        'gracias por su consulta. Adjuntamos el presupuesto {number} de {date} por {total}, válido hasta {due}.',
      ],
      invoice: [
        'Factura {number} de {business}',
        'adjuntamos la factura {number} de {date} por {total}. Le rogamos que pague {open} antes de {due}.',
      ],
      'credit-note': [
        'Factura rectificativa {number}',
        'adjuntamos la factura rectificativa {number} de {date} por {total}.',
      ],
      receipt: ['Recibo {number}', 'gracias por su pago. Adjuntamos el recibo {number} de {date} por {total}.'],
      statement: [
        'Extracto de cuenta a {as at}',
        'adjuntamos su extracto de cuenta a {as at}. Quedan pendientes {amount due}.\n\n{documents}',
      ],
      'reminder-1': [
        'Recordatorio de pago: {amount due}',
        'quizá se le haya pasado: a {as at} había vencido lo siguiente y no constaba pagado.\n\n{documents}\n\nLe rogamos que pague {amount due}. Si ya lo ha pagado, no tenga en cuenta este mensaje.',
      ],
      'reminder-2': [
        'Segundo recordatorio: {amount due} vencidos',
        'aún no hemos recibido su pago. A {as at} ha vencido lo siguiente, lo más antiguo hace {days late} días.\n\n{documents}\n\nLe rogamos que pague {amount due} en siete días.',
      ],
      'reminder-3': [
        'Último aviso: {amount due} vencidos',
        'pese a nuestros recordatorios, a {as at} sigue sin pagarse lo siguiente, lo más antiguo desde hace {days late} días.\n\n{documents}\n\nLe rogamos que pague {amount due} de inmediato. En caso contrario tendremos que tomar otras medidas.',
      ],
      recurring: [
        'Factura {number} de {business}',
        'adjuntamos su factura periódica {number} de {date} por {total}. Le rogamos que pague {open} antes de {due}.',
      ],
      certificate: [
        'Falta el certificado de retenciones: {amount due}',
        'ha retenido impuestos de nuestras facturas y aún no hemos recibido su certificado.\n\n{documents}\n\nLe rogamos que nos lo envíe.',
      ],
    },
  },
} as const satisfies Readonly<Record<string, FirstWords>>;
