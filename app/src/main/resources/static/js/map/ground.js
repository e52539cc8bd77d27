import { shipped, shippedPicture } from '../base.js';
import { isNamed, takes, whole } from './labels.js';
import { MERCATOR } from './projections.js';
import { tilesOf } from './ground-tiles.js';
import { phrase } from '../language.js';

/**
 * The ground: land, water, rivers, borders and place names from the packs that ship with Sarnik. Iberia is drawn in
 * more
 * detail inside its box, the rest of the world around it. A ground of pictures or
 * of vector tiles comes from a source that a steward has added.
 */
const files = new Map();
const paths = new Map();
const INSET = 0.05;
/** Edges longer than this are bent with the meridians, degrees. */
const LONG = 1;
const LABEL_GAP = 6;
const RELIEF_SIZE = 2048;
/** How far land spreads over the sea of the relief, in its pixels. */
const SHORE = 6;
const NAMES_LEVEL = 500;

/** The moods in which the shipped ground can be drawn. */
export const MOODS = {
  paper: phrase('ground|Paper'),
  outline: phrase('Outlines only'),
  tinted: phrase('Tinted relief'),
  plain: phrase('ground|Nothing'),
};
export const DETAILS = [phrase('Little detail'), phrase('Some detail'), phrase('Much detail')];
/** How much smaller than usual a town may be to be named, by detail. */
const NAMES = [12, 1, 0.25];

function file(name) {
  if (!files.has(name)) files.set(name, shipped(`ground/${name}`));
  return files.get(name);
}

function follow(rings, projection, close) {
  const made = new Path2D();
  for (const ring of rings) {
    let begun = false;
    for (const [lon, lat] of corners(ring, projection)) {
      const [x, y] = projection.project(lon, lat);
      if (begun) made.lineTo(x, y);
      else made.moveTo(x, y);
      begun = true;
    }
    if (close) made.closePath();
  }
  return made;
}

/**
 * The corners of a ring. Its edges are straight in degrees, so where meridians are bent long ones get points between.
 */
function* corners(ring, projection) {
  for (let i = 0; i < ring.length; i++) {
    const [[fromLon, fromLat], [lon, lat]] = [ring[Math.max(0, i - 1)], ring[i]];
    const parts =
      projection === MERCATOR ? 1 : Math.ceil(Math.max(Math.abs(lon - fromLon), Math.abs(lat - fromLat)) / LONG);
    for (let p = 1; p < parts; p++)
      yield [fromLon + ((lon - fromLon) * p) / parts, fromLat + ((lat - fromLat) * p) / parts];
    yield ring[i];
  }
}

/** The packs as paths in a projection, made once. */
function load(projection) {
  if (!paths.has(projection.code)) {
    paths.set(
      projection.code,
      Promise.all(['iberia', 'world', 'rivers'].map(file)).then(([iberia, world, rivers]) => ({
        iberia: pack(iberia, projection),
        world: pack(world, projection),
        rivers: [1, 2, 3].map(degree =>
          follow(
            rivers.lines.filter(l => l[0] === degree).map(l => l[1]),
            projection,
            false,
          ),
        ),
      })),
    );
  }
  return paths.get(projection.code);
}

function pack(data, projection) {
  return {
    box: data.box ? box(data.box, projection) : null,
    land: follow(data.land.flat(), projection, true),
    borders: follow(data.borders, projection, false),
    provinces: follow(data.provinces, projection, false),
    towns: data.towns.map(([lon, lat, label, people]) => ({
      at: projection.project(lon, lat),
      label,
      people,
      near: isInBox([lon, lat]),
    })),
  };
}

const NEAR = [-32, 26, 8, 47];
const isInBox = ([lon, lat]) => lon > NEAR[0] && lat > NEAR[1] && lon < NEAR[2] && lat < NEAR[3];

/** The outline of the near box in a projection: four corners and points between them, for its sides may be bent. */
function box([west, south, east, north], projection) {
  const corners = [
    [west + INSET, south + INSET],
    [east - INSET, south + INSET],
    [east - INSET, north - INSET],
    [west + INSET, north - INSET],
  ];
  return corners.flatMap(([lon, lat], i) => {
    const [toLon, toLat] = corners[(i + 1) % 4];
    return Array.from({ length: 12 }, (_, s) =>
      projection.project(lon + ((toLon - lon) * s) / 12, lat + ((toLat - lat) * s) / 12),
    );
  });
}

const colour = name => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();

/** The two layers of a map's ground, below everything and the names above everything, and what is chosen of them. */
export class GroundLayers {
  /** Settles once the ground is there; null before it is asked for. */
  #coming = null;
  #loaded = null;
  #relief = null;
  #relieving = null;
  #tiles = null;

  /** @param {import('./map-view.js').MapView} view @param {() => (sheet: Object, taken: number[][]) => void} names paints the layers' own labels first
   *  @param {(name: string) => {nearest: number, shapes: boolean}} [sourceOf] finds sources of pictures */
  constructor(view, names, sourceOf) {
    this.view = view;
    this.sourceOf = sourceOf;
    this.mood = 'paper';
    this.detail = 2;
    this.below = view.add(sheet => this.#loaded && this.#paint(sheet), 0);
    this.names = view.add(sheet => this.#paintNames(sheet, names()), NAMES_LEVEL);
    document.fonts.load('500 12px "Hanken Grotesk"').then(() => this.names.repaint());
  }

  /** Gets the ground, once. @returns {Promise<void>} settles once all of it is there */
  begin() {
    this.#coming ??= load(this.view.projection).then(loaded => {
      this.#loaded = loaded;
      this.repaint();
    });
    return Promise.all([this.#coming, this.#relieving]);
  }

  /** Day has become night, or night day. */
  turned() {
    if (this.mood.startsWith('source:')) this.#setTiles(this.mood.slice(7));
  }

  repaint() {
    this.below.repaint();
    this.names.repaint();
  }

  /** @param {{mood: string, detail: number}} ground */
  set({ mood, detail }) {
    if (this.mood === mood && this.detail === detail) return;
    this.mood = mood;
    this.detail = detail;
    this.#setTiles(mood.startsWith('source:') ? mood.slice(7) : null);
    if (mood === 'tinted')
      this.#relieving ??= loadRelief().then(relief => {
        this.#relief = relief;
        this.repaint();
      });
    this.repaint();
  }

  #setTiles(name) {
    if (this.#tiles) this.view.map.removeLayer(this.#tiles);
    this.#tiles = null;
    this.trouble = null;
    if (!name) return;
    const found = this.sourceOf?.(name);
    if (!found) {
      this.trouble = phrase(
        'The ground {0} has been taken away, so the map stands on paper. Choose another in its brief.',
        name,
      );
      return;
    }
    this.#tiles = tilesOf(name, found, { night: isNight(), detail: this.detail }, () => {
      if (this.trouble) return;
      this.trouble = phrase('{0} does not answer, so the map stands on paper where its ground is missing.', name);
      this.view.told?.();
    });
    this.view.map.addLayer(this.#tiles);
  }

  #paint(sheet) {
    const { context } = sheet;
    const ground = this.#loaded;
    if (this.mood === 'plain' || this.mood === 'outline') {
      context.fillStyle = colour('paper');
      context.fillRect(0, 0, sheet.width, sheet.height);
      if (this.mood === 'plain') return;
    } else {
      context.fillStyle = colour('water');
      context.fillRect(0, 0, sheet.width, sheet.height);
    }
    this.#clipped(sheet, ground.iberia.box, true, () => this.#paintPack(sheet, ground.world, false));
    this.#clipped(sheet, ground.iberia.box, false, () => this.#paintPack(sheet, ground.iberia, true));
  }

  /** @param {boolean} outside whether to keep what lies outside the box */
  #clipped(sheet, corners, outside, paint) {
    const { context } = sheet;
    const extent = sheet.extent();
    const all =
      corners.every(([x]) => x < extent[0]) ||
      corners.every(([x]) => x > extent[2]) ||
      corners.every(([, y]) => y < extent[1]) ||
      corners.every(([, y]) => y > extent[3]);
    if (all && !outside) return;
    context.save();
    context.beginPath();
    if (outside) context.rect(0, 0, sheet.width, sheet.height);
    corners.forEach(([x, y], i) =>
      i ? context.lineTo(sheet.x(x), sheet.y(y)) : context.moveTo(sheet.x(x), sheet.y(y)),
    );
    context.closePath();
    context.clip('evenodd');
    paint();
    context.restore();
  }

  #paintPack(sheet, pack, isNear) {
    const { context } = sheet;
    const outline = this.mood === 'outline';
    sheet.inMapUnits(pixel => {
      context.lineJoin = 'round';
      if (!outline) {
        context.fillStyle = colour('land');
        context.fill(pack.land, 'evenodd');
        if (this.mood === 'tinted' && this.#relief && this.view.projection === MERCATOR) this.#tint(context, pack);
      }
      if (isNear && !outline) this.#rivers(context, pixel);
      context.strokeStyle = colour('border');
      context.lineWidth = 0.8 * pixel;
      context.stroke(pack.land);
      if (isNear && pixel < [2500, 6000, 9000][this.detail - 1]) {
        context.strokeStyle = colour('province');
        context.lineWidth = 0.7 * pixel;
        context.stroke(pack.provinces);
      }
      context.strokeStyle = colour('border');
      context.lineWidth = 1.3 * pixel;
      context.setLineDash([5 * pixel, 2.5 * pixel]);
      context.stroke(pack.borders);
      context.setLineDash([]);
    });
  }

  /** Great rivers first; smaller ones as one comes nearer or asks for more. */
  #rivers(context, pixel) {
    context.strokeStyle = colour('river');
    const shown = Math.min(3, (pixel < 600 ? 3 : pixel < 2500 ? 2 : 1) + this.detail - 2);
    for (let degree = 0; degree < shown; degree++) {
      context.lineWidth = [1.1, 0.8, 0.6][degree] * pixel;
      context.stroke(this.#loaded.rivers[degree]);
    }
  }

  #tint(context, pack) {
    context.save();
    context.clip(pack.land, 'evenodd');
    context.globalAlpha = isNight() ? 0.35 : 0.75;
    context.globalCompositeOperation = isNight() ? 'luminosity' : 'multiply';
    const half = 20037508.342789244;
    context.scale(1, -1);
    context.imageSmoothingQuality = 'high';
    context.drawImage(this.#relief, -half, -half, 2 * half, 2 * half);
    context.restore();
  }

  /**
   * Labels of the layers first, then names of towns that give way to them, to what stands at the foot of the map and to
   * larger ones, each town once; fewer the farther out.
   */
  #paintNames(sheet, own) {
    const taken = [];
    own(sheet, taken);
    if (!this.#loaded || this.mood === 'plain') return;
    taken.push(...this.view.footOn(sheet));
    const { context } = sheet;
    context.font = '500 12px "Hanken Grotesk", sans-serif';
    context.lineWidth = 3;
    context.lineJoin = 'round';
    context.strokeStyle = colour('halo');
    context.fillStyle = colour('town');
    const { iberia, world } = this.#loaded;
    const towns = [...iberia.towns.filter(t => t.near), ...world.towns.filter(t => !t.near)].sort(
      (a, b) => b.people - a.people,
    );
    const least = ((sheet.resolution * sheet.resolution) / 60) * NAMES[this.detail - 1];
    for (const { at, label, people } of towns) {
      if (people < least) break;
      const [x, y] = [sheet.x(at[0]), sheet.y(at[1])];
      if (x < 0 || y < 0 || x > sheet.width || y > sheet.height || isNamed(taken, label, [x, y])) continue;
      const width = context.measureText(label).width;
      const left = whole(sheet, y, width, [x + 5, x - 5 - width]);
      if (left === null) continue;
      const [from, to] = [Math.min(x, left - 5), Math.max(x, left + width + 3)];
      if (!takes(taken, [from - LABEL_GAP, y - 8 - LABEL_GAP, to + LABEL_GAP, y + 8 + LABEL_GAP])) continue;
      context.strokeText(label, left, y + 4);
      context.fillText(label, left, y + 4);
      context.beginPath();
      context.arc(x, y, 1.6, 0, 7);
      context.fill();
    }
  }
}

/** Whether the page is shown by night. */
export const isNight = () => document.documentElement.dataset.mood === 'night';

/** The relief, which ships in degrees, bent into Web Mercator once. */
async function loadRelief() {
  const image = dryLand(await createImageBitmap(await shippedPicture('ground/relief.jpg')));
  const bent = new OffscreenCanvas(RELIEF_SIZE, RELIEF_SIZE);
  const context = bent.getContext('2d');
  context.imageSmoothingQuality = 'high';
  const latOf = y => (Math.atan(Math.sinh(Math.PI * (1 - (2 * y) / RELIEF_SIZE))) * 180) / Math.PI;
  for (let y = 0; y < RELIEF_SIZE; y++) {
    const top = ((90 - latOf(y)) / 180) * image.height;
    context.drawImage(
      image,
      0,
      top,
      image.width,
      Math.max(0.5, ((90 - latOf(y + 1)) / 180) * image.height - top),
      0,
      y,
      RELIEF_SIZE,
      1,
    );
  }
  return bent;
}

/**
 * The relief without its sea: land spreads over what is bluer than it is red, so that coasts and islands are not
 * tinted like water.
 */
function dryLand(image) {
  const canvas = new OffscreenCanvas(image.width, image.height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  context.drawImage(image, 0, 0);
  const picture = context.getImageData(0, 0, image.width, image.height);
  const { data } = picture;
  const wet = new Uint8Array(image.width * image.height);
  for (let p = 0; p < wet.length; p++) wet[p] = data[4 * p + 2] > data[4 * p] + 6 ? 1 : 0;
  for (let pass = 0; pass < SHORE; pass++) {
    const before = wet.slice();
    for (let p = image.width + 1; p < wet.length - image.width - 1; p++) {
      if (!before[p]) continue;
      const near = [p - 1, p + 1, p - image.width, p + image.width].filter(n => !before[n]);
      if (!near.length) continue;
      for (let c = 0; c < 3; c++) data[4 * p + c] = near.reduce((sum, n) => sum + data[4 * n + c], 0) / near.length;
      wet[p] = 0;
    }
  }
  context.putImageData(picture, 0, 0);
  return canvas;
}
