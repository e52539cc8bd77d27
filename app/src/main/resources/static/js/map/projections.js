import { Projection, addCoordinateTransforms, fromLonLat, toLonLat } from '/vendor/ol.js';

const EARTH = 6371007;
const CLAMP = 85;
const RADIANS = Math.PI / 180;

/** Web Mercator: directions are true, areas grow towards the poles. */
export const MERCATOR = {
  code: 'EPSG:3857',
  project: (lon, lat) => fromLonLat([lon, Math.max(-CLAMP, Math.min(CLAMP, lat))]),
  unproject: at => toLonLat(at),
};

const made = new Map();

/**
 * Lambert's azimuthal equal-area projection on a sphere (Snyder 1987, "Map projections: a working manual", ch. 24):
 * areas are
 * true everywhere, shapes near the centre.
 */
export function equalArea(lon0, lat0) {
  const code = `sarnik:equal-area/${lon0}/${lat0}`;
  if (made.has(code)) return made.get(code);
  const [sin0, cos0] = [Math.sin(lat0 * RADIANS), Math.cos(lat0 * RADIANS)];
  const project = (lon, lat) => {
    const [l, p] = [(lon - lon0) * RADIANS, lat * RADIANS];
    const toCentre = sin0 * Math.sin(p) + cos0 * Math.cos(p) * Math.cos(l);
    // The point opposite the centre has no place; those near it are kept at the rim.
    const k = EARTH * Math.sqrt(2 / Math.max(1e-3, 1 + toCentre));
    return [k * Math.cos(p) * Math.sin(l), k * (cos0 * Math.sin(p) - sin0 * Math.cos(p) * Math.cos(l))];
  };
  const unproject = ([x, y]) => {
    const rho = Math.hypot(x, y);
    if (rho === 0) return [lon0, lat0];
    const c = 2 * Math.asin(Math.min(1, rho / (2 * EARTH)));
    const lat = Math.asin(Math.max(-1, Math.min(1, Math.cos(c) * sin0 + (y * Math.sin(c) * cos0) / rho)));
    const lon = Math.atan2(x * Math.sin(c), rho * cos0 * Math.cos(c) - y * sin0 * Math.sin(c));
    return [((lon0 + lon / RADIANS + 540) % 360) - 180, lat / RADIANS];
  };
  const reach = 2 * EARTH;
  const projection = {
    code,
    project,
    unproject,
    ol: new Projection({ code, units: 'm', extent: [-reach, -reach, reach, reach], worldExtent: [-180, -90, 180, 90] }),
  };
  addCoordinateTransforms(
    'EPSG:4326',
    projection.ol,
    at => project(at[0], at[1]),
    at => unproject(at),
  );
  addCoordinateTransforms(
    'EPSG:3857',
    projection.ol,
    at => project(...toLonLat(at)),
    at => fromLonLat(unproject(at)),
  );
  made.set(code, projection);
  return projection;
}
