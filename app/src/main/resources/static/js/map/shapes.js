import { ask } from '../http.js';
import { degrees } from './area-paths.js';

/** Zooms up to which a band's shapes are good enough; see ShapeBand. */
const BANDS = [
  [4.2, 'FAR'],
  [6.2, 'WIDE'],
  [8.4, 'NEAR'],
  [Infinity, 'CLOSE'],
];

const asked = new Map();

/** The band whose shapes are drawn at a zoom. */
export const bandAt = zoom => BANDS.find(([most]) => zoom <= most)[1];

/**
 * The shapes at an address for a band, with each one's code, box, paths of its areas and its lines, and dots; asked
 * for once.
 * @param {string} address of a boundary set's shapes, or of those that rows brought along
 * @param {string} tag changes with the content
 * @param {{code: string, project: (lon: number, lat: number) => number[]}} projection
 * @returns {Promise<{areas: {code: string, name: string, path: Path2D, line: ?Path2D, dots: number[][], box:
 *     number[]}[], of: Map<string, number>}>}
 */
export function shapesOf(address, tag, band, projection) {
  const name = `${address}|${tag}|${band}|${projection.code}`;
  if (!asked.has(name)) {
    const found = ask('GET', `${address}/${band}`).then(sheet => read(sheet, projection));
    found.catch(() => asked.delete(name));
    asked.set(name, found);
  }
  return asked.get(name);
}

/**
 * @param {{scale: number, areas: {code: string, name: string, rings: number[][], lines: ?number[][]}[]}} sheet rings
 *     and lines of a corner and the steps from it
 */
export function read(sheet, projection) {
  const areas = sheet.areas.map(({ code, name, rings, lines }) => {
    const path = new Path2D();
    const box = [Infinity, Infinity, -Infinity, -Infinity];
    for (const ring of rings) {
      follow(ring, sheet.scale, projection, path, box);
      path.closePath();
    }
    // A line of one corner is a dot.
    const long = lines?.filter(one => one.length > 2) ?? [];
    const line = long.length ? new Path2D() : null;
    for (const one of long) follow(one, sheet.scale, projection, line, box);
    const dots =
      lines
        ?.filter(one => one.length === 2)
        .map(([x, y]) => grow(box, projection.project(x / sheet.scale, y / sheet.scale))) ?? [];
    return { code, name, path, line, dots, box };
  });
  return { areas, of: new Map(areas.map((a, i) => [a.code, i])) };
}

function follow(ring, scale, projection, path, box) {
  let first = true;
  for (const [lon, lat] of degrees(ring, scale)) {
    const [x, y] = grow(box, projection.project(lon, lat));
    if (first) path.moveTo(x, y);
    else path.lineTo(x, y);
    first = false;
  }
}

/** Widens a box to hold a map coordinate. @returns {number[]} the coordinate */
function grow(box, at) {
  const [x, y] = at;
  box[0] = Math.min(box[0], x);
  box[1] = Math.min(box[1], y);
  box[2] = Math.max(box[2], x);
  box[3] = Math.max(box[3], y);
  return at;
}
