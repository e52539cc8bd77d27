/** Shapes as the server sends them: rings of whole numbers, first a corner, then steps. */

const RADIANS = Math.PI / 180;

/** Web Mercator with the width of the world as 1; north is up. */
export const mercator = (lon, lat) => [
  lon / 360 + 0.5,
  0.5 - Math.log(Math.tan(Math.PI / 4 + (Math.max(-85, Math.min(85, lat)) * RADIANS) / 2)) / (2 * Math.PI),
];

/**
 * The corners of a ring, longitude and latitude in degrees.
 * @param {number[]} ring
 * @param {number} scale what the numbers are divided by to give degrees
 */
export function* degrees(ring, scale) {
  let x = 0;
  let y = 0;
  for (let i = 0; i < ring.length; i += 2) {
    x += ring[i];
    y += ring[i + 1];
    yield [x / scale, y / scale];
  }
}

/** The corners of a ring in Web Mercator; see {@link degrees}. */
export const corners = (ring, scale) => Array.from(degrees(ring, scale), ([lon, lat]) => mercator(lon, lat));

/** The smallest box around corners: [west, north, east, south] in Web Mercator. */
export function box(lists) {
  const found = [Infinity, Infinity, -Infinity, -Infinity];
  for (const list of lists) {
    for (const [x, y] of list) {
      if (x < found[0]) found[0] = x;
      if (y < found[1]) found[1] = y;
      if (x > found[2]) found[2] = x;
      if (y > found[3]) found[3] = y;
    }
  }
  return found;
}
