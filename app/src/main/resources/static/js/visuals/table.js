import { el } from '../elements.js';
import { Finder, pagesOf } from './pages.js';

/**
 * A table of figures, page by page. Headers order it, a search finds rows, a press on a row picks it, Shift adds. What
 * is not in sight stays on the server.
 */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.finder = new Finder(body, title, () => emit({ type: 'again' }), 'Find rows');
  handle.scroll = el('div', { class: 'table-scroll', tabindex: 0, role: 'region', 'aria-label': title });
  handle.foot = el('div', { class: 'table-foot' });
  body.append(handle.scroll, handle.foot);
  return handle;
}

/** What is in sight of the table. */
export const sight = handle => handle.finder.sight();

/** All of the table, to be taken along. */
export const whole = handle => handle.finder.whole();

export function draw(handle, drawing) {
  const focused = handle.scroll.contains(document.activeElement) ? document.activeElement.dataset.part : null;
  handle.drawing = drawing;
  const { heads, rows, total, all } = drawing;
  handle.finder.shown(all);
  handle.scroll.replaceChildren(
    el(
      'table',
      { class: 'rows table-rows' },
      el('thead', {}, el('tr', {}, ...heads.map((head, i) => headOf(handle, head, i)))),
      el('tbody', {}, ...rows.map(row => rowOf(handle, row))),
      total && el('tfoot', {}, el('tr', {}, ...total.cells.map((c, i) => cell(c, heads[i], null)))),
    ),
  );
  handle.foot.replaceChildren(
    ...pagesOf(drawing, rows.length, 'rows', from => handle.finder.look({ from })),
    ...(drawing.notes.length ? [el('span', {}, drawing.notes.join(' '))] : []),
  );
  if (focused) handle.scroll.querySelector(`[data-part="${CSS.escape(focused)}"]`)?.focus();
  light(handle, handle.picks);
}

function headOf(handle, head, i) {
  return el(
    'th',
    {
      class: head.figure ? 'n' : null,
      scope: 'col',
      'aria-sort': head.sorted ? (head.sorted === 'down' ? 'descending' : 'ascending') : 'none',
    },
    el(
      'button',
      {
        type: 'button',
        class: 'sorter',
        'data-part': `head ${i}`,
        onclick: () =>
          handle.finder.look({ order: i, down: head.sorted ? head.sorted !== 'down' : head.figure, from: 0 }),
      },
      head.words,
    ),
  );
}

const cell = (text, head, tint) =>
  el(
    'td',
    {
      class: head?.figure ? 'n' : null,
      style: tint ? { background: `color-mix(in oklab, ${tint} 42%, var(--paper))` } : {},
    },
    text,
  );

function rowOf(handle, row) {
  const { heads } = handle.drawing;
  const cells = row.cells.map((c, i) => cell(c, heads[i], row.tints?.[i]));
  if (row.key === null || row.sub) return el('tr', { class: row.sub ? 'is-sub' : null }, ...cells);
  const pick = add => handle.emit({ type: 'pick', values: [row.key], add });
  const made = el(
    'tr',
    { class: 'table-row', tabindex: 0, 'data-key': row.key, 'data-part': `row ${row.cells.join('|')}` },
    ...cells,
  );
  made.addEventListener('click', e => pick(e.shiftKey));
  made.addEventListener('keydown', e => {
    const to = { ArrowDown: made.nextElementSibling, ArrowUp: made.previousElementSibling }[e.key];
    if (e.key === 'Enter' || e.key === ' ') pick(e.shiftKey);
    else if (to) to.focus();
    else return;
    e.preventDefault();
  });
  return made;
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  for (const row of handle.scroll.querySelectorAll('.table-row')) {
    const picked = handle.picks.has(row.dataset.key);
    row.classList.toggle('is-picked', picked);
    row.classList.toggle('is-dim', handle.picks.size > 0 && !picked);
    row.setAttribute('aria-selected', picked);
  }
}

export function unmount(handle) {
  handle.finder.stop();
}

export function figures(drawing) {
  const figureFrom = Math.max(
    0,
    drawing.heads.findIndex(h => h.figure),
  );
  return {
    figureFrom,
    head: drawing.heads.map(h => h.words),
    rows: [...drawing.rows, ...(drawing.total ? [drawing.total] : [])].map(r => ({
      key: r.sub ? null : r.key,
      cells: r.cells,
    })),
  };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.rows
      .slice(0, 6)
      .flatMap((row, i) => [
        el('text', { x: 0, y: 14 + i * 18, 'font-size': 11, fill: 'currentColor' }, row.cells[0].slice(0, 16)),
        el(
          'text',
          { x: 204, y: 14 + i * 18, 'font-size': 11, fill: 'currentColor', 'text-anchor': 'end' },
          row.cells.at(-1),
        ),
        el('line', { x1: 0, x2: 206, y1: 18 + i * 18, y2: 18 + i * 18, stroke: 'var(--grid)' }),
      ]),
  );
}
