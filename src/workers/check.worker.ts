import { expose } from 'comlink';
import { draftXml } from '@/core/decisions/sales/draftXml';
import { checksOf } from '@/core/decisions/sales/findings';
import { checkFile, type RuleFinding, rulesFor } from '@/core/einvoice/check';
import type { Profile } from '@/core/einvoice/rules/rule';
import { readEInvoiceText, type Syntax } from '@/core/einvoice/syntax';
import { type ViewGroup, viewOf } from '@/core/einvoice/view';
import { decodeXml, LARGEST_FILE } from '@/core/einvoice/xml/readXml';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { invoiceInside, isPdf } from '@/print/readHybrid';

/** A file that was read and checked, as plain data. */
export interface CheckedFile {
  readonly syntax: Syntax;
  readonly profile: Profile;
  readonly findings: readonly RuleFinding[];
  /** Rules that were asked. */
  readonly asked: number;
  readonly invoice: ViewGroup;
  /** Text of the e-invoice, also where it was inside a PDF. */
  readonly xml: string;
  readonly insidePdf: boolean;
}

const face = {
  /** What all rules say of a document that is being written. */
  checkContent: checksOf,

  /** The e-invoice of a document that is being written. */
  draftXml,

  /** Reads the bytes of an XML file or a hybrid PDF and checks what it holds. */
  async check(bytes: Uint8Array): Promise<Result<CheckedFile>> {
    if (bytes.length > LARGEST_FILE)
      return refuse({ code: 'too-large', path: '', wanted: { what: 'file-of', mib: LARGEST_FILE / 2 ** 20 } });
    const insidePdf = isPdf(bytes);
    const file = insidePdf ? await invoiceInside(bytes) : accept(bytes);
    if (!file.ok) return file;
    const xml = decodeXml(file.value);
    if (!xml.ok) return xml;
    const read = readEInvoiceText(xml.value);
    if (!read.ok) return read;
    const { profile, findings } = checkFile(read.value);
    const { syntax, invoice } = read.value;
    const asked = rulesFor(invoice, profile).length;
    return accept({ syntax, profile, findings, asked, invoice: viewOf(invoice), xml: xml.value, insidePdf });
  },
};

export type CheckFace = typeof face;

expose(face);
