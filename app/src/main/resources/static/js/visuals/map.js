import { Follow } from '../map/follow.js';
import { boundingExtent } from '/vendor/ol.js';
import { el } from '../elements.js';
import { keyOf } from '../map/key.js';
import {
  hasFigures,
  markAt,
  paint,
  placesIn,
  move,
  prepare,
  scaleFor,
  sized,
  tableOf,
  told,
  withShapes,
} from '../map/layers.js';
import { paintBorders, shaped } from '../map/areas.js';
import { tilesOf } from '../map/ground-tiles.js';
import { shaped as outlined } from '../map/outlines.js';
import { isNight } from '../map/ground.js';
import { paintLabels } from '../map/labels.js';
import { paintNotes } from '../map/notes.js';
import { MapView } from '../map/map-view.js';
import { MERCATOR, equalArea } from '../map/projections.js';
import { drawRing, isWithin } from '../map/ring.js';
import { ToldBox, toldParts } from '../map/told.js';
import { toolsOf } from '../map/tools.js';
import { credits, notes } from './map-words.js';
import { phrase } from '../language.js';

/** Time over a place before what is told of it is asked for, milliseconds. */
const HOVER = 220;
/** Places that can be reached with Tab. */
const REACHED = 60;
/** So many places are picked by their names; more are picked by what they have in common, which is shorter to say. */
const MOST_NAMED = 20;
/** Corners of a ring that is drawn by hand. */
const MOST_CORNERS = 40;
/** Levels of a layer's canvases, above the ground. */
const LOWEST = 10;

/** What a map cannot change while it stands: where it differs the map is made anew. */
export const made = visual =>
  JSON.stringify([
    visual.projection ?? 'mercator',
    visual.together ?? '',
    visual.bounds ?? null,
    Boolean(visual.locked),
    visual.projection === 'equal-area' ? centreOf(visual) : null,
  ]);

/**
 * The middle of an equal-area map, to whole tens of degrees: that of its start, or of the land where Sarnik is at home.
 */
function centreOf({ start }) {
  return start
    ? [(start.west + start.east) / 2, (start.south + start.north) / 2].map(v => Math.round(v / 10) * 10)
    : [0, 40];
}

/** A map is taken along by its own tool, which knows rows and places too. */
export const takesItself = true;

/** Its colours and sizes stand for something. */
export const scaled = true;

/**
 * A map visual. Gestures: press a place to pick it, Shift adds, drag with Alt for a box, L for a ring by hand; Tab
 * goes through
 * places, Enter picks, T shows the figures as a table.
 */
export function mount(body, { id, title, titleElement, visual, composing, emit }) {
  const does = doesOf(emit);
  const gesture = (values, add) => emit({ type: 'pick', values, add });
  const projection = visual.projection === 'equal-area' ? equalArea(...centreOf(visual)) : MERCATOR;
  const handle = {
    id,
    body,
    gesture,
    does,
    composing,
    projection,
    title: titleElement,
    layers: [],
    canvases: [],
    pinned: [],
    picks: new Set(),
    fitted: false,
    focused: null,
  };
  const view = new MapView(body, title, {
    projection,
    together: visual.together,
    bounds: visual.bounds,
    locked: visual.locked,
    sourceOf: does.sourceOf,
    figures: true,
    names: (sheet, taken) => {
      paintNotes(sheet, handle.pinned, taken, handle.view.coveredOn(sheet), tones());
      const over = [handle.tools, ...(handle.view.insets?.shown ?? [])].filter(Boolean);
      taken.push(...handle.view.boxesOn(sheet, over));
      for (const layer of [...handle.layers].reverse()) paintLabels(sheet, layer, taken, tones());
      marks(handle, sheet);
    },
  });
  Object.assign(handle, { view, follow: new Follow(view, () => does.again()) });
  view.told = () => notes(handle);
  view.covered = () => {
    if (handle.key.hidden || handle.visual.keyAt) return null;
    const [key, map] = [handle.key, view.view].map(e => e.getBoundingClientRect());
    return { right: key.right - map.left, top: key.top - map.top };
  };
  handle.key = el('div', { class: 'map-key', hidden: true });
  handle.tip = el('div', { class: 'tip', hidden: true });
  handle.notes = el('div', { class: 'map-notes', hidden: true, role: 'status' });
  handle.degrees = el('div', { class: 'map-degrees', 'aria-hidden': 'true' });
  handle.reach = el('ol', { class: 'map-reach', 'aria-label': phrase('Places by their figures') });
  handle.summary = el('p', { class: 'sr-only', id: `summary-${id}` });
  view.view.setAttribute('aria-describedby', handle.summary.id);
  view.foot.prepend(handle.degrees);
  body.append(handle.key, handle.notes, handle.tip, handle.reach, handle.summary);
  handle.told = new ToldBox(
    body,
    {
      tell: (layer, place) => does.tell(layer, place),
      others: (layer, place, asked) => does.others(layer, place, asked),
      pick: (ids, meant) => (meant && ids.length > MOST_NAMED ? does.mean(meant) : gesture(ids, false)),
    },
    composing || !(visual.withheld ?? []).includes('NEAR'),
  );
  handle.ring = () => drawRing(view, (ring, add) => pickWithin(handle, boundingExtent(ring), ring, add));
  handle.credits = () => credits(handle);
  handle.mood = () => {
    drawKey(handle);
    canvases(handle);
  };
  document.addEventListener('mood', handle.mood);
  gestures(handle);
  set(handle, visual);
  return handle;
}

/** What a map asks of its page. */
const doesOf = emit => ({
  tell: (layer, place) => emit({ type: 'ask', what: 'places/told', body: { layer, place } }),
  others: (layer, place, asked) => emit({ type: 'ask', what: 'places/others', body: { layer, place, ...asked } }),
  turn: part => emit({ type: 'turn', part }),
  choose: (part, number) => emit({ type: 'choose', part, number }),
  mean: predicate => emit({ type: 'pick', predicate }),
  framed: of => emit({ type: 'framed', extent: of }),
  hover: values => emit({ type: 'hover', values }),
  again: () => emit({ type: 'again' }),
  figures: () => emit({ type: 'figures' }),
  state: () => emit({ type: 'state' }),
  address: what => emit({ type: 'address', what }),
  sources: () => Object.keys(emit({ type: 'grounds' })),
  takes: () => emit({ type: 'takes' }) ?? { rows: true, pictures: true },
  forFile: () => emit({ type: 'forFile' }),
  sourceOf: name => emit({ type: 'grounds' })[name] ?? null,
});

/** Takes what the author has changed of the map as a whole. */
export function set(handle, visual) {
  const { view } = handle;
  handle.visual = visual;
  if (!handle.groundOf || JSON.stringify(handle.groundOf) !== JSON.stringify(visual.ground ?? null))
    view.ground.set(visual.ground ?? { mood: 'paper', detail: 2 });
  handle.groundOf = visual.ground ?? null;
  view.startAt(visual.start ?? null);
  if (handle.onInsets) view.framed(visual.insets ? handle.onInsets : null);
  const withheld = handle.composing ? [] : (visual.withheld ?? []);
  view.scale.element.hidden = withheld.includes('SCALE');
  view.north.element.classList.toggle('hidden', withheld.includes('NORTH'));
  handle.degrees.hidden = withheld.includes('COORDINATES');
  handle.tools?.remove();
  handle.tools = toolsOf(handle, visual, handle.composing);
  handle.body.append(handle.tools);
  handle.body.classList.toggle('has-key-beside', visual.keyAt === 'beside');
  handle.body.classList.toggle('has-no-key', visual.keyAt === 'none');
  credits(handle);
}

function tones() {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(
    ['ink', 'rust', 'faint', 'halo', 'paper'].map(name => [name, style.getPropertyValue(`--${name}`).trim()]),
  );
}

// --- gestures ------------------------------------------------------------------------------------

function gestures(handle) {
  const { view, gesture } = handle;
  const found = (at, resolution = view.map.getView().getResolution()) => {
    for (const layer of [...handle.layers].reverse()) {
      const i = markAt(layer, at, resolution);
      if (i >= 0) return { layer, i };
    }
    return null;
  };
  const pressAt = (at, resolution, add) => {
    view.view.focus({ preventScroll: true });
    const hit = found(at, resolution);
    if (hit?.layer.members?.[hit.i] > 1) {
      const [lon, lat] = [hit.layer.sheet.lon[hit.layer.at[hit.i]], hit.layer.sheet.lat[hit.layer.at[hit.i]]];
      view.flyTo(lon, lat, Math.min(16, view.map.getView().getZoom() + 2));
    } else if (hit) {
      press(handle, hit, add);
    } else if (handle.picks.size && !add) {
      gesture([...handle.picks], false);
    }
  };
  handle.onInsets = {
    press: pressAt,
    hover: (at, resolution, pixel) => showTip(handle, at && found(at, resolution), pixel),
  };
  view.map.on('click', e => pressAt(e.coordinate, undefined, e.originalEvent.shiftKey));
  view.map.on('pointermove', e => {
    showTip(handle, e.dragging ? null : found(e.coordinate), e.pixel);
    const [lon, lat] = handle.projection.unproject(e.coordinate);
    handle.degrees.textContent = `${Math.abs(lat).toFixed(3)}°${lat < 0 ? 'S' : 'N'} ${Math.abs(lon).toFixed(3)}°${lon < 0 ? 'W' : 'E'}`;
  });
  view.map.getViewport().addEventListener('pointerleave', () => {
    showTip(handle, null);
    handle.degrees.textContent = '';
  });
  view.box.on('boxend', e =>
    pickWithin(handle, view.box.getGeometry().getExtent(), undefined, e.mapBrowserEvent.originalEvent.shiftKey),
  );
  view.map.on('moveend', () => rested(handle));
  view.view.addEventListener('keydown', e => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key.toLowerCase() === 'l') handle.ring();
    else if (e.key.toLowerCase() === 't') handle.does.figures();
    else return;
    e.preventDefault();
  });
}

function press(handle, { layer, i }, add) {
  const id = layer.ids[i];
  // The box that opens tells more than the tip.
  clearTimeout(handle.hoverTimer);
  handle.tip.hidden = true;
  const released = handle.picks.has(id) && (add || handle.picks.size === 1);
  handle.gesture([id], add);
  if (released || add || layer.type === 'paths' || layer.type === 'flows') handle.told.hide();
  else handle.told.show(layer.head.id, id, told(layer, i));
}

/** Picks what lies in an extent of map coordinates, or in a ring within it. */
function pickWithin(handle, extent, ring, add) {
  const isIn = ring && (at => isWithin(at, ring));
  for (const layer of [...handle.layers].reverse()) {
    const ids = placesIn(layer, extent, isIn);
    if (!ids.length) continue;
    if (ids.length <= MOST_NAMED || add || layer.type === 'paths' || layer.members) handle.gesture(ids, add);
    else handle.does.mean(meaning(handle, extent, ring));
    return;
  }
}

/** An extent or a ring as a predicate in degrees. */
function meaning(handle, [west, south, east, north], ring) {
  const degrees = at =>
    handle.projection
      .unproject(at)
      .map(v => v.toFixed(4))
      .join('_');
  if (!ring && handle.projection === MERCATOR) return `~box.${degrees([west, south])}_${degrees([east, north])}`;
  const corners = ring ?? [
    [west, south],
    [east, south],
    [east, north],
    [west, north],
  ];
  const step = Math.max(1, Math.ceil(corners.length / MOST_CORNERS));
  return `~ring.${corners
    .filter((_, i) => i % step === 0)
    .map(degrees)
    .join('_')}`;
}

/** The map has come to rest: other shapes may be due, and where symbols are gathered other groups. */
function rested(handle) {
  handle.shaping = shapes(handle);
  if (handle.fitted && handle.view.sight()) handle.does.framed(extent(handle));
  const gathered = handle.layers.some(l => l.members);
  if (!gathered || !handle.fitted) return;
  const sight = handle.view.sight();
  if (!sight || (handle.seen && Math.round(handle.seen.zoom) === Math.round(sight.zoom) && !handle.partly)) return;
  handle.does.again();
}

/** What is in sight, for gathering; null before the map has been fitted. */
export function sight(handle) {
  handle.seen = handle.fitted ? handle.view.sight() : null;
  return handle.seen;
}

async function shapes(handle) {
  const zoom = handle.view.map.getView().getZoom();
  let changed = false;
  for (const layer of handle.layers) {
    // A map without its shapes is no empty map: that they are on their way is said.
    layer.awaited = (layer.type === 'areas' || layer.type === 'outlines') && !layer.shapes;
  }
  if (handle.layers.some(l => l.awaited)) notes(handle);
  for (const layer of handle.layers) {
    try {
      if (!(await withShapes(layer, zoom, handle.projection))) continue;
      changed = true;
      handle.canvases.forEach(c => c.of === layer.head.id && c.layer.repaint());
      if (layer.labels) handle.view.ground.names.repaint();
    } catch (refused) {
      layer.trouble = refused.message;
      notes(handle);
    } finally {
      if (layer.awaited) {
        layer.awaited = false;
        notes(handle);
      }
    }
  }
  if (changed) surround(handle);
  if (changed) handle.view.drawNow();
  handle.view.view.dataset.shaped = String(Number(handle.view.view.dataset.shaped ?? 0) + 1);
}

/** Areas belong into the first view whole, once their shapes are known. */
function surround(handle) {
  const boxes = handle.layers
    .filter(l => l.type === 'areas' && l.shapes)
    .flatMap(l => l.shapes.areas.flatMap(({ box }, i) => (l.rows[i] >= 0 ? [{ box, at: l.xy[l.rows[i]] }] : [])));
  outlinesAlone(handle);
  handle.view.surround(boxes);
  if (handle.framed || !boxes.length) return;
  handle.framed = true;
  if (handle.fitted && !handle.view.follows) handle.view.home(0);
}

/** A map of nothing but outlines starts with these. */
function outlinesAlone(handle) {
  const drawn = handle.layers.filter(l => l.type === 'outlines' && l.shapes);
  if (handle.fitted || !drawn.length || handle.layers.some(hasFigures)) return;
  const [west, south, east, north] = drawn
    .flatMap(l => l.shapes.areas.map(({ box }) => box))
    .reduce((a, b) => [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[2], b[2]), Math.max(a[3], b[3])]);
  handle.view.remember([
    [west, south],
    [east, north],
  ]);
  handle.fitted = true;
  handle.view.home(0);
}

function showTip(handle, hit, pixel) {
  handle.view.map.getViewport().style.cursor = hit ? 'pointer' : '';
  const same = hit && handle.hovered && hit.layer === handle.hovered.layer && hit.i === handle.hovered.i;
  if (!hit || !same) handle.tip.hidden = !hit;
  if (!same) clearTimeout(handle.hoverTimer);
  if (!same) handle.does.hover(hit?.layer.ids?.[hit.i] ? [hit.layer.ids[hit.i]] : null);
  handle.hovered = hit;
  if (!hit) return;
  if (!same) {
    const { layer, i } = hit;
    const { name, within, lines, trust = [] } = told(layer, i);
    handle.tip.replaceChildren(
      el('b', {}, name),
      within ? `, ${within}` : '',
      ...[...lines, ...trust].map(({ words, value }) => el('div', {}, el('i', {}, `${words}: `), value)),
    );
    // What the box already tells is not told twice.
    if (handle.told.tellsOf(layer.ids?.[i])) handle.tip.hidden = true;
    else if (layer.members?.[i] > 1) handle.tip.append(el('div', {}, el('i', {}, phrase('Press to open the group'))));
    else if (tellsMore(handle, layer)) handle.hoverTimer = setTimeout(() => tellMore(handle, hit), HOVER);
  }
  const right = pixel[0] > handle.body.clientWidth * 0.6;
  Object.assign(handle.tip.style, {
    left: right ? '' : `${pixel[0] + 30}px`,
    right: right ? `${handle.body.clientWidth - pixel[0]}px` : '',
    top: `${pixel[1] + 20}px`,
  });
}

const tellsMore = (handle, layer) => {
  const tip = handle.visual.layers[layer.head.id]?.tip;
  return (
    (tip?.measures?.length || tip?.columns?.length || tip?.over) && (layer.type === 'symbols' || layer.type === 'areas')
  );
};

async function tellMore(handle, hit) {
  try {
    const more = await handle.does.tell(hit.layer.head.id, hit.layer.ids[hit.i]);
    if (handle.hovered === hit && !handle.tip.hidden)
      handle.tip.replaceChildren(el('b', {}, more.name), ...toldParts(more, told(hit.layer, hit.i).trust));
  } catch {
    /* The figures that are known stay. */
  }
}

// --- drawing --------------------------------------------------------------------------------------

export function draw(handle, drawing) {
  handle.drawing = drawing;
  const before = new Map(handle.layers.map(l => [l.head.id, l]));
  handle.scale = scaleFor(handle.body.clientWidth);
  handle.layers = drawing.layers.map(l => prepare(sized(l, handle.scale), handle.projection)).filter(Boolean);
  // Shapes that are on the map stay there: a narrowing moves figures, not shapes.
  for (const layer of handle.layers) {
    const was = before.get(layer.head.id);
    if (layer.own) layer.ownAt = handle.does.address(`visuals/${handle.id}/layers/${layer.head.id}/shapes`);
    if (layer.type === 'areas' && was?.shapes && was.set === layer.set && was.own === layer.own)
      shaped(layer, was.shapes);
    if (layer.type === 'outlines' && was?.shapes && was.set === layer.set) outlined(layer, was.shapes);
  }
  handle.pinned = (drawing.pinned ?? []).map(({ lon, lat, text }) => ({
    at: handle.projection.project(lon, lat),
    text,
  }));
  canvases(handle);
  const resolution = handle.view.map.getView().getResolution();
  for (const layer of handle.layers)
    if (handle.fitted && before.has(layer.head.id))
      move(layer, before.get(layer.head.id), resolution, () => {
        const canvas = handle.canvases.find(c => c.of === layer.head.id && c.part === 'fill');
        // What was drawn anew meanwhile goes on from there by itself.
        if (!canvas || !handle.layers.includes(layer)) return false;
        canvas.layer.repaint();
        return true;
      });
  // Where a map is fitted first, it has to know what its key covers.
  if (!handle.fitted) drawKey(handle);
  handle.partly = drawing.layers.some(l => l.members && l.at.length >= 50000);
  const places = handle.layers.flatMap(layer => layer.xy ?? []);
  handle.follow.drawn(places);
  if (handle.fitted) handle.view.remember(places);
  else if (places.length || handle.visual.start) {
    handle.view.remember(places);
    if (!handle.view.follows) handle.view.home(0);
    handle.fitted = true;
    if (handle.layers.some(l => l.members)) setTimeout(() => handle.does.again());
  }
  // The picture comes first: what changes the page makes the browser lay it out anew. What only the keyboard reaches
  // comes last.
  repaint(handle);
  drawKey(handle);
  handle.summary.textContent = [
    drawing.summary,
    ...(drawing.pinned ?? []).map(({ place, text }) => phrase('Note at {0}: {1}.', place, text)),
  ].join(' ');
  notes(handle);
  credits(handle);
  handle.told.again();
  clearTimeout(handle.reachTimer);
  handle.reachTimer = setTimeout(() => reach(handle));
  handle.shaping = shapes(handle);
  setTimeout(() => handle.view.ground.begin());
}

export async function settled(handle) {
  let shaping;
  // Come to rest, a map may want other shapes.
  do {
    shaping = handle.shaping;
    await shaping;
    await handle.view.settled();
  } while (shaping !== handle.shaping);
}

/** A canvas for each layer, and one more for the borders of areas, which stay while colours change. */
function canvases(handle) {
  const { view } = handle;
  const wanted = handle.layers.flatMap(l =>
    l.type === 'pictures'
      ? [[l.head.id, `tiles of ${l.source} ${isNight()}`]]
      : l.type === 'areas'
        ? [
            [l.head.id, 'fill'],
            [l.head.id, 'border'],
          ]
        : [[l.head.id, 'fill']],
  );
  const same =
    wanted.length === handle.canvases.length &&
    wanted.every(([id, part], i) => handle.canvases[i].of === id && handle.canvases[i].part === part);
  if (same) return opacities(handle);
  for (const { layer } of handle.canvases) view.remove(layer);
  handle.canvases = wanted.map(([id, part], i) => {
    const find = () => handle.layers.find(l => l.head.id === id);
    if (part.startsWith('tiles')) return { of: id, part, layer: tiles(handle, find(), LOWEST + i) };
    const painter =
      part === 'border'
        ? sheet => find() && paintBorders(sheet, find(), tones())
        : sheet => {
            const layer = find();
            if (!layer) return;
            paint(sheet, layer, handle.picks, tones(), handle.projection);
            if (layer.type === 'density' && !layer.metres) peakInKey(handle, layer);
          };
    return { of: id, part, layer: view.add(painter, LOWEST + i) };
  });
}

/** The tiles of a source as a layer of the map. */
function tiles(handle, drawn, level) {
  const { source } = drawn;
  const silent = why => {
    drawn.trouble = why;
    notes(handle);
  };
  const known = handle.does.sourceOf(source);
  if (!known) silent(phrase('The source {0} has been taken away. Choose another in the layer’s brief.', source));
  const looks = { night: isNight(), detail: handle.visual.ground?.detail ?? 2 };
  const layer = tilesOf(source, known ?? { nearest: 0, shapes: false }, looks, () => {
    if (known && !drawn.trouble) silent(phrase('{0} does not answer, so its pictures are missing.', source));
  });
  layer.setZIndex(level);
  layer.setOpacity(known ? drawn.head.opacity : 0);
  handle.view.map.addLayer(layer);
  return layer;
}

/** Tiles that stay where they are may have become fainter. */
function opacities(handle) {
  for (const { of, part, layer } of handle.canvases)
    if (part.startsWith('tiles')) layer.setOpacity(handle.layers.find(l => l.head.id === of).head.opacity);
}

function repaint(handle) {
  for (const { layer, part } of handle.canvases) if (part === 'fill') layer.repaint();
  handle.view.ground.names.repaint();
  handle.view.drawNow();
}

/** Where the greatest density depends on the zoom, the key follows what was found. */
function peakInKey(handle, layer) {
  if (layer.key.high === layer.found) return;
  layer.key = { ...layer.key, high: layer.found };
  drawKey(handle);
}

/** The place that the keyboard has reached, as a ring. */
function marks(handle, sheet) {
  if (!handle.focused) return;
  const { layer, i } = handle.focused;
  const { context } = sheet;
  context.beginPath();
  context.arc(sheet.x(layer.xy[i][0]), sheet.y(layer.xy[i][1]), (layer.radii?.[i] ?? 8) + 5, 0, 7);
  context.strokeStyle = tones().ink;
  context.lineWidth = 2;
  context.setLineDash([4, 3]);
  context.stroke();
  context.setLineDash([]);
}

function drawKey(handle) {
  const all = handle.drawing?.layers ?? [];
  const several = all.length > 1;
  const withheld = !handle.composing && (handle.visual.withheld ?? []).includes('LAYERS');
  const blocks = [...all]
    .reverse()
    .map(drawn => {
      const layer = handle.layers.find(l => l.head.id === drawn.head.id);
      const parts = layer
        ? keyOf(layer.key, {
            kind: layer.type,
            choose: (i, part) => handle.does.choose(drawn.head.id + part, i),
            ...pressesOf(handle, layer),
          })
        : [];
      if (!several && !drawn.head.hidden) return parts.length ? el('div', { class: 'key-layer' }, ...parts) : null;
      const turn = el('input', {
        type: 'checkbox',
        disabled: withheld,
        onchange: () => handle.does.turn(drawn.head.id),
      });
      turn.checked = !drawn.head.hidden;
      return el('div', { class: 'key-layer' }, el('label', { class: 'key-name' }, turn, drawn.head.name), ...parts);
    })
    .filter(Boolean);
  handle.key.hidden = blocks.length === 0;
  handle.key.replaceChildren(...blocks);
}

/** A class of a layer's scale as a predicate; null where its marks have to be named one by one. */
function classOf(handle, layer, c) {
  const { measure, per } = handle.visual.layers[layer.head.id]?.colour ?? {};
  const { breaks, ramp } = layer.key;
  if (!measure || per || ramp || layer.members || !(layer.type === 'symbols' || layer.type === 'areas')) return null;
  const bounds = c < 0 ? 'none' : `${breaks[c - 1] ?? ''}_${breaks[c] ?? ''}`;
  return `~class.${layer.head.id}.${bounds}`;
}

/** What a press on a class of the key does, and on what lies beyond its ends. */
function pressesOf(handle, layer) {
  if (!layer.ids || layer.type === 'paths') return {};
  const pickMarks = (marks, add) => {
    const ids = [...new Set(marks.filter(i => !(layer.members?.[i] > 1)).map(i => layer.ids[i]))];
    if (ids.length) handle.gesture(ids, add);
  };
  return {
    pickMarks,
    pick: (c, add) => {
      const marks = [...layer.classes.keys()].filter(i => layer.classes[i] === c);
      const meant = !add && marks.length > MOST_NAMED && classOf(handle, layer, c);
      if (meant) handle.does.mean(meant);
      else pickMarks(marks, add);
    },
  };
}

/** The first places in the order of their figures, as buttons that only the keyboard reaches. */
function reach(handle) {
  const layer = [...handle.layers].reverse().find(l => l.type === 'symbols' || l.type === 'areas');
  if (!layer) {
    handle.reach.replaceChildren();
    return;
  }
  const order =
    layer.type === 'areas'
      ? layer.ids
          .map((_, i) => i)
          .filter(i => Number.isFinite(layer.values[i]))
          .sort((a, b) => layer.values[b] - layer.values[a])
      : layer.ids.map((_, i) => i);
  const focus = i => {
    handle.focused = i === null ? null : { layer, i };
    handle.view.ground.names.repaint();
    handle.view.drawNow();
  };
  handle.reach.replaceChildren(
    ...order.slice(0, REACHED).map(i => {
      const { name, lines } = told(layer, i);
      const words = `${name}: ${lines.map(l => `${l.words} ${l.value}`).join(', ')}`;
      return el(
        'li',
        {},
        el(
          'button',
          {
            type: 'button',
            'aria-label': words,
            'aria-pressed': String(handle.picks.has(layer.ids[i])),
            'data-place': layer.ids[i],
            onfocus: () => {
              focus(i);
              const at = handle.view.map.getPixelFromCoordinate(layer.xy[i]);
              if (at) showTip(handle, { layer, i }, at);
            },
            onblur: () => {
              focus(null);
              showTip(handle, null);
            },
            onclick: e => press(handle, { layer, i }, e.shiftKey),
          },
          name,
        ),
      );
    }),
  );
}

/** Lights what is picked here; the rest pales. */
export function light(handle, picks) {
  const next = new Set(picks);
  const same = next.size === handle.picks.size && [...next].every(p => handle.picks.has(p));
  handle.picks = next;
  if (!next.size) handle.told.hide();
  for (const button of handle.reach.querySelectorAll('button'))
    button.setAttribute('aria-pressed', String(next.has(button.dataset.place)));
  if (!same) repaint(handle);
}

/** Moves so that these places are in sight. @returns {boolean} whether there are any of them on it */
export function fly(handle, ids) {
  const wanted = new Set(ids);
  const at = [];
  for (const { sheet } of handle.layers.filter(layer => layer.sheet))
    sheet.ids.forEach((id, i) => {
      if (wanted.has(id)) at.push(handle.projection.project(sheet.lon[i], sheet.lat[i]));
    });
  handle.view.flyToAll(at);
  return at.length > 0;
}

export function unmount(handle) {
  handle.follow.stop();
  document.removeEventListener('mood', handle.mood);
  clearTimeout(handle.hoverTimer);
  clearTimeout(handle.reachTimer);
  handle.view.dispose();
}

/** The figures as a table: what each row is, its key for picking, its figures. */
export function figures(drawing, file = false) {
  const top = drawing.layers.filter(hasFigures).at(-1);
  if (!top) return { head: [], rows: [], figureFrom: 2 };
  return { figureFrom: 2, ...tableOf(prepare(top, MERCATOR), file) };
}

/** Its box has another size. */
export function resize(handle) {
  handle.view.map.updateSize();
  if (handle.drawing && handle.scale !== scaleFor(handle.body.clientWidth)) draw(handle, handle.drawing);
}

/** Tells whenever it has been moved. @param {(view: {zoom: number, center: number[]}) => void} run */
export function onMoved({ view }, run) {
  view.map.on('moveend', () => run({ zoom: view.map.getView().getZoom(), center: view.map.getView().getCenter() }));
}

/** Shows what another map of the same projection shows. */
export function showView(handle, { zoom, center }) {
  const now = handle.view.map.getView();
  if (Math.abs(now.getZoom() - zoom) < 1e-6 && String(now.getCenter()) === String(center)) return false;
  now.setCenter(center);
  now.setZoom(zoom);
  return true;
}

/** The extent that is in sight, degrees. */
export function extent(handle) {
  const { west, south, east, north } = handle.view.sight();
  return { west, south, east, north };
}

export { mini } from './map-mini.js';
