import { fromLonLat } from '/vendor/ol.js';
import { el } from '../elements.js';
import { coloursOf, keyOf } from '../map/key.js';
import { MapView } from '../map/map-view.js';
import { paintSymbols, prepare, symbolAt, symbolsIn } from '../map/symbols.js';

/** A map visual. Gestures: press a place to pick it, Shift adds, drag with Alt for a box. */
export function mount(body, { title, gesture }) {
  const view = new MapView(body, title);
  const handle = { body, view, layers: [], picks: new Set(), fitted: false };
  handle.key = el('div', { class: 'map-key', hidden: true });
  handle.tip = el('div', { class: 'tip', hidden: true });
  body.append(handle.key, handle.tip);
  handle.painted = view.add(sheet => {
    const style = getComputedStyle(document.documentElement);
    const tones = { ink: style.getPropertyValue('--ink'), rust: style.getPropertyValue('--rust'), faint: style.getPropertyValue('--faint') };
    for (const layer of handle.layers) paintSymbols(sheet, layer, handle.picks, tones);
  });
  handle.mood = () => drawKey(handle);
  document.addEventListener('mood', handle.mood);
  const pixelOf = at => view.map.getPixelFromCoordinate(at);
  const found = pixel => {
    for (const layer of [...handle.layers].reverse()) {
      const i = symbolAt(layer, pixel, pixelOf);
      if (i >= 0) return { layer, i };
    }
    return null;
  };
  view.map.on('click', e => {
    view.view.focus({ preventScroll: true });
    const hit = found(e.pixel);
    if (hit) gesture([hit.layer.ids[hit.i]], e.originalEvent.shiftKey);
    else if (handle.picks.size && !e.originalEvent.shiftKey) gesture([...handle.picks], false);
  });
  view.map.on('pointermove', e => showTip(handle, e.dragging ? null : found(e.pixel), e.pixel));
  view.map.getViewport().addEventListener('pointerleave', () => showTip(handle, null));
  view.box.on('boxend', e => {
    const ids = [...new Set(handle.layers.flatMap(layer => symbolsIn(layer, view.box.getGeometry().getExtent())))];
    if (ids.length) gesture(ids, e.mapBrowserEvent.originalEvent.shiftKey);
  });
  return handle;
}

function showTip(handle, hit, pixel) {
  handle.view.map.getViewport().style.cursor = hit ? 'pointer' : '';
  handle.tip.hidden = !hit;
  if (!hit) return;
  const { layer, i } = hit;
  const line = (words, value) => words && el('div', {}, el('i', {}, `${words}: `), value);
  handle.tip.replaceChildren(el('b', {}, layer.names[i]), layer.areas[i] === layer.names[i] ? '' : `, ${layer.areas[i]}`,
    line(layer.key.sizeWords ?? 'number of rows', layer.sizes[i]) || '', line(layer.key.colourWords, layer.tints[i]) || '');
  const right = pixel[0] > handle.body.clientWidth * 0.6;
  Object.assign(handle.tip.style, { left: right ? '' : `${pixel[0] + 30}px`, right: right ? `${handle.body.clientWidth - pixel[0]}px` : '', top: `${pixel[1] + 20}px` });
}

export function draw(handle, drawing) {
  handle.layers = drawing.layers.map(prepare);
  const places = handle.layers.flatMap(layer => layer.at);
  if (handle.fitted) handle.view.remember(places);
  else if (places.length) {
    handle.view.fit(places);
    handle.fitted = true;
  }
  drawKey(handle);
  handle.painted.repaint();
  handle.view.drawNow();
}

function drawKey(handle) {
  const top = handle.layers.at(-1);
  const key = top ? keyOf(top.key) : [];
  handle.key.hidden = key.length === 0;
  handle.key.replaceChildren(...key);
}

/** Lights what is picked here; the rest pales. */
export function light(handle, picks) {
  handle.picks = new Set(picks);
  handle.painted.repaint();
  handle.view.drawNow();
}

export function unmount(handle) {
  document.removeEventListener('mood', handle.mood);
  handle.view.dispose();
}

/** The figures as a table: what each row is, its key for picking, its figures. */
export function table(drawing) {
  const layer = drawing.layers.at(-1);
  if (!layer) return { head: [], rows: [] };
  const head = ['place', 'in', layer.key.sizeWords ?? 'number of rows', ...(layer.key.colourWords ? [layer.key.colourWords] : [])];
  return { head, rows: layer.ids.map((id, i) => ({ key: id, cells: [layer.names[i], layer.areas[i], layer.sizes[i], ...(layer.key.colourWords ? [layer.tints[i]] : [])] })) };
}

/** A small still picture of the drawing, for choosing what to add. */
export function mini(drawing) {
  const layer = drawing.layers[0];
  if (!layer?.ids.length) return el('svg', {});
  const at = layer.ids.map((_, i) => fromLonLat([layer.lon[i], layer.lat[i]]));
  const [west, east] = [Math.min(...at.map(p => p[0])), Math.max(...at.map(p => p[0]))];
  const [south, north] = [Math.min(...at.map(p => p[1])), Math.max(...at.map(p => p[1]))];
  const scale = Math.min(190 / Math.max(1, east - west), 96 / Math.max(1, north - south));
  const colours = coloursOf(layer.key);
  const marks = at.slice(0, 400).map(([x, y], i) => el('circle', { cx: 8 + (x - west) * scale, cy: 8 + (north - y) * scale, r: Math.max(0.8, layer.radii[i] / 3.2),
    fill: colours[Math.max(0, layer.classes[i])], 'fill-opacity': 0.6 }));
  return el('svg', { viewBox: '0 0 206 112' }, ...marks);
}
