// node build.mjs OUT WASM FONT...: the page as a folder of static files: one script, one style sheet, the module, and
// fonts cut down to the letters that a screen shows.
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const here = dirname(fileURLToPath(import.meta.url));
const [out, wasm, regular, semibold] = process.argv.slice(2).map((path) => resolve(path));
rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
await build({
  entryPoints: [join(here, 'src/main.ts')],
  outfile: join(out, 'page.js'),
  bundle: true,
  format: 'esm',
  minify: true,
  target: 'es2022',
  legalComments: 'none',
  logLevel: 'warning',
});
await build({ entryPoints: [join(here, 'style.css')], outfile: join(out, 'page.css'), minify: true, logLevel: 'warning' });
copyFileSync(join(here, 'index.html'), join(out, 'index.html'));
copyFileSync(wasm, join(out, 'ubbo.wasm'));
// Latin letters with their accents, punctuation, arrows and signs.
const letters = 'U+0020-017F,U+2010-2027,U+2030,U+2032,U+2033,U+20AC,U+2122,U+2190-2193,U+2212,U+00D7';
for (const [name, font] of [['inter-400.woff2', regular], ['inter-600.woff2', semibold]])
  execFileSync('/usr/bin/python3', ['-m', 'fontTools.subset', font, `--unicodes=${letters}`, '--flavor=woff2', '--layout-features=kern,liga,calt',
    `--output-file=${join(out, name)}`]);
for (const file of readdirSync(out)) console.log(file);
