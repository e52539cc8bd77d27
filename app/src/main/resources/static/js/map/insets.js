import {
  OlMap,
  ScaleLine,
  TileLayer,
  View,
  boundingExtent,
  buffer,
  containsCoordinate,
  containsExtent,
  getHeight,
  getWidth,
} from '/vendor/ol.js';
import { el } from '../elements.js';
import { phrase } from '../language.js';

const MOST = 3;
/** More places than this beyond the edge are no far-off part, but a map that was put elsewhere. */
const MOST_PLACES = 2000;
/** Places nearer to each other than this share of the map's size belong together. */
const TOGETHER = 0.12;
/** Nearer than this they belong together on any map, map units. */
const NEIGHBOURS = 280_000;
const WIDE = 132;
const HIGH = 96;
const GAP = 6;
/** Room for the words and the scale at the foot of the map, pixels. */
const FOOT = 44;
/** Room for the buttons at the map's right side, pixels. */
const TOOLS = 48;
const STEP = 16;
/** How far from a frame places are best, pixels. */
const AROUND = 22;
/** Share of the places in view that a frame may cover. */
const COVERED = 0.01;

/**
 * Far-off parts of what a map shows, such as islands, each in a frame of its own on the map, with its own scale. They
 * show the map's own layers, and are told of what is pressed on them.
 */
export class Insets {
  #frames = [];
  #places = null;
  /** For what size of the map and of its key the frames have been placed. */
  #room = null;
  /** Which frames are shown, and where. */
  #given = '';

  /**
   * @param {import('./map-view.js').MapView} view
   * @param {{press: Function, hover: Function}} gestures what a press and the pointer do, as on the map itself
   */
  constructor(view, gestures) {
    this.view = view;
    this.gestures = gestures;
    this.box = el('div', { class: 'map-insets' });
    view.view.append(this.box);
    this.layersChanged = () => this.#mirrorAll();
    view.map.getLayers().on(['add', 'remove'], this.layersChanged);
  }

  /** Whether a place stands in one of the frames. */
  has(place) {
    return this.#frames.some(f => !f.element.hidden && containsCoordinate(f.extent, place));
  }

  /**
   * Frames the places that lie beyond what the map shows at its start.
   * @param {number[][]} places map coordinates @param {number[]} extent of the map at its start
   */
  frame(places, extent) {
    if (this.#places === places) return;
    this.#places = places;
    this.#room = null;
    for (const frame of this.#frames) this.#letGo(frame);
    const away = places.filter(p => !containsCoordinate(extent, p));
    const reach = Math.max(NEIGHBOURS, TOGETHER * Math.max(getWidth(extent), getHeight(extent)));
    const groups = away.length > MOST_PLACES ? [] : groupsOf(away, reach);
    this.#frames = groups
      .sort((a, b) => b.length - a.length)
      .slice(0, MOST)
      .map(group => this.#made(group));
    this.arrange();
  }

  #made(group) {
    const around = boundingExtent(group);
    const extent = buffer(around, Math.max(25_000, 0.2 * Math.max(getWidth(around), getHeight(around))));
    const element = el('div', {
      class: 'map-inset',
      role: 'group',
      'aria-label': phrase(
        'A part that lies farther off, with {0, plural, one {# place} other {# places}}',
        group.length,
      ),
    });
    this.box.append(element);
    const view = this.view.map.getView();
    const map = new OlMap({
      target: element,
      controls: [new ScaleLine({ units: 'metric', minWidth: 36, maxWidth: 80 })],
      interactions: [],
      layers: [],
      view: new View({ projection: view.getProjection(), enableRotation: false, maxResolution: 156543.03392804097 }),
    });
    // Reached from the page as that of the map itself.
    element.olMap = map;
    const frame = { element, map, extent, mirrors: [] };
    map.getView().fit(extent, { size: [WIDE, HIGH], padding: [4, 4, 4, 4], maxZoom: 10 });
    this.#mirror(frame);
    map.on('click', e => this.gestures.press(e.coordinate, map.getView().getResolution(), e.originalEvent.shiftKey));
    map.on('pointermove', e =>
      this.gestures.hover(e.coordinate, map.getView().getResolution(), [
        e.pixel[0] + element.offsetLeft,
        e.pixel[1] + element.offsetTop,
      ]),
    );
    map.getViewport().addEventListener('pointerleave', () => this.gestures.hover(null));
    return frame;
  }

  #mirror(frame) {
    for (const { mirror, of } of frame.mirrors) {
      of.mirrors?.delete(mirror);
      frame.map.removeLayer(mirror);
    }
    frame.mirrors = this.view.map
      .getLayers()
      .getArray()
      .map(of => {
        const mirror = of.mirrored
          ? of.mirrored()
          : new TileLayer({
              source: of.getSource(),
              opacity: of.getOpacity(),
              className: `${of.getClassName()} in-inset`,
            });
        mirror.setZIndex(of.getZIndex());
        frame.map.addLayer(mirror);
        return { mirror, of };
      });
  }

  #mirrorAll() {
    for (const frame of this.#frames) this.#mirror(frame);
  }

  /**
   * Shows the frames, where they have room and the map does not show the same; they stay where they are while the map
   * is moved.
   */
  arrange() {
    const size = this.view.map.getSize();
    if (!size || !this.#frames.length) return;
    const key = this.view.covered?.();
    const room = [...size, key?.right, key?.top].join();
    if (room !== this.#room) this.#settle(size, key);
    this.#room = room;
    const seen = this.view.map.getView().calculateExtent();
    for (const frame of this.#frames) frame.element.hidden = !frame.at || containsExtent(seen, frame.extent);
    const given = this.#frames.map(frame => !frame.element.hidden && frame.at).join(';');
    // Labels give way to what is shown.
    if (given !== this.#given) this.view.ground.names.repaint();
    this.#given = given;
  }

  /** The elements of the frames that are shown. */
  get shown() {
    return this.#frames.map(frame => frame.element).filter(element => !element.hidden);
  }

  /** Finds each frame the place in which it covers the fewest places of the map; what finds no room is left out. */
  #settle(size, key) {
    const view = this.view.map.getView();
    const [west, , , north] = view.calculateExtent();
    const every = Math.ceil(this.#places.length / MOST_PLACES);
    const marks = this.#places
      .filter((_, i) => i % every === 0)
      .map(([x, y]) => [(x - west) / view.getResolution(), (north - y) / view.getResolution()])
      .filter(([x, y]) => x >= 0 && y >= 0 && x <= size[0] && y <= size[1]);
    const taken = key ? [[0, key.top, key.right, size[1]]] : [];
    for (const frame of this.#frames) {
      frame.at = freest(size, marks, taken);
      if (!frame.at) continue;
      const [left, top] = frame.at;
      taken.push([left - GAP, top - GAP, left + WIDE + GAP, top + HIGH + GAP]);
      Object.assign(frame.element.style, { left: `${left}px`, top: `${top}px` });
      frame.element.hidden = false;
      frame.map.updateSize();
    }
  }

  /** Draws at once. */
  drawNow() {
    for (const { element, map } of this.#frames) if (!element.hidden && map.getSize()?.[0]) map.renderSync();
  }

  /** Paints the frames on a picture of the map. */
  paintOn(canvas, ratio, line) {
    const own = this.view.view.getBoundingClientRect();
    const context = canvas.getContext('2d');
    for (const { element, map } of this.#frames) {
      if (element.hidden) continue;
      const at = element.getBoundingClientRect();
      const part = Object.assign(document.createElement('canvas'), {
        width: Math.round(WIDE * ratio),
        height: Math.round(HIGH * ratio),
      });
      const sorted = map
        .getLayers()
        .getArray()
        .slice()
        .sort((a, b) => a.getZIndex() - b.getZIndex());
      for (const layer of sorted) layer.paintOn?.(part, ratio, map.getView());
      const [x, y] = [(at.left - own.left) * ratio, (at.top - own.top) * ratio];
      context.drawImage(part, x, y);
      context.strokeStyle = line;
      context.lineWidth = ratio;
      context.strokeRect(x, y, part.width, part.height);
    }
  }

  #letGo(frame) {
    for (const { mirror, of } of frame.mirrors) of.mirrors?.delete(mirror);
    frame.map.setTarget(null);
    frame.element.remove();
  }

  dispose() {
    this.view.map.getLayers().un(['add', 'remove'], this.layersChanged);
    for (const frame of this.#frames) this.#letGo(frame);
    this.#frames = [];
    this.box.remove();
  }
}

/** Where a frame covers the fewest places; null where it would cover many, or the map is too small for one. */
function freest([width, height], marks, taken) {
  if (height < HIGH * 2.2 || width < WIDE * 2.5) return null;
  let best = null;
  for (let top = height - FOOT - HIGH; top >= GAP; top -= STEP)
    for (let left = GAP; left + WIDE <= width - TOOLS; left += STEP) {
      const box = [left, top, left + WIDE, top + HIGH];
      if (taken.some(t => t[0] < box[2] && box[0] < t[2] && t[1] < box[3] && box[1] < t[3])) continue;
      const under = marks.filter(
        ([x, y]) => x > box[0] - AROUND && x < box[2] + AROUND && y > box[1] - AROUND && y < box[3] + AROUND,
      ).length;
      if (!best || under < best.under) best = { under, at: [left, top] };
    }
  return best && best.under <= marks.length * COVERED ? best.at : null;
}

/** Places that lie within reach of each other, by way of others. @param {number[][]} places */
export function groupsOf(places, reach) {
  const left = new Set(places);
  const groups = [];
  for (const first of places) {
    if (!left.delete(first)) continue;
    const group = [first];
    for (let i = 0; i < group.length; i++)
      for (const other of left)
        if (Math.hypot(other[0] - group[i][0], other[1] - group[i][1]) <= reach) {
          left.delete(other);
          group.push(other);
        }
    groups.push(group);
  }
  return groups;
}
