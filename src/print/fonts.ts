/** The typefaces a printed document embeds, as TrueType bytes. */
export interface PrintFonts {
  readonly text: Uint8Array;
  readonly strong: Uint8Array;
  readonly title: Uint8Array;
}

/** File names under which `scripts/prepare.mjs` puts them beside the app. */
export const FONT_FILES: { readonly [F in keyof PrintFonts]: string } = {
  text: 'SourceSans3_400Regular.ttf',
  strong: 'SourceSans3_600SemiBold.ttf',
  title: 'Literata_500Medium.ttf',
};
