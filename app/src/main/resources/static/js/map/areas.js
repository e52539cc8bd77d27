import { RBush, intersects } from '/vendor/ol.js';
import { figures } from '../numbers.js';
import { coordinates, sheetOf } from '../places.js';
import { coloursOf } from './key.js';
import { trusted, unsureLines } from './trust.js';

const DIMMED = 0.3;
const NO_ROW = -2;
const LINE = 2;

/** How far beside a line it is still met, pixels. */
const NEAR = 4;

/**
 * A layer's areas, ready to paint and to be reached. Their shapes are set apart, when they have come.
 * @param {Object} drawn the layer as the server draws it
 */
export function prepare(drawn, projection) {
  const sheet = sheetOf(drawn.places);
  const all = coordinates(drawn.places, projection);
  return {
    ...drawn,
    sheet,
    ids: drawn.at.map(i => sheet.ids[i]),
    values: figures(drawn.values),
    trust: trusted(drawn.trust),
    xy: drawn.at.map(i => all[i]),
    shapes: null,
  };
}

/** Gives a layer its shapes, and each shape its row and its class. @param {Object} shapes see shapes.js */
export function shaped(layer, shapes) {
  if (layer.shapes === shapes) return;
  const rowOfPlace = new Int32Array(layer.sheet.ids.length).fill(-1);
  layer.at.forEach((place, row) => {
    rowOfPlace[place] = row;
  });
  layer.shapes = shapes;
  layer.rows = placesOf(shapes, layer.sheet).map(place => (place < 0 ? -1 : rowOfPlace[place]));
  layer.classOf = Int16Array.from(layer.rows, row => (row < 0 ? NO_ROW : layer.classes[row]));
  layer.fills = null;
  layer.unsure = null;
}

const found = new WeakMap();

/** The place of each shape in a sheet of places, -1 for none; looked up once, for neither changes. */
function placesOf(shapes, sheet) {
  if (!found.has(shapes)) found.set(shapes, new WeakMap());
  const bySheet = found.get(shapes);
  if (!bySheet.has(sheet)) {
    const byCode = new Map(sheet.ids.map((id, place) => [id.slice(id.indexOf('/') + 1), place]));
    bySheet.set(
      sheet,
      Int32Array.from(shapes.areas, area => byCode.get(area.code) ?? -1),
    );
  }
  return bySheet.get(sheet);
}

/**
 * The areas and the lines of each class as one path each: one filling a class is many times faster than one an area.
 */
function fills(layer, skip, extent) {
  const paths = new Map();
  layer.shapes.areas.forEach((area, i) => {
    if (skip?.has(i) || !intersects(area.box, extent)) return;
    const c = layer.classOf[i];
    if (!paths.has(c)) paths.set(c, { path: new Path2D(), line: null, dots: [] });
    const all = paths.get(c);
    all.path.addPath(area.path);
    if (area.line) (all.line ??= new Path2D()).addPath(area.line);
    all.dots.push(...area.dots);
  });
  return paths;
}

/** The areas that rest on too few, as one path. */
function unsurePath(layer) {
  const path = new Path2D();
  layer.shapes.areas.forEach((area, i) => {
    if (layer.trust.unsure.has(layer.rows[i]) && layer.classOf[i] >= 0) path.addPath(area.path);
  });
  return path;
}

/** How wide lines are drawn, pixels: what has a border has it on both sides. */
const lineWidth = layer => LINE + 2 * layer.head.border;

/** How large dots are drawn, pixels from their middle. */
const dotRadius = layer => lineWidth(layer) / 2 + 2;

const isWhole = (layer, extent) => layer.shapes.areas.every(a => intersects(a.box, extent));

function classPaths(layer, lit, extent) {
  if (lit.size === 0 && isWhole(layer, extent)) {
    layer.fills ??= fills(layer, null, extent);
    return layer.fills;
  }
  return fills(layer, lit, extent);
}

let hatch = null;

/** Diagonal lines for areas without data: grey never means a small value. */
function hatching(context, tone, ratio) {
  const name = `${tone} ${ratio}`;
  if (hatch?.name === name) return hatch.pattern;
  const tile = new OffscreenCanvas(6 * ratio, 6 * ratio);
  const pen = tile.getContext('2d');
  pen.scale(ratio, ratio);
  pen.strokeStyle = tone;
  pen.lineWidth = 0.9;
  pen.beginPath();
  for (const d of [-6, 0, 6]) {
    pen.moveTo(d - 1, 7);
    pen.lineTo(d + 7, -1);
  }
  pen.stroke();
  const pattern = context.createPattern(tile, 'repeat');
  hatch = { name, pattern };
  return pattern;
}

/**
 * Paints the areas; what is picked is outlined and the rest pales.
 * @param {import('./painted-layer.js').Sheet} sheet
 * @param {Set<string>} picks
 */
export function paintAreas(sheet, layer, picks, tones) {
  if (!layer.shapes) return;
  const { context } = sheet;
  const colours = coloursOf(layer.key);
  const lit = new Set();
  if (picks.size) layer.rows.forEach((row, i) => row >= 0 && picks.has(layer.ids[row]) && lit.add(i));
  const strength = lit.size ? DIMMED : 1;
  sheet.inMapUnits(pixel => {
    const extent = sheet.extent();
    context.lineJoin = 'round';
    context.lineCap = 'round';
    for (const [c, shape] of classPaths(layer, lit, extent)) fill(c, shape, strength);
    hatchUnsure(strength);
    context.strokeStyle = tones.rust;
    context.fillStyle = tones.rust;
    for (const i of lit) {
      const { line, dots } = layer.shapes.areas[i];
      context.lineWidth = (lineWidth(layer) + 4) * pixel;
      if (line) context.stroke(line);
      if (dots.length) context.fill(discs(dots, (dotRadius(layer) + 2) * pixel));
    }
    for (const i of lit) fill(layer.classOf[i], layer.shapes.areas[i], 1);
    context.strokeStyle = tones.rust;
    context.lineWidth = 2.4 * pixel;
    for (const i of lit) context.stroke(layer.shapes.areas[i].path);

    function hatchUnsure(much) {
      if (!layer.trust?.unsure.size) return;
      layer.unsure ??= unsurePath(layer);
      const pattern = unsureLines(context, tones.ink, sheet.ratio);
      pattern.setTransform(new DOMMatrix().scale(pixel / sheet.ratio, -pixel / sheet.ratio));
      context.globalAlpha = much;
      context.fillStyle = pattern;
      context.fill(layer.unsure, 'evenodd');
      context.globalAlpha = 1;
    }

    function fill(c, { path, line, dots }, much) {
      if (c === NO_ROW) return;
      context.globalAlpha = layer.head.opacity * much;
      if (c < 0) {
        context.globalAlpha = much;
        const pattern = hatching(context, tones.faint, sheet.ratio);
        // The pattern is drawn in pixels, the path in map units.
        pattern.setTransform(new DOMMatrix().scale(pixel / sheet.ratio, -pixel / sheet.ratio));
        context.fillStyle = pattern;
      } else {
        context.fillStyle = colours[c];
      }
      context.fill(path, 'evenodd');
      if (line) {
        context.strokeStyle = c < 0 ? tones.faint : colours[c];
        context.lineWidth = lineWidth(layer) * pixel;
        context.stroke(line);
      }
      if (dots.length) context.fill(discs(dots, dotRadius(layer) * pixel));
      context.globalAlpha = 1;
    }
  });
}

function discs(dots, radius) {
  const path = new Path2D();
  for (const [x, y] of dots) {
    path.moveTo(x + radius, y);
    path.arc(x, y, radius, 0, 2 * Math.PI);
  }
  return path;
}

/** Paints the borders of all areas, on a canvas of their own: a narrowing leaves them as they are. */
export function paintBorders(sheet, layer, tones) {
  if (!layer.shapes || !(layer.head.border > 0)) return;
  const { context } = sheet;
  sheet.inMapUnits(pixel => {
    const extent = sheet.extent();
    context.strokeStyle = tones.ink;
    context.globalAlpha = 0.45;
    context.lineWidth = layer.head.border * (layer.shapes.areas.length > 2000 ? 0.5 : 0.9) * pixel;
    context.lineJoin = 'round';
    if (isWhole(layer, extent)) {
      if (!layer.shapes.all) {
        layer.shapes.all = new Path2D();
        for (const area of layer.shapes.areas) layer.shapes.all.addPath(area.path);
      }
      context.stroke(layer.shapes.all);
    } else {
      for (const area of layer.shapes.areas) if (intersects(area.box, extent)) context.stroke(area.path);
    }
    context.globalAlpha = 1;
  });
}

const probe = new OffscreenCanvas(1, 1).getContext('2d');

/**
 * Index of the layer's area or line at a map coordinate, -1 for none.
 * @param {number} resolution map units in a pixel
 */
export function areaAt(layer, [x, y], resolution) {
  if (!layer.shapes) return -1;
  if (!layer.shapes.index) {
    layer.shapes.index = new RBush();
    layer.shapes.index.load(
      layer.shapes.areas.map(a => a.box),
      layer.shapes.areas.map((_, i) => ({ i })),
    );
  }
  const near = (NEAR + dotRadius(layer)) * resolution;
  probe.lineWidth = (lineWidth(layer) + 2 * NEAR) * resolution;
  const met = layer.shapes.index
    .getInExtent([x - near, y - near, x + near, y + near])
    .filter(({ i }) => layer.rows[i] >= 0)
    .map(({ i }) => ({ row: layer.rows[i], ...layer.shapes.areas[i] }));
  // What is thin lies on what is wide.
  const close = (dotRadius(layer) + NEAR) * resolution;
  const found =
    met.find(({ dots }) => dots.some(dot => Math.hypot(dot[0] - x, dot[1] - y) <= close)) ??
    met.find(({ line }) => line && probe.isPointInStroke(line, x, y)) ??
    met.find(({ path }) => probe.isPointInPath(path, x, y, 'evenodd'));
  return found?.row ?? -1;
}

/** Ids of the areas whose inner point a test holds true of. */
export function areasIn(layer, extent, isIn = () => true) {
  return layer.ids.filter((_, i) => {
    const [x, y] = layer.xy[i];
    return x >= extent[0] && y >= extent[1] && x <= extent[2] && y <= extent[3] && isIn(layer.xy[i]);
  });
}
