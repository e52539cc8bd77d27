import { el } from '../elements.js';
import { phrase } from '../language.js';

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

/**
 * Where lines of whole degrees cross an edge of the map, found by walking along it: the edge may be bent in degrees.
 */
function crossings(length, degreeAt, step) {
  const found = [];
  let before = degreeAt(0);
  const pace = 8;
  for (let at = pace; at <= length; at += pace) {
    let now = degreeAt(at);
    if (now - before > 180) now -= 360;
    if (before - now > 180) now += 360;
    const [low, high] = now > before ? [before, now] : [now, before];
    for (let i = Math.ceil(low / step); i * step < high; i++)
      found.push({ value: i * step, at: at - pace + (pace * (i * step - before)) / (now - before), step });
    before = now > 180 ? now - 360 : now < -180 ? now + 360 : now;
  }
  return found.filter(t => t.at > 12 && t.at < length - 12);
}

/**
 * Draws the ticks of the neatline, in the margin around the map's view.
 * @param {SVGElement} svg covers the visual; @param {HTMLElement} view the map's element inside it
 * @param {{unproject: (at: number[]) => number[]}} projection
 */
export function drawTicks(svg, view, map, projection) {
  const size = map.getSize();
  if (!size || !map.getCoordinateFromPixel([0, 0])) return;
  const [width, height] = size;
  const [left, top] = [view.offsetLeft + 1, view.offsetTop + 1];
  const degrees = (x, y) => projection.unproject(map.getCoordinateFromPixel([x, y]));
  const [middleLon, middleLat] = degrees(width / 2, height / 2);
  const lonStep = stepFor(Math.abs(wrapped(degrees(width / 2 + 10, height / 2)[0] - middleLon)) / 10);
  const latStep = stepFor(Math.abs(degrees(width / 2, height / 2 - 10)[1] - middleLat) / 10);
  const drawn = [];
  const line = (x1, y1, x2, y2) => drawn.push(el('line', { x1, y1, x2, y2 }));
  for (const { at } of crossings(width, x => degrees(x, 0)[0], lonStep)) line(left + at, top - TICK, left + at, top);
  for (const { value, at, step } of crossings(width, x => degrees(x, height)[0], lonStep)) {
    const x = left + at;
    line(x, top + height, x, top + height + TICK);
    drawn.push(
      el(
        'text',
        { x, y: top + height + 12.5, 'text-anchor': 'middle' },
        degreeWords(wrapped(value), step, phrase('E'), phrase('W')),
      ),
    );
  }
  for (const { at } of crossings(height, y => degrees(width, y)[1], latStep))
    line(left + width, top + at, left + width + TICK, top + at);
  for (const { value, at, step } of crossings(height, y => degrees(0, y)[1], latStep)) {
    const y = top + at;
    line(left - TICK, y, left, y);
    drawn.push(
      el(
        'text',
        { x: left - 6.5, y, transform: `rotate(-90 ${left - 6.5} ${y})`, 'text-anchor': 'middle' },
        degreeWords(value, step, phrase('N'), phrase('S')),
      ),
    );
  }
  svg.replaceChildren(...drawn);
}

const wrapped = lon => ((lon + 540) % 360) - 180;
