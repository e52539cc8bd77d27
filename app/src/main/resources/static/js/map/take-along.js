import { askBlob } from '../http.js';
import { full, written } from '../numbers.js';
import { writeState } from '../state.js';
import { fileName as nameOf, save, saveCsv } from '../take.js';
import { arrow, marksBeyond } from './beyond.js';
import { coloursOf, wearsShapes } from './key.js';
import { placesIn, prepare, tableOf } from './layers.js';
import { outline } from './symbols.js';
import { phrase } from '../language.js';

const TITLE = 30;
const FOOT = 18;
/** Width of the keys beside a picture. */
export const KEY = 190;

const fileName = (handle, ending) => nameOf(handle.title.textContent, ending);

/**
 * The map with its title, keys and credits as one picture.
 * @param {number} ratio pixels of the picture for each pixel of the screen
 */
export function pictureOf(handle, ratio) {
  const { view } = handle;
  const [width, height] = view.map.getSize();
  const keys = handle.layers.filter(l => l.key.sizeWords || l.key.colourWords || l.key.shapes.length);
  const wide = width + (keys.length ? KEY : 0);
  const canvas = Object.assign(document.createElement('canvas'), {
    width: Math.round(wide * ratio),
    height: Math.round((height + TITLE + FOOT) * ratio),
  });
  const context = canvas.getContext('2d');
  const style = name => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
  context.scale(ratio, ratio);
  context.fillStyle = style('paper');
  context.fillRect(0, 0, wide, height + TITLE + FOOT);
  context.fillStyle = style('ink');
  context.font = '600 17px "Bricolage Grotesque", sans-serif';
  context.fillText(handle.title.textContent, 4, 20);
  context.font = '11px "Hanken Grotesk", sans-serif';
  context.fillStyle = style('faint');
  context.fillText(view.credit.textContent, 4, height + TITLE + 13);
  const sheet = Object.assign(document.createElement('canvas'), {
    width: Math.round(width * ratio),
    height: Math.round(height * ratio),
  });
  for (const layer of view.map
    .getLayers()
    .getArray()
    .slice()
    .sort((a, b) => a.getZIndex() - b.getZIndex())) {
    if (layer.paintOn) layer.paintOn(sheet, ratio, view.map.getView());
    else
      for (const tiles of view.view.querySelectorAll(`.${layer.getClassName().split(' ').at(-1)} canvas`)) {
        const pen = sheet.getContext('2d');
        pen.globalAlpha = layer.getOpacity();
        pen.drawImage(tiles, 0, 0, sheet.width, sheet.height);
        pen.globalAlpha = 1;
      }
  }
  view.insets?.paintOn(sheet, ratio, style('ink'));
  context.drawImage(sheet, 0, TITLE, width, height);
  paintScale(context, view, width, height + TITLE, style);
  context.strokeStyle = style('line');
  context.strokeRect(0.5, TITLE + 0.5, width - 1, height - 1);
  let y = TITLE + 4;
  for (const layer of [...keys].reverse()) y = paintKey(context, layer, width + 12, y, style) + 10;
  return canvas;
}

/** The scale bar as it stands on the map, at the lower right. */
function paintScale(context, view, width, bottom, style) {
  const bar = view.scale.element.querySelector('.ol-scale-line-inner');
  if (!bar || view.scale.element.hidden) return;
  const wide = bar.getBoundingClientRect().width;
  const [x, y] = [width - wide - 10, bottom - 12];
  context.strokeStyle = style('ink');
  context.fillStyle = style('ink');
  context.lineWidth = 1.5;
  context.beginPath();
  for (const [dx, dy] of [
    [0, -5],
    [0, 0],
    [wide, 0],
    [wide, -5],
  ])
    context.lineTo(x + dx, y + dy);
  context.stroke();
  context.font = '10px "Hanken Grotesk", sans-serif';
  context.textAlign = 'center';
  context.fillText(bar.textContent, x + wide / 2, y - 4);
  context.textAlign = 'start';
}

function paintKey(context, { head, key, type }, x, top, style) {
  let y = top;
  const words = (text, font = '12px "Hanken Grotesk", sans-serif', tone = 'ink') => {
    context.font = font;
    context.fillStyle = style(tone);
    context.fillText(text, x, y + 12, KEY - 16);
    y += 17;
  };
  words(head.name, '600 12px "Hanken Grotesk", sans-serif');
  if (key.sizeWords) {
    words(key.sizeWords, '11px "Hanken Grotesk", sans-serif', 'faint');
    for (const { radius, text } of key.circles) {
      const r = type === 'flows' ? radius / 2 : radius;
      context.strokeStyle = style('ink');
      context.lineWidth = type === 'flows' ? radius : 0.9;
      context.beginPath();
      if (type === 'flows') {
        context.moveTo(x, y + 8);
        context.lineTo(x + 40, y + 8);
      } else context.arc(x + key.circles[0].radius + 1, y + r + 1, r, 0, 7);
      context.stroke();
      context.fillStyle = style('ink');
      context.fillText(
        text,
        x + (type === 'flows' ? 48 : 2 * key.circles[0].radius + 10),
        y + (type === 'flows' ? 12 : r + 5),
      );
      y += type === 'flows' ? 17 : Math.max(15, 2 * r + 4);
    }
  }
  const shapeLine = ({ shape, text }, colour) => {
    context.fillStyle = colour;
    context.beginPath();
    outline(context, shape, x + 7, y + 8, 5);
    context.fill();
    context.fillStyle = style('ink');
    context.font = '12px "Hanken Grotesk", sans-serif';
    context.fillText(text, x + 21, y + 12, KEY - 36);
    y += 17;
  };
  if (!wearsShapes(key)) key.shapes.forEach(s => shapeLine(s, style('ink')));
  if (!key.colourWords) return y;
  words(key.colourWords, '11px "Hanken Grotesk", sans-serif', 'faint');
  const colours = coloursOf(key);
  if (key.ramp) {
    colours.forEach((colour, i) => {
      context.fillStyle = colour;
      context.fillRect(x + (i * 150) / colours.length, y, 150 / colours.length + 0.5, 10);
    });
    return y + 14;
  }
  key.colours.forEach(({ text }, i) => {
    if (wearsShapes(key)) {
      shapeLine(key.shapes[i], colours[i]);
      return;
    }
    context.fillStyle = colours[i];
    context.fillRect(x, y + 2, 14, 12);
    context.fillStyle = style('ink');
    context.fillText(text, x + 21, y + 12, KEY - 36);
    y += 17;
  });
  for (const [marks, text, up] of [
    [key.below, phrase('below {0}', written(key.low, key.read)), false],
    [key.above, phrase('above {0}', written(key.high, key.read)), true],
  ]) {
    if (!marks.length) continue;
    context.fillStyle = style('ink');
    context.beginPath();
    if (marksBeyond(type)) arrow(context, x + 7, y + 8, 4, up);
    context.fill();
    context.fillText(`${full(marks.length)} ${text}`, x + 21, y + 12, KEY - 36);
    y += 17;
  }
  return y;
}

const blobOf = canvas =>
  new Promise((resolve, reject) =>
    canvas.toBlob(
      blob => (blob ? resolve(blob) : reject(new Error(phrase('The picture could not be made.')))),
      'image/png',
    ),
  );

export async function savePicture(handle, ratio) {
  save(await blobOf(pictureOf(handle, ratio)), fileName(handle, 'png'));
}

export async function copyPicture(handle) {
  if (!navigator.clipboard?.write)
    throw new Error(
      phrase('This browser does not let pages put pictures into the clipboard. Save it as a file instead.'),
    );
  await navigator.clipboard.write([
    new ClipboardItem({ 'image/png': blobOf(pictureOf(handle, Math.max(1, devicePixelRatio))) }),
  ]);
}

/**
 * The map as a drawing (SVG), made on the server of the same figures, classes and colours.
 * @param {number[]} size of the map itself; its title, key and credits come to it @returns {Promise<Blob>}
 */
export function drawingOf(handle, [width, height] = handle.view.map.getSize()) {
  const body = {
    state: writeState(handle.does.state()),
    visual: handle.id,
    sight: handle.view.sight(),
    width,
    height,
    night: document.documentElement.dataset.mood === 'night',
    ground: { mood: handle.view.ground.mood, detail: handle.view.ground.detail },
  };
  return askBlob('POST', handle.does.address('pictures'), { ...body, form: 'svg' });
}

export async function saveDrawing(handle) {
  save(await drawingOf(handle), fileName(handle, 'svg'));
}

/**
 * The rows of the uppermost layer that lie in sight, as they were brought in and calculated.
 * @param {boolean} spreadsheet whether texts that a spreadsheet would take for formulas are marked as text
 */
export async function saveRows(handle, spreadsheet) {
  const layer = handle.layers.at(-1);
  if (!layer) throw new Error(phrase('The map shows no place.'));
  const body = {
    state: writeState(handle.does.state()),
    visual: handle.id,
    layer: layer.head.id,
    sight: handle.view.sight(),
    spreadsheet,
  };
  save(
    await askBlob('POST', handle.does.address('rows'), body),
    fileName(handle, spreadsheet ? 'spreadsheet.csv' : 'csv'),
  );
}

/** The places in sight of the uppermost layer with all digits of their figures, as CSV or GeoJSON (RFC 7946). */
export async function savePlaces(handle, form) {
  const drawn = (await handle.does.forFile()).layers?.find(l => l.head.id === handle.layers.at(-1)?.head.id);
  const layer = drawn && prepare(drawn, handle.projection);
  if (!layer) throw new Error(phrase('The map shows no place.'));
  const seen = new Set(placesIn(layer, handle.view.map.getView().calculateExtent()));
  const { head, rows } = tableOf(layer, true);
  const shown = rows.filter(r => r.key === null || seen.has(r.key));
  const { sheet } = layer;
  const lonLat = key => {
    const p = sheet.ids.indexOf(key);
    return p < 0 ? null : [sheet.lon[p], sheet.lat[p]];
  };
  if (form === 'csv') {
    saveCsv(
      {
        head: [...head, phrase('longitude'), phrase('latitude')],
        rows: shown.map(r => ({ cells: [...r.cells, ...(lonLat(r.key) ?? ['', ''])] })),
      },
      handle.title.textContent,
    );
    return;
  }
  const features = shown
    .filter(r => lonLat(r.key))
    .map(r => ({
      type: 'Feature',
      geometry: { type: 'Point', coordinates: lonLat(r.key) },
      properties: Object.fromEntries(head.map((h, i) => [h, r.cells[i] === '' ? null : r.cells[i]])),
    }));
  save(
    new Blob([JSON.stringify({ type: 'FeatureCollection', features })], { type: 'application/geo+json' }),
    fileName(handle, 'geojson'),
  );
}
