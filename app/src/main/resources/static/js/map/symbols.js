import { RBush } from '/vendor/ol.js';
import { coordinates, sheetOf } from '../places.js';
import { figures, largest } from '../numbers.js';
import { coloursOf } from './key.js';
import { trusted, unsureLines } from './trust.js';

/** Room around a symbol within which a press still reaches it, pixels. */
const REACH = 3;
const DIMMED = 0.28;
/** From this many on, symbols are copied pixel by pixel: drawing each as a path takes several times as long. */
const MANY = 1500;
/** Sizes that are copied are rounded to a share of a pixel, so that few have to be drawn. */
const PARTS = 2;

export const SHAPES = ['circle', 'square', 'diamond', 'triangle', 'star', 'drop', 'ring', 'cross'];

/** The outline of a shape about a point, of the area of a circle of that radius as near as makes no odds. */
export function outline(path, shape, x, y, r) {
  const corners = points =>
    points.forEach(([dx, dy], i) => (i ? path.lineTo(x + dx * r, y + dy * r) : path.moveTo(x + dx * r, y + dy * r)));
  switch (SHAPES[shape]) {
    case 'square':
      path.rect(x - 0.886 * r, y - 0.886 * r, 1.772 * r, 1.772 * r);
      return;
    case 'diamond':
      corners([
        [0, -1.25],
        [1.25, 0],
        [0, 1.25],
        [-1.25, 0],
      ]);
      break;
    case 'triangle':
      corners([
        [0, -1.4],
        [1.25, 0.85],
        [-1.25, 0.85],
      ]);
      break;
    case 'star':
      corners(
        Array.from({ length: 10 }, (_, i) => [
          Math.sin((i * Math.PI) / 5) * (i % 2 ? 0.62 : 1.4),
          -Math.cos((i * Math.PI) / 5) * (i % 2 ? 0.62 : 1.4),
        ]),
      );
      break;
    case 'drop':
      path.moveTo(x, y - 1.6 * r);
      path.bezierCurveTo(x + 0.5 * r, y - 0.9 * r, x + r, y - 0.4 * r, x + r, y + 0.25 * r);
      path.arc(x, y + 0.25 * r, r, 0, Math.PI);
      path.bezierCurveTo(x - r, y - 0.4 * r, x - 0.5 * r, y - 0.9 * r, x, y - 1.6 * r);
      break;
    case 'ring':
      path.moveTo(x + 1.15 * r, y);
      path.arc(x, y, 1.15 * r, 0, 7);
      path.moveTo(x + 0.62 * r, y);
      path.arc(x, y, 0.62 * r, 0, -7, true);
      return;
    case 'cross':
      corners([
        [-0.4, -1.2],
        [0.4, -1.2],
        [0.4, -0.4],
        [1.2, -0.4],
        [1.2, 0.4],
        [0.4, 0.4],
        [0.4, 1.2],
        [-0.4, 1.2],
        [-0.4, 0.4],
        [-1.2, 0.4],
        [-1.2, -0.4],
        [-0.4, -0.4],
      ]);
      break;
    default:
      path.moveTo(x + r, y);
      path.arc(x, y, r, 0, 7);
  }
  path.closePath();
}

/**
 * A layer's symbols with their map coordinates, ready to paint and to be reached.
 * @param {Object} drawn the layer as the server draws it
 * @param {Object} projection of the map
 */
export function prepare(drawn, projection) {
  const sheet = sheetOf(drawn.places);
  const all = coordinates(drawn.places, projection);
  const sizes = figures(drawn.sizes);
  return {
    ...drawn,
    sheet,
    sizes,
    tints: drawn.tints && figures(drawn.tints),
    trust: trusted(drawn.trust),
    ids: drawn.at.map(i => sheet.ids[i]),
    xy: drawn.at.map(i => all[i]),
    most: largest(drawn.radii),
    turns: drawn.turns && figures(drawn.turns),
    over: drawn.pile && drawn.pile.reduce((over, i, at) => ((over[i] = at), over), []),
  };
}

/**
 * How long a mark takes to where it is now, milliseconds; what has moved farther than so many pixels is there at once.
 */
const MOVES = 900;
const FARTHEST = 400;
const MOST_MOVING = 5000;

/**
 * Lets marks go from where they were to where they are now, those that are the same place: a device that has moved.
 * @param {Object} layer as it is now @param {Object} was as it was before
 * @param {number} resolution of the map @param {() => void} again paints it anew
 */
export function move(layer, was, resolution, again) {
  if (layer.ids.length > MOST_MOVING || matchMedia('(prefers-reduced-motion: reduce)').matches) return;
  const before = new Map(was.ids.map((id, i) => [id, was.now?.[i] ?? was.xy[i]]));
  const from = layer.ids.map((id, i) => {
    const at = before.get(id);
    if (!at) return null;
    const away = Math.hypot(at[0] - layer.xy[i][0], at[1] - layer.xy[i][1]) / resolution;
    return away > 0.3 && away < FARTHEST ? at : null;
  });
  if (!from.some(Boolean)) return;
  const began = performance.now();
  const step = () => {
    const part = Math.min(1, (performance.now() - began) / MOVES);
    layer.now =
      part < 1
        ? layer.xy.map(([x, y], i) =>
            from[i] ? [from[i][0] + (x - from[i][0]) * part, from[i][1] + (y - from[i][1]) * part] : [x, y],
          )
        : null;
    if (again() && part < 1) requestAnimationFrame(step);
    else layer.now = null;
  };
  step();
}

/** Where a mark is painted: where it is, or on its way there. */
const atNow = (layer, i) => layer.now?.[i] ?? layer.xy[i];

const shapeOf = (layer, i) => layer.shapes?.[i] ?? layer.shape;

/**
 * Paints a layer, largest symbols first; what is picked lies on top and the rest pales.
 * @param {import('./painted-layer.js').Sheet} sheet
 * @param {Set<string>} picks
 * @param {{ink: string, rust: string, faint: string}} tones
 */
export function paintSymbols(sheet, layer, picks, tones) {
  const colours = coloursOf(layer.key);
  const look = (i, strength) =>
    layer.classes[i] < 0
      ? { fill: null, line: tones.faint, alpha: strength, lineAlpha: strength }
      : {
          fill: layer.sizes[i] < 0 ? null : colours[layer.classes[i]],
          line: layer.sizes[i] < 0 ? colours[layer.classes[i]] : tones.ink,
          alpha: layer.head.opacity * strength,
          lineAlpha: (layer.sizes[i] < 0 ? 1 : 0.5) * strength,
        };
  const lit = [];
  const dim = picks.size && layer.ids.some(id => picks.has(id));
  const rest = [];
  for (const i of layer.pile ?? layer.ids.keys())
    if (layer.radii[i] > 0) (picks.has(layer.ids[i]) ? lit : rest).push(i);
  const strength = dim ? DIMMED : 1;
  if (rest.length > MANY) copyAll(sheet, layer, rest, i => look(i, strength));
  else for (const i of rest) one(sheet, layer, i, look(i, strength));
  for (const i of lit) one(sheet, layer, i, look(i, 1));
  if (layer.trust?.unsure.size) hatchUnsure(sheet, layer, tones, strength);
  if (layer.turns) headings(sheet, layer, look, strength, picks);
  if (layer.members) counts(sheet, layer, tones);
  if (lit.length > MANY) return;
  const { context } = sheet;
  context.globalAlpha = 1;
  context.strokeStyle = tones.rust;
  context.lineWidth = 2.5;
  for (const i of lit) {
    context.beginPath();
    const [x, y] = atNow(layer, i);
    outline(context, shapeOf(layer, i), sheet.x(x), sheet.y(y), layer.radii[i] + 1.5);
    context.stroke();
  }
}

function draw(context, shape, x, y, r, { fill, line, alpha, lineAlpha }, border) {
  context.beginPath();
  outline(context, shape, x, y, r);
  if (fill) {
    context.globalAlpha = alpha;
    context.fillStyle = fill;
    context.fill();
  }
  if (border > 0 || !fill) {
    context.globalAlpha = lineAlpha;
    context.strokeStyle = line;
    context.lineWidth = fill ? border : Math.max(1, border);
    context.stroke();
  }
  context.globalAlpha = 1;
}

/** Lines over the marks that rest on too few. */
function hatchUnsure(sheet, layer, tones, strength) {
  const { context } = sheet;
  const pattern = unsureLines(context, tones.ink, sheet.ratio);
  pattern.setTransform(new DOMMatrix().scale(1 / sheet.ratio, 1 / sheet.ratio));
  context.fillStyle = pattern;
  context.globalAlpha = strength;
  for (const i of layer.trust.unsure) {
    if (layer.classes[i] < 0 || !(layer.radii[i] > 0)) continue;
    const [x, y] = atNow(layer, i);
    context.beginPath();
    outline(context, shapeOf(layer, i), sheet.x(x), sheet.y(y), layer.radii[i]);
    context.fill();
  }
  context.globalAlpha = 1;
}

function one(sheet, layer, i, look) {
  const [mapX, mapY] = atNow(layer, i);
  const x = sheet.x(mapX);
  const y = sheet.y(mapY);
  const r = layer.radii[i];
  if (x + 2 * r < 0 || y + 2 * r < 0 || x - 2 * r > sheet.width || y - 2 * r > sheet.height) return;
  draw(sheet.context, shapeOf(layer, i), x, y, r, look, layer.head.border);
}

/** A pointer beyond each mark towards where it heads. */
function headings(sheet, layer, look, strength, picks) {
  const { context } = sheet;
  layer.turns.forEach((turn, i) => {
    if (!Number.isFinite(turn) || !(layer.radii[i] > 0) || layer.members?.[i] > 1) return;
    const [mapX, mapY] = atNow(layer, i);
    const [x, y, r] = [sheet.x(mapX), sheet.y(mapY), layer.radii[i] + 1];
    if (x < -30 || y < -30 || x > sheet.width + 30 || y > sheet.height + 30) return;
    const { fill, line, alpha } = look(i, picks.has(layer.ids[i]) ? 1 : strength);
    const at = (angle, far) => [
      x + Math.sin(((turn + angle) * Math.PI) / 180) * far,
      y - Math.cos(((turn + angle) * Math.PI) / 180) * far,
    ];
    context.beginPath();
    context.moveTo(...at(0, r + 8));
    context.lineTo(...at(38, r));
    context.lineTo(...at(-38, r));
    context.closePath();
    context.globalAlpha = alpha;
    context.fillStyle = fill ?? line;
    context.fill();
    context.globalAlpha = 1;
  });
}

/** The number of places that a group stands for, inside it where there is room. */
function counts(sheet, layer, tones) {
  const { context } = sheet;
  context.font = '600 11px "Hanken Grotesk", sans-serif';
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  context.lineWidth = 2.5;
  context.strokeStyle = tones.halo;
  context.fillStyle = tones.ink;
  layer.members.forEach((count, i) => {
    if (count < 2 || layer.radii[i] < 7) return;
    const [x, y] = [sheet.x(layer.xy[i][0]), sheet.y(layer.xy[i][1])];
    if (x < 0 || y < 0 || x > sheet.width || y > sheet.height) return;
    context.strokeText(String(count), x, y);
    context.fillText(String(count), x, y);
  });
  context.textAlign = 'start';
  context.textBaseline = 'alphabetic';
}

// --- many --------------------------------------------------------------------------------------

let kept = null;

/** A clear picture of this size; the same one again where the size is the same. */
function clearPicture(width, height) {
  if (kept?.width === width && kept.height === height) new Int32Array(kept.data.buffer).fill(0);
  else kept = new ImageData(width, height);
  return kept;
}

/** Draws each different symbol once and blends its pixels into one picture, in order. */
function copyAll(sheet, layer, indices, look) {
  const ratio = indices.length > 20000 ? 1 : sheet.ratio;
  const [width, height] = [Math.ceil(sheet.width * ratio), Math.ceil(sheet.height * ratio)];
  const picture = clearPicture(width, height);
  const target = new Int32Array(picture.data.buffer);
  const sprites = new Map();
  for (const i of indices) {
    const [mapX, mapY] = atNow(layer, i);
    const x = Math.round(sheet.x(mapX) * ratio);
    const y = Math.round(sheet.y(mapY) * ratio);
    if (x < -90 || y < -90 || x > width + 90 || y > height + 90) continue;
    const radius = Math.max(1, Math.round(layer.radii[i] * PARTS)) / PARTS;
    const name =
      (shapeOf(layer, i) * 4096 + (layer.classes[i] + 1)) * 4096 + radius * PARTS * 2 + (layer.sizes[i] < 0 ? 1 : 0);
    let sprite = sprites.get(name);
    if (!sprite) {
      sprite = spriteOf(shapeOf(layer, i), radius, look(i), layer.head.border, ratio);
      sprites.set(name, sprite);
    }
    blend(target, width, height, sprite, x, y);
  }
  plain(target);
  if (ratio === sheet.ratio) {
    sheet.context.putImageData(picture, 0, 0);
    return;
  }
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d').putImageData(picture, 0, 0);
  sheet.context.drawImage(canvas, 0, 0, sheet.width, sheet.height);
}

const drawn = new Map();
const MOST_DRAWN = 4000;

/**
 * The pixels of a symbol that are not clear, as runs along rows: where each run begins from the middle, how long it
 * is, and
 * the colours multiplied by their cover, as one number each. Drawn once for as long as the page is open.
 */
function spriteOf(shape, radius, look, border, ratio) {
  const name = [shape, radius, look.fill, look.line, look.alpha, look.lineAlpha, border, ratio].join();
  if (drawn.size > MOST_DRAWN) drawn.clear();
  if (!drawn.has(name)) drawn.set(name, pixelsOf(shape, radius, look, border, ratio));
  return drawn.get(name);
}

function pixelsOf(shape, radius, look, border, ratio) {
  const size = Math.ceil((radius * 1.7 + 2) * 2 * ratio) | 1;
  const scratch = new OffscreenCanvas(size, size);
  const context = scratch.getContext('2d', { willReadFrequently: true });
  context.setTransform(ratio, 0, 0, ratio, size / 2, size / 2);
  draw(context, shape, 0, 0, radius, look, border);
  const { data } = context.getImageData(0, 0, size, size);
  const half = size >> 1;
  const [runs, colours] = [[], []];
  for (let y = 0; y < size; y++) {
    let begun = false;
    for (let x = 0; x < size; x++) {
      const p = (y * size + x) * 4;
      const cover = data[p + 3];
      if (cover && !begun) runs.push(x - half, y - half, 0);
      begun = cover > 0;
      if (!begun) continue;
      const part = c => Math.round((data[p + c] * cover) / 255);
      runs[runs.length - 1]++;
      colours.push((cover << 24) | (part(2) << 16) | (part(1) << 8) | part(0));
    }
  }
  return { half, runs: Int16Array.from(runs), colours: Int32Array.from(colours) };
}

/**
 * Puts a sprite over what is there (Porter and Duff 1984, "over", on colours multiplied by their cover; two channels
 * at a time).
 */
function blend(target, width, height, { half, runs, colours }, x, y) {
  const whole = x >= half && y >= half && x + half < width && y + half < height;
  let s = 0;
  for (let r = 0; r < runs.length; r += 3) {
    const [left, row, count] = [x + runs[r], y + runs[r + 1], runs[r + 2]];
    const from = whole ? 0 : row < 0 || row >= height ? count : Math.max(0, -left);
    const to = whole ? count : Math.min(count, width - left);
    for (let at = row * width + left + from, i = s + from; i < s + to; at++, i++) {
      const colour = colours[i];
      const under = target[at];
      if (under === 0) {
        target[at] = colour;
      } else {
        const cover = colour >>> 24;
        const rest = 256 - cover - (cover >> 7);
        target[at] =
          (colour +
            (((Math.imul(under & 0xff00ff, rest) >>> 8) & 0xff00ff) |
              (Math.imul((under >>> 8) & 0xff00ff, rest) & -0xff0100))) |
          0;
      }
    }
    s += count;
  }
}

/** What a channel is multiplied by to undo its cover, in steps of 1/65536. */
const UNDO = Int32Array.from({ length: 256 }, (_, cover) => (cover ? Math.round((255 * 65536) / cover) : 0));

/** A picture's pixels hold plain colours: what was multiplied by its cover is divided by it. */
function plain(target) {
  for (let at = 0; at < target.length; at++) {
    const colour = target[at];
    const cover = colour >>> 24;
    if (cover === 0 || cover === 255) continue;
    const undo = UNDO[cover];
    target[at] =
      (cover << 24) |
      (Math.min(255, (((colour >>> 16) & 255) * undo + 32768) >> 16) << 16) |
      (Math.min(255, (((colour >>> 8) & 255) * undo + 32768) >> 16) << 8) |
      Math.min(255, ((colour & 255) * undo + 32768) >> 16);
  }
}

// --- reaching ----------------------------------------------------------------------------------

function indexOf(layer) {
  if (!layer.index) {
    layer.index = new RBush();
    const drawn = layer.ids.map((_, i) => i).filter(i => layer.radii[i] > 0);
    layer.index.load(
      drawn.map(i => [...layer.xy[i], ...layer.xy[i]]),
      drawn.map(i => ({ i })),
    );
  }
  return layer.index;
}

/** Index of the topmost symbol at a map coordinate, -1 for none. `resolution` is the size of a pixel. */
export function symbolAt(layer, [x, y], resolution) {
  const far = (layer.most + REACH) * resolution;
  let found = -1;
  for (const { i } of indexOf(layer).getInExtent([x - far, y - far, x + far, y + far])) {
    const away = Math.hypot(layer.xy[i][0] - x, layer.xy[i][1] - y) / resolution;
    const over = n => (n < 0 ? -1 : (layer.over?.[n] ?? n));
    if (away <= layer.radii[i] + REACH && over(i) > over(found)) found = i;
  }
  return found;
}

/** Ids of the symbols whose centre a test holds true of; `extent` bounds the search. */
export function symbolsIn(layer, extent, isIn = () => true) {
  return indexOf(layer)
    .getInExtent(extent)
    .filter(({ i }) => isIn(layer.xy[i]))
    .sort((a, b) => a.i - b.i)
    .map(({ i }) => layer.ids[i]);
}
