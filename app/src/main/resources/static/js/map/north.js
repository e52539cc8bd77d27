import { el } from '../elements.js';
import { phrase } from '../language.js';

/** How far north is looked for, degrees. */
const NEAR = 0.05;

/**
 * The angle, clockwise from straight up, at which north lies from a point of a map: 0 in Web Mercator, elsewhere it
 * turns with the meridians.
 * @param {number[]} at map coordinates
 * @returns {number} degrees
 */
export function northFrom(projection, at) {
  const [lon, lat] = projection.unproject(at);
  // Just below a pole one has to look back.
  const sign = lat > 90 - 2 * NEAR ? -1 : 1;
  const [x, y] = projection.project(lon, lat + sign * NEAR);
  return (Math.atan2(sign * (x - at[0]), sign * (y - at[1])) * 180) / Math.PI;
}

/** A needle that shows where north lies from the middle of the view. */
export class North {
  constructor(view) {
    this.needle = el('g', {}, el('path', { d: 'M0 -13 L4.5 4 L0 1 L-4.5 4 Z' }));
    this.element = el(
      'svg',
      {
        class: 'map-north',
        viewBox: '-14 -16 28 32',
        width: 28,
        height: 32,
        role: 'img',
        'aria-label': phrase('North'),
      },
      this.needle,
      el('text', { x: 0, y: 14, 'text-anchor': 'middle' }, phrase('N')),
    );
    view.map.on('postrender', () => {
      const degrees = Math.round(northFrom(view.projection, view.map.getView().getCenter()) * 10) / 10 || 0;
      this.element.dataset.degrees = degrees;
      this.needle.setAttribute('transform', `rotate(${degrees})`);
    });
  }
}
