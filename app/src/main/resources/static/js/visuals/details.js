import { el } from '../elements.js';
import { notesOf, tinyLine } from './chart.js';
import { phrase } from '../language.js';

/** All about one: its figures, what is told of it, where it lies, its rows elsewhere; and the others one by one. */
export function mount(body, { title, emit }) {
  const handle = { title, emit, wanted: '', place: el('div', { class: 'details', tabindex: 0 }) };
  body.append(handle.place);
  return handle;
}

export const sight = handle =>
  handle.wanted ? { zoom: 0, west: 0, south: 0, east: 0, north: 0, find: handle.wanted } : null;

export function draw(handle, drawing) {
  if (drawing.gone) {
    // The one in sight is not among those left: the first of them is shown.
    handle.wanted = '';
    handle.emit({ type: 'again' });
    return;
  }
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.part : null;
  const { name, number, all, unit } = drawing;
  handle.place.replaceChildren(
    el(
      'div',
      { class: 'details-head' },
      el('h3', {}, name ?? ''),
      all > 1
        ? el(
            'span',
            { class: 'details-turn' },
            turner(handle, 'back', phrase('Back'), drawing.before),
            el('span', { role: 'status' }, phrase('{0} {1} of {2}', unit, number, all)),
            turner(handle, 'on', phrase('to the next|On'), drawing.after),
          )
        : '',
    ),
    el(
      'div',
      { class: 'details-body' },
      drawing.figures.length ? el('div', { class: 'details-figures' }, ...drawing.figures.map(figureOf)) : '',
      drawing.spot ? spotOf(drawing.spot, name) : '',
      ...drawing.groups.map(groupOf),
    ),
    ...drawing.tied.map(tiedOf),
    notesOf(drawing.notes),
  );
  if (focused) handle.place.querySelector(`[data-part="${focused}"]`)?.focus();
}

function turner(handle, part, words, to) {
  const turn = () => {
    handle.wanted = to;
    handle.emit({ type: 'again' });
  };
  return el(
    'button',
    { type: 'button', class: 'quiet', 'data-part': part, disabled: to === null, onclick: turn },
    words,
  );
}

const figureOf = ({ words, text, line, lineWords }) =>
  el(
    'div',
    { class: 'details-figure' },
    el('b', {}, text),
    el('span', {}, words),
    line?.length > 1 ? el('div', { class: 'figure-line' }, tinyLine(line, lineWords)) : '',
  );

const groupOf = ({ title, entries }) =>
  el(
    'section',
    { class: 'details-group' },
    title ? el('h4', {}, title) : '',
    el(
      'dl',
      { class: 'line-record' },
      ...entries.flatMap(({ words, text }) => [el('dt', {}, words), el('dd', {}, text)]),
    ),
  );

/** Where it lies among the others, in a frame as a map has. */
function spotOf({ others, x, y, aspect, words }, name) {
  const height = 120;
  const width = Math.max(70, Math.min(220, height * aspect));
  const dots = [];
  for (let i = 0; i < others.length; i += 2) dots.push(`M${others[i] * width} ${others[i + 1] * height}h.01`);
  return el(
    'figure',
    { class: 'details-spot' },
    el(
      'svg',
      {
        viewBox: `0 0 ${width} ${height}`,
        width,
        height,
        role: 'img',
        'aria-label': phrase('{0} among the others, at {1}', name, words),
      },
      el('rect', { class: 'spot-frame', x: 0.5, y: 0.5, width: width - 1, height: height - 1 }),
      el('path', { class: 'spot-others', d: dots.join('') }),
      el('line', { class: 'spot-line', x1: x * width, x2: x * width, y1: 0, y2: height }),
      el('line', { class: 'spot-line', x1: 0, x2: width, y1: y * height, y2: y * height }),
      el('circle', { class: 'spot-here', cx: x * width, cy: y * height, r: 4.5 }),
    ),
    el('figcaption', {}, words),
  );
}

const tiedOf = ({ words, heads, rows, all }) =>
  el(
    'section',
    { class: 'details-tied' },
    el('h4', {}, phrase('{0}: {1, plural, one {# row} other {# rows}}', words, all)),
    rows.length
      ? el(
          'div',
          { class: 'scrolls', tabindex: 0, role: 'region', 'aria-label': words },
          el(
            'table',
            { class: 'rows' },
            el('thead', {}, el('tr', {}, ...heads.map(h => el('th', { scope: 'col' }, h)))),
            el('tbody', {}, ...rows.map(row => el('tr', {}, ...row.map(c => el('td', {}, c))))),
          ),
        )
      : '',
  );

export function light() {
  // It shows what is picked elsewhere; nothing is picked on it.
}

export function unmount() {
  // It holds nothing.
}

export function figures(drawing) {
  const entries = [...drawing.figures, ...drawing.groups.flatMap(g => g.entries)];
  return {
    figureFrom: Infinity,
    head: [phrase('key|what'), drawing.name ?? ''],
    rows: entries.map(({ words, text }) => ({ key: null, cells: [words, text] })),
  };
}

export function mini(drawing) {
  const entries = [...drawing.figures, ...drawing.groups.flatMap(g => g.entries)].slice(0, 4);
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    el('text', { x: 0, y: 18, 'font-size': 17, fill: 'currentColor' }, drawing.name ?? ''),
    ...entries.flatMap(({ words, text }, i) => [
      el('text', { x: 0, y: 42 + i * 20, 'font-size': 11, fill: 'var(--faint)' }, words.slice(0, 18)),
      el(
        'text',
        { x: 204, y: 42 + i * 20, 'font-size': 11, fill: 'currentColor', 'text-anchor': 'end' },
        text.slice(0, 18),
      ),
    ]),
  );
}
