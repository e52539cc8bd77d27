import { figures } from '../numbers.js';
import { coordinates, sheetOf } from '../places.js';
import { coloursOf } from './key.js';

/** A cell of the grid into which points are put, pixels. */
const CELL = 2;
const PASSES = 3;
/** The spread of the biweight kernel of radius 1 along an axis: the square root of its variance, 1/8. */
const SPREAD = Math.sqrt(1 / 8);
/** Density below this share of the greatest is left clear. */
const FAINTEST = 0.02;

export function prepare(drawn, projection) {
  const sheet = sheetOf(drawn.places);
  const all = coordinates(drawn.places, projection);
  return {
    ...drawn,
    sheet,
    weights: figures(drawn.weights),
    xy: drawn.at.map(i => all[i]),
    lat: drawn.at.map(i => sheet.lat[i]),
  };
}

/**
 * Blurs a grid, row by row and column by column: three boxes come close to a bell (Wells 1986).
 * @param {Float32Array} grid @param {number} deviation in cells
 */
export function blur(grid, width, height, deviation) {
  // The width of three boxes whose variances add up to that of the bell.
  const box = Math.max(1, Math.round(Math.sqrt((12 * deviation * deviation) / PASSES + 1)) | 1);
  const from = grid;
  const to = new Float32Array(grid.length);
  for (let pass = 0; pass < PASSES; pass++) {
    slide(from, to, height, width, width, 1, box);
    slide(to, from, width, height, 1, width, box);
  }
  return from;
}

function slide(from, to, lines, length, line, step, box) {
  const half = box >> 1;
  for (let l = 0; l < lines; l++) {
    const base = l * line;
    let sum = 0;
    for (let i = 0; i < half && i < length; i++) sum += from[base + i * step];
    for (let i = 0; i < length; i++) {
      if (i + half < length) sum += from[base + (i + half) * step];
      if (i - half - 1 >= 0) sum -= from[base + (i - half - 1) * step];
      to[base + i * step] = sum / box;
    }
  }
}

/**
 * Size of a pixel on the ground at a latitude, metres, where a pixel is `resolution` metres at the equator of Web
 * Mercator.
 */
const groundPixel = (resolution, lat, isMercator) => resolution * (isMercator ? Math.cos((lat * Math.PI) / 180) : 1);

/**
 * Paints the density. The layer learns the greatest density it found, per square kilometre.
 * @param {import('./painted-layer.js').Sheet} sheet
 */
export function paintDensity(sheet, layer, isMercator) {
  const { context } = sheet;
  const [width, height] = [Math.ceil(sheet.width / CELL), Math.ceil(sheet.height / CELL)];
  const middle = layer.lat.length ? layer.lat.reduce((a, b) => a + b, 0) / layer.lat.length : 0;
  const pixels = layer.metres ? layer.radius / groundPixel(sheet.resolution, middle, isMercator) : layer.radius;
  const reach = Math.ceil(pixels / CELL) + 1;
  // Points beyond the edge are felt inside it.
  const [wide, high] = [width + 2 * reach, height + 2 * reach];
  if (wide * high > 3e7) return;
  let grid = new Float32Array(wide * high);
  layer.xy.forEach(([mapX, mapY], i) => {
    const x = Math.floor(sheet.x(mapX) / CELL) + reach;
    const y = Math.floor(sheet.y(mapY) / CELL) + reach;
    if (x < 0 || y < 0 || x >= wide || y >= high || !(layer.weights[i] > 0)) return;
    const ground = (groundPixel(sheet.resolution, layer.lat[i], isMercator) * CELL) / 1000;
    grid[y * wide + x] += layer.weights[i] / (ground * ground);
  });
  grid = blur(grid, wide, high, (pixels * SPREAD) / CELL);
  let most = 0;
  for (const d of grid) if (d > most) most = d;
  layer.found = most;
  const peak = layer.metres && layer.peak > 0 ? layer.peak : most;
  if (!(peak > 0)) return;
  const colours = coloursOf(layer.key).map(c => [1, 3, 5].map(i => parseInt(c.slice(i, i + 2), 16)));
  const picture = new ImageData(width, height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const share = Math.min(1, grid[(y + reach) * wide + x + reach] / peak);
      if (share < FAINTEST) continue;
      const [r, g, b] = colours[Math.min(colours.length - 1, Math.floor(Math.sqrt(share) * colours.length))];
      const t = (y * width + x) * 4;
      picture.data[t] = r;
      picture.data[t + 1] = g;
      picture.data[t + 2] = b;
      picture.data[t + 3] = 255 * layer.head.opacity * Math.min(1, 0.25 + share * 3);
    }
  }
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d').putImageData(picture, 0, 0);
  context.imageSmoothingEnabled = true;
  context.imageSmoothingQuality = 'high';
  context.drawImage(canvas, 0, 0, width * CELL, height * CELL);
}
