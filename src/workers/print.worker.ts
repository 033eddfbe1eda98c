import { expose } from 'comlink';
import type { IssuedDocument } from '@/core/documents/issued';
import { FONT_FILES, type PrintFonts } from '@/print/fonts';
import { writePdf } from '@/print/pdf';
import { printed } from '@/print/words';

let fonts: Promise<PrintFonts> | null = null;

async function fetchFont(name: string): Promise<Uint8Array> {
  const response = await fetch(`/fonts/${name}`);
  if (!response.ok) throw new Error(`typeface ${name} is missing`);
  return new Uint8Array(await response.arrayBuffer());
}

async function loadFonts(): Promise<PrintFonts> {
  const [text, strong, title] = await Promise.all([
    fetchFont(FONT_FILES.text),
    fetchFont(FONT_FILES.strong),
    fetchFont(FONT_FILES.title),
  ]);
  return { text, strong, title };
}

const face = {
  async pdf(document: IssuedDocument): Promise<Uint8Array> {
    fonts ??= loadFonts();
    return writePdf(printed(document.content, document.figures), await fonts, document.issuedAt);
  },
};

export type PrintFace = typeof face;

expose(face);
