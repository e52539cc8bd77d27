// Makes ground/rivers.json, the rivers in and around Iberia, from GSHHG's binned rivers (Debian package gmt-gshhg-high):
//   node rivers.mjs /usr/share/gmt-gshhg/binned_river_h.nc
// Each line is [degree, [[lon, lat], ...]]: degree 1 for great rivers, 2 and 3 for smaller ones.
import * as h5 from 'h5wasm/node';
import { writeFileSync } from 'node:fs';

const BOX = [-32, 26, 8, 47];
/** GSHHG's levels: 1 and 2 are double-lined and permanent major rivers, 3 additional major, 4 and 5 additional and minor. */
const DEGREE = { 0: 1, 1: 1, 2: 1, 3: 1, 4: 2, 5: 3 };

await h5.ready;
const file = new h5.File(process.argv[2], 'r');
const values = name => file.get(name).value;
const size = values('Bin_size_in_minutes')[0] / 60;
const wide = values('N_bins_in_360_longitude_range')[0];
const [firstOf, countOf] = [values('Id_of_first_segment_in_a_bin'), values('N_segments_in_a_bin')];
const [points, level, start] = [values('N_points_for_a_segment'), values('Hierarchial_level_of_a_segment'), values('Id_of_first_point_in_a_segment')];
const [dx, dy] = [values('Relative_longitude_from_SW_corner_of_bin'), values('Relative_latitude_from_SW_corner_of_bin')];
const unsigned = v => (v < 0 ? v + 65536 : v);

const lines = [];
for (let bin = 0; bin < firstOf.length; bin++) {
  const west = (bin % wide) * size;
  const south = 90 - size - Math.floor(bin / wide) * size;
  const lon0 = west >= 180 ? west - 360 : west;
  if (lon0 + size < BOX[0] || lon0 > BOX[2] || south + size < BOX[1] || south > BOX[3]) continue;
  for (let s = firstOf[bin]; s < firstOf[bin] + countOf[bin]; s++) {
    const degree = DEGREE[level[s]];
    if (!degree) continue;
    const line = [];
    for (let p = start[s]; p < start[s] + points[s]; p++) {
      const at = [lon0 + unsigned(dx[p]) / 65535 * size, south + unsigned(dy[p]) / 65535 * size].map(v => Math.round(v * 1000) / 1000);
      if (line.length === 0 || line.at(-1)[0] !== at[0] || line.at(-1)[1] !== at[1]) line.push(at);
    }
    if (line.length > 1) lines.push([degree, line]);
  }
}
const out = new URL('../../app/src/main/resources/static/ground/rivers.json', import.meta.url);
writeFileSync(out, JSON.stringify({ lines }));
console.log(`rivers: ${lines.length} lines, ${lines.reduce((n, [, l]) => n + l.length, 0)} points`, [1, 2, 3].map(d => lines.filter(l => l[0] === d).length));
