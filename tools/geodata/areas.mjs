// Builds the boundary sets that ship with Sarnik:
//   core/.../geo/countries.json.gz  countries of the world 1:50 m (Natural Earth) with ISO 3166-1 codes
//   core/.../geo/spain.json.gz      communities, provinces and municipalities of Spain (IGN)
// TopoJSON, so that neighbours share their borders. Sources and licences: docs/data.md.
import { readFileSync, writeFileSync, mkdirSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const at = name => new URL(`./node_modules/${name}`, import.meta.url).pathname;
const json = name => JSON.parse(readFileSync(at(name), 'utf8'));
const core = new URL('../../core/src/main/resources/sarnik/', import.meta.url).pathname;
mkdirSync(`${core}geo`, { recursive: true });
const write = (name, topology) => writeFileSync(`${core}geo/${name}.json.gz`, gzipSync(JSON.stringify(topology), { level: 9 }));

const codes = json('i18n-iso-countries/codes.json');
const byNumber = new Map(codes.map(([two, three, number]) => [number, { two, three }]));

const world = json('world-atlas/countries-50m.json');
const seen = new Set();
world.objects = { countries: { type: 'GeometryCollection', geometries: world.objects.countries.geometries
  // Natural Earth gives some territories the number of another; they go without a code.
  .map(g => ({ ...g, id: g.id && !seen.has(g.id) && seen.add(g.id) ? g.id : undefined }))
  .map(({ id, properties, ...g }) => ({ ...g, properties: { code: byNumber.get(id)?.two ?? '', alpha3: byNumber.get(id)?.three ?? '', name: properties.name } }))
  .filter(g => g.type) } };
write('countries', world);

// Commons that belong to several municipalities (53, 54) and Gibraltar are no municipalities.
const spain = json('es-atlas/es/municipalities.json');
const kept = {};
for (const [layer, name] of [['autonomous_regions', 'communities'], ['provinces', 'provinces'], ['municipalities', 'municipalities']]) {
  kept[name] = { type: 'GeometryCollection', geometries: spain.objects[layer].geometries
    .filter(g => g.type && !/^5[34]/.test(g.id) && !/gibraltar/i.test(g.properties?.name ?? '') && !(layer !== 'municipalities' && Number(g.id) > (layer === 'provinces' ? 52 : 19)))
    .map(({ id, properties, ...g }) => ({ ...g, properties: { code: id, name: properties.name } })) };
}
spain.objects = kept;
write('spain', spain);
for (const [name, layer] of Object.entries(kept)) console.log(`${name}: ${layer.geometries.length}`);
console.log(`countries: ${world.objects.countries.geometries.length}`);
