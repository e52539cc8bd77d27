import { ask } from '../http.js';
import { degrees } from './area-paths.js';

/** Zooms up to which a band's shapes are good enough; see ShapeBand. */
const BANDS = [[4.2, 'FAR'], [6.2, 'WIDE'], [8.4, 'NEAR'], [Infinity, 'CLOSE']];

const asked = new Map();

/** The band whose shapes are drawn at a zoom. */
export const bandAt = zoom => BANDS.find(([most]) => zoom <= most)[1];

/**
 * The shapes of a boundary set for a band, with each area's path, box and code; asked for once.
 * @param {{code: string, project: (lon: number, lat: number) => number[]}} projection
 * @returns {Promise<{areas: {code: string, name: string, path: Path2D, box: number[]}[], of: Map<string, number>}>}
 */
export function shapesOf(set, band, projection) {
  const name = `${set}|${band}|${projection.code}`;
  if (!asked.has(name)) {
    const found = ask('GET', `/api/boundary-sets/${encodeURIComponent(set)}/shapes/${band}`).then(sheet => read(sheet, projection));
    found.catch(() => asked.delete(name));
    asked.set(name, found);
  }
  return asked.get(name);
}

/** @param {{scale: number, areas: {code: string, name: string, rings: number[][]}[]}} sheet rings of a corner and the steps from it */
export function read(sheet, projection) {
  const areas = sheet.areas.map(({ code, name, rings }) => {
    const path = new Path2D();
    const box = [Infinity, Infinity, -Infinity, -Infinity];
    for (const ring of rings) follow(ring, sheet.scale, projection, path, box);
    return { code, name, path, box };
  });
  return { areas, of: new Map(areas.map((a, i) => [a.code, i])) };
}

function follow(ring, scale, projection, path, box) {
  let first = true;
  for (const [lon, lat] of degrees(ring, scale)) {
    const [x, y] = projection.project(lon, lat);
    if (first) path.moveTo(x, y);
    else path.lineTo(x, y);
    first = false;
    box[0] = Math.min(box[0], x);
    box[1] = Math.min(box[1], y);
    box[2] = Math.max(box[2], x);
    box[3] = Math.max(box[3], y);
  }
  path.closePath();
}
