// Makes the list of coordinate systems that ships (core: sarnik/geo/systems.tsv.gz) and reference points for its test
// (systems-reference.tsv.gz) from the EPSG dataset, as Debian's proj-data (proj.db) and proj-bin (projinfo, cs2cs) hold it.
// Needs: apt-get install proj-bin. Usage: node --experimental-sqlite epsg.mjs [file for what is left out [codes]]
// A line: code, kind (P projected, G geographic), name, other name, parameters of PROJ with the shift to WGS 84 that is best
// for the system's own area (position vector), the shift's accuracy in metres, west, south, east, north, name of the area; for those of degrees
// the names of their datum.
import { execFile } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { DatabaseSync } from 'node:sqlite';
import { gunzipSync, gzipSync } from 'node:zlib';

const db = new DatabaseSync('/usr/share/proj/proj.db', { readOnly: true });
const all = (sql, ...p) => db.prepare(sql).all(...p);
const run = (tool, args, input) => new Promise((resolve, reject) => {
  const child = execFile(tool, args, { encoding: 'utf8' }, (failed, out) => (failed ? reject(failed) : resolve(out)));
  child.stdin.end(input ?? '');
});

const EXTENT = `JOIN usage u ON u.object_table_name = ? AND u.object_auth_name = c.auth_name AND u.object_code = c.code
  JOIN extent e ON e.auth_name = u.extent_auth_name AND e.code = u.extent_code`;
const systems = [
  ...all(`SELECT c.code, c.name, c.deprecated, c.geodetic_crs_code AS base, e.west_lon AS w, e.south_lat AS s, e.east_lon AS e, e.north_lat AS n, e.name AS area
    FROM projected_crs c ${EXTENT} WHERE c.auth_name = 'EPSG' AND c.geodetic_crs_auth_name = 'EPSG'`, 'projected_crs').map(s => ({ ...s, kind: 'P' })),
  ...all(`SELECT c.code, c.name, c.deprecated, c.code AS base, e.west_lon AS w, e.south_lat AS s, e.east_lon AS e, e.north_lat AS n, e.name AS area
    FROM geodetic_crs c ${EXTENT} WHERE c.auth_name = 'EPSG' AND c.type = 'geographic 2D'`, 'geodetic_crs').map(s => ({ ...s, kind: 'G' }))];
const one = new Map(systems.map(s => [`${s.code}`, s]));

const others = new Map(all(`SELECT code, alt_name FROM alias_name WHERE auth_name = 'EPSG' AND source = 'ESRI' AND table_name IN ('projected_crs', 'geodetic_crs')`).map(a => [`${a.code}`, a.alt_name]));
const datums = new Map();
for (const d of all(`SELECT c.code, d.name, a.alt_name AS other FROM geodetic_crs c JOIN geodetic_datum d ON d.auth_name = c.datum_auth_name AND d.code = c.datum_code
  LEFT JOIN alias_name a ON a.table_name = 'geodetic_datum' AND a.auth_name = d.auth_name AND a.code = d.code WHERE c.auth_name = 'EPSG' AND c.type = 'geographic 2D'`)) {
  const key = `${d.code}`;
  if (!datums.has(key)) datums.set(key, new Set());
  datums.get(key).add(d.name);
  if (d.other) datums.get(key).add(d.other);
}
const shifts = new Map();
for (const h of all(`SELECT h.*, e.west_lon AS w, e.south_lat AS s, e.east_lon AS e, e.north_lat AS n FROM helmert_transformation h
  JOIN usage u ON u.object_table_name = 'helmert_transformation' AND u.object_auth_name = h.auth_name AND u.object_code = h.code
  JOIN extent e ON e.auth_name = u.extent_auth_name AND e.code = u.extent_code
  WHERE h.auth_name = 'EPSG' AND h.deprecated = 0 AND h.target_crs_auth_name = 'EPSG' AND h.target_crs_code = 4326 AND h.method_code IN (9603, 9606, 9607)`)) {
  const key = `${h.source_crs_code}`;
  if (!shifts.has(key)) shifts.set(key, []);
  shifts.get(key).push(h);
}

const width = b => (b.e < b.w ? b.e + 360 : b.e) - b.w;
const size = b => width(b) * (b.n - b.s);
function shared(a, b) {
  const shift = [-360, 0, 360].map(d => Math.max(0, Math.min(a.w + width(a), b.w + d + width(b)) - Math.max(a.w, b.w + d)));
  return Math.max(...shift) * Math.max(0, Math.min(a.n, b.n) - Math.max(a.s, b.s));
}
/** The shifts that hold for a system, the best first: those of its whole area by accuracy, or else those of most of it. */
function shiftsOf(system) {
  const fits = (shifts.get(`${system.base}`) ?? []).map(h => ({ h, share: size(system) > 0 ? shared(system, h) / size(system) : 0 }));
  const whole = fits.filter(f => f.share > 0.999).sort((a, b) => (a.h.accuracy ?? 999) - (b.h.accuracy ?? 999) || size(a.h) - size(b.h));
  return (whole.length ? whole : fits.filter(f => f.share > 0.3).sort((a, b) => b.share - a.share || (a.h.accuracy ?? 999) - (b.h.accuracy ?? 999))).map(f => f.h);
}
const METRES = { 9001: 1, 1025: 0.001 }, SECONDS = { 9104: 1, 1031: 0.001, 9101: 206264.80624709636, 9109: 0.20626480624709636 }, PPM = { 9202: 1, 1028: 0.001 };
function towgs84(h) {
  const m = METRES[h.translation_uom_code];
  if (h.method_code === 9603 || h.rx === null) return [h.tx, h.ty, h.tz].map(v => +(v * m).toFixed(6)).concat([0, 0, 0, 0]).join(',');
  const sign = h.method_code === 9607 ? -1 : 1, r = SECONDS[h.rotation_uom_code] * sign;
  return [h.tx * m, h.ty * m, h.tz * m, h.rx * r, h.ry * r, h.rz * r, h.scale_difference * PPM[h.scale_difference_uom_code]].map(v => +v.toFixed(9)).join(',');
}

/** Points of a system's area, a quarter in from each corner and its middle. */
function points({ w, s, e, n }) {
  const wide = width({ w, e });
  return [[0.5, 0.5], [0.25, 0.25], [0.75, 0.75]].map(([x, y]) => [+(((w + wide * x + 540) % 360) - 180).toFixed(6), +(s + (n - s) * y).toFixed(6)]);
}

// The library that the core computes with (proj4j) comes out elsewhere with these, by what SystemsTest compares: left out.
const OTHERWISE = new Set([29100, 29101, 29871, 29872, 29873, 3139, 3140, 3388, 3993, 3994, 5530, 5641, 5880,
  ...Array.from({ length: 32 }, (_, i) => 6244 + i), 6996, 6997, 8441, 8857, 8858, 8859]);

const lines = [], reference = [], left = [];
let done = 0;
async function take(system) {
  if (system.w === null || OTHERWISE.has(system.code)) return;
  if (++done % 500 === 0) console.error(`${done} of ${one.size}`);
  let text;
  try {
    text = (await run('projinfo', ['-q', '-o', 'PROJ', `EPSG:${system.code}`])).split('\n').find(l => l.startsWith('+proj'))?.replace(/ \+type=crs/, '').trim();
  } catch { return; }
  if (!text || /\+proj=(geocent|ob_tran)|nadgrids/.test(text) && system.code !== 3857) { left.push([system.code, 'no parameters']); return; }
  text = text.replace(/ \+towgs84=[^ ]+/, '').replace(/ \+no_defs/, '');
  const datum = /\+datum=(WGS84)/.test(text) || system.code === 3857;
  text = system.code === 3857 ? '+proj=merc +a=6378137 +b=6378137 +lat_ts=0 +lon_0=0 +x_0=0 +y_0=0 +k=1 +units=m +nadgrids=@null'
    : text.replace(/ \+datum=WGS84/, ' +ellps=WGS84').replace(/ \+datum=NAD83/, ' +ellps=GRS80').replace(/ \+datum=NAD27/, ' +ellps=clrk66').replace(/\+ellps=NWL9D/, '+a=6378145 +rf=298.25');
  // Beside the register's own way: of the shifts the best that comes out as it does; where none does, the system is left out, not guessed.
  const at = points(system), found = [];
  const shiftsToTry = datum ? [null] : shiftsOf(system).slice(0, 6);
  for (const h of shiftsToTry.length ? shiftsToTry : [null]) {
    const full = system.code === 3857 ? text : `${text} +towgs84=${h ? towgs84(h) : '0,0,0'}`;
    const accuracy = datum ? 0 : h?.accuracy ?? '';
    try {
      const there = await coordinates(['-f', '%.8f', '+proj=longlat +datum=WGS84', '+to', ...full.split(' ')], at);
      const apart = Math.min(await apartFrom(system, there, at, false), await apartFrom(system, there, at, true));
      found.push({ h, full, accuracy, there, apart });
      if (apart <= (h || datum ? Math.max(3, 2 * (accuracy || 1)) : 1.5)) break;
    } catch { /* Not to be computed in this way. */ }
  }
  const best = found.at(-1);
  if (!best) { left.push([system.code, 'not computed']); return; }
  if (!(best.apart <= (best.h || datum ? Math.max(3, 2 * (best.accuracy || 1)) : 1.5))) { left.push([system.code, `${best.apart.toFixed(1)} m`, best.h?.name ?? 'no shift']); return; }
  lines.push([system.code, system.kind, system.name, others.get(`${system.code}`) ?? '', best.full, best.accuracy, system.w, system.s, system.e, system.n, system.area, system.kind === 'G' ? [...(datums.get(`${system.code}`) ?? [])].join('|') : ''].join('\t'));
  at.forEach((p, i) => reference.push([system.code, ...p, ...best.there[i].map(v => v.toFixed(system.kind === 'G' ? 9 : 4))].join('\t')));
}

async function coordinates(args, points) {
  const out = (await run('cs2cs', args, points.map(p => p.join(' ')).join('\n') + '\n')).trim().split('\n').map(l => l.split(/\s+/).slice(0, 2).map(Number));
  if (out.flat().some(v => !Number.isFinite(v))) throw new Error('outside');
  return out;
}

/** Metres, at most, between points and where the register's own operation takes them; its axes may be in either order. */
async function apartFrom(system, there, at, swap) {
  try {
    const back = await coordinates(['-f', '%.9f', `EPSG:${system.code}`, '+to', 'EPSG:4326'], there.map(([x, y]) => (swap ? [y, x] : [x, y])));
    return Math.max(...back.map(([lat, lon], i) => Math.hypot((lat - at[i][1]) * 111195, (((lon - at[i][0] + 540) % 360) - 180) * 111195 * Math.cos(at[i][1] * Math.PI / 180))));
  } catch { return Infinity; }
}

// With codes named, those alone are computed anew and the rest stays as it is.
const only = new Set(process.argv.slice(3));
const waiting = [...one.values()].filter(s => only.size === 0 || only.has(`${s.code}`));
await Promise.all([0, 1, 2].map(async () => { while (waiting.length) await take(waiting.pop()); }));

const main = new URL('../../core/src/main/resources/sarnik/geo/', import.meta.url), test = new URL('../../core/src/test/resources/sarnik/geo/', import.meta.url);
for (const folder of [main, test]) mkdirSync(folder, { recursive: true });
for (const [folder, file, fresh] of [[main, 'systems.tsv.gz', lines], [test, 'systems-reference.tsv.gz', reference]]) {
  const kept = only.size === 0 ? [] : gunzipSync(readFileSync(new URL(file, folder))).toString('utf8').replace(/\n$/, '').split('\n').filter(l => !only.has(l.slice(0, l.indexOf('\t'))));
  writeFileSync(new URL(file, folder), gzipSync([...kept, ...fresh].sort((a, b) => parseInt(a) - parseInt(b)).join('\n') + '\n', { level: 9 }));
}
console.error(`${lines.length} systems, ${left.length} left out`);
if (process.argv[2]) writeFileSync(process.argv[2], left.map(l => l.join('\t')).join('\n'));
