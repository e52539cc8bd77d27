import { el } from '../elements.js';
import { notesOf } from './chart.js';
import { leftInPlace } from './pages.js';
import { phrase } from '../language.js';

/**
 * What parts something that is picked from the rest: a line for each value, its bar to the right where there is more of
 * it, to the left where there is less. A press picks the value; Shift adds others of its column.
 */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.head = el('p', { class: 'parting-head' });
  handle.place = el('div', { class: 'parting', tabindex: 0, role: 'group', 'aria-label': title });
  handle.notes = el('div', {});
  body.append(handle.head, handle.place, handle.notes);
  return handle;
}

export function draw(handle, drawing) {
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.key : null;
  handle.drawing = drawing;
  // Where nothing is picked the first thing to know is that something can be.
  const [first, ...rest] = drawing.notes;
  handle.head.textContent = drawing.head || first;
  leftInPlace(handle.place, () =>
    handle.place.replaceChildren(
      el('ul', {}, ...drawing.lines.map(line => lineOf(handle, line))),
      ...(drawing.numbers.length ? [numbersOf(drawing.numbers)] : []),
    ),
  );
  handle.notes.replaceChildren(notesOf(drawing.head ? drawing.notes : rest));
  if (focused) handle.place.querySelector(`[data-key="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
  light(handle, handle.picks);
}

/** A bar from the middle, in hundredths of its room. */
function bar(part, quiet) {
  const long = Math.abs(part) * 48;
  return el(
    'svg',
    { viewBox: '0 0 100 12', preserveAspectRatio: 'none', 'aria-hidden': 'true', class: quiet ? 'is-quiet' : '' },
    el('rect', {
      x: part < 0 ? 50 - long : 50,
      y: 2,
      width: Math.max(0.6, long),
      height: 8,
      class: part < 0 ? 'is-less' : 'is-more',
    }),
    el('line', { x1: 50, x2: 50, y1: 0, y2: 12 }),
  );
}

const doubts = line =>
  [line.chance && phrase('chance alone may have made it'), line.few && phrase('it rests on few')].filter(Boolean);

/** All that is known of a line, in a sentence. */
const said = (drawing, line) =>
  [`${line.column}: ${line.text}`, line.own, ...drawing.words.map((words, i) => `${words} ${line.figures[i]}`)]
    .concat(doubts(line))
    .join('; ');

function lineOf(handle, line) {
  const { words } = handle.drawing;
  const press = e => {
    if (line.key === null) return;
    // Values of one column go together; of two columns they would mean something else.
    const same = [...handle.picks].every(key =>
      handle.drawing.lines.some(l => l.key === key && l.column === line.column),
    );
    handle.emit({ type: 'pick', values: [line.key], add: e.shiftKey && same });
  };
  return el(
    'li',
    {},
    el(
      'button',
      {
        type: 'button',
        class: `parting-line${line.chance ? ' is-chance' : ''}`,
        'data-key': line.key ?? '',
        disabled: line.key === null,
        title: said(handle.drawing, line),
        'aria-label': said(handle.drawing, line),
        onclick: press,
      },
      el('span', { class: 'parting-name' }, line.text, el('i', {}, line.column)),
      bar(line.part, line.chance),
      el('b', { class: 'parting-own' }, line.own),
      el(
        'span',
        { class: 'parting-figures' },
        ...line.figures
          .slice(0, words.length - 2)
          .flatMap((figure, i) => [`${i ? ' · ' : ''}${figure} `, el('i', {}, words[i])]),
        ...doubts(line).map(doubt => el('em', {}, ` · ${doubt}`)),
      ),
    ),
  );
}

function numbersOf(numbers) {
  return el(
    'div',
    { class: 'parting-numbers' },
    el('h4', {}, phrase('Usual values')),
    el(
      'ul',
      {},
      ...numbers.map(({ text, here, all, away }) =>
        el(
          'li',
          { class: 'parting-line' },
          el('span', { class: 'parting-name' }, text),
          bar(away, false),
          el('b', { class: 'parting-own' }, here),
          el('span', { class: 'parting-figures' }, phrase('of all {0}', all)),
        ),
      ),
    ),
  );
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  for (const line of handle.place.querySelectorAll('button.parting-line')) {
    const picked = handle.picks.has(line.dataset.key);
    line.classList.toggle('is-picked', picked);
    line.classList.toggle('is-dim', handle.picks.size > 0 && !picked);
    line.setAttribute('aria-pressed', String(picked));
  }
}

export function unmount() {}

export function figures(drawing) {
  return {
    head: [phrase('column'), phrase('value'), phrase('part'), ...drawing.words, phrase('doubts')],
    rows: drawing.lines.map(line => ({
      key: line.key,
      cells: [line.column, line.text, line.own, ...line.figures, doubts(line).join(', ')],
    })),
  };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.lines.slice(0, 7).map((line, i) => {
      const long = Math.abs(line.part) * 98;
      return el('rect', {
        x: line.part < 0 ? 103 - long : 103,
        y: 4 + i * 15,
        width: long,
        height: 9,
        fill: 'currentColor',
        'fill-opacity': line.chance ? 0.35 : 0.8,
      });
    }),
    el('line', { x1: 103, x2: 103, y1: 0, y2: 112, stroke: 'currentColor' }),
  );
}
