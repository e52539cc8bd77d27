import './head.js';
import { GridStack } from '/vendor/gridstack.js';
import { Guides, Several } from './arrange.js';
import { Dock } from './dock.js';
import { openDuplicate } from './duplicate.js';
import { Edits } from './edits.js';
import { el, say } from './elements.js';
import { ask } from './http.js';
import { Phone } from './phone.js';
import { Sheet } from './sheet.js';

const NARROW = 720;
const COLUMNS = 24;
/** What the address ends with while one arranges the page for phones. */
const AS_PHONE = '#phone';
const asPhone = location.hash === AS_PHONE;
/** The part that another page leads to; read before the address is written anew. */
const [, part] = /^#part\.([a-z0-9]+)$/.exec(location.hash) ?? [];
const narrow = innerWidth <= NARROW || asPhone;
const by = id => document.getElementById(id);
let selected = null;
let arranging = false;

const grid = narrow
  ? null
  : GridStack.init(
      {
        column: COLUMNS,
        cellHeight: 42,
        margin: 6,
        float: true,
        animate: false,
        handle: '.visual-title',
        resizable: { handles: 'nw,ne,sw,se' },
        minRow: 6,
      },
      by('sheet'),
    );
if (narrow) by('sheet').className = 'sheet sheet-read';

const sheet = new Sheet(document.body.dataset.dashboard, {
  ...(grid ? { wrap, unwrap } : {}),
  strip: markSelected,
  page: id => select(id),
  addPage,
  turned: () => select(null),
  laidOut,
  taken,
  sized,
});
const edits = new Edits(sheet, taken);
const phone = asPhone ? new Phone(sheet, edits) : null;
const several = new Several(sheet, edits, { chosen: chooseSeveral, marked: markSelected });
const guides = new Guides(sheet);
const dock = new Dock(by('dock-inside'), sheet, edits, several, phone, {
  added: showNew,
  released: () => select(null),
  chosen: ids => {
    several.ids = ids;
    chooseSeveral();
  },
});

// --- the sheet -------------------------------------------------------------------------------

function wrap(id, visual, mounted) {
  const content = el('div', { class: 'grid-stack-item-content' }, mounted.cell);
  mounted.cell.style.height = '100%';
  mounted.title.tabIndex = 0;
  mounted.item = el(
    'div',
    {
      class: 'grid-stack-item',
      'gs-id': id,
      'gs-x': visual.at.x,
      'gs-y': visual.at.y,
      'gs-w': visual.at.w,
      'gs-h': visual.at.h,
    },
    content,
  );
  arranging = true;
  by('sheet').append(mounted.item);
  grid.makeWidget(mounted.item);
  arranging = false;
}

function unwrap(mounted) {
  arranging = true;
  grid.removeWidget(mounted.item);
  arranging = false;
}

/** What is dragged with others, and where the pointer took it. */
let dragged = null;

grid?.on('dragstart', (e, item) => {
  const id = item.getAttribute('gs-id');
  const others = several.with(id).filter(other => other !== id);
  dragged = others.length ? { id, others, x: e.pageX, y: e.pageY } : null;
  if (dragged) addEventListener('mousemove', follow);
});

/** Lets what moves with the dragged one be seen to. */
function follow(e) {
  for (const other of dragged.others)
    sheet.visuals.get(other).item.style.translate = `${e.pageX - dragged.x}px ${e.pageY - dragged.y}px`;
}
grid?.on('drag', (_, item) => {
  guides.show(item.getAttribute('gs-id'), item.gridstackNode, sheet.row);
});
grid?.on('dragstop', e => {
  guides.hide();
  if (!dragged) return;
  const { id, others, x, y } = dragged;
  dragged = null;
  removeEventListener('mousemove', follow);
  for (const other of others) sheet.visuals.get(other).item.style.translate = '';
  // Where the grid would have the one alone does not matter: all of them move as far as the pointer went.
  arranging = true;
  queueMicrotask(() => (arranging = false));
  const cell = by('sheet').clientWidth / COLUMNS;
  moveTogether(id, Math.round((e.pageX - x) / cell), Math.round((e.pageY - y) / sheet.row));
});
grid?.on('resize', (_, item) => guides.show(item.getAttribute('gs-id'), item.gridstackNode, sheet.row));
grid?.on('resizestop', (_, item) => {
  guides.hide();
  sheet.resize(item.getAttribute('gs-id'));
});

grid?.on('change', (_, items) => {
  if (arranging) return;
  const moved = items.filter(i => i.id && sheet.opened.document.visuals[i.id]);
  if (moved.length)
    edits.edit(
      // What shares a place with it moves along.
      moved.flatMap(i =>
        sheet
          .inOnePlace(i.id)
          .map(id => ({ op: 'replace', path: `/visuals/${id}/at`, value: { x: i.x, y: i.y, w: i.w, h: i.h } })),
      ),
    );
});

/** Moves a visual with all that moves with it; what they would cover makes room. */
async function moveTogether(id, across, down) {
  await several.arrange(several.with(id), 'MOVE', { across, down });
  rearrange();
}

/** The grid's rows are as high as the page's size has them. */
function sized() {
  grid?.cellHeight(sheet.row);
}

/** Moves what the grid shows to where the document has it. */
function rearrange() {
  if (!grid) return;
  arranging = true;
  sized();
  grid.batchUpdate();
  for (const [id, { item }] of sheet.visuals) grid.update(item, sheet.opened.document.visuals[id].at);
  grid.batchUpdate(false);
  arranging = false;
}

// --- selecting -------------------------------------------------------------------------------

function markSelected() {
  const beside = selected && sheet.visuals.has(selected) ? several.with(selected) : [];
  for (const [id, { box }] of sheet.visuals) {
    box.classList.toggle('is-selected', id === selected || several.ids.includes(id));
    box.classList.toggle('is-beside', id !== selected && beside.includes(id));
  }
  for (const filter of document.querySelectorAll('.filter'))
    filter.classList.toggle('is-selected', filter.dataset.filter === selected);
}

function select(id) {
  several.clear();
  selected = id;
  markSelected();
  return dock.show(id).then(clearOfDock);
}

/** Shows what can be done with the visuals that are chosen together; one alone is selected. */
function chooseSeveral() {
  if (several.ids.length === 1) {
    [selected] = several.ids;
    markSelected();
    dock.show(selected);
    return;
  }
  if (!several.ids.length) {
    select(null);
    return;
  }
  selected = null;
  markSelected();
  dock.showSeveral();
}

function showNew(id) {
  select(id);
  sheet.visuals.get(id)?.box.scrollIntoView({ block: 'center' });
}

by('sheet').addEventListener(
  'pointerdown',
  e => {
    const visual = e.target.closest('.visual')?.dataset.visual;
    if (!visual) return;
    // Shift on what is drawn picks more of it; on a title it chooses more visuals.
    if (e.shiftKey && e.target.closest('.visual-title')) {
      several.toggle(visual, selected);
      e.preventDefault();
      e.stopPropagation();
    } else if (visual !== selected && !several.ids.includes(visual)) select(visual);
  },
  { capture: true },
);
by('strip').addEventListener('pointerdown', e => {
  const filter = e.target.closest('.filter')?.dataset.filter;
  if (filter && filter !== selected) select(filter);
});

// --- on a phone ------------------------------------------------------------------------------

by('as-phone').textContent = asPhone ? 'As on a desk' : 'As on a phone';
by('as-phone').addEventListener('click', () => {
  // The sheet is built anew: on a phone it has no grid.
  location.hash = asPhone ? '' : AS_PHONE;
  location.reload();
});

// --- the dock --------------------------------------------------------------------------------

/** Between what is composed and the dock, in pixels. */
const ABOVE_DOCK = 14;

/** Scrolls what is composed out from under the dock, as far as its own top stays in sight. */
function clearOfDock() {
  const box = sheet.visuals.get(selected)?.box.getBoundingClientRect();
  if (!box) return;
  const hidden = box.bottom - (by('dock').getBoundingClientRect().top - ABOVE_DOCK);
  const most = box.top - ABOVE_DOCK;
  if (hidden > 0 && most > 0) scrollBy({ top: Math.min(hidden, most) });
}

new ResizeObserver(() => {
  document.body.style.setProperty('--dock', `${by('dock').offsetHeight}px`);
  clearOfDock();
}).observe(by('dock'));

// --- pages -----------------------------------------------------------------------------------

/** Adds a page behind all others and goes to it; its title is asked for. */
async function addPage() {
  const id = `p${Math.random().toString(36).slice(2, 7)}`;
  const last = Math.max(...Object.values(sheet.opened.document.pages).map(page => page.order));
  await edits.edit([{ op: 'add', path: `/pages/${id}`, value: { title: '', order: last + 1 } }]);
  if (!sheet.opened.document.pages[id]) return;
  sheet.goTo(id);
  await select(id);
}

// --- revisions -------------------------------------------------------------------------------

function taken(opened) {
  const before = sheet.opened.document;
  sheet.take(opened);
  rearrange();
  showHistory();
  showTitle();
  const { visuals, filters, parameters, formulas, pages } = opened.document;
  const sameControls = ['filters', 'parameters', 'formulas'].every(
    part => JSON.stringify(before[part]) === JSON.stringify(opened.document[part]),
  );
  const drawnAnew = Object.keys(visuals).filter(id => changed(before, opened.document, id));
  if (drawnAnew.length || !sameControls) {
    sheet.ask(
      sameControls && JSON.stringify(before.links) === JSON.stringify(opened.document.links) ? drawnAnew : sheet.ids(),
    );
  }
  several.keep();
  if (several.ids.length > 1) {
    chooseSeveral();
    return;
  }
  const stands = [visuals, filters, parameters ?? {}, formulas ?? {}, pages].some(parts => parts[selected]);
  several.clear();
  if (selected && !stands) {
    select(null);
    return;
  }
  markSelected();
  dock.again(selected).then(clearOfDock);
}

/** Whether a visual shows something else now; where it stands does not matter. */
function changed(before, now, id) {
  const shown = document => JSON.stringify({ ...document.visuals[id], at: null });
  return shown(before) !== shown(now);
}

function showHistory() {
  for (const [name, words] of [
    ['undo', sheet.opened.undo],
    ['redo', sheet.opened.redo],
  ]) {
    by(name).disabled = !words;
    by(name).title = words ? `${name === 'undo' ? 'Undo' : 'Redo'} ${words}` : `There is nothing to ${name}`;
    by(name).textContent = `${name === 'undo' ? 'Undo' : 'Redo'}${words ? ` ${words}` : ''}`;
  }
}

for (const name of ['undo', 'redo']) by(name).addEventListener('click', () => edits.step(name));

addEventListener('keydown', e => {
  if (e.target.closest('input, select, textarea, dialog')) return;
  const undoes = (e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z';
  if (undoes) {
    e.preventDefault();
    edits.step(e.shiftKey ? 'redo' : 'undo');
  } else if (e.key.startsWith('Arrow') && e.target.closest('.visual-title')) {
    moveByKey(e);
  } else if (e.key === 'Enter' && e.shiftKey && e.target.closest('.visual-title')) {
    e.preventDefault();
    several.toggle(e.target.closest('.visual').dataset.visual, selected);
  } else if (e.key === 'Escape' && several.ids.length) {
    select(null);
  }
});

/** Arrow keys on a visual's title move it a cell, Shift+arrows resize it. */
function moveByKey(e) {
  e.preventDefault();
  const id = e.target.closest('.visual').dataset.visual;
  if (phone) {
    if (e.key === 'ArrowUp' || e.key === 'ArrowDown') phone.move(id, e.key === 'ArrowUp' ? -1 : 1);
    return;
  }
  const { item } = sheet.visuals.get(id);
  if (!item) return;
  // Where the grid has it: an edit of the key before may still be under way.
  const { x, y, w, h } = item.gridstackNode;
  const [dx, dy] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
  if (!e.shiftKey && several.with(id).length > 1) {
    moveTogether(id, dx, dy);
    return;
  }
  const next = e.shiftKey ? { x, y, w: w + dx, h: h + dy } : { x: x + dx, y: y + dy, w, h };
  if (next.x < 0 || next.y < 0 || next.w < 2 || next.h < 2 || next.x + next.w > COLUMNS) return;
  grid.update(item, next);
}

// --- the dashboard's own title, readers, taking away -------------------------------------------

function showTitle() {
  if (document.activeElement?.parentElement !== by('sheet-title')) titleInput.value = sheet.opened.document.title;
  document.title = `${sheet.opened.document.title} · Sarnik`;
}

const titleInput = el('input', {
  'aria-label': 'The question this dashboard answers',
  maxlength: 200,
  value: by('sheet-title').textContent,
});
by('sheet-title').replaceChildren(titleInput);
titleInput.addEventListener('change', () => {
  if (titleInput.value.trim()) edits.edit([{ op: 'replace', path: '/title', value: titleInput.value.trim() }]);
  else titleInput.value = sheet.opened.document.title;
});

by('duplicate-dashboard').addEventListener('click', () => openDuplicate(sheet));

by('remove-dashboard').addEventListener('click', () =>
  say(
    `Take “${sheet.opened.document.title}” away with its whole history? Its datasets stay.`,
    {
      words: 'Take it away',
      run: async () => {
        try {
          await ask('DELETE', `/api/dashboards/${sheet.id}`);
          location.assign('/');
        } catch (refused) {
          say(refused.message);
        }
      },
    },
    12,
  ),
);

document.addEventListener('focusin', e => {
  const visual = e.target.closest('.visual')?.dataset.visual;
  if (visual && visual !== selected && !several.ids.length && e.target.matches('.visual-title')) select(visual);
});

/** Says what was guessed when this page was made by itself, once. */
function sayGuesses() {
  let guesses = null;
  try {
    guesses = sessionStorage.getItem('sarnik.guesses');
    sessionStorage.removeItem('sarnik.guesses');
  } catch {
    /* nothing was kept */
  }
  if (guesses) say(guesses, { words: 'All right', run() {} }, 30);
}

/** All can be composed from now on, however long the figures take to come. */
function laidOut() {
  showHistory();
  select(part ?? null);
}

try {
  await sheet.load();
  sayGuesses();
} catch (refused) {
  say(refused.message, { words: 'Try again', run: () => location.reload() });
}
