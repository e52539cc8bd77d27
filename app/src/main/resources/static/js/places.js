/**
 * The sheets of places that drawings name places by. A sheet is kept while it is named and a little longer, so that a
 * narrowing sends figures and nothing else, and coming back to a page need not send it anew.
 */
const sheets = new Map();
/** So many sheets are kept that no drawing names at the moment. */
const MOST_UNNAMED = 12;

/** Keeps sheets that came with an answer. @param {Object<string, Object>} places by tag */
export function remember(places) {
  for (const [tag, sheet] of Object.entries(places ?? {})) sheets.set(tag, { ...sheet, projected: new Map() });
}

/** Forgets the sheets that have not been named for longest. @param {Set<string>} named tags that drawings name now */
export function forget(named) {
  // A sheet that is named moves to the end of the order.
  for (const tag of named) {
    const sheet = sheets.get(tag);
    if (sheet && sheets.delete(tag)) sheets.set(tag, sheet);
  }
  const unnamed = [...sheets.keys()].filter(tag => !named.has(tag));
  for (const tag of unnamed.slice(0, Math.max(0, unnamed.length - MOST_UNNAMED))) sheets.delete(tag);
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
