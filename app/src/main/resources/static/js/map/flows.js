import { figures, largest } from '../numbers.js';
import { coordinates, sheetOf } from '../places.js';
import { coloursOf } from './key.js';

const DIMMED = 0.15;
/** How far a flow bends to the right of its way, as a share of its length: there and back lie apart. */
const BEND = 0.16;
/** A flow gets thinner towards its end, where its head shows the direction. */
const END = 0.45;
const STEPS = 24;
const REACH = 4;
const END_REACH = 6;

export function prepare(drawn, projection) {
  const sheet = sheetOf(drawn.places);
  const all = coordinates(drawn.places, projection);
  const ways = drawn.from.map((f, i) => ({ a: all[f], b: all[drawn.to[i]] }));
  return {
    ...drawn,
    sheet,
    ways,
    values: figures(drawn.values),
    tints: drawn.tints && figures(drawn.tints),
    ids: [...drawn.to, ...drawn.ends].map(t => sheet.ids[t]),
    endsAt: drawn.ends.map(i => all[i]),
    out: figures(drawn.out),
    in: figures(drawn.in),
    xy: ways.map(w => w.b),
  };
}

/**
 * The control point of a flow's curve, in the same coordinates as its ends. Bends to the right on a screen whose y
 * grows downwards.
 */
export function bend([ax, ay], [bx, by]) {
  return [(ax + bx) / 2 - (by - ay) * BEND, (ay + by) / 2 + (bx - ax) * BEND];
}

const along = (a, c, b, t) => [0, 1].map(i => (1 - t) * (1 - t) * a[i] + 2 * (1 - t) * t * c[i] + t * t * b[i]);

/** The outline of a ribbon that narrows along a curve and ends in a head. */
function ribbon(a, b, width) {
  const c = bend(a, b);
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const head = Math.min(length * 0.35, 5 + width * 1.3);
  const stop = Math.max(0.5, 1 - head / Math.max(1, length));
  const [left, right] = [[], []];
  let last = null;
  for (let s = 0; s <= STEPS; s++) {
    const t = (stop * s) / STEPS;
    const p = along(a, c, b, t);
    const [dx, dy] = [0, 1].map(i => 2 * (1 - t) * (c[i] - a[i]) + 2 * t * (b[i] - c[i]));
    const d = Math.hypot(dx, dy) || 1;
    const half = (width * (1 - (1 - END) * t)) / 2;
    left.push([p[0] - (dy / d) * half, p[1] + (dx / d) * half]);
    right.unshift([p[0] + (dy / d) * half, p[1] - (dx / d) * half]);
    last = { p, n: [-dy / d, dx / d], half };
  }
  const wing = last.half + Math.min(6, 2 + width * 0.35);
  return [
    ...left,
    [last.p[0] + last.n[0] * wing, last.p[1] + last.n[1] * wing],
    b,
    [last.p[0] - last.n[0] * wing, last.p[1] - last.n[1] * wing],
    ...right,
  ];
}

/** @param {Set<string>} picks ids of destinations */
export function paintFlows(sheet, layer, picks, tones) {
  const { context } = sheet;
  const colours = coloursOf(layer.key);
  const lit = picks.size && layer.ids.some(id => picks.has(id));
  const order = layer.ways
    .map((_, i) => i)
    .sort((x, y) => (lit ? picks.has(layer.ids[x]) - picks.has(layer.ids[y]) : 0) || x - y);
  for (const i of order) {
    if (!(layer.widths[i] > 0)) continue;
    const [a, b] = [layer.ways[i].a, layer.ways[i].b].map(([x, y]) => [sheet.x(x), sheet.y(y)]);
    if (
      Math.max(a[0], b[0]) < -80 ||
      Math.max(a[1], b[1]) < -80 ||
      Math.min(a[0], b[0]) > sheet.width + 80 ||
      Math.min(a[1], b[1]) > sheet.height + 80
    )
      continue;
    context.beginPath();
    ribbon(a, b, layer.widths[i]).forEach(([x, y], p) => (p ? context.lineTo(x, y) : context.moveTo(x, y)));
    context.closePath();
    context.globalAlpha = layer.head.opacity * (lit && !picks.has(layer.ids[i]) ? DIMMED : 1);
    context.fillStyle =
      layer.classes[i] < 0 ? tones.faint : lit && picks.has(layer.ids[i]) ? tones.rust : colours[layer.classes[i]];
    context.fill();
    context.lineWidth = 0.6;
    context.strokeStyle = tones.halo;
    context.stroke();
  }
  context.globalAlpha = 1;
  const most = Math.max(1, largest(layer.out), largest(layer.in));
  layer.endsAt.forEach(([mx, my], i) => {
    const [x, y] = [sheet.x(mx), sheet.y(my)];
    const r = 2.2 + 4 * Math.sqrt(Math.max(layer.out[i], layer.in[i], 0) / most);
    context.beginPath();
    if (layer.out[i] > 0) context.rect(x - r, y - r, 2 * r, 2 * r);
    else context.arc(x, y, r, 0, 7);
    context.fillStyle = layer.out[i] > 0 ? tones.ink : tones.paper;
    context.fill();
    context.lineWidth = 1.2;
    context.strokeStyle = tones.ink;
    context.stroke();
  });
}

/** Index of the end or the uppermost flow at a map coordinate, -1 for none; ends are counted on behind the flows. */
export function flowAt(layer, [x, y], resolution) {
  const end = layer.endsAt.findIndex(([ex, ey]) => Math.hypot(ex - x, ey - y) / resolution <= END_REACH);
  if (end >= 0) return layer.ways.length + end;
  for (let i = 0; i < layer.ways.length; i++) {
    if (!(layer.widths[i] > 0)) continue;
    // Map coordinates grow upwards, so the bend is taken on a mirrored picture.
    const [a, b] = [layer.ways[i].a, layer.ways[i].b].map(([px, py]) => [px / resolution, -py / resolution]);
    const c = bend(a, b);
    for (let s = 0; s <= STEPS; s++) {
      const p = along(a, c, b, s / STEPS);
      if (Math.hypot(p[0] - x / resolution, p[1] + y / resolution) <= layer.widths[i] / 2 + REACH) return i;
    }
  }
  return -1;
}
