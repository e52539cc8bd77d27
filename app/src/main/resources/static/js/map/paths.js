import { coordinates, sheetOf } from '../places.js';
import { coloursOf } from './key.js';

const DIMMED = 0.15;
const WIDTH = 2.4;
/** Room between the arrows along a path, pixels. */
const ARROWS = 90;
const REACH = 7;

export function prepare(drawn, projection) {
  const sheet = sheetOf(drawn.places);
  const all = coordinates(drawn.places, projection);
  const pathOfPoint = new Int32Array(drawn.at.length);
  drawn.parts.forEach((from, p) => pathOfPoint.fill(drawn.pathOf[p], from, drawn.parts[p + 1] ?? drawn.at.length));
  return { ...drawn, sheet, xy: drawn.at.map(i => all[i]), ids: drawn.at.map(i => sheet.ids[i]), pathOfPoint };
}

/** @param {Set<string>} picks ids of places: paths that pass one of them stay strong */
export function paintPaths(sheet, layer, picks, tones) {
  const { context } = sheet;
  const colours = coloursOf(layer.key);
  const lit = new Set();
  if (picks.size) layer.ids.forEach((id, i) => picks.has(id) && lit.add(layer.pathOfPoint[i]));
  const colour = path => (layer.classes[path] < 0 ? tones.faint : colours[layer.classes[path]]);
  const strength = path => layer.head.opacity * (lit.size && !lit.has(path) ? DIMMED : 1);
  context.lineJoin = 'round';
  context.lineCap = 'round';
  layer.parts.forEach((from, p) => {
    const points = layer.xy
      .slice(from, layer.parts[p + 1] ?? layer.xy.length)
      .map(([x, y]) => [sheet.x(x), sheet.y(y)]);
    const path = layer.pathOf[p];
    context.globalAlpha = strength(path);
    context.beginPath();
    points.forEach(([x, y], i) => (i ? context.lineTo(x, y) : context.moveTo(x, y)));
    context.strokeStyle = tones.halo;
    context.lineWidth = WIDTH + 2;
    context.stroke();
    context.strokeStyle = colour(path);
    context.lineWidth = WIDTH;
    context.stroke();
    arrows(context, points, colour(path));
    if (points.length > 1) stops(context, points, colour(path), tones);
  });
  context.globalAlpha = 1;
  context.lineCap = 'butt';
}

/** Small arrows along the way, evenly apart. */
function arrows(context, points, colour) {
  let until = ARROWS / 2;
  context.fillStyle = colour;
  for (let i = 1; i < points.length; i++) {
    const [[ax, ay], [bx, by]] = [points[i - 1], points[i]];
    const length = Math.hypot(bx - ax, by - ay);
    for (; until < length; until += ARROWS) {
      const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
      const [x, y] = [ax + ux * until, ay + uy * until];
      context.beginPath();
      context.moveTo(x + ux * 6, y + uy * 6);
      context.lineTo(x - ux * 4 - uy * 4.5, y - uy * 4 + ux * 4.5);
      context.lineTo(x - ux * 4 + uy * 4.5, y - uy * 4 - ux * 4.5);
      context.closePath();
      context.fill();
    }
    until -= length;
  }
}

/** A dot at each stop, a ring where the way starts and a square where it ends. */
function stops(context, points, colour, tones) {
  context.fillStyle = colour;
  for (const [x, y] of points.slice(1, -1)) {
    context.beginPath();
    context.arc(x, y, 2, 0, 7);
    context.fill();
  }
  const [[sx, sy], [ex, ey]] = [points[0], points.at(-1)];
  context.fillStyle = tones.paper;
  context.strokeStyle = colour;
  context.lineWidth = 2;
  context.beginPath();
  context.arc(sx, sy, 4.5, 0, 7);
  context.fill();
  context.stroke();
  context.beginPath();
  context.rect(ex - 4, ey - 4, 8, 8);
  context.fillStyle = colour;
  context.fill();
}

/** Index of the nearest point of a path within reach of a map coordinate, -1 for none. */
export function pathAt(layer, [x, y], resolution) {
  let [best, found] = [REACH * resolution, -1];
  layer.xy.forEach(([px, py], i) => {
    const away = Math.hypot(px - x, py - y);
    if (away < best) [best, found] = [away, i];
  });
  return found;
}
