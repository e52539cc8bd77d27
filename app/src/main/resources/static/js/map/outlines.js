import { intersects } from '/vendor/ol.js';

/** Points on the level of a shape's middle at which is asked whether they lie within it. */
const ASKED = 24;

const probe = new OffscreenCanvas(1, 1).getContext('2d');

/** A layer of outlines, ready to paint; its shapes are set apart, when they have come. */
export const prepare = drawn => ({ ...drawn, shapes: null, xy: [], ids: [], labels: null });

/** Gives a layer its shapes. @returns {boolean} whether they are other ones than before */
export function shaped(layer, shapes) {
  if (layer.shapes === shapes) return false;
  layer.shapes = shapes;
  if (layer.named) {
    // The names of the largest come first.
    const size = ({ box }) => (box[2] - box[0]) * (box[3] - box[1]);
    layer.labels = shapes.areas.map(a => a.name);
    layer.xy = shapes.areas.map(middle);
    layer.ranks = shapes.areas.map((_, i) => i).sort((a, b) => size(shapes.areas[b]) - size(shapes.areas[a]));
  }
  return true;
}

/** The middle of the widest stretch of a shape on the level of its box's middle. */
function middle({ path, box: [west, south, east, north] }) {
  const y = (south + north) / 2;
  let best = [(west + east) / 2, 0];
  let from = null;
  for (let i = 0; i <= ASKED + 1; i++) {
    const x = west + ((east - west) * (i + 0.5)) / (ASKED + 1);
    const within = i <= ASKED && probe.isPointInPath(path, x, y, 'evenodd');
    if (within) from ??= x;
    else if (from !== null) {
      if (x - from > best[1]) best = [(from + x - (east - west) / (ASKED + 1)) / 2, x - from];
      from = null;
    }
  }
  return [best[0], y];
}

/** @param {import('./painted-layer.js').Sheet} sheet */
export function paintOutlines(sheet, layer, tones) {
  if (!layer.shapes || !(layer.head.border > 0)) return;
  const { context } = sheet;
  sheet.inMapUnits(pixel => {
    const extent = sheet.extent();
    context.strokeStyle = tones.ink;
    context.globalAlpha = layer.head.opacity;
    context.lineWidth = layer.head.border * pixel;
    context.lineJoin = 'round';
    for (const { box, path, line } of layer.shapes.areas) {
      if (!intersects(box, extent)) continue;
      context.stroke(path);
      if (line) context.stroke(line);
    }
    context.globalAlpha = 1;
  });
}
