import { fromLonLat } from '/vendor/ol.js';
import { el } from '../elements.js';
import { largest } from '../numbers.js';
import { MapView } from './map-view.js';
import { movesOf } from './moves.js';

/** The map of what placing found: a dot a place, grown a little with its rows, rust where it is doubtful. */
export class PlacingMap {
  #points = [];

  constructor(visual) {
    const body = visual.querySelector('.visual-body');
    this.view = new MapView(body, 'Where the rows lie');
    body.append(el('div', { class: 'map-buttons' }, ...movesOf(this.view)));
    this.layer = this.view.add(sheet => this.#paint(sheet));
  }

  /** @param {{lon: number, lat: number, rows: number, state: number}[]} points state 1 is doubtful */
  show(points) {
    const most = Math.max(1, largest(points.map(p => p.rows)));
    this.#points = points.map(p => ({
      at: fromLonLat([p.lon, p.lat]),
      radius: 2.5 + 7 * Math.sqrt(p.rows / most),
      doubtful: p.state === 1,
    }));
    this.view.fit(this.#points.map(p => p.at));
    this.layer.repaint();
    this.view.view.dataset.places = points.length;
  }

  #paint(sheet) {
    const style = getComputedStyle(document.documentElement);
    const tones = [style.getPropertyValue('--loch'), style.getPropertyValue('--rust')];
    const { context } = sheet;
    for (const { at, radius, doubtful } of this.#points) {
      context.beginPath();
      context.arc(sheet.x(at[0]), sheet.y(at[1]), radius, 0, 7);
      context.fillStyle = tones[doubtful ? 1 : 0];
      context.globalAlpha = 0.55;
      context.fill();
      context.globalAlpha = 1;
      context.strokeStyle = tones[doubtful ? 1 : 0];
      context.stroke();
    }
  }
}
