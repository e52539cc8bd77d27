import { boundingExtent } from '/vendor/ol.js';
import { el } from '../elements.js';
import { coloursOf } from '../map/key.js';
import { MERCATOR } from '../map/projections.js';
import { coordinates, sheetOf } from '../places.js';

/** A small still picture of the drawing, for choosing what to add. */
export function mini(drawing) {
  const layer = drawing.layers[0];
  if (!layer?.places) return el('svg', {});
  const xy = coordinates(layer.places, MERCATOR);
  const at = (layer.at ?? layer.ends).map(p => xy[p]);
  if (!at.length)
    return el(
      'svg',
      { viewBox: '0 0 206 112' },
      el(
        'text',
        { x: 0, y: 60, fill: 'currentColor', 'font-size': 12 },
        sheetOf(layer.places).names.slice(0, 2).join(', '),
      ),
    );
  const [west, south, east, north] = boundingExtent(at);
  const scale = Math.min(190 / Math.max(1, east - west), 96 / Math.max(1, north - south));
  const colours = coloursOf(layer.key);
  const x = p => 8 + (p[0] - west) * scale;
  const y = p => 8 + (north - p[1]) * scale;
  const tone = c => colours[Math.max(0, c)] ?? 'currentColor';
  if (layer.type === 'flows') {
    return el(
      'svg',
      { viewBox: '0 0 206 112' },
      ...layer.from.map((f, i) =>
        el('path', {
          d: `M${x(xy[f])} ${y(xy[f])}Q${(x(xy[f]) + x(xy[layer.to[i]])) / 2 + 8} ${(y(xy[f]) + y(xy[layer.to[i]])) / 2 - 8} ${x(xy[layer.to[i]])} ${y(xy[layer.to[i]])}`,
          fill: 'none',
          stroke: tone(layer.classes[i]),
          'stroke-width': Math.max(0.4, layer.widths[i] / 3),
          'stroke-opacity': 0.7,
        }),
      ),
    );
  }
  if (layer.type === 'paths') {
    return el(
      'svg',
      { viewBox: '0 0 206 112' },
      ...layer.parts.map((from, p) =>
        el('polyline', {
          fill: 'none',
          stroke: tone(layer.classes[layer.pathOf[p]]),
          points: layer.at
            .slice(from, layer.parts[p + 1] ?? layer.at.length)
            .map(i => `${x(xy[i])},${y(xy[i])}`)
            .join(' '),
        }),
      ),
    );
  }
  const radius = i =>
    layer.type === 'symbols' ? Math.max(0.8, layer.radii[i] / 3.2) : layer.type === 'density' ? 4 : 3.4;
  const colour = i => (layer.type === 'density' ? colours[Math.floor(colours.length * 0.6)] : tone(layer.classes[i]));
  const marks = at.slice(0, 500).map((p, i) =>
    layer.type === 'areas'
      ? el('rect', { x: x(p) - 3, y: y(p) - 3, width: 6, height: 6, fill: colour(i) })
      : el('circle', {
          cx: x(p),
          cy: y(p),
          r: radius(i),
          fill: colour(i),
          'fill-opacity': layer.type === 'density' ? 0.18 : 0.6,
        }),
  );
  return el('svg', { viewBox: '0 0 206 112' }, ...marks);
}
