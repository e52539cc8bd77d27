import { el } from '../elements.js';
import { phrase } from '../language.js';

/** A picture that was uploaded. What is still wanting of it is said to its author. */
export function mount(body, { emit, composing }) {
  const handle = { emit, composing, place: el('div', { class: 'sheet-picture' }) };
  body.append(handle.place);
  return handle;
}

export function draw(handle, { image, shows, fills, wanting }) {
  handle.place.replaceChildren(
    image
      ? el('img', {
          src: handle.emit({ type: 'address', what: `files/${image}` }),
          alt: shows,
          class: fills ? 'is-filling' : null,
        })
      : '',
    wanting && (handle.composing || !image) ? el('p', { class: 'visual-wanting' }, wanting) : '',
  );
}

export function light() {
  // Nothing is picked on it.
}

export function unmount() {
  // It holds nothing.
}

export const figures = ({ shows }) => ({ head: [phrase('picture')], rows: [{ key: null, cells: [shows] }] });

export function mini() {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    el('rect', { x: 43, y: 16, width: 120, height: 80, fill: 'none', stroke: 'currentColor' }),
    el('path', { d: 'M43 84l36-32 28 26 18-16 38 26', fill: 'none', stroke: 'currentColor' }),
    el('circle', { cx: 136, cy: 38, r: 8, fill: 'none', stroke: 'currentColor' }),
  );
}
