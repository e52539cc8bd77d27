import { el } from '../elements.js';
import { stateSign, tinyLine } from './chart.js';
import { Columns } from './columns.js';
import { Finder, leftInPlace, pagesOf, scrolling } from './pages.js';
import { phrase } from '../language.js';

/**
 * A table of figures, page by page. Headers order it, with Shift among equals; dragged they move, their edges size
 * them. A search finds rows, a press on a row picks it, Shift adds. What is not in sight stays on the server.
 */
export function mount(body, { id, title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.columns = new Columns(emit({ type: 'address', what: id }), () => show(handle));
  handle.finder = new Finder(body, title, () => emit({ type: 'again' }), phrase('Find rows'));
  handle.scroll = el('div', { class: 'table-scroll', tabindex: 0, role: 'region', 'aria-label': title });
  handle.passing = scrolling(handle.scroll);
  handle.foot = el('div', { class: 'table-foot' });
  body.append(handle.scroll, handle.foot);
  return handle;
}

/** What is in sight of the table. */
export const sight = handle => handle.finder.sight();

/** All of the table, to be taken along. */
export const whole = handle => handle.finder.whole();

export function draw(handle, drawing) {
  handle.drawing = drawing;
  handle.finder.shown(drawing.all);
  show(handle);
}

function show(handle) {
  const { drawing } = handle;
  const focused = handle.scroll.contains(document.activeElement) ? document.activeElement.dataset.part : null;
  const { heads, rows, total, lineWords } = drawing;
  const words = heads.map(h => h.words);
  handle.order = handle.columns.inOrder(words);
  const widths = handle.order.map(i => handle.columns.width(words[i]));
  leftInPlace(handle.scroll, () =>
    handle.scroll.replaceChildren(
      el(
        'table',
        { class: `rows table-rows ${widths.some(w => w) ? 'is-sized' : ''}` },
        el(
          'colgroup',
          {},
          ...widths.map(width => el('col', { style: width ? { width: `${width}px` } : {} })),
          lineWords && el('col', { class: 'line-column' }),
        ),
        el(
          'thead',
          {},
          el(
            'tr',
            {},
            ...handle.order.map((i, at) => headOf(handle, i, at)),
            lineWords && el('th', { scope: 'col', title: lineWords }, lineWords.split(',')[0]),
          ),
        ),
        el('tbody', {}, ...rows.map(row => rowOf(handle, row))),
        total && el('tfoot', {}, el('tr', {}, ...cellsOf(handle, total))),
      ),
    ),
  );
  handle.foot.replaceChildren(
    ...pagesOf(drawing, rows.length, 'rows', from => handle.finder.look({ from })),
    ...(drawing.notes.length ? [el('span', {}, drawing.notes.join(' '))] : []),
  );
  if (focused) handle.scroll.querySelector(`[data-part="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
  light(handle, handle.picks);
}

function headOf(handle, i, at) {
  const { heads } = handle.drawing;
  const head = heads[i];
  const sorter = el(
    'button',
    {
      type: 'button',
      class: 'sorter',
      'data-part': `head ${head.words}`,
      title: phrase('Press to order, with Shift among equals; drag to move'),
      onclick: e => orderBy(handle, i, e.shiftKey),
    },
    head.words,
  );
  handle.columns.movable(
    sorter,
    handle.order.map(o => heads[o].words),
    at,
  );
  return el(
    'th',
    {
      class: head.figure ? 'n' : null,
      scope: 'col',
      'aria-sort': head.sorted ? (head.sorted === 'down' ? 'descending' : 'ascending') : 'none',
    },
    sorter,
    handle.columns.grip(head.words),
  );
}

/** Orders the rows by a column; among equals, where something else orders them already. */
function orderBy(handle, column, among) {
  const head = handle.drawing.heads[column];
  const down = head.sorted ? head.sorted !== 'down' : head.figure;
  if (!among || handle.finder.seen('order') === undefined)
    return handle.finder.look({ order: column, down, then: null, from: 0 });
  const then = (handle.finder.seen('then') ?? []).filter(t => t.column !== column);
  handle.finder.look({ then: [...then, { column, down }], from: 0 });
}

function cellsOf(handle, row) {
  const { heads, lineWords } = handle.drawing;
  const cells = handle.order.map(i => {
    const tint = row.tints?.[i];
    const state = row.states?.[i];
    const sure = row.sure?.[i];
    return el(
      'td',
      {
        class: `${heads[i].figure ? 'n' : ''} ${state ? `cell-${state}` : ''} ${sure?.unsure ? 'cell-unsure' : ''}`,
        title: sure?.words,
        'aria-description': sure?.words,
        style: tint && !state ? { background: `color-mix(in oklab, ${tint} 42%, var(--paper))` } : {},
      },
      stateSign(state),
      row.cells[i],
    );
  });
  if (lineWords)
    cells.push(
      el('td', { class: 'cell-line' }, row.line?.length > 1 ? tinyLine(row.line, `${row.cells[0]}: ${lineWords}`) : ''),
    );
  return cells;
}

function rowOf(handle, row) {
  const cells = cellsOf(handle, row);
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
  handle.passing.stop();
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
