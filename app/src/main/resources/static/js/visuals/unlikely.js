import { el } from '../elements.js';
import { notesOf } from './chart.js';
import { leftInPlace } from './pages.js';
import { figures as numbers } from '../numbers.js';
import { phrase } from '../language.js';

const WIDE = 120;
const HIGH = 30;

/** Values that stand out, each with its history or its neighbours beside it, and why. A press picks what it is of. */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.place = el('ul', { class: 'unlikely', tabindex: 0, 'aria-label': title });
  handle.notes = el('div', {});
  body.append(handle.place, handle.notes);
  return handle;
}

export function draw(handle, drawing) {
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.part : null;
  handle.drawing = drawing;
  leftInPlace(handle.place, () =>
    handle.place.replaceChildren(
      ...(drawing.lines.length
        ? drawing.lines.map(line => lineOf(handle, line))
        : [el('li', { class: 'unlikely-none' }, phrase('Nothing stands out.'))]),
    ),
  );
  handle.notes.replaceChildren(
    notesOf([
      ...(drawing.found > drawing.lines.length
        ? [phrase('The {0} farthest off of {1} are listed.', drawing.lines.length, drawing.found)]
        : []),
      ...drawing.notes,
    ]),
  );
  if (focused) handle.place.querySelector(`[data-part="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
  light(handle, handle.picks);
}

const up = (at, high = HIGH) => high - 3 - at * (high - 6);

/** Its history as a line through what was usual, with itself as a mark. */
function historyOf(line) {
  const values = numbers(line.series);
  const x = i => 3 + (i * (WIDE - 6)) / Math.max(1, values.length - 1);
  let path = '';
  values.forEach((v, i) => {
    if (!Number.isNaN(v))
      path += `${path && !Number.isNaN(values[i - 1]) ? 'L' : 'M'}${x(i).toFixed(1)} ${up(v).toFixed(1)}`;
  });
  const known = Number.isFinite(Number(line.low)) && Number.isFinite(Number(line.high));
  return [
    known
      ? el('rect', {
          x: 0,
          width: x(line.at),
          y: up(line.high),
          height: Math.max(1, up(line.low) - up(line.high)),
          class: 'unlikely-usual',
        })
      : '',
    el('path', { d: path, class: 'unlikely-line' }),
    el('circle', { cx: x(line.at), cy: up(values[line.at]), r: 3.4, class: 'unlikely-mark' }),
  ];
}

/** Its neighbours, or other rows, as strokes on a line, with itself as a mark. */
function neighboursOf(line) {
  const x = at => 4 + at * (WIDE - 8);
  return [
    el('rect', {
      x: x(line.low),
      width: Math.max(1, x(line.high) - x(line.low)),
      y: HIGH / 2 - 7,
      height: 14,
      class: 'unlikely-usual',
    }),
    ...[...numbers(line.series)].map(v =>
      el('line', { x1: x(v), x2: x(v), y1: HIGH / 2 - 7, y2: HIGH / 2 + 7, class: 'unlikely-line' }),
    ),
    el('circle', { cx: x(line.at / 1000), cy: HIGH / 2, r: 4, class: 'unlikely-mark' }),
  ];
}

function lineOf(handle, line) {
  const name = line.when ? `${line.text}, ${line.when}` : line.text;
  return el(
    'li',
    {},
    el(
      'button',
      {
        type: 'button',
        class: `unlikely-row${line.up ? ' is-up' : ' is-down'}`,
        'data-key': line.key,
        'data-part': `${line.key} ${line.when ?? line.value}`,
        'aria-label': `${name}. ${line.why}`,
        onclick: e => handle.emit({ type: 'pick', values: [line.key], add: e.shiftKey }),
      },
      el(
        'span',
        { class: 'unlikely-words' },
        el('b', {}, `${line.up ? '▲' : '▼'} ${line.text}`),
        line.when ? el('i', {}, line.when) : '',
        el('span', {}, line.why),
      ),
      el(
        'svg',
        { viewBox: `0 0 ${WIDE} ${HIGH}`, width: WIDE, height: HIGH, 'aria-hidden': 'true' },
        ...(line.when ? historyOf(line) : neighboursOf(line)),
      ),
    ),
  );
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  for (const row of handle.place.querySelectorAll('.unlikely-row')) {
    const picked = handle.picks.has(row.dataset.key);
    row.classList.toggle('is-picked', picked);
    row.classList.toggle('is-dim', handle.picks.size > 0 && !picked);
    row.setAttribute('aria-pressed', String(picked));
  }
}

export function unmount() {}

export function figures(drawing) {
  return {
    figureFrom: 2,
    head: ['', phrase('when'), phrase('value'), phrase('why')],
    rows: drawing.lines.map(line => ({ key: line.key, cells: [line.text, line.when ?? '', line.value, line.why] })),
  };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.lines
      .slice(0, 3)
      .flatMap((line, i) => [
        el('text', { x: 0, y: 15 + i * 38, 'font-size': 13, fill: 'currentColor' }, line.text.slice(0, 28)),
        el('text', { x: 0, y: 30 + i * 38, 'font-size': 10.5, fill: 'var(--faint)' }, line.why.slice(0, 40)),
        el('line', { x1: 0, x2: 206, y1: 36 + i * 38, y2: 36 + i * 38, stroke: 'var(--grid)' }),
      ]),
  );
}
