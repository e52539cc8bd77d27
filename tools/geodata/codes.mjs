// Builds core/.../place/codes.tsv.gz: codes of ISO 3166-2 that no region of the packs bears (municipalities of small countries for the
// most part), each with the town of its name, or the country,
// that the place of the code is taken to be. Run after gazetteer.mjs, whose packs it reads.
//   node codes.mjs [folder of CLDR]
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { gunzipSync, gzipSync } from 'node:zlib';

const cldr = process.argv[2] ?? '/usr/share/unicode/cldr/common';
const core = new URL('../../core/src/main/resources/sarnik/place/', import.meta.url).pathname;
const lines = file => gunzipSync(readFileSync(core + file)).toString('utf8').split('\n').filter(Boolean).map(line => line.split('\t'));

const codes = new Set();
const take = code => codes.add(`${code.slice(0, 2)}-${code.slice(2)}`.toUpperCase());
const valid = readFileSync(`${cldr}/validity/subdivision.xml`, 'utf8').match(/idStatus='regular'>([\s\S]*?)<\/id>/)[1].replace(/<!--[\s\S]*?-->/g, '');
for (const word of valid.trim().split(/\s+/)) {
  const [first, last] = word.split('~');
  if (!last) { take(first); continue; }
  // The last sign, or the last signs, run on: ad02~8, al10~2.
  const stem = first.slice(0, -last.length);
  for (let c = first.charCodeAt(first.length - 1); c <= last.charCodeAt(last.length - 1); c++) take(stem + last.slice(0, -1) + String.fromCharCode(c));
}
for (const c of lines('regions.tsv.gz')) for (const iso of `${c[4]}|${c[9] ?? ''}`.split('|')) codes.delete(iso);

const names = new Map();
for (const file of readdirSync(`${cldr}/subdivisions`)) {
  for (const [, type, name] of readFileSync(`${cldr}/subdivisions/${file}`, 'utf8').matchAll(/<subdivision type="([a-z0-9]+)"[^>]*>([^<]+)</g)) {
    const code = `${type.slice(0, 2)}-${type.slice(2)}`.toUpperCase();
    if (codes.has(code)) names.set(code, (names.get(code) ?? new Set()).add(name));
  }
}
const KIND = /\b(municipality|district|parish|canton|governorate|region|province|county|department|council|commune|city|town|island|islands|urban|rural|of|the|de|du|della|di|saint)\b/g;
const fold = name => name.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ').trim();
const bare = name => fold(name).replace(KIND, ' ').replace(/\s+/g, ' ').trim();

const towns = new Map();
for (const pack of readdirSync(core).filter(f => f.startsWith('places-')).sort()) {
  for (const c of lines(pack)) {
    // The main name counts before others, and the largest comes first in the packs.
    for (const [name, weight] of [[c[1], 2], ...c[2].split('|').map(n => [n, 1])]) {
      if (!name) continue;
      const key = `${c[3]} ${fold(name)}`;
      const known = towns.get(key);
      if (!known || known.weight < weight) towns.set(key, { id: c[0], weight });
    }
  }
}
// What is a country of its own besides, by its code there.
const COUNTRIES = { 'CN-HK': 'HK', 'CN-MO': 'MO', 'CN-TW': 'TW', 'FI-01': 'AX', 'FR-971': 'GP', 'FR-972': 'MQ', 'FR-973': 'GF', 'FR-974': 'RE', 'FR-976': 'YT', 'NL-AW': 'AW', 'NL-CW': 'CW', 'NL-SX': 'SX',
  'NO-21': 'SJ', 'NO-22': 'SJ', 'US-AS': 'AS', 'US-GU': 'GU', 'US-MP': 'MP', 'US-PR': 'PR', 'US-UM': 'UM', 'US-VI': 'VI' };
const found = [];
const left = [];
for (const code of [...codes].sort()) {
  if (COUNTRIES[code]) { found.push(`${code}\t${COUNTRIES[code]}`); continue; }
  const written = [...names.get(code) ?? []];
  const country = code.slice(0, 2);
  const town = written.map(n => towns.get(`${country} ${fold(n)}`)).find(Boolean) ?? written.map(bare).filter(n => n.length > 2).map(n => towns.get(`${country} ${n}`)).find(Boolean);
  if (town) found.push(`${code}\t${town.id}`);
  else left.push(`${code} ${written[0] ?? ''}`);
}
writeFileSync(`${core}codes.tsv.gz`, gzipSync(found.join('\n') + '\n', { level: 9 }));
const hash = createHash('sha256');
for (const file of readdirSync(core).filter(f => f.endsWith('.tsv.gz')).sort()) hash.update(readFileSync(core + file));
const [packs] = readFileSync(`${core}packs.txt`, 'utf8').split('\n');
writeFileSync(`${core}packs.txt`, `${packs}\n${hash.digest('hex').slice(0, 16)}\n`);
console.log(`codes with a town: ${found.length}; without: ${left.length}\n${left.join('; ')}`);
