import {
  DragBox,
  DragPan,
  KeyboardPan,
  KeyboardZoom,
  MouseWheelZoom,
  OlMap,
  PinchZoom,
  ScaleLine,
  View,
  altKeyOnly,
  boundingExtent,
  buffer,
  containsCoordinate,
  extend,
  fromLonLat,
  getHeight,
  getWidth,
} from '/vendor/ol.js';
import { el } from '../elements.js';
import { drawTicks } from './graticule.js';
import { GroundLayers } from './ground.js';
import { Insets } from './insets.js';
import { North } from './north.js';
import { MERCATOR } from './projections.js';
import { PaintedLayer } from './painted-layer.js';
import { phrase } from '../language.js';

const HOME = [-4, 40];
/** Share of the places at each end that may lie beyond the first view. */
const OUTER = 0.06;
const MUCH = 1.3;
/** Share of the places that may lie under the key. */
const HIDDEN = 0.01;
/** Width of the buttons at the right, pixels. */
const BUTTONS = 48;

/** Views of maps that move together, by the name they share. */
const shared = new Map();

/** Without figures the ground of a map comes after as long, milliseconds. */
const GROUND_LATER = 1500;

/**
 * A map in a visual: ground, neatline ticks, scale and ways of moving. The wheel zooms only where the map has been
 * pressed or
 * Ctrl is held, so that a page can be scrolled past it.
 */
export class MapView {
  #places = [];
  #start = null;
  #boxes = [];
  #drawnAt = '';
  #placesThen = null;

  /**
   * @param {HTMLElement} body the visual's body
   * @param {string} label what the map is called, for screen readers
   * @param {{projection?: Object, together?: string, bounds?: Object, locked?: boolean, sourceOf?: Function, names?:
   *     (sheet: Object, taken: number[][]) => void}} choices
   */
  constructor(body, label, choices = {}) {
    this.projection = choices.projection ?? MERCATOR;
    this.names = choices.names ?? (() => {});
    this.view = el('div', {
      class: 'map-view',
      tabindex: 0,
      role: 'application',
      'aria-label': phrase('{0}. Arrows move, plus and minus zoom.', label),
    });
    this.ticks = el('svg', { class: 'map-ticks', 'aria-hidden': 'true' });
    this.hint = el('div', { class: 'map-hint' }, phrase('Press the map, or hold Ctrl, to zoom with the wheel'));
    this.away = el('button', {
      class: 'map-away',
      type: 'button',
      hidden: true,
      onclick: () => this.fit(this.#places, true),
    });
    this.credit = el('div', { class: 'map-credit' }, 'Natural Earth · GeoNames');
    this.foot = el('div', { class: 'map-foot' }, this.credit);
    body.append(this.ticks, this.view, this.away, this.foot);
    this.locked = Boolean(choices.locked);
    this.scale = new ScaleLine({ units: 'metric', minWidth: 54 });
    this.map = new OlMap({
      target: this.view,
      controls: [this.scale],
      interactions: this.#interactions(),
      view: this.#viewOf(choices),
    });
    this.ground = new GroundLayers(this, () => this.#ownNames(), choices.sourceOf);
    // Figures come first where there are some: reading the ground takes longer than drawing them.
    setTimeout(() => this.ground.begin(), choices.figures ? GROUND_LATER : 0);
    // Reached from the page by scripts that want to know where a place lies on the screen.
    this.view.olMap = this.map;
    this.map.getViewport().style.touchAction = 'pan-y';
    this.north = new North(this);
    this.view.append(this.hint, this.north.element);
    this.map.on('postrender', () => this.#followed());
    this.view.addEventListener('focusin', () => this.#activate(true));
    this.view.addEventListener('focusout', () => this.#activate(false));
    this.mood = () => {
      this.map.getLayers().forEach(layer => layer.repaint?.());
      this.ground.turned();
    };
    document.addEventListener('mood', this.mood);
  }

  #viewOf({ together, bounds }) {
    const name = together && `${together}|${this.projection.code}`;
    if (name && shared.has(name)) {
      const known = shared.get(name);
      known.users++;
      this.shares = name;
      this.follows = true;
      return known.view;
    }
    const isMercator = this.projection === MERCATOR;
    const view = new View({
      projection: this.projection.ol ?? this.projection.code,
      center: isMercator ? fromLonLat(HOME) : [0, 0],
      zoom: 5,
      minZoom: bounds?.farthest ?? 1,
      maxZoom: bounds?.nearest ?? 16,
      enableRotation: false,
      // Zooms mean the same in all projections: a pixel at zoom 0 is as large as in Web Mercator.
      maxResolution: 156543.03392804097,
    });
    if (name) {
      shared.set(name, { view, users: 1 });
      this.shares = name;
    }
    return view;
  }

  /** Settles once the ground is there and all that is due is painted, pictures and moves to their end. */
  async settled() {
    await this.ground.begin();
    // One that is folded away is never painted.
    if (!this.map.getSize()?.every(side => side > 0)) return;
    await new Promise(done => {
      this.map.once('rendercomplete', done);
      this.map.render();
    });
  }

  #activate(active) {
    this.active = active;
    this.view.classList.toggle('is-active', active);
    this.map.getViewport().style.touchAction = active ? 'none' : 'pan-y';
  }

  #interactions() {
    const isActive = () => this.active;
    this.box = new DragBox({ condition: altKeyOnly });
    if (this.locked) return [this.box];
    const wheel = new MouseWheelZoom({
      condition: e => {
        if (e.type !== 'wheel') return false;
        const allowed = isActive() || e.originalEvent.ctrlKey || e.originalEvent.metaKey;
        if (!allowed) this.#hintOnce();
        return allowed;
      },
    });
    const view = this;
    const pan = new DragPan({
      condition(e) {
        const press = e.originalEvent;
        if (view.draws || press.altKey || press.shiftKey || press.ctrlKey || press.metaKey || press.button > 0)
          return false;
        return press.pointerType !== 'touch' || isActive() || this.getPointerCount() === 2;
      },
    });
    return [pan, wheel, new PinchZoom(), new KeyboardPan(), new KeyboardZoom(), this.box];
  }

  #hintOnce() {
    this.hint.classList.add('is-on');
    clearTimeout(this.hintTimer);
    this.hintTimer = setTimeout(() => this.hint.classList.remove('is-on'), 1400);
  }

  #followed() {
    const view = this.map.getView();
    const now = [
      ...view.getCenter(),
      view.getResolution(),
      ...(this.map.getSize() ?? []),
      this.view.offsetLeft,
      this.#places.length,
    ].join();
    if (now === this.#drawnAt && this.#placesThen === this.#places) return;
    this.#drawnAt = now;
    this.#placesThen = this.#places;
    drawTicks(this.ticks, this.view, this.map, this.projection);
    if (!this.#places.length) return;
    const extent = this.map.getView().calculateExtent();
    this.insets?.arrange();
    const away = this.#places.filter(p => !containsCoordinate(extent, p) && !this.insets?.has(p)).length;
    this.away.hidden = away === 0 || away === this.#places.length || this.locked;
    if (away)
      this.away.textContent = phrase(
        '{0, plural, one {# place lies beyond the edge: show all} other {# places lie beyond the edge: show all}}',
        away,
      );
  }

  #ownNames() {
    return this.names;
  }

  /** A layer painted above the ground; a higher level lies above a lower one. */
  add(paint, level = 10) {
    const layer = new PaintedLayer(paint);
    layer.setZIndex(level);
    this.map.addLayer(layer);
    return layer;
  }

  remove(layer) {
    this.map.removeLayer(layer);
  }

  /** Comes nearer or goes farther; a press while the map still moves counts from where it is going. */
  zoomBy(step) {
    if (this.locked) return;
    const view = this.map.getView();
    this.goingTo = (view.getAnimating() ? this.goingTo : view.getZoom()) + step;
    view.animate({ zoom: this.goingTo, duration: 160 });
  }

  /** Moves to an extent in degrees. */
  goTo({ west, south, east, north }, duration = 350) {
    const corners = [
      [west, south],
      [west, north],
      [east, south],
      [east, north],
      [(west + east) / 2, south],
      [(west + east) / 2, north],
    ].map(([lon, lat]) => this.projection.project(lon, lat));
    this.map.updateSize();
    if (this.map.getSize()) this.map.getView().fit(boundingExtent(corners), { duration });
  }

  /** Moves to a place and comes near. */
  flyTo(lon, lat, zoom = 10) {
    this.map.getView().animate({
      center: this.projection.project(lon, lat),
      zoom: Math.max(zoom, this.map.getView().getZoom()),
      duration: 450,
    });
  }

  /** Moves so that these coordinates of the map are in sight. @param {number[][]} at */
  flyToAll(at) {
    if (!at.length) return;
    this.map.getView().fit(boundingExtent(at), { padding: [60, 60, 60, 60], maxZoom: 10, duration: 450 });
  }

  /** What is in sight: zoom, and degrees. */
  sight() {
    this.map.updateSize();
    if (!this.map.getSize()) return null;
    const view = this.map.getView();
    const [west, south, east, north] = view.calculateExtent();
    const corners = [
      [west, south],
      [west, north],
      [east, south],
      [east, north],
      [(west + east) / 2, south],
      [(west + east) / 2, north],
    ].map(at => this.projection.unproject(at));
    const [lons, lats] = [corners.map(c => c[0]), corners.map(c => c[1])];
    const round = v => Math.round(v * 1e4) / 1e4;
    const wide = view.getZoom() < 2;
    return {
      zoom: Math.round(view.getZoom() * 100) / 100,
      west: wide ? -180 : round(Math.min(...lons)),
      south: round(Math.min(...lats)),
      east: wide ? 180 : round(Math.max(...lons)),
      north: round(Math.max(...lats)),
    };
  }

  /** The places that "Back" goes back to; map coordinates. */
  remember(places) {
    this.#places = places;
  }

  /**
   * The extents of areas and lines, which belong in a view as their places do.
   * @param {{box: number[], at: number[]}[]} boxes each with the place that it belongs to
   */
  surround(boxes) {
    this.#boxes = boxes;
  }

  /** Where the map starts, in degrees; null to fit what it shows. */
  startAt(extent) {
    this.#start = extent;
  }

  /**
   * Shows far-off parts in frames of their own, or no more.
   * @param {?Object} gestures see {@link Insets}; null for no
   */
  framed(gestures) {
    if (Boolean(gestures) === Boolean(this.insets)) return;
    this.insets?.dispose();
    this.insets = gestures ? new Insets(this, gestures) : null;
    this.#frame();
    this.#drawnAt = '';
    this.map.render();
  }

  #frame() {
    if (this.insets && this.#places.length && this.map.getSize())
      this.insets.frame(this.#places, this.map.getView().calculateExtent());
  }

  /** Boxes that the key and the buttons cover, on a sheet that this map is painted on; [left, top, right, bottom]. */
  coveredOn(sheet) {
    const key = this.covered?.();
    return this.#on(sheet, ([width, height]) => [
      [width - BUTTONS, 0, width, height],
      ...(key ? [[0, key.top, key.right, height]] : []),
    ]);
  }

  /** Boxes in which the credit, the scale and the sign of north stand, on a sheet, as for `coveredOn`. */
  footOn(sheet) {
    return this.boxesOn(sheet, [this.credit, this.scale.element, this.north.element]);
  }

  /** Boxes in which elements stand over this map, on a sheet, as for `coveredOn`. @param {Element[]} elements */
  boxesOn(sheet, elements) {
    return this.#on(sheet, () => {
      const view = this.view.getBoundingClientRect();
      return elements.map(element => {
        const { left, top, right, bottom } = element.getBoundingClientRect();
        return [left - view.left, top - view.top, right - view.left, bottom - view.top];
      });
    });
  }

  /** Boxes of the view as boxes of a sheet that is painted at its resolution; of any other sheet none. */
  #on(sheet, boxes) {
    const view = this.map.getView();
    const size = this.map.getSize();
    if (!size || sheet.resolution !== view.getResolution()) return [];
    const [west, , , north] = view.calculateExtent();
    const [x, y] = [sheet.x(west), sheet.y(north)];
    return boxes(size).map(([left, top, right, bottom]) => [left + x, top + y, right + x, bottom + y]);
  }

  /** Goes back to the start. @param {number} duration milliseconds; at first the map is simply there */
  home(duration = 350) {
    if (this.#start) this.goTo(this.#start, duration);
    else this.fit(this.#places);
    if (duration === 0 || !this.#start) this.#frame();
  }

  /**
   * Shows places, leaving a few far outliers beyond the edge unless `whole`. `covered` may tell which corner a key
   * covers.
   * @param {number[][]} places map coordinates
   */
  fit(places, whole = false) {
    this.#places = places;
    this.map.updateSize();
    if (!places.length || !this.map.getSize()) return;
    const near = whole ? boundingExtent(places) : innerExtent(places);
    const extent = buffer(
      this.#boxes
        .filter(({ at }) => containsCoordinate(near, at))
        .reduce((all, { box }) => extend(all, box), [...near]),
      4000,
    );
    const view = this.map.getView();
    view.fit(extent, { padding: [34, 30, 30, 30], maxZoom: 12 });
    const key = this.covered?.();
    if (!key) return;
    // What the key would cover moves out from under it, where the map is wide enough for both.
    const [left, top] = [
      view.getCenter()[0] - (this.map.getSize()[0] / 2) * view.getResolution(),
      view.getCenter()[1] + (this.map.getSize()[1] / 2) * view.getResolution(),
    ];
    const under = places.filter(
      ([x, y]) => (x - left) / view.getResolution() < key.right && (top - y) / view.getResolution() > key.top,
    ).length;
    if (under > places.length * HIDDEN && key.right < this.map.getSize()[0] * 0.4)
      view.fit(extent, { padding: [34, 30, 30, key.right + 8], maxZoom: 12 });
  }

  /** Draws at once, so that what follows can rely on the picture. */
  drawNow() {
    if (!this.map.getSize()?.[0]) this.map.updateSize();
    if (this.map.getSize()?.[0]) this.map.renderSync();
    this.insets?.drawNow();
  }

  dispose() {
    document.removeEventListener('mood', this.mood);
    this.insets?.dispose();
    const known = this.shares && shared.get(this.shares);
    if (known && --known.users === 0) shared.delete(this.shares);
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
