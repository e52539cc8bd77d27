import { el } from '../elements.js';
import { keyOf } from '../map/key.js';
import { notesOf } from './chart.js';
import { phrase } from '../language.js';

/** A key on its own: what the colours, sizes and shapes of another visual, or of a shared key, stand for. */
export function mount(body) {
  const handle = { place: el('div', { class: 'key-visual map-key', tabindex: 0 }) };
  body.append(handle.place);
  return handle;
}

export function draw(handle, { parts, counted, notes }) {
  handle.place.classList.toggle('is-uncounted', !counted || parts.every(p => p.key.colours.every(c => !c.count)));
  handle.place.replaceChildren(
    ...parts.flatMap(({ name, kind, key }) => [
      name && parts.length > 1 ? el('h3', { class: 'key-part' }, name) : '',
      ...keyOf(key, { kind }),
    ]),
    notesOf(notes),
  );
}

export function light() {
  // A key lights nothing.
}

export function unmount() {
  // It holds nothing.
}

export function figures({ parts }) {
  return {
    head: [phrase('key|of'), phrase('key|what'), phrase('how many')],
    rows: parts.flatMap(({ key }) =>
      key.colours.map(({ text, count }) => ({ key: null, cells: [key.colourWords ?? '', text, String(count)] })),
    ),
  };
}

export function mini({ parts }) {
  const colours = parts.flatMap(p => p.key.colours).slice(0, 6);
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...colours.flatMap(({ colour, text }, i) => [
      el('rect', { x: 0, y: 4 + i * 18, width: 22, height: 12, fill: colour }),
      el('text', { x: 30, y: 14 + i * 18, 'font-size': 12, fill: 'currentColor' }, text.slice(0, 24)),
    ]),
  );
}
