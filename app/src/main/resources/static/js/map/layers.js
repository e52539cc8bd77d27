import { commonAddress } from '../base.js';
import * as areas from './areas.js';
import { bandAt, shapesOf } from './shapes.js';
import { paintBeyond } from './beyond.js';
import * as density from './density.js';
import * as outlines from './outlines.js';
import * as flows from './flows.js';
import * as paths from './paths.js';
import * as symbols from './symbols.js';
import { forFile, full, written } from '../numbers.js';
import { MERCATOR } from './projections.js';
import { phrase } from '../language.js';
import { trustLines } from './trust.js';

/**
 * What each kind of layer can do: make ready, paint, find what lies at a point, find what lies in an extent, and say
 * what a mark is:
 * words, value, and how that is read where it is no number.
 * The name of a kind is the type of its drawing.
 */
const KINDS = {
  symbols: {
    prepare: symbols.prepare,
    paint: (sheet, layer, picks, tones) => symbols.paintSymbols(sheet, layer, picks, tones),
    at: symbols.symbolAt,
    within: symbols.symbolsIn,
    lines: (layer, i) => [
      [layer.key.sizeWords ?? phrase('number of rows'), layer.sizes[i]],
      ...(layer.tints ? [[layer.key.colourWords, layer.tints[i], layer.key.read]] : []),
    ],
  },
  areas: {
    prepare: areas.prepare,
    paint: (sheet, layer, picks, tones) => areas.paintAreas(sheet, layer, picks, tones),
    at: areas.areaAt,
    within: areas.areasIn,
    lines: (layer, i) => [
      [
        layer.key.colourWords && layer.key.colours.length ? layer.key.colourWords : phrase('number of rows'),
        layer.values[i],
        layer.key.read,
      ],
    ],
  },
  density: {
    prepare: density.prepare,
    paint: (sheet, layer, picks, tones, projection) => density.paintDensity(sheet, layer, projection === MERCATOR),
    at: () => -1,
    within: () => [],
    lines: () => [],
  },
  flows: {
    prepare: flows.prepare,
    paint: (sheet, layer, picks, tones) => flows.paintFlows(sheet, layer, picks, tones),
    at: flows.flowAt,
    within: (layer, extent, isIn = () => true) =>
      layer.ids.filter((_, i) => i < layer.xy.length && inside(layer.xy[i], extent) && isIn(layer.xy[i])),
    lines: (layer, i) => [
      [layer.key.sizeWords ?? phrase('number of rows'), layer.values[i]],
      ...(layer.tints ? [[layer.key.colourWords, layer.tints[i], layer.key.read]] : []),
    ],
  },
  paths: {
    prepare: paths.prepare,
    paint: (sheet, layer, picks, tones) => paths.paintPaths(sheet, layer, picks, tones),
    at: paths.pathAt,
    within: (layer, extent, isIn = () => true) =>
      layer.ids.filter((_, i) => inside(layer.xy[i], extent) && isIn(layer.xy[i])),
    lines: () => [],
  },
  outlines: {
    prepare: outlines.prepare,
    paint: (sheet, layer, picks, tones) => outlines.paintOutlines(sheet, layer, tones),
    at: () => -1,
    within: () => [],
    lines: () => [],
  },
  // Tiles are no painting: the map shows them as a layer of their own.
  pictures: {
    prepare: drawn => ({ ...drawn, xy: [], ids: [] }),
    paint: () => {},
    at: () => -1,
    within: () => [],
    lines: () => [],
  },
};

/** Whether a layer shows figures. */
export const hasFigures = ({ type }) => type !== 'nothing' && type !== 'outlines' && type !== 'pictures';

const inside = ([x, y], [west, south, east, north]) => x >= west && y >= south && x <= east && y <= north;

/** Maps narrower than this, as on a phone, have smaller marks, pixels. */
const NARROW = 480;
const USUAL = 600;
const SMALLEST = 0.55;
/** What is smaller than this stays as large as it is, pixels. */
const LEAST = 1.8;

/** How large marks are on a map of a width, beside their usual size. */
export const scaleFor = width => (width && width < NARROW ? Math.max(SMALLEST, width / USUAL) : 1);

/** A layer with marks, and examples in its key, of another size. */
export function sized(drawn, scale) {
  if (scale === 1) return drawn;
  const smaller = size => Math.min(size, Math.max(LEAST, size * scale));
  return {
    ...drawn,
    ...(drawn.radii && { radii: drawn.radii.map(smaller) }),
    ...(drawn.widths && { widths: drawn.widths.map(smaller) }),
    key: { ...drawn.key, circles: drawn.key.circles.map(c => ({ ...c, radius: smaller(c.radius) })) },
  };
}

/** A layer ready to be painted, with its map coordinates; null where there is nothing to paint. */
export function prepare(drawn, projection) {
  return KINDS[drawn.type] ? KINDS[drawn.type].prepare(drawn, projection) : null;
}

/** Lets the marks of a layer go from where they were. @see symbols.move */
export function move(layer, was, resolution, again) {
  if (layer.type === 'symbols' && was?.type === 'symbols') symbols.move(layer, was, resolution, again);
}

export function paint(sheet, layer, picks, tones, projection) {
  KINDS[layer.type].paint(sheet, layer, picks, tones, projection);
  paintBeyond(sheet, layer, tones);
}

export const markAt = (layer, at, resolution) => KINDS[layer.type].at(layer, at, resolution);

/** Ids of the places of a layer within an extent of map coordinates for which a test holds true. */
export const placesIn = (layer, extent, isIn) => [...new Set(KINDS[layer.type].within(layer, extent, isIn))];

/** What goes out of an end of flows and what comes in. */
function toldOfEnd(layer, end) {
  const lines = [
    [phrase('goes out'), layer.out[end]],
    [phrase('comes in'), layer.in[end]],
  ]
    .filter(([, value]) => value)
    .map(([words, value]) => ({ words, value: full(value) }));
  return { name: layer.sheet.names[layer.ends[end]], within: layer.sheet.within[layer.ends[end]], lines };
}

/** What a mark shows: its name, what it lies in, and its figures in words. */
export function told(layer, i) {
  if (layer.type === 'flows' && i >= layer.ways.length) return toldOfEnd(layer, i - layer.ways.length);
  const lines = KINDS[layer.type]
    .lines(layer, i)
    .filter(([words]) => words)
    .map(([words, value, read]) => ({ words, value: written(value, read) }));
  if (layer.type === 'flows')
    return { name: `${layer.sheet.names[layer.from[i]]} → ${layer.sheet.names[layer.to[i]]}`, within: '', lines };
  const name = layer.sheet.names[layer.at[i]];
  const within = layer.sheet.within[layer.at[i]];
  if (layer.type === 'paths')
    return { name: layer.names[layer.pathOfPoint[i]], within: '', lines: [{ words: name, value: layer.moments[i] }] };
  return { name, within: within === name ? '' : within, lines, trust: trustLines(layer, i) };
}

/** Gets the shapes that a layer needs at a zoom. @returns {Promise<boolean>} whether there is something new to paint */
export async function withShapes(layer, zoom, projection) {
  if (layer.type !== 'areas' && layer.type !== 'outlines') return false;
  const address = layer.own ? layer.ownAt : commonAddress(`boundary-sets/${encodeURIComponent(layer.set)}/shapes`);
  const shapes = await shapesOf(address, layer.own ?? '', bandAt(zoom), projection);
  if (layer.type === 'outlines') return outlines.shaped(layer, shapes);
  if (layer.shapes === shapes) return false;
  areas.shaped(layer, shapes);
  return true;
}

/** The layer's rows for the table of figures. */
export function tableOf(layer, file = false) {
  const said = file ? forFile : written;
  const figuresOf = i => KINDS[layer.type].lines(layer, i).filter(([words]) => words);
  if (layer.type === 'flows') {
    const head = [phrase('flow|from'), phrase('flow|to'), ...figuresOf(0).map(([words]) => words)];
    return {
      head,
      rows: layer.from.map((f, i) => ({
        key: layer.ids[i],
        cells: [
          layer.sheet.names[f],
          layer.sheet.names[layer.to[i]],
          ...figuresOf(i).map(([, v, read]) => said(v, read)),
        ],
      })),
    };
  }
  if (layer.type === 'paths') {
    return {
      head: [phrase('path'), phrase('place'), phrase('order')],
      rows: layer.ids.map((id, i) => ({
        key: id,
        cells: [layer.names[layer.pathOfPoint[i]], layer.sheet.names[layer.at[i]], layer.moments[i]],
      })),
    };
  }
  if (layer.type === 'density') {
    return {
      head: [phrase('place'), phrase('lies in|in'), phrase('weight')],
      rows: layer.at.map((p, i) => ({
        key: layer.sheet.ids[p],
        cells: [layer.sheet.names[p], layer.sheet.within[p], said(layer.weights[i])],
      })),
    };
  }
  const order =
    layer.type === 'areas'
      ? layer.ids.map((_, i) => i).sort((a, b) => layer.values[b] - layer.values[a] || 0)
      : layer.ids.map((_, i) => i);
  const heads = order.length ? figuresOf(order[0]).map(([words]) => words) : [];
  return {
    head: [phrase('place'), phrase('lies in|in'), ...heads],
    rows: order.map(i => ({
      key: layer.members?.[i] > 1 ? null : layer.ids[i],
      cells: [
        layer.sheet.names[layer.at[i]],
        layer.sheet.within[layer.at[i]],
        ...figuresOf(i).map(([, v, read]) => said(v, read)),
      ],
    })),
  };
}
