import { el } from '../elements.js';
import { phrase } from '../language.js';

/** A button on the sheet: puts back, shows what was chosen once, leads elsewhere or to a page, takes figures along. */
/** It has no figures to look at. */
export const bare = true;

export function mount(body, { emit }) {
  const handle = { body, emit, place: el('div', { class: 'sheet-button' }) };
  body.append(handle.place);
  return handle;
}

export function draw(handle, { words, does, address, state, visual, page, why }) {
  const { emit } = handle;
  const run = {
    clear: () => emit({ type: 'clear' }),
    state: () => emit({ type: 'chosen', state }),
    figures: () => emit({ type: 'take', visual, form: 'csv' }),
    page: () => emit({ type: 'page', page }),
  }[does];
  handle.place.replaceChildren(
    why
      ? el('span', { class: 'visual-wanting' }, why)
      : does === 'address'
        ? el('a', { class: 'do', href: address, rel: 'noopener noreferrer' }, words)
        : el('button', { type: 'button', class: 'do', onclick: run }, words),
  );
}

export function light() {
  // Nothing is picked on it.
}

export function unmount() {
  // It holds nothing.
}

export const figures = ({ words }) => ({ head: [phrase('button')], rows: [{ key: null, cells: [words] }] });

export function mini({ words }) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    el('rect', { x: 20, y: 36, width: 166, height: 40, fill: 'none', stroke: 'var(--loch)', 'stroke-width': 2 }),
    el('text', { x: 103, y: 61, 'font-size': 14, fill: 'var(--loch)', 'text-anchor': 'middle' }, words.slice(0, 20)),
  );
}
