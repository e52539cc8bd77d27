import { toLonLat } from '/vendor/ol.js';
import { el } from '../elements.js';

/** Steps between ticks, degrees; the finer ones are whole minutes. */
const STEPS = [30, 20, 10, 5, 2, 1, 0.5, 1 / 6, 1 / 12, 1 / 30, 1 / 60];
const TICK_GAP = 74;
const TICK = 5;

/** The coarsest step that still gives a tick every so many pixels. */
export function stepFor(degreesPerPixel) {
  return [...STEPS].reverse().find(s => s / degreesPerPixel >= TICK_GAP) ?? STEPS[0];
}

/** "3°30′W": whole degrees, with minutes where the step is finer. */
export function degreeWords(value, step, positive, negative) {
  const minutes = Math.round(Math.abs(value) * 60);
  const side = minutes === 0 ? '' : value > 0 ? positive : negative;
  return `${Math.floor(minutes / 60)}°${step < 1 ? `${String(minutes % 60).padStart(2, '0')}′` : ''}${side}`;
}

function ticks(from, to, toPixel, length) {
  const step = stepFor(Math.abs(to - from) / length);
  const found = [];
  for (let i = Math.ceil(from / step); i * step <= to; i++) found.push({ value: i * step, at: toPixel(i * step), step });
  return found.filter(t => t.at > 12 && t.at < length - 12);
}

/**
 * Draws the ticks of the neatline, in the margin around the map's view.
 * @param {SVGElement} svg covers the visual; @param {HTMLElement} view the map's element inside it
 */
export function drawTicks(svg, view, map) {
  const size = map.getSize();
  if (!size) return;
  const [width, height] = size;
  const [left, top] = [view.offsetLeft + 1, view.offsetTop + 1];
  const [west, north] = toLonLat(map.getCoordinateFromPixel([0, 0]) ?? [0, 0]);
  const [east, south] = toLonLat(map.getCoordinateFromPixel([width, height]) ?? [0, 0]);
  const span = east > west ? east - west : east + 360 - west;
  const mercator = lat => Math.log(Math.tan(Math.PI / 4 + lat * Math.PI / 360));
  const xOf = lon => (lon - west) / span * width;
  const yOf = lat => (mercator(north) - mercator(lat)) / (mercator(north) - mercator(south)) * height;
  const drawn = [];
  const line = (x1, y1, x2, y2) => drawn.push(el('line', { x1, y1, x2, y2 }));
  for (const { value, at, step } of ticks(west, west + span, xOf, width)) {
    const x = left + at;
    line(x, top + height, x, top + height + TICK);
    line(x, top - TICK, x, top);
    drawn.push(el('text', { x, y: top + height + 12.5, 'text-anchor': 'middle' }, degreeWords(((value + 540) % 360) - 180, step, 'E', 'W')));
  }
  for (const { value, at, step } of ticks(south, north, yOf, height)) {
    const y = top + at;
    line(left - TICK, y, left, y);
    line(left + width, y, left + width + TICK, y);
    drawn.push(el('text', { x: left - 6.5, y, transform: `rotate(-90 ${left - 6.5} ${y})`, 'text-anchor': 'middle' }, degreeWords(value, step, 'N', 'S')));
  }
  svg.replaceChildren(...drawn);
}
