import { area, curveLinear, curveStepAfter, line as lineOf } from '/vendor/d3.js';
import { el } from '../elements.js';
import { figures as numbers } from '../numbers.js';
import { encode } from '../state.js';
import { notesOf, pinned, referencesOf, shortened, spaced, Tip, whenSized, wide, within } from './chart.js';
import { sizeOf } from '../sizes.js';
import { phrase } from '../language.js';

/** Room below for the names of steps, and above, pixels. */
const BELOW = 22;
const ABOVE = 8;
/** Height of the name at a line's end. */
const NAME = 15;
/** Fewer steps than this are marked with dots, so that a point between two gaps is seen. */
const FEW = 60;

/**
 * Lines over time. One reading for all lines where the pointer stands; drag to pick a span. With the keyboard: arrows
 * move the reading, Shift and arrows draw a span out, Enter picks it, Escape lets go.
 */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, drawing: null, span: null, at: null };
  handle.place = el('div', { class: 'lines' });
  handle.notes = el('div', {});
  body.append(handle.place, handle.notes);
  handle.tip = new Tip(body);
  handle.sized = whenSized(body, () => handle.drawing && draw(handle, handle.drawing));
  gestures(handle);
  return handle;
}

export function draw(handle, drawing) {
  const same = handle.drawing === drawing;
  handle.drawing = drawing;
  if (!same)
    handle.lines = drawing.lines.map(l => ({ ...l, values: numbers(l.values), bases: l.bases && numbers(l.bases) }));
  const had = handle.place.contains(document.activeElement);
  handle.notes.replaceChildren(notesOf(drawing.notes));
  const width = sizeOf(handle.place).width;
  const height = Math.max(70, sizeOf(handle.place).height);
  const named = handle.lines.length > 1 || handle.lines.some(l => l.ghost);
  const names = named ? Math.min(width * 0.26, 10 + Math.max(...handle.lines.map(l => wide(l.label)))) : 8;
  const left = 12 + Math.max(14, ...drawing.axis.ticks.map(t => wide(t.text)));
  const room = { left, right: width - names, top: ABOVE, bottom: height - BELOW, width, height };
  handle.room = room;
  const count = drawing.steps.length;
  const x = i => (count < 2 ? (left + room.right) / 2 : left + ((room.right - left) * i) / (count - 1));
  const y = v =>
    room.bottom - ((room.bottom - room.top) * (v - drawing.axis.low)) / (drawing.axis.high - drawing.axis.low);
  Object.assign(handle, { x, y });
  const svg = el(
    'svg',
    {
      width,
      height,
      tabindex: 0,
      role: 'application',
      'aria-roledescription': phrase('lines over time'),
      'aria-label': phrase(
        '{0}: {1}. {2} steps. Arrows read them, Enter picks a span.',
        handle.title,
        drawing.words,
        count,
      ),
    },
    ...spaced(drawing.axis.ticks, room.bottom - room.top).flatMap(({ at, text }) => {
      const ty = room.bottom - (room.bottom - room.top) * at;
      return [
        el('line', { class: 'axis-line', x1: left, x2: room.right, y1: ty, y2: ty }),
        el('text', { class: 'axis-words', x: left - 6, y: ty + 4, 'text-anchor': 'end' }, text),
      ];
    }),
    ...stepWords(drawing, x, room),
    el('rect', { class: 'span', x: 0, y: room.top, width: 0, height: room.bottom - room.top, visibility: 'hidden' }),
    ...handle.lines.flatMap(l => shapesOf(l, drawing.style, x, y, count)),
    ...referencesOf(drawing.references, y, [left, room.right], true, (_, at) => [left + 4, at - 4]),
    ...(named ? endNames(handle, x, y, room, names) : []),
    ...pinned(pinsOf(handle, x, y), { ...room, top: 0 }),
    el('line', { class: 'reading', y1: room.top, y2: room.bottom, visibility: 'hidden' }),
  );
  handle.place.replaceChildren(svg);
  if (had) svg.focus({ preventScroll: true });
  showSpan(handle);
}

/** Where the notes are pinned: at a step, or at a day within one. */
function pinsOf({ drawing, lines }, x, y) {
  return drawing.pinned.flatMap(({ at, text }) => {
    const step = drawing.steps.findIndex((s, i) => s === at || (drawing.from[i] <= at && at <= drawing.to[i]));
    const value = lines.find(l => !l.ghost)?.values[step];
    return Number.isFinite(value) ? [{ x: x(step), y: y(value), text }] : [];
  });
}

function shapesOf(l, style, x, y, count) {
  const has = i => Number.isFinite(l.values[i]);
  const steps = [...l.values.keys()];
  const curve = style === 'steps' ? curveStepAfter : curveLinear;
  const parts = [];
  if ((style === 'areas' || style === 'stacked') && !l.ghost) {
    const shape = area()
      .defined(has)
      .x(x)
      .y0(i => y(l.bases ? l.bases[i] : 0))
      .y1(i => y(l.values[i]))
      .curve(curve);
    parts.push(
      el('path', {
        class: 'area-fill',
        d: shape(steps),
        style: { fill: l.colour, fillOpacity: style === 'stacked' ? 0.75 : 0.22 },
      }),
    );
  }
  const path = lineOf()
    .defined(has)
    .x(x)
    .y(i => y(l.values[i]))
    .curve(curve);
  parts.push(el('path', { class: `line${l.ghost ? ' is-ghost' : ''}`, d: path(steps), style: { stroke: l.colour } }));
  // A point between two gaps has no line to be seen by.
  const alone = steps.filter(i => has(i) && (style === 'dots' ? count <= FEW * 4 : !has(i - 1) && !has(i + 1)));
  if (!l.ghost)
    parts.push(
      ...alone.map(i =>
        el('circle', { class: 'line-dot', cx: x(i), cy: y(l.values[i]), r: 2.6, style: { fill: l.colour } }),
      ),
    );
  return parts;
}

/** The names of some steps, as many as there is room for. */
function stepWords(drawing, x, room) {
  let last = -Infinity;
  return drawing.ticks.flatMap(({ step, text }) => {
    const half = wide(text) / 2;
    const at = Math.max(room.left + half - 16, Math.min(room.width - half, x(step)));
    if (at - half < last + 10) return [];
    last = at + half;
    return [
      el('line', { class: 'axis-tick', x1: x(step), x2: x(step), y1: room.bottom, y2: room.bottom + 4 }),
      el('text', { class: 'axis-words', x: at, y: room.height - 5, 'text-anchor': 'middle' }, text),
    ];
  });
}

/** The name of each line at its end, moved apart where they would cover each other. */
function endNames(handle, x, y, room, width) {
  const ends = handle.lines
    .map(l => {
      const last = l.values.findLastIndex(Number.isFinite);
      return last < 0 ? null : { l, at: y(l.bases ? (l.values[last] + l.bases[last]) / 2 : l.values[last]) };
    })
    .filter(Boolean)
    .sort((a, b) => a.at - b.at);
  ends.forEach((end, i) => {
    end.shown = Math.max(i ? ends[i - 1].shown + NAME : room.top + 4, end.at);
  });
  for (let i = ends.length - 1; i >= 0; i--) {
    const below = i === ends.length - 1 ? room.bottom + 2 : ends[i + 1].shown - NAME;
    ends[i].shown = Math.min(ends[i].shown, below);
  }
  return ends.map(({ l, shown }) =>
    el(
      'text',
      { class: `line-name${l.ghost ? ' is-ghost' : ''}`, x: room.right + 6, y: shown + 4, style: { fill: l.colour } },
      shortened(l.label, width - 8),
    ),
  );
}

// --- reading and picking -----------------------------------------------------------------------

function gestures(handle) {
  const { place } = handle;
  let from = null;
  const stepAt = e => {
    const { left, right } = handle.room;
    const count = handle.drawing.steps.length;
    const [at] = within(place, e);
    return Math.max(0, Math.min(count - 1, Math.round(((at - left) / Math.max(1, right - left)) * (count - 1))));
  };
  place.addEventListener('pointermove', e => {
    if (!handle.drawing?.steps.length) return;
    read(handle, stepAt(e));
    if (from !== null) drawOut(handle, from, stepAt(e));
  });
  place.addEventListener('pointerleave', () => from === null && quiet(handle));
  place.addEventListener('pointerdown', e => {
    if (!handle.drawing?.steps.length || e.button) return;
    from = stepAt(e);
    if (e.pointerType === 'mouse') place.setPointerCapture(e.pointerId);
  });
  place.addEventListener('pointerup', e => {
    if (from === null) return;
    const to = stepAt(e);
    const began = from;
    from = null;
    pick(handle, began, to);
  });
  place.addEventListener('pointercancel', () => {
    from = null;
    showSpan(handle);
  });
  place.addEventListener('keydown', e => {
    const count = handle.drawing?.steps.length ?? 0;
    if (!count) return;
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -10, PageDown: 10, Home: -count, End: count }[e.key];
    if (by) {
      const at = Math.max(0, Math.min(count - 1, (handle.at ?? (by > 0 ? -1 : count)) + by));
      if (!e.shiftKey) handle.anchor = at;
      handle.anchor ??= handle.at ?? at;
      read(handle, at);
      if (e.shiftKey) drawOut(handle, handle.anchor, at);
    } else if (e.key === 'Enter' && handle.at !== null) pick(handle, handle.anchor ?? handle.at, handle.at);
    else if (e.key === 'Escape') {
      quiet(handle);
      showSpan(handle);
    } else return;
    e.preventDefault();
  });
}

/** One reading for all lines at a step. */
function read(handle, step) {
  handle.at = step;
  const { drawing, x } = handle;
  const cursor = handle.place.querySelector('.reading');
  cursor.setAttribute('visibility', 'visible');
  for (const end of ['x1', 'x2']) cursor.setAttribute(end, x(step));
  const lines = drawing.lines.map(l => [l.label, l.texts[step], l.colour]);
  handle.tip.show([x(step), handle.room.top], stepName(drawing, step), lines);
  handle.place
    .querySelector('svg')
    .setAttribute(
      'aria-description',
      `${stepName(drawing, step)}: ${lines.map(([name, figure]) => `${name} ${figure}`).join(', ')}`,
    );
}

const stepName = (drawing, step) =>
  drawing.from[step] === drawing.to[step]
    ? drawing.from[step]
    : phrase('{0} to {1}', drawing.from[step], drawing.to[step]);

function quiet(handle) {
  handle.at = null;
  handle.tip.hide();
  handle.place.querySelector('.reading')?.setAttribute('visibility', 'hidden');
}

/** Half a step to each side, so that a single step has a width. */
function drawOut(handle, a, b) {
  const { drawing, x, room } = handle;
  const half = drawing.steps.length < 2 ? 8 : (room.right - room.left) / (drawing.steps.length - 1) / 2;
  const span = handle.place.querySelector('.span');
  if (!span) return;
  span.setAttribute('visibility', 'visible');
  span.setAttribute('x', x(Math.min(a, b)) - half);
  span.setAttribute('width', Math.abs(x(b) - x(a)) + 2 * half);
}

function showSpan(handle) {
  const { drawing, span } = handle;
  const rect = handle.place.querySelector('.span');
  const [a, b] = span ? [drawing.from.findIndex(d => d >= span[0]), drawing.to.findLastIndex(d => d <= span[1])] : [];
  if (span && a >= 0 && b >= a) drawOut(handle, a, b);
  else rect?.setAttribute('visibility', 'hidden');
}

function pick(handle, a, b) {
  const { drawing } = handle;
  const from = drawing.from[Math.min(a, b)];
  const to = drawing.to[Math.max(a, b)];
  handle.anchor = null;
  handle.emit({ type: 'pick', predicate: `~span.${encode(from)}_${encode(to)}` });
}

/** @param {string[]} _ values, which lines have none @param {?string} predicate the span that is picked */
export function light(handle, _, predicate) {
  const span = /^~span\.(.*)_(.*)$/.exec(predicate ?? '');
  handle.span = span ? [decodeURIComponent(span[1]), decodeURIComponent(span[2])] : null;
  if (handle.drawing) showSpan(handle);
}

export function unmount(handle) {
  handle.sized.stop();
}

export function figures(drawing) {
  return {
    head: [phrase('step'), ...drawing.lines.map(l => l.label)],
    rows: drawing.steps.map((step, i) => ({ key: null, cells: [step, ...drawing.lines.map(l => l.texts[i])] })),
  };
}

export function mini(drawing) {
  const x = i => (206 * i) / Math.max(1, drawing.steps.length - 1);
  const y = v => 108 - (104 * (v - drawing.axis.low)) / (drawing.axis.high - drawing.axis.low);
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.lines.map(({ values, colour }) => {
      const list = numbers(values);
      const path = lineOf()
        .defined(i => Number.isFinite(list[i]))
        .x(x)
        .y(i => y(list[i]));
      return el('path', { d: path([...list.keys()]), fill: 'none', stroke: colour, 'stroke-width': 1.6 });
    }),
  );
}
