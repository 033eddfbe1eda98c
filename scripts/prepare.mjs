// Puts the typefaces that printed documents embed beside the app.
import { copyFileSync, mkdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(import.meta.url);
const packageDir = (name) => dirname(require.resolve(`${name}/package.json`));

const FONTS = [
  ['@expo-google-fonts/source-sans-3', '400Regular/SourceSans3_400Regular.ttf'],
  ['@expo-google-fonts/source-sans-3', '600SemiBold/SourceSans3_600SemiBold.ttf'],
  ['@expo-google-fonts/literata', '500Medium/Literata_500Medium.ttf'],
];

const target = join(import.meta.dirname, '..', 'public', 'fonts');
mkdirSync(target, { recursive: true });
for (const [name, file] of FONTS) copyFileSync(join(packageDir(name), file), join(target, file.split('/')[1]));
