const GAP = 3;
/** Half the height of a name, pixels. */
const HALF = 9;

/** How far from a place a label still names it, pixels. */
const NEAR = 60;

/** Whether a box is free, and takes it. @param {Array[]} taken boxes [left, top, right, bottom, what is written there] */
export function takes(taken, box) {
  if (taken.some(t => t[0] < box[2] && t[2] > box[0] && t[1] < box[3] && t[3] > box[1])) return false;
  taken.push(box);
  return true;
}

/** Whether a place's name is written at it already. @param {Array[]} taken as for `takes` @param {number[]} at pixels */
export const isNamed = (taken, name, [x, y]) =>
  taken.some(
    ([left, top, right, bottom, written]) =>
      written === name && x > left - NEAR && x < right + NEAR && y > top - NEAR && y < bottom + NEAR,
  );

/**
 * Where a name begins; on a sheet that nobody moves, where it stands whole: on its place's other side, or farther in.
 * @param {import('./painted-layer.js').Sheet} sheet
 * @param {number} y of its middle, pixels
 * @param {number} width of the name, pixels
 * @param {number[]} lefts where it may begin, the best first, pixels
 * @returns {?number} pixels; null where it would be cut
 */
export function whole(sheet, y, width, lefts) {
  if (!sheet.still) return lefts[0];
  if (y < HALF || y > sheet.height - HALF) return null;
  return lefts.find(left => left >= GAP && left + width <= sheet.width - GAP) ?? null;
}

/**
 * Writes a layer's labels beside its places, the first in rank first; a label that would cover another is left out
 * until there is room, so more appear as one zooms.
 * @param {import('./painted-layer.js').Sheet} sheet
 * @param {Object} layer with labels, ranks, xy and, for symbols, radii
 * @param {Array[]} taken boxes that are written on already, as for `takes`
 */
export function paintLabels(sheet, layer, taken, tones) {
  if (!layer.labels) return;
  const { context } = sheet;
  context.font = '600 12px "Hanken Grotesk", sans-serif';
  context.lineWidth = 3.2;
  context.lineJoin = 'round';
  context.strokeStyle = tones.halo;
  context.fillStyle = tones.ink;
  const isArea = layer.type === 'areas' || layer.type === 'outlines';
  for (const i of layer.ranks ?? layer.labels.keys()) {
    const text = layer.labels[i];
    if (!text) continue;
    const [x, y] = [sheet.x(layer.xy[i][0]), sheet.y(layer.xy[i][1])];
    if (x < 0 || y < 0 || x > sheet.width || y > sheet.height) continue;
    const width = context.measureText(text).width;
    const r = isArea ? 0 : layer.radii[i];
    const lefts = isArea ? [x - width / 2, sheet.width - GAP - width, GAP] : [x + r + GAP, x - r - GAP - width];
    const left = whole(sheet, y, width, lefts);
    if (left === null || !takes(taken, [left - GAP, y - HALF, left + width + GAP, y + HALF, text])) continue;
    context.strokeText(text, left, y + 4);
    context.fillText(text, left, y + 4);
  }
}
