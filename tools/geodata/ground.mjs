// Builds what the ground shows, app/.../static/ground/*.json: land, borders and place names (Natural Earth, GeoNames).
// Sources and licences: docs/data.md.
import { writeFileSync, mkdirSync } from 'node:fs';
import { feature, mesh } from 'topojson-client';
import { topology } from 'topojson-server';
import { presimplify, simplify } from 'topojson-simplify';
import { cutLine, cutPolygon } from './antimeridian.mjs';
import { admin1, json, round, towns as all } from './gazetteer.mjs';

const ground = new URL('../../app/src/main/resources/static/ground/', import.meta.url).pathname;
mkdirSync(ground, { recursive: true });
const HOME = new Set(['ES', 'PT', 'AD', 'GI']);
const towns = all.filter(t => t.seat >= 0);

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
  land: grid(polygonsOf(feature(world50, world50.objects.land)).flatMap(polygon => cutPolygon(polygon, clipRing)), 2),
  borders: grid(mesh(world50, world50.objects.countries, (a, b) => a !== b).coordinates.flatMap(cutLine), 2),
  provinces: [],
  towns: towny(towns.filter(t => t.population > 400000), 700),
}));
const box = [-32, 26, 8, 47];
const land = polygonsOf(feature(land10, land10.objects.land)).flatMap(polygon => cutPolygon(polygon, clipRing))
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
