import { fromLonLat } from '/vendor/ol.js';
import { coloursOf } from './key.js';

/** Room around a symbol within which a press still reaches it, pixels. */
const REACH = 3;
const DIMMED = 0.3;

/**
 * A layer's symbols with their map coordinates, ready to paint and to be reached.
 * @param {Object} drawn the layer as the server draws it: ids, lon, lat, radii, classes, key, opacity
 */
export function prepare(drawn) {
  return { ...drawn, at: drawn.ids.map((_, i) => fromLonLat([drawn.lon[i], drawn.lat[i]])), index: new Map(drawn.ids.map((id, i) => [id, i])) };
}

/**
 * Paints a layer, largest symbols first; what is picked lies on top and the rest pales.
 * @param {import('./painted-layer.js').Sheet} sheet
 * @param {Set<string>} picks
 * @param {{ink: string, rust: string, faint: string}} tones
 */
export function paintSymbols(sheet, layer, picks, tones) {
  const { context } = sheet;
  const colours = coloursOf(layer.key);
  const lit = [];
  context.lineWidth = 0.8;
  layer.ids.forEach((id, i) => {
    if (picks.has(id)) lit.push(i);
    else paintOne(i, picks.size ? DIMMED : 1);
  });
  for (const i of lit) {
    paintOne(i, 1);
    context.globalAlpha = 1;
    context.strokeStyle = tones.rust;
    context.lineWidth = 2.5;
    ring(i, 1.5);
    context.stroke();
    context.lineWidth = 0.8;
  }
  context.globalAlpha = 1;

  function ring(i, more) {
    context.beginPath();
    context.arc(sheet.x(layer.at[i][0]), sheet.y(layer.at[i][1]), layer.radii[i] + more, 0, 7);
  }

  function paintOne(i, strength) {
    if (!(layer.radii[i] > 0)) return;
    const x = sheet.x(layer.at[i][0]);
    const y = sheet.y(layer.at[i][1]);
    const r = layer.radii[i];
    if (x + r < 0 || y + r < 0 || x - r > sheet.width || y - r > sheet.height) return;
    ring(i, 0);
    if (layer.classes[i] >= 0) {
      context.globalAlpha = layer.opacity * strength;
      context.fillStyle = colours[layer.classes[i]];
      context.fill();
      context.globalAlpha = 0.5 * strength;
      context.strokeStyle = tones.ink;
    } else {
      // No data: an empty ring, so that it is never taken for a small value.
      context.globalAlpha = strength;
      context.strokeStyle = tones.faint;
    }
    context.stroke();
  }
}

/** Index of the topmost symbol at a pixel, -1 for none. `toPixel` maps coordinates to pixels of the view. */
export function symbolAt(layer, pixel, toPixel) {
  for (let i = layer.ids.length - 1; i >= 0; i--) {
    if (!(layer.radii[i] > 0)) continue;
    const [x, y] = toPixel(layer.at[i]);
    if (Math.hypot(x - pixel[0], y - pixel[1]) <= layer.radii[i] + REACH) return i;
  }
  return -1;
}

/** Ids of the symbols whose centre lies in an extent [west, south, east, north] of map coordinates. */
export function symbolsIn(layer, [west, south, east, north]) {
  return layer.ids.filter((_, i) => layer.radii[i] > 0
    && layer.at[i][0] >= west && layer.at[i][0] <= east && layer.at[i][1] >= south && layer.at[i][1] <= north);
}
