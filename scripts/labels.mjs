// Prints every text that a person may read in the app, once each, with the first file that has it: `npm run labels [part of a path]`.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { ROOT } from './lib/setup.mjs';

/** Where words for people stand; other texts of the core are codes. */
const SOURCES = ['areas', 'ui', 'app', 'core/wording', 'print/wording'];
/** Properties whose texts are no words. */
const UNREAD =
  /^(className|id|type|role|name|href|htmlFor|rel|key|autoComplete|inputMode|path|mark|tone|kind|variant|align|as|side)$/;

const found = new Map();
const keep = (text, file) => {
  const words = text.replaceAll(/\s+/g, ' ').trim();
  if (/[a-z]{2}/.test(words) && !found.has(words)) found.set(words, file);
};
/** Texts that look like words: with a space, or a capital first. */
const readable = (text) => /^[A-Z][a-z]/.test(text) || /[a-z] [a-z]/i.test(text);

function look(node, file) {
  if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
  if (ts.isJsxAttribute(node) && UNREAD.test(node.name.getText())) return;
  if (ts.isPropertyAssignment(node) && UNREAD.test(node.name.getText())) return;
  if (ts.isJsxText(node)) keep(node.text, file);
  else if (ts.isTemplateExpression(node)) {
    const text = [node.head.text, ...node.templateSpans.map((span) => `…${span.literal.text}`)].join('');
    if (readable(text)) keep(text, file);
  } else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
    const isProperty =
      ts.isJsxAttribute(node.parent) && /label|title|hint|placeholder/i.test(node.parent.name.getText());
    if (isProperty || readable(node.text)) keep(node.text, file);
  }
  ts.forEachChild(node, (child) => look(child, file));
}

const part = process.argv[2] ?? '';
const paths = SOURCES.flatMap((folder) =>
  readdirSync(join(ROOT, 'src', folder), { recursive: true }).map((path) => join(folder, path)),
);
for (const path of paths.sort()) {
  if (!/\.tsx?$/.test(path) || /\.test\./.test(path) || !path.includes(part)) continue;
  const text = readFileSync(join(ROOT, 'src', path), 'utf8');
  look(ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX), path);
}
for (const [words, file] of found) console.log(`${words}\t${file}`);
