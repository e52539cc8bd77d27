import { el } from '../elements.js';
import { phrase } from '../language.js';

/** A filter, or a number that readers set, on the sheet. */
/** It has no figures to look at. */
export const bare = true;

export function mount(body, { emit }) {
  const handle = { emit, place: el('div', { class: 'sheet-filter' }), control: null };
  body.append(handle.place);
  return handle;
}

/** What stands in it instead of in the strip. */
export const holds = visual => [visual.control];

export function draw(handle, { control }) {
  handle.control = control;
  light(handle);
}

/** Follows what was chosen. */
export function light(handle) {
  if (!handle.control) return;
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.filterPart : null;
  handle.place.replaceChildren(
    handle.emit({ type: 'control', id: handle.control }) ??
      el('span', { class: 'visual-wanting' }, phrase('This filter has been taken away. Choose another in the brief.')),
  );
  if (focused) handle.place.querySelector(`[data-filter-part="${CSS.escape(focused)}"]`)?.focus();
}

export function unmount() {
  // It holds nothing.
}

export const figures = ({ title }) => ({ head: [phrase('filter')], rows: [{ key: null, cells: [title] }] });

export function mini({ title }) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    el('text', { x: 20, y: 48, 'font-size': 12, fill: 'var(--faint)' }, title.slice(0, 28)),
    el('line', { x1: 20, x2: 186, y1: 70, y2: 70, stroke: 'var(--loch)', 'stroke-width': 2 }),
    el('text', { x: 20, y: 65, 'font-size': 14, fill: 'var(--loch)' }, 'all'),
  );
}
