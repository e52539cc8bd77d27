/**
 * The sheets of places that drawings name places by. A sheet is kept for as long as the page is open, so that a
 * narrowing
 * sends figures and nothing else.
 */
const sheets = new Map();

/** Keeps sheets that came with an answer. @param {Object<string, Object>} places by tag */
export function remember(places) {
  for (const [tag, sheet] of Object.entries(places ?? {})) sheets.set(tag, { ...sheet, projected: new Map() });
}

/** Tags of the sheets that are kept. */
export const known = () => [...sheets.keys()];

/** @returns {{ids: string[], names: string[], within: string[], lon: number[], lat: number[]}} */
export const sheetOf = tag => sheets.get(tag);

/**
 * Map coordinates of all places of a sheet, worked out once for a projection.
 * @param {{code: string, project: (lon: number, lat: number) => number[]}} projection
 * @returns {number[][]}
 */
export function coordinates(tag, projection) {
  const sheet = sheets.get(tag);
  let at = sheet.projected.get(projection.code);
  if (!at) {
    at = sheet.ids.map((_, i) => projection.project(sheet.lon[i], sheet.lat[i]));
    sheet.projected.set(projection.code, at);
  }
  return at;
}
