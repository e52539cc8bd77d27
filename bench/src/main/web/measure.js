// Run in a page of Sarnik: draws the same things with Sarnik's painters and with the map library's vector layer, and
// times both.
import * as ours from '/js/visuals/map.js';
import { remember } from '/js/places.js';
import { shapesOf } from '/js/map/shapes.js';
import { MERCATOR } from '/js/map/projections.js';
import { degrees } from '/js/map/area-paths.js';
import * as plain from '/bench/plain.js';

const COLOURS = ['#c0d8d0', '#92bcb4', '#64a098', '#36847c', '#006060'];
const SET = 'Municipalities of Spain';
const CENTRE = MERCATOR.project(-3.5, 40);
const RUNS = 7;
const median = list => [...list].sort((a, b) => a - b)[list.length >> 1];
const frame = () => new Promise(done => requestAnimationFrame(done));

function body() {
  document.body.replaceChildren();
  const box = document.createElement('div');
  box.className = 'visual-body';
  Object.assign(box.style, { position: 'fixed', inset: '0' });
  document.body.append(box);
  return box;
}

const key = { sizeWords: null, circles: [], colourWords: 'x', colours: COLOURS.map(colour => ({ colour, text: '', count: 0 })), missing: 0, ramp: false, breaks: [1, 2, 3, 4], low: 0, high: 5, spread: [], below: [], above: [], shapes: [], hints: [], offered: [], chosen: 0, shared: null, turns: false };
const head = { id: 'l1', name: 'x', hidden: false, opacity: 0.9, border: 0.8, notes: [] };
const drawing = layer => ({ type: 'map', title: 'x', layers: [layer], summary: '', credits: [], trail: { steps: [], empty: null } });

function mount(box) {
  const handle = ours.mount(box, { id: 'v1', title: 'x', titleElement: document.createElement('h2'), composing: false, emit: ({ type }) => (type === 'grounds' ? {} : null),
    visual: { layers: { l1: {} }, ground: { mood: 'plain', detail: 1 }, start: { west: -9.5, south: 36, east: 4.5, north: 43.9 }, keyAt: 'none', withheld: [] } });
  return handle;
}

/** Milliseconds from a new answer to its picture. */
async function recolour(draw) {
  const times = [];
  for (let run = 0; run < RUNS + 2; run++) {
    await frame();
    const began = performance.now();
    draw(run);
    times.push(performance.now() - began);
  }
  return median(times.slice(2));
}

/** Milliseconds a frame while the map is moved by hand. */
async function pan(map) {
  const view = map.getView();
  const [x, y] = view.getCenter();
  view.beginInteraction();
  const times = [];
  for (let i = 0; i < 40; i++) {
    const began = performance.now();
    view.setCenter([x + Math.sin(i / 6) * 60 * view.getResolution(), y + Math.cos(i / 6) * 40 * view.getResolution()]);
    map.renderSync();
    times.push(performance.now() - began);
    await frame();
  }
  view.endInteraction();
  view.setCenter([x, y]);
  map.renderSync();
  return median(times);
}

function plainMap(layer) {
  const target = body();
  const map = new plain.OlMap({ target, controls: [], layers: [layer], view: new plain.View({ center: CENTRE, zoom: 6 }) });
  map.renderSync();
  return map;
}

export async function areas() {
  const shapes = await (await fetch(`/api/boundary-sets/${encodeURIComponent(SET)}/shapes/WIDE`)).json();
  const n = shapes.areas.length;
  const tag = 'bench-areas';
  remember({ [tag]: { ids: shapes.areas.map(a => `a${SET}/${a.code}`), names: shapes.areas.map(a => a.name), within: shapes.areas.map(() => ''), lon: shapes.areas.map(a => a.rings[0]?.[0] / shapes.scale || 0), lat: shapes.areas.map(a => a.rings[0]?.[1] / shapes.scale || 40) } });
  const at = shapes.areas.map((_, i) => i);
  const layer = run => ({ type: 'areas', head, set: SET, places: tag, at, classes: at.map(i => (i * 7 + run * 3) % 5), values: at.map(i => i % 97), labels: null, ranks: null, key });
  const handle = mount(body());
  const began = performance.now();
  ours.draw(handle, drawing(layer(0)));
  await shapesOf(`/api/boundary-sets/${encodeURIComponent(SET)}/shapes`, '', 'WIDE', MERCATOR);
  while (!(handle.view.view.dataset.shaped > 0)) await frame();
  const first = performance.now() - began;
  const mine = await recolour(run => ours.draw(handle, drawing(layer(run))));
  const panned = await pan(handle.view.map);
  ours.unmount(handle);

  const styles = COLOURS.map(c => new plain.Style({ fill: new plain.Fill({ color: c }), stroke: new plain.Stroke({ color: '#23281f73', width: 0.7 }) }));
  const classes = new Int8Array(n);
  const features = shapes.areas.map((a, i) => {
    const polygons = a.rings.map(ring => [Array.from(degrees(ring, shapes.scale), ([lon, lat]) => MERCATOR.project(lon, lat))]);
    const feature = new plain.Feature(new plain.MultiPolygon(polygons));
    feature.i = i;
    return feature;
  });
  const vector = new plain.VectorLayer({ source: new plain.VectorSource({ features }), style: f => styles[classes[f.i]] });
  const map = plainMap(vector);
  const theirs = await recolour(run => { for (let i = 0; i < n; i++) classes[i] = (i * 7 + run * 3) % 5; vector.changed(); map.renderSync(); });
  const theirPan = await pan(map);
  map.setTarget(null);
  return { n, first, mine, theirs, panned, theirPan };
}

export async function symbols(n) {
  const tag = `bench-symbols-${n}`;
  // The same points every time (Park and Miller 1988).
  let seed = 42;
  const random = () => (seed = seed * 16807 % 2147483647) / 2147483647;
  const lon = Array.from({ length: n }, () => -9 + 13 * random());
  const lat = Array.from({ length: n }, () => 36 + 7.5 * random());
  remember({ [tag]: { ids: lon.map((_, i) => `p${i}`), names: lon.map((_, i) => `p${i}`), within: lon.map(() => ''), lon, lat } });
  const at = lon.map((_, i) => i);
  const radii = at.map(i => 2.5 + 8 * (1 - i / n) ** 6);
  const layer = run => ({ type: 'symbols', head, places: tag, at, radii, classes: at.map(i => (i * 7 + run * 3) % 5), shapes: null, shape: 0, sizes: radii, tints: null, members: null, labels: null, ranks: null, key });
  const handle = mount(body());
  const began = performance.now();
  ours.draw(handle, drawing(layer(0)));
  const first = performance.now() - began;
  const mine = await recolour(run => ours.draw(handle, drawing(layer(run))));
  const panned = await pan(handle.view.map);
  ours.unmount(handle);

  const cache = new Map();
  const classes = new Int8Array(n);
  const styleOf = f => {
    const r = Math.round(radii[f.i] * 2) / 2;
    const name = r * 10 + classes[f.i];
    if (!cache.has(name)) cache.set(name, new plain.Style({ image: new plain.Circle({ radius: r, fill: new plain.Fill({ color: COLOURS[classes[f.i]] }), stroke: new plain.Stroke({ color: '#23281f80', width: 0.8 }) }) }));
    return cache.get(name);
  };
  const features = at.map(i => { const f = new plain.Feature(new plain.Point(MERCATOR.project(lon[i], lat[i]))); f.i = i; return f; });
  const vector = new plain.VectorLayer({ source: new plain.VectorSource({ features }), style: styleOf });
  const map = plainMap(vector);
  const theirs = await recolour(run => { for (let i = 0; i < n; i++) classes[i] = (i * 7 + run * 3) % 5; vector.changed(); map.renderSync(); });
  const theirPan = await pan(map);
  map.setTarget(null);
  return { n, first, mine, theirs, panned, theirPan };
}

export async function density(n) {
  const tag = `bench-symbols-${n}`;
  const at = Array.from({ length: n }, (_, i) => i);
  const handle = mount(body());
  const layer = run => ({ type: 'density', head, places: tag, at, weights: at.map(i => 1 + (i + run) % 7), radius: 14, metres: false, peak: 'NaN', key: { ...key, ramp: true, high: null } });
  ours.draw(handle, drawing(layer(0)));
  const mine = await recolour(run => ours.draw(handle, drawing(layer(run))));
  ours.unmount(handle);
  return { n, mine };
}
