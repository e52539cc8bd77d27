import { el } from '../elements.js';

/** Signs beside the words for good, watch and bad, so that no state is told by its colour alone. */
const SIGNS = { good: '●', watch: '◆', bad: '▲' };

/** A key figure: one number in large type, what it is and what it is compared with below. */
export function mount(body) {
  const handle = {
    body,
    number: el('p', { class: 'figure-number' }),
    words: el('p', { class: 'figure-words' }),
    against: el('p', { class: 'figure-against' }),
    line: el('div', { class: 'figure-line' }),
  };
  body.append(el('div', { class: 'figure' }, handle.number, handle.words, handle.against, handle.line));
  return handle;
}

export function draw(handle, drawing) {
  handle.number.textContent = drawing.text;
  // A long one, such as a date, gets as small as the box asks for.
  handle.number.style.setProperty('--letters', Math.max(1, drawing.text.length));
  handle.number.title = drawing.full;
  handle.words.textContent = drawing.text === drawing.full ? drawing.words : `${drawing.words}: ${drawing.full}`;
  handle.against.replaceChildren(
    drawing.state
      ? el('b', { class: `state is-${drawing.state}` }, `${SIGNS[drawing.state]} ${drawing.state}`, ' ')
      : '',
    drawing.against ?? '',
  );
  handle.body.dataset.state = drawing.state ?? '';
  handle.line.replaceChildren(drawing.line?.length > 1 ? tinyLine(drawing) : '');
}

function tinyLine({ line, lineWords }) {
  const x = i => (200 * i) / (line.length - 1);
  const y = v => 30 - 26 * v;
  let path = '';
  line.forEach((v, i) => {
    if (!Number.isFinite(Number(v))) return;
    path += `${i && Number.isFinite(Number(line[i - 1])) ? 'L' : 'M'}${x(i).toFixed(1)} ${y(v).toFixed(1)}`;
  });
  return el(
    'figure',
    {},
    el(
      'svg',
      { viewBox: '0 0 200 34', preserveAspectRatio: 'none', role: 'img', 'aria-label': lineWords },
      el('path', { d: path, fill: 'none', stroke: 'currentColor', 'vector-effect': 'non-scaling-stroke' }),
    ),
    el('figcaption', {}, lineWords),
  );
}

export function light() {
  // Nothing can be picked on a figure.
}

export function unmount() {
  // It holds nothing.
}

export function figures(drawing) {
  return {
    figureFrom: 0,
    head: [drawing.words, ...(drawing.against ? ['compared'] : [])],
    rows: [{ key: null, cells: [drawing.full, ...(drawing.against ? [drawing.against] : [])] }],
  };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    el(
      'text',
      { x: 0, y: 62, 'font-size': 38, 'font-family': 'var(--font-title)', 'font-weight': 600, fill: 'currentColor' },
      drawing.text,
    ),
  );
}
