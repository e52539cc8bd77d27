import { el } from '../elements.js';
import { sizeOf } from '../sizes.js';
import { Tip, notesOf, shortened, whenSized, wide, within } from './chart.js';
import { phrase } from '../language.js';

/** Parts of an axis in which places come. */
const FINE = 10000;
const BELOW = 34;
/** Room for the name of the upright axis. */
const ABOVE = 24;
const RADIUS = 4;

/**
 * Rates against what they rest on, between the limits of chance. A mark above them points up, one below points down,
 * one that rests on too few is hollow. Press a mark to pick it, Shift adds; Tab goes from mark to mark, Enter picks.
 */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.key = el('div', {});
  handle.place = el('div', { class: 'funnel' });
  handle.notes = el('div', {});
  body.append(handle.key, handle.place, handle.notes);
  handle.tip = new Tip(body);
  handle.sized = whenSized(body, () => handle.drawing && draw(handle, handle.drawing));
  listen(handle);
  return handle;
}

const placeOf = (room, dot) => [
  room.left + ((room.right - room.left) * dot.x) / FINE,
  room.bottom - ((room.bottom - room.top) * dot.y) / FINE,
];

/** A round mark, or one that points to the side of the limits that it lies beyond. */
function outline([x, y], beyond) {
  const r = Math.abs(beyond) === 2 ? RADIUS + 1.5 : RADIUS;
  if (!beyond) return `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
  const up = beyond > 0 ? -1 : 1;
  return `M${x} ${y + up * 1.3 * r}L${x + 1.2 * r} ${y - up * r}L${x - 1.2 * r} ${y - up * r}z`;
}

const classOf = dot =>
  [
    'funnel-dot',
    dot.beyond > 0 && 'is-above',
    dot.beyond < 0 && 'is-below',
    Math.abs(dot.beyond) === 2 && 'is-far',
    dot.unsure && 'is-unsure',
  ]
    .filter(Boolean)
    .join(' ');

const linesOf = ({ heads }, dot) => heads.map((head, i) => [head, dot.texts[i]]);

/** Where it lies, in a word for those who do not see it. */
const lies = dot =>
  dot.beyond === 0
    ? phrase('within the limits of chance')
    : dot.beyond > 0
      ? phrase('above the limits of chance')
      : phrase('below the limits of chance');

export function draw(handle, drawing) {
  handle.drawing = drawing;
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.key : null;
  handle.notes.replaceChildren(notesOf(drawing.notes));
  handle.key.replaceChildren(keyOf(drawing));
  const { width } = sizeOf(handle.place);
  const height = Math.max(120, sizeOf(handle.place).height);
  const left = 14 + Math.max(14, ...drawing.up.ticks.map(t => wide(t.text)));
  const room = { left, right: width - 12, top: ABOVE, bottom: height - BELOW };
  const [x, y] = [at => placeOf(room, { x: at * FINE, y: 0 })[0], at => placeOf(room, { x: 0, y: at * FINE })[1]];
  handle.room = room;
  handle.place.replaceChildren(
    el(
      'svg',
      { width, height, role: 'group', 'aria-label': `${handle.title}: ${drawing.dots.length}` },
      ...drawing.up.ticks.flatMap(({ at, text }) => [
        el('line', { class: 'axis-line', x1: room.left, x2: room.right, y1: y(at), y2: y(at) }),
        el('text', { class: 'axis-words', x: room.left - 6, y: y(at) + 4, 'text-anchor': 'end' }, text),
      ]),
      ...drawing.across.ticks.map(({ at, text }) =>
        el(
          'text',
          { class: 'axis-words', x: x(at), y: room.bottom + 14, 'text-anchor': at > 0.96 ? 'end' : 'middle' },
          text,
        ),
      ),
      el(
        'text',
        { class: 'axis-name', x: room.right, y: height - 4, 'text-anchor': 'end' },
        `${drawing.across.words} →`,
      ),
      el('text', { class: 'axis-name', x: 4, y: 12 }, `↑ ${drawing.up.words}`),
      ...drawing.limits.map((limit, i) => el('path', { class: `funnel-limit is-${i}`, d: band(room, limit) })),
      el('line', { class: 'funnel-whole', x1: room.left, x2: room.right, y1: y(drawing.whole), y2: y(drawing.whole) }),
      ...drawing.dots.map(dot =>
        el('path', {
          class: classOf(dot),
          d: outline(placeOf(room, dot), dot.beyond),
          tabindex: 0,
          role: 'button',
          'data-key': dot.key,
          'aria-pressed': 'false',
          'aria-label': `${dot.label}: ${linesOf(drawing, dot)
            .map(([head, text]) => `${head} ${text}`)
            .join(', ')}, ${lies(dot)}`,
        }),
      ),
      ...names(drawing, room),
    ),
  );
  if (focused !== null)
    marks(handle)
      .find(mark => mark.dataset.key === focused)
      ?.focus();
  light(handle, handle.picks);
}

/** The room between two curves. */
function band(room, { x, low, high }) {
  const point = (i, y) =>
    placeOf(room, { x: x[i], y: y[i] })
      .map(at => at.toFixed(1))
      .join(' ');
  const upper = x.map((_, i) => point(i, high));
  const lower = x.map((_, i) => point(i, low)).reverse();
  return `M${[...upper, ...lower].join('L')}z`;
}

function keyOf(drawing) {
  if (!drawing.limits.length) return '';
  return el(
    'p',
    { class: 'funnel-key' },
    ...drawing.limits.map(({ words }, i) =>
      el('span', {}, el('i', { class: `funnel-swatch is-${i}` }), phrase('{0} by chance', words)),
    ),
    el('span', {}, el('i', { class: 'funnel-swatch is-whole' }), drawing.wholeWords),
  );
}

/** The names of those that stand out; one that would cover another is left out. */
function names(drawing, room) {
  const taken = [];
  return drawing.dots
    .filter(dot => dot.named)
    .flatMap(dot => {
      const [x, y] = placeOf(room, dot);
      const text = shortened(dot.label, 140);
      const end = x + wide(text) + 12 > room.right;
      const from = end ? x - 9 - wide(text) : x + 9;
      const box = { left: from, right: from + wide(text), y };
      if (taken.some(t => t.left < box.right && t.right > box.left && Math.abs(t.y - y) < 14)) return [];
      taken.push(box);
      return [el('text', { class: 'dot-name', x: from, y: y + 4 }, text)];
    });
}

const marks = handle => [...handle.place.querySelectorAll('.funnel-dot')];

function listen(handle) {
  const { place, tip } = handle;
  const told = e =>
    e.target.matches?.('.funnel-dot') && handle.drawing.dots.find(dot => dot.key === e.target.dataset.key);
  const show = (at, dot) => tip.show(at, `${dot.label}, ${lies(dot)}`, linesOf(handle.drawing, dot));
  place.addEventListener('pointerover', e => {
    const dot = told(e);
    if (dot) show(within(handle.body, e), dot);
  });
  place.addEventListener('pointerout', e => told(e) && tip.hide());
  place.addEventListener('focusin', e => {
    const dot = told(e);
    if (dot) show(placeOf(handle.room, dot), dot);
  });
  place.addEventListener('focusout', e => told(e) && tip.hide());
  const pick = e => {
    const dot = told(e);
    if (dot) handle.emit({ type: 'pick', values: [dot.key], add: e.shiftKey });
    return dot;
  };
  place.addEventListener('click', e => {
    if (!pick(e) && handle.picks.size && !e.shiftKey)
      handle.emit({ type: 'pick', values: [...handle.picks], add: false });
  });
  place.addEventListener('keydown', e => {
    if ((e.key === 'Enter' || e.key === ' ') && pick(e)) e.preventDefault();
  });
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  for (const mark of marks(handle)) {
    const picked = handle.picks.has(mark.dataset.key);
    mark.classList.toggle('is-picked', picked);
    mark.classList.toggle('is-dim', handle.picks.size > 0 && !picked);
    mark.setAttribute('aria-pressed', picked);
  }
}

export function unmount(handle) {
  handle.sized.stop();
}

export function figures(drawing) {
  return {
    head: ['', ...drawing.heads, phrase('beyond chance'), phrase('sure')],
    rows: drawing.dots.map(dot => ({
      key: dot.key,
      cells: [dot.label, ...dot.texts, lies(dot), dot.unsure ? phrase('of too few') : phrase('yes')],
    })),
  };
}

export function mini(drawing) {
  const room = { left: 6, right: 200, top: 6, bottom: 106 };
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.limits.map(limit =>
      el('path', { d: band(room, limit), fill: 'none', stroke: 'currentColor', 'stroke-opacity': 0.5 }),
    ),
    ...drawing.dots.slice(0, 300).map(dot =>
      el('path', {
        d: outline(placeOf(room, dot), dot.beyond),
        transform: 'translate(0 0)',
        fill: 'currentColor',
        'fill-opacity': dot.beyond ? 0.9 : 0.4,
      }),
    ),
  );
}
