import { el } from '../elements.js';
import { Finder, leftInPlace, pagesOf, scrolling } from './pages.js';
import { notesOf, stateSign } from './chart.js';
import { phrase } from '../language.js';

/**
 * A list of lines in words. A press picks a line, where it can be picked; its corner opens it in place to all that is
 * known of it. What is not in sight stays on the server.
 */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null, open: new Set() };
  handle.finder = new Finder(body, title, () => emit({ type: 'again' }), phrase('Find lines'));
  handle.place = el('ul', { class: 'listing', tabindex: 0, 'aria-label': title });
  handle.passing = scrolling(handle.place);
  handle.foot = el('div', { class: 'table-foot' });
  body.append(handle.place, handle.foot);
  return handle;
}

export const sight = handle => handle.finder.sight();

/** All of the list, to be taken along. */
export const whole = handle => handle.finder.whole();

export function draw(handle, drawing) {
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.part : null;
  if (handle.drawing && handle.drawing.from !== drawing.from) handle.place.scrollTop = 0;
  handle.drawing = drawing;
  handle.finder.shown(drawing.all);
  leftInPlace(handle.place, () =>
    handle.place.replaceChildren(...drawing.lines.map((line, i) => lineOf(handle, line, i))),
  );
  handle.foot.replaceChildren(
    ...pagesOf(drawing, drawing.lines.length, drawing.unit === phrase('row') ? 'rows' : 'lines', from =>
      handle.finder.look({ from }),
    ),
    notesOf(drawing.notes),
  );
  if (focused) handle.place.querySelector(`[data-part="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
  light(handle, handle.picks);
}

function lineOf(handle, line, i) {
  // What is said below may be newer from one moment to the next; the line that is open stays so.
  const name = JSON.stringify(line.key === null ? [line.text, line.below] : [line.key, line.text]);
  const whole = el(
    'dl',
    { class: 'line-record', hidden: !handle.open.has(name) },
    ...line.record.flatMap(({ words, text }) => [el('dt', {}, words), el('dd', {}, text)]),
  );
  const turn = () => {
    whole.hidden = !whole.hidden;
    if (whole.hidden) handle.open.delete(name);
    else handle.open.add(name);
    opener.setAttribute('aria-expanded', String(!whole.hidden));
  };
  const opener = el(
    'button',
    {
      type: 'button',
      class: 'line-opener',
      'aria-expanded': String(!whole.hidden),
      'aria-label': phrase('All of {0}', line.text),
      'data-part': `open ${line.key ?? i}`,
      onclick: turn,
    },
    el('svg', { viewBox: '0 0 12 12', 'aria-hidden': 'true' }, el('path', { d: 'M2 4l4 4 4-4' })),
  );
  const press = e => (line.key === null ? turn() : handle.emit({ type: 'pick', values: [line.key], add: e.shiftKey }));
  return el(
    'li',
    { class: `line-item${line.state ? ` is-${line.state}` : ''}`, 'data-key': line.key },
    el(
      'div',
      { class: 'line-row' },
      el(
        'button',
        { type: 'button', class: 'line-words', 'data-part': `line ${line.key ?? i}`, onclick: press },
        el('span', { class: 'line-text' }, stateSign(line.state), line.text),
        line.below ? el('span', { class: 'line-below' }, line.below) : '',
      ),
      opener,
    ),
    whole,
  );
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  for (const item of handle.place.children) {
    const picked = item.dataset.key !== undefined && handle.picks.has(item.dataset.key);
    item.classList.toggle('is-picked', picked);
    item.classList.toggle('is-dim', handle.picks.size > 0 && !picked);
    item.querySelector('.line-words').setAttribute('aria-pressed', String(picked));
  }
}

export function unmount(handle) {
  handle.passing.stop();
  handle.finder.stop();
}

export function figures(drawing) {
  const words = drawing.lines[0]?.record.map(r => r.words) ?? [];
  return {
    figureFrom: Infinity,
    head: [phrase('line'), ...words],
    rows: drawing.lines.map(l => ({ key: l.key, cells: [l.text, ...l.record.map(r => r.text)] })),
  };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.lines
      .slice(0, 3)
      .flatMap((line, i) => [
        el('text', { x: 0, y: 15 + i * 38, 'font-size': 13, fill: 'currentColor' }, line.text.slice(0, 30)),
        el('text', { x: 0, y: 30 + i * 38, 'font-size': 10.5, fill: 'var(--faint)' }, (line.below ?? '').slice(0, 38)),
        el('line', { x1: 0, x2: 206, y1: 36 + i * 38, y2: 36 + i * 38, stroke: 'var(--grid)' }),
      ]),
  );
}
