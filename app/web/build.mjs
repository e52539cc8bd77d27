// Makes what the pages need beside Sarnik's own modules, into ../target/web/static:
//   vendor/ol.js, vendor/gridstack.js, vendor/codemirror.js, vendor/d3.js   the libraries, one ES module each
//   vendor/*.css, fonts/*, css/sarnik.css
//   read/read.js   the page that is read, as one script
//   carried/page.js, carried/worker.js   the page of a dashboard that is carried away
// Each step runs only when the hash of its inputs has changed.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, gzipSync } from 'node:zlib';

const here = fileURLToPath(new URL('.', import.meta.url));
const target = fileURLToPath(new URL('../target/web/', import.meta.url));
const out = `${target}static/`;
for (const folder of ['vendor', 'fonts', 'css']) mkdirSync(out + folder, { recursive: true });

const filesBelow = folder =>
  readdirSync(folder, { recursive: true })
    .map(f => `${folder}/${f}`)
    .filter(f => statSync(f).isFile())
    .sort();

/** What a step is known by, and where that is kept; nothing where it has been made already. */
function changed(step, inputs) {
  const hash = createHash('sha256');
  for (const file of inputs) hash.update(file).update(readFileSync(file));
  const stamp = `${target}${step}.sha256`;
  const now = hash.digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return null;
  console.log(`web: ${step}`);
  return () => writeFileSync(stamp, now);
}

function whenChanged(step, inputs, make) {
  const kept = changed(step, inputs);
  if (!kept) return;
  make();
  kept();
}

async function whenChangedLater(step, inputs, make) {
  const kept = changed(step, inputs);
  if (!kept) return;
  await make();
  kept();
}
// What a tool has to say it has said itself when it ends with an error.
const runIn = (cwd, tool, ...args) => {
  const { status } = spawnSync(tool, args, { cwd, stdio: ['ignore', 'inherit', 'inherit'] });
  if (status !== 0) process.exit(status ?? 1);
};
const run = (tool, ...args) => runIn(here, tool, ...args);
const bin = name => `${here}node_modules/.bin/${name}`;
const lock = `${here}package-lock.json`;

if (!existsSync(`${here}node_modules/.package-lock.json`))
  run('npm', 'ci', '--no-audit', '--no-fund', '--loglevel=error');
whenChanged('packages', [lock], () => run('npm', 'ci', '--no-audit', '--no-fund', '--loglevel=error'));

whenChanged('vendor', [lock, `${here}build.mjs`, ...filesBelow(`${here}vendor`)], () => {
  run(
    bin('esbuild'),
    'vendor/ol.js',
    'vendor/gridstack.js',
    'vendor/d3.js',
    'vendor/codemirror.js',
    '--bundle',
    '--format=esm',
    '--minify',
    '--target=es2022',
    '--legal-comments=eof',
    '--log-level=warning',
    `--outdir=${out}vendor`,
  );
  copyFileSync(`${here}node_modules/gridstack/dist/gridstack.min.css`, `${out}vendor/gridstack.css`);
  copyFileSync(
    `${here}node_modules/@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2`,
    `${out}fonts/bricolage-grotesque.woff2`,
  );
  for (const set of ['latin', 'latin-ext']) {
    copyFileSync(
      `${here}node_modules/@fontsource-variable/hanken-grotesk/files/hanken-grotesk-${set}-wght-normal.woff2`,
      `${out}fonts/hanken-grotesk-${set}.woff2`,
    );
  }
});

// Pages that are read, as one script each: those that come over a network in one go, and those that are carried away,
// since pages from a disk may load no modules.
const scripts = fileURLToPath(new URL('../src/main/resources/static/js', import.meta.url));
const addresses = {
  name: 'addresses',
  setup({ onResolve }) {
    onResolve({ filter: /^\/js\// }, ({ path }) => ({ path: scripts + path.slice('/js'.length) }));
    onResolve({ filter: /^\/vendor\// }, ({ path }) => ({ path: here + path.slice(1) }));
  },
};
const oneScript = async (from, to, format) =>
  (await import('esbuild')).build({
    entryPoints: [from],
    outfile: out + to,
    bundle: true,
    format,
    minify: true,
    target: 'es2022',
    legalComments: 'eof',
    logLevel: 'warning',
    plugins: [addresses],
  });
for (const folder of ['carried', 'read']) mkdirSync(out + folder, { recursive: true });
const read = [
  lock,
  `${here}build.mjs`,
  ...['vendor', 'carried'].flatMap(f => filesBelow(here + f)),
  ...filesBelow(scripts),
];
await whenChangedLater('carried', read, async () => {
  await oneScript(`${here}carried/page.js`, 'carried/page.js', 'iife');
  await oneScript(`${scripts}/read.js`, 'read/read.js', 'esm');
  copyFileSync(`${here}carried/worker.js`, `${out}carried/worker.js`);
});

// Called with `check`: the modules are formatted and free of what is surely a slip. Its inputs are all in the work tree.
if (process.argv[2] === 'check') {
  const modules = '../src/main/resources/static/js';
  whenChanged('check', [lock, ...filesBelow(here + modules), `${here}eslint.config.js`, `${here}build.mjs`], () => {
    run(
      bin('prettier'),
      '--config',
      '.prettierrc.json',
      '--log-level',
      'warn',
      '--check',
      modules,
      'build.mjs',
      'vendor',
      'carried',
      'eslint.config.js',
    );
    runIn(`${here}..`, bin('eslint'), '-c', 'web/eslint.config.js', 'src/main/resources/static/js', 'web/build.mjs');
  });
}

const pages = ['../src/main/resources/templates', '../src/main/resources/static/js'].flatMap(f => filesBelow(here + f));
whenChanged('style', [lock, ...filesBelow(`${here}style`), ...pages], () =>
  run(bin('tailwindcss'), '-i', 'style/sarnik.css', '-o', `${out}css/sarnik.css`, '--minify'),
);

// What every reader asks for lies packed beside itself, so that no visit costs the server its packing.
const statics = fileURLToPath(new URL('../src/main/resources/static/', import.meta.url));
const packed = [
  ...['read', 'css'].flatMap(f => filesBelow(out + f)).map(f => [f, f]),
  ...filesBelow(`${statics}ground`).map(f => [f, out + f.slice(statics.length)]),
].filter(([f]) => /\.(js|css|json)$/.test(f));
whenChanged(
  'packed',
  packed.map(([f]) => f),
  () => {
    mkdirSync(`${out}ground`, { recursive: true });
    for (const [file, to] of packed) {
      const bytes = readFileSync(file);
      writeFileSync(`${to}.br`, brotliCompressSync(bytes));
      writeFileSync(`${to}.gz`, gzipSync(bytes, { level: 9 }));
    }
  },
);
