// Cuts rings and lines at the meridian of 180 degrees, where the sources are sewn together across it (RFC 7946, 3.1.9).
const WHOLE = 360;
const HALF = 180;
/** So near a pole, in degrees, a corner lies on it. */
const ON = 0.01;

const leaps = points => points.some((p, i) => i && Math.abs(p[0] - points[i - 1][0]) > HALF && !(90 - Math.abs(p[1]) < ON && 90 - Math.abs(points[i - 1][1]) < ON));

/** The corners with longitudes that run on beyond 180 degrees. */
function unrolled(points) {
  let turned = 0;
  return points.map((p, i) => {
    const step = i ? p[0] - points[i - 1][0] : 0;
    if (step > HALF) turned -= WHOLE;
    if (step < -HALF) turned += WHOLE;
    return [p[0] + turned, p[1]];
  });
}

/** A ring around a pole is closed along it. */
function closed(ring) {
  const [first, last] = [ring[0], ring[ring.length - 1]];
  if (first[0] === last[0]) return ring;
  const pole = 90 * Math.sign(ring.reduce((sum, p) => sum + p[1], 0));
  return [...ring, [last[0], pole], [first[0], pole], first];
}

/**
 * @param {number[][][]} rings a polygon, the outer ring first
 * @param {(ring: number[][], box: number[]) => number[][]} clip cuts an open ring to a box
 * @returns {number[][][][]} the polygons that it becomes
 */
export function cutPolygon(rings, clip) {
  const [outer, ...holes] = rings.length > 1 && rings[0].every(p => 90 - Math.abs(p[1]) < ON) ? rings.slice(1) : rings;
  if (!leaps(outer)) return [[outer, ...holes]];
  const shell = closed(unrolled(outer));
  const parts = [];
  for (const turn of [-1, 0, 1]) {
    const part = clip(shell.slice(0, -1), [turn * WHOLE - HALF, -90, turn * WHOLE + HALF, 90]);
    if (part.length < 3) continue;
    const back = part.map(([x, y]) => [x - turn * WHOLE, y]);
    parts.push([[...back, back[0]], ...(parts.length ? [] : holes)]);
  }
  return parts;
}

/** A line in as many as it takes. */
export function cutLine(points) {
  if (!leaps(points)) return [points];
  const lines = [[points[0]]];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const line = lines[lines.length - 1];
    if (Math.abs(b[0] - a[0]) <= HALF) {
      line.push(b);
      continue;
    }
    const side = Math.sign(a[0]);
    const to = b[0] + side * WHOLE;
    const lat = to === a[0] ? a[1] : a[1] + (b[1] - a[1]) * (side * HALF - a[0]) / (to - a[0]);
    line.push([side * HALF, lat]);
    lines.push([[-side * HALF, lat], b]);
  }
  return lines;
}
