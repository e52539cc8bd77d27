import { el, say } from '../elements.js';
import { isWithin } from '../map/ring.js';
import { Tip, colourKey, notesOf, shortened, whenSized, wide, within } from './chart.js';
import { sizeOf } from '../sizes.js';
import { phrase } from '../language.js';

/** From this many marks on they are painted on a canvas instead of being elements. */
const ELEMENTS = 3000;
/** Parts of an axis in which dots are placed. */
const FINE = 10000;
const BELOW = 34;
const ABOVE = 10;

const expanded = new WeakMap();

/** The marks of a drawing one by one; they travel column by column. */
function dotsOf({ dots }) {
  if (!expanded.has(dots)) {
    const { keys, labels, x, y, radii, palette, colours, named, texts } = dots;
    const stand = new Set(named);
    const each = (list, i) => (list.length === 1 ? list[0] : list[i]);
    expanded.set(
      dots,
      keys.map((key, i) => ({
        key,
        label: labels ? labels[i] : key,
        x: x[i] / FINE,
        y: y[i] / FINE,
        radius: each(radii, i),
        colour: palette[each(colours, i)],
        named: stand.has(i),
        texts: texts.map(column => column[i]),
      })),
    );
  }
  return expanded.get(dots);
}

/**
 * A scatter. Press a dot to pick it, Shift adds; drag for a box, with L held for a ring by hand. With the keyboard: Tab
 * goes from dot to dot, Enter picks.
 */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null, byHand: false };
  handle.key = el('div', {});
  handle.place = el('div', { class: 'scatter' });
  handle.notes = el('div', {});
  body.append(handle.key, handle.place, handle.notes);
  handle.tip = new Tip(body);
  handle.sized = whenSized(body, () => handle.drawing && draw(handle, handle.drawing));
  handle.hold = e => {
    if (e.key.toLowerCase() === 'l') handle.byHand = e.type === 'keydown';
  };
  for (const type of ['keydown', 'keyup']) addEventListener(type, handle.hold);
  gestures(handle);
  telling(handle);
  return handle;
}

export function draw(handle, drawing) {
  handle.drawing = drawing;
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.key : null;
  handle.key.replaceChildren(
    colourKey(drawing.colours, drawing.sizeWords ? phrase('sized by {0}', drawing.sizeWords) : drawing.colourWords),
  );
  handle.notes.replaceChildren(notesOf([...drawing.notes, ...(drawing.fit ? [`${drawing.fit.words}.`] : [])]));
  const width = sizeOf(handle.place).width;
  const height = Math.max(120, sizeOf(handle.place).height);
  const left = 14 + Math.max(14, ...drawing.up.ticks.map(t => wide(t.text)));
  const room = { left, right: width - 12, top: ABOVE, bottom: height - BELOW };
  const x = at => room.left + (room.right - room.left) * at;
  const y = at => room.bottom - (room.bottom - room.top) * at;
  Object.assign(handle, { x, y, room, size: { width, height } });
  const many = dotsOf(drawing).length > ELEMENTS;
  const picture = el(
    'svg',
    { width, height, role: 'group', 'aria-label': `${handle.title}: ${dotsOf(drawing).length} dots` },
    ...drawing.up.ticks.flatMap(({ at, text }) => [
      el('line', { class: 'axis-line', x1: room.left, x2: room.right, y1: y(at), y2: y(at) }),
      el('text', { class: 'axis-words', x: room.left - 6, y: y(at) + 4, 'text-anchor': 'end' }, text),
    ]),
    ...drawing.across.ticks.flatMap(({ at, text }) => [
      el('line', { class: 'axis-line', x1: x(at), x2: x(at), y1: room.top, y2: room.bottom }),
      el('text', { class: 'axis-words', x: x(at), y: room.bottom + 14, 'text-anchor': 'middle' }, text),
    ]),
    el('text', { class: 'axis-name', x: room.right, y: height - 4, 'text-anchor': 'end' }, `${drawing.across.words} →`),
    el('text', { class: 'axis-name', x: room.left + 4, y: room.top + 4 }, `↑ ${drawing.up.words}`),
    ...quarters(drawing, x, y, room),
    drawing.fit &&
      el('line', {
        class: 'fit',
        x1: x(drawing.fit.from[0]),
        y1: y(drawing.fit.from[1]),
        x2: x(drawing.fit.to[0]),
        y2: y(drawing.fit.to[1]),
      }),
    ...(many ? [] : dotsOf(drawing).map(dot => dotOf(handle, dot))),
    ...names(drawing, x, y),
    el('polygon', { class: 'lasso', visibility: 'hidden' }),
  );
  handle.canvas = many ? el('canvas', { class: 'scatter-canvas', 'aria-hidden': 'true' }) : null;
  handle.place.replaceChildren(...(many ? [handle.canvas] : []), picture);
  if (focused !== null)
    marks(handle)
      .find(m => m.dataset.key === focused)
      ?.focus();
  handle.lit = new Set();
  light(handle, handle.picks);
}

/** The names of those that stand out; one that would cover another is left out. */
function names(drawing, x, y) {
  const taken = [];
  return dotsOf(drawing)
    .filter(d => d.named)
    .flatMap(d => {
      const text = shortened(d.label, 140);
      const end = d.x > 0.8;
      const at = x(d.x) + (end ? -d.radius - 3 : d.radius + 3);
      const box = { left: end ? at - wide(text) : at, right: end ? at : at + wide(text), y: y(d.y) };
      if (taken.some(t => t.left < box.right && t.right > box.left && Math.abs(t.y - box.y) < 14)) return [];
      taken.push(box);
      return [el('text', { class: 'dot-name', x: at, y: box.y + 4, 'text-anchor': end ? 'end' : 'start' }, text)];
    });
}

function quarters({ cut, quarters: words }, x, y, room) {
  if (!cut) return [];
  const corners = [
    [room.left + 4, room.top + 20, 'start'],
    [room.right - 4, room.top + 20, 'end'],
    [room.left + 4, room.bottom - 6, 'start'],
    [room.right - 4, room.bottom - 6, 'end'],
  ];
  return [
    el('line', { class: 'quarter', x1: x(cut[0]), x2: x(cut[0]), y1: room.top, y2: room.bottom }),
    el('line', { class: 'quarter', x1: room.left, x2: room.right, y1: y(cut[1]), y2: y(cut[1]) }),
    ...words.map((text, i) =>
      el(
        'text',
        {
          class: 'quarter-words',
          x: corners[i][0],
          y: corners[i][1],
          'text-anchor': corners[i][2],
          tabindex: 0,
          role: 'button',
          'data-quarter': i,
        },
        text,
      ),
    ),
  ];
}

/** The dots of a quarter: upper left, upper right, lower left, lower right. */
function ofQuarter({ drawing }, quarter) {
  const [left, upper] = [quarter % 2 === 0, quarter < 2];
  return dotsOf(drawing)
    .filter(
      ({ x, y }) =>
        (left ? x < drawing.cut[0] : x >= drawing.cut[0]) && (upper ? y >= drawing.cut[1] : y < drawing.cut[1]),
    )
    .map(d => d.key);
}

function pickQuarter(handle, quarter, add) {
  const values = ofQuarter(handle, Number(quarter));
  if (values.length) handle.emit({ type: 'pick', values, add });
  else say(phrase('Nothing lies there: {0}.', handle.drawing.quarters[quarter]));
}

const marks = handle => [...handle.place.querySelectorAll('.dot')];
const linesOf = ({ up, across, sizeWords }, dot) => [
  [up.words, dot.texts[1]],
  [across.words, dot.texts[0]],
  ...(sizeWords ? [[sizeWords, dot.texts[2]]] : []),
];

function dotOf(handle, dot) {
  const lines = linesOf(handle.drawing, dot);
  return el('circle', {
    class: 'dot',
    tabindex: 0,
    role: 'button',
    'data-key': dot.key,
    cx: handle.x(dot.x),
    cy: handle.y(dot.y),
    r: dot.radius,
    style: { fill: dot.colour },
    'aria-label': `${dot.label}: ${lines.map(([w, f]) => `${w} ${f}`).join(', ')}`,
    'aria-pressed': 'false',
  });
}

/** What is told of the dots that are elements, and what their keys do; there may be thousands, so the place listens. */
function telling(handle) {
  const { place, tip } = handle;
  const told = e => e.target.matches?.('.dot') && dotsOf(handle.drawing).find(d => d.key === e.target.dataset.key);
  place.addEventListener('pointerover', e => {
    const dot = told(e);
    if (dot) tip.show(within(handle.body, e), dot.label, linesOf(handle.drawing, dot));
  });
  place.addEventListener('pointerout', e => told(e) && tip.hide());
  place.addEventListener('focusin', e => {
    const dot = told(e);
    if (dot) tip.show([handle.x(dot.x), handle.y(dot.y)], dot.label, linesOf(handle.drawing, dot));
  });
  place.addEventListener('focusout', e => told(e) && tip.hide());
  place.addEventListener('keydown', e => {
    const pressed = e.key === 'Enter' || e.key === ' ';
    if (pressed && e.target.dataset.quarter) {
      e.preventDefault();
      pickQuarter(handle, e.target.dataset.quarter, e.shiftKey);
    }
    const dot = pressed && told(e);
    if (!dot) return;
    e.preventDefault();
    handle.emit({ type: 'pick', values: [dot.key], add: e.shiftKey });
  });
}

/** The dot under a point, pixels; the smallest of several. */
function dotAt(handle, [px, py]) {
  let best = null;
  for (const dot of dotsOf(handle.drawing)) {
    const off = Math.hypot(handle.x(dot.x) - px, handle.y(dot.y) - py);
    if (off <= Math.max(6, dot.radius) && (!best || dot.radius < best.radius)) best = dot;
  }
  return best;
}

function gestures(handle) {
  const { place } = handle;
  let path = null;
  let quarter = null;
  const lasso = () => place.querySelector('.lasso');
  const ring = () => {
    if (handle.byHand) return path;
    const [[ax, ay], [bx, by]] = [path[0], path.at(-1)];
    return [
      [ax, ay],
      [bx, ay],
      [bx, by],
      [ax, by],
    ];
  };
  place.addEventListener('pointerdown', e => {
    if (!handle.drawing || e.button || e.pointerType === 'touch') return;
    path = [within(place, e)];
    quarter = e.target.dataset?.quarter ?? null;
    place.setPointerCapture(e.pointerId);
  });
  place.addEventListener('pointermove', e => {
    if (!handle.drawing) return;
    if (!path) {
      const dot = handle.canvas && dotAt(handle, within(place, e));
      if (dot) handle.tip.show(within(handle.body, e), dot.label, linesOf(handle.drawing, dot));
      else if (handle.canvas) handle.tip.hide();
      return;
    }
    path.push(within(place, e));
    lasso().setAttribute(
      'points',
      ring()
        .map(p => p.join(','))
        .join(' '),
    );
    lasso().setAttribute('visibility', 'visible');
  });
  const end = e => {
    if (!path) return;
    const drawn = ring();
    const [a, b] = [path[0], path.at(-1)];
    path = null;
    lasso()?.setAttribute('visibility', 'hidden');
    if (Math.hypot(a[0] - b[0], a[1] - b[1]) < 5 && !handle.byHand) {
      const dot = dotAt(handle, b);
      if (dot) handle.emit({ type: 'pick', values: [dot.key], add: e.shiftKey });
      else if (quarter !== null) pickQuarter(handle, quarter, e.shiftKey);
      else if (handle.picks.size && !e.shiftKey) handle.emit({ type: 'pick', values: [...handle.picks], add: false });
      return;
    }
    const values = dotsOf(handle.drawing)
      .filter(d => isWithin([handle.x(d.x), handle.y(d.y)], drawn))
      .map(d => d.key);
    if (values.length) handle.emit({ type: 'pick', values, add: e.shiftKey });
  };
  place.addEventListener('pointerup', end);
  place.addEventListener('pointercancel', () => {
    path = null;
    lasso()?.setAttribute('visibility', 'hidden');
  });
  // A finger that presses without moving picks; one that moves scrolls the page.
  place.addEventListener('click', e => {
    if (e.pointerType !== 'touch' || !handle.drawing) return;
    const dot = dotAt(handle, within(place, e));
    if (dot) handle.emit({ type: 'pick', values: [dot.key], add: false });
    else if (e.target.dataset?.quarter) pickQuarter(handle, e.target.dataset.quarter, false);
  });
}

export function light(handle, picks) {
  const before = handle.lit;
  handle.picks = new Set(picks);
  handle.lit = handle.picks;
  const same = before?.size === handle.picks.size && [...handle.picks].every(key => before.has(key));
  if (handle.canvas) {
    if (!same || handle.canvas.dataset.painted !== 'true') paint(handle);
    return;
  }
  if (same) return;
  for (const mark of marks(handle)) {
    const picked = handle.picks.has(mark.dataset.key);
    mark.classList.toggle('is-picked', picked);
    mark.classList.toggle('is-dim', handle.picks.size > 0 && !picked);
    mark.setAttribute('aria-pressed', picked);
  }
}

function paint({ canvas, size, drawing, picks, x, y }) {
  const ratio = Math.min(2, devicePixelRatio);
  canvas.width = size.width * ratio;
  canvas.height = size.height * ratio;
  canvas.dataset.painted = 'true';
  const context = canvas.getContext('2d');
  context.scale(ratio, ratio);
  const rust = getComputedStyle(document.documentElement).getPropertyValue('--rust').trim();
  for (const dot of dotsOf(drawing)) {
    const picked = picks.has(dot.key);
    context.globalAlpha = picks.size && !picked ? 0.18 : 0.7;
    context.fillStyle = picked ? rust : dot.colour;
    context.beginPath();
    context.arc(x(dot.x), y(dot.y), dot.radius, 0, 7);
    context.fill();
  }
}

export function unmount(handle) {
  handle.sized.stop();
  for (const type of ['keydown', 'keyup']) removeEventListener(type, handle.hold);
}

export function figures(drawing) {
  return {
    head: [phrase('dot'), drawing.across.words, drawing.up.words, ...(drawing.sizeWords ? [drawing.sizeWords] : [])],
    rows: dotsOf(drawing).map(d => ({ key: d.key, cells: [d.label, ...d.texts] })),
  };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...dotsOf(drawing)
      .slice(0, 400)
      .map(d =>
        el('circle', {
          cx: 6 + 194 * d.x,
          cy: 106 - 100 * d.y,
          r: Math.max(1.4, d.radius / 3),
          fill: d.colour,
          'fill-opacity': 0.65,
        }),
      ),
  );
}
