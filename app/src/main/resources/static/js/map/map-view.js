import { DragBox, DragPan, KeyboardPan, KeyboardZoom, MouseWheelZoom, OlMap, PinchZoom, ScaleLine, View, altKeyOnly,
  boundingExtent, buffer, containsCoordinate, fromLonLat, getHeight, getWidth } from '/vendor/ol.js';
import { el } from '../elements.js';
import { drawTicks } from './graticule.js';
import { loadGround, paintGround, paintNames } from './ground.js';
import { PaintedLayer } from './painted-layer.js';

const HOME = [-4, 40];
/** Share of the places at each end that may lie beyond the first view. */
const OUTER = 0.06;
const MUCH = 1.3;

/**
 * A map in a visual: ground, neatline ticks, scale, buttons and ways of moving. The wheel zooms only where the map has
 * been pressed or Ctrl is held, so that a page can be scrolled past it.
 */
export class MapView {
  #places = [];

  /**
   * @param {HTMLElement} body the visual's body
   * @param {string} label what the map is called, for screen readers
   */
  constructor(body, label) {
    this.view = el('div', { class: 'map-view', tabindex: 0, role: 'application', 'aria-label': `${label}. Arrows move, plus and minus zoom.` });
    this.ticks = el('svg', { class: 'map-ticks', 'aria-hidden': 'true' });
    this.hint = el('div', { class: 'map-hint' }, 'Press the map, or hold Ctrl, to zoom with the wheel');
    this.away = el('button', { class: 'map-away', type: 'button', hidden: true, onclick: () => this.fit(this.#places, true) });
    body.append(this.ticks, this.view, this.away, el('div', { class: 'map-credit' }, 'Natural Earth · GeoNames'), this.#buttons());
    const ground = new PaintedLayer(sheet => this.ground && paintGround(sheet, this.ground));
    this.names = new PaintedLayer(sheet => this.ground && paintNames(sheet, this.ground));
    this.names.setZIndex(10);
    loadGround().then(loaded => {
      this.ground = loaded;
      ground.repaint();
      this.names.repaint();
    });
    this.map = new OlMap({
      target: this.view,
      layers: [ground, this.names],
      controls: [new ScaleLine({ units: 'metric', minWidth: 54 })],
      interactions: this.#interactions(),
      view: new View({ center: fromLonLat(HOME), zoom: 5, minZoom: 1, maxZoom: 16, enableRotation: false }),
    });
    // Reached from the page by scripts that want to know where a place lies on the screen.
    this.view.olMap = this.map;
    this.map.getViewport().style.touchAction = 'pan-y';
    this.view.append(this.hint);
    this.map.on('postrender', () => this.#followed());
    this.view.addEventListener('focusin', () => this.#activate(true));
    this.view.addEventListener('focusout', () => this.#activate(false));
    this.mood = () => this.map.getLayers().forEach(layer => layer.repaint());
    document.addEventListener('mood', this.mood);
    document.fonts.load('500 12px "Hanken Grotesk"').then(() => this.names.repaint());
  }

  #activate(active) {
    this.active = active;
    this.view.classList.toggle('is-active', active);
    this.map.getViewport().style.touchAction = active ? 'none' : 'pan-y';
  }

  #interactions() {
    const isActive = () => this.active;
    const wheel = new MouseWheelZoom({
      condition: e => {
        if (e.type !== 'wheel') return false;
        const allowed = isActive() || e.originalEvent.ctrlKey || e.originalEvent.metaKey;
        if (!allowed) this.#hintOnce();
        return allowed;
      },
    });
    const pan = new DragPan({
      condition(e) {
        const press = e.originalEvent;
        if (press.altKey || press.shiftKey || press.ctrlKey || press.metaKey || press.button > 0) return false;
        return press.pointerType !== 'touch' || isActive() || this.getPointerCount() === 2;
      },
    });
    this.box = new DragBox({ condition: altKeyOnly });
    return [pan, wheel, new PinchZoom(), new KeyboardPan(), new KeyboardZoom(), this.box];
  }

  #buttons() {
    const zoom = by => () => this.map.getView().animate({ zoom: this.map.getView().getZoom() + by, duration: 160 });
    const button = (name, run, content) => el('button', { type: 'button', title: name, 'aria-label': name, onclick: run }, content);
    return el('div', { class: 'map-buttons' }, button('Nearer', zoom(1), '+'), button('Farther', zoom(-1), '−'),
      button('Back to all', () => this.fit(this.#places), el('svg', { viewBox: '0 0 16 16' }, el('path', { d: 'M2 8 8 2l6 6M4 7v7h8V7' }))));
  }

  #hintOnce() {
    this.hint.classList.add('is-on');
    clearTimeout(this.hintTimer);
    this.hintTimer = setTimeout(() => this.hint.classList.remove('is-on'), 1400);
  }

  #followed() {
    drawTicks(this.ticks, this.view, this.map);
    if (!this.#places.length) return;
    const extent = this.map.getView().calculateExtent();
    const away = this.#places.filter(p => !containsCoordinate(extent, p)).length;
    this.away.hidden = away === 0 || away === this.#places.length;
    if (away) this.away.textContent = `${away} ${away === 1 ? 'place lies' : 'places lie'} beyond the edge: show all`;
  }

  /** A layer painted above the ground. */
  add(paint) {
    const layer = new PaintedLayer(paint);
    this.map.addLayer(layer);
    return layer;
  }

  /** The places that "Back to all" goes back to; map coordinates. */
  remember(places) {
    this.#places = places;
  }

  /**
   * Shows places, leaving a few far outliers beyond the edge unless `whole`.
   * @param {number[][]} places map coordinates
   */
  fit(places, whole = false) {
    this.#places = places;
    this.map.updateSize();
    if (!places.length || !this.map.getSize()) return;
    const extent = buffer(whole ? boundingExtent(places) : innerExtent(places), 4000);
    this.map.getView().fit(extent, { padding: [34, 30, 30, 30], maxZoom: 12 });
  }

  /** Draws at once, so that what follows can rely on the picture. */
  drawNow() {
    this.map.updateSize();
    if (this.map.getSize()) this.map.renderSync();
  }

  dispose() {
    document.removeEventListener('mood', this.mood);
    this.map.setTarget(null);
  }
}

/**
 * The extent of all places, or, where a few outliers would make it much wider, of those in and around the inner ones:
 * the inner extent holds all but the outer share at each end, and reaches half its size farther.
 */
function innerExtent(places) {
  const all = boundingExtent(places);
  if (places.length < 20) return all;
  const [x, y] = [0, 1].map(axis => {
    const sorted = places.map(p => p[axis]).sort((a, b) => a - b);
    const cut = Math.floor(sorted.length * OUTER);
    const [low, high] = [sorted[cut], sorted[sorted.length - 1 - cut]];
    return [low - (high - low) / 2, high + (high - low) / 2];
  });
  const near = boundingExtent(places.filter(p => p[0] >= x[0] && p[0] <= x[1] && p[1] >= y[0] && p[1] <= y[1]));
  const muchWider = getWidth(all) > MUCH * getWidth(near) || getHeight(all) > MUCH * getHeight(near);
  return muchWider ? near : all;
}
