import { el } from '../elements.js';
import { stateSign, tinyLine } from './chart.js';
import { phrase } from '../language.js';

/** A key figure: one number in large type, what it is and what it is compared with below. */
export function mount(body) {
  const handle = {
    body,
    sign: el('div', { class: 'figure-sign', 'aria-hidden': 'true' }),
    number: el('p', { class: 'figure-number' }),
    words: el('p', { class: 'figure-words' }),
    against: el('p', { class: 'figure-against' }),
    sure: el('p', { class: 'figure-sure' }),
    line: el('div', { class: 'figure-line' }),
  };
  body.append(
    el('div', { class: 'figure' }, handle.sign, handle.number, handle.words, handle.sure, handle.against, handle.line),
  );
  return handle;
}

/** What of a drawing is compared where it stands twice. */
export const compared = ({ value, percent }) => ({ value, percent });

export function draw(handle, drawing) {
  handle.number.textContent = drawing.text;
  handle.letters = Math.max(1, drawing.text.length);
  even([handle]);
  handle.sign.replaceChildren(drawing.sign ? el('svg', { viewBox: '0 0 16 16' }, el('path', { d: drawing.sign })) : '');
  handle.number.title = drawing.full;
  handle.words.textContent = drawing.text === drawing.full ? drawing.words : `${drawing.words}: ${drawing.full}`;
  handle.against.replaceChildren(stateSign(drawing.state), drawing.against ?? '');
  handle.sure.textContent = [drawing.sure, drawing.trail?.lacking].filter(Boolean).join('. ');
  handle.number.classList.toggle('is-unsure', Boolean(drawing.unsure));
  handle.body.dataset.state = drawing.state ?? '';
  handle.line.replaceChildren(drawing.line?.length > 1 ? tinyLine(drawing.line, drawing.lineWords) : '');
}

/**
 * A long one, such as a date, gets as small as its box asks for, and those beside it as well.
 */
export function even(handles) {
  const rooms = handles.map(({ body, letters }) => body.clientWidth / letters);
  const least = Math.min(...rooms);
  for (const [i, handle] of handles.entries()) {
    // Boxes of other widths need other shares of their width for the same size.
    const letters = least ? (handle.letters * rooms[i]) / least : handle.letters;
    handle.number.style.setProperty('--letters', letters);
  }
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
    head: [
      drawing.words,
      ...(drawing.sure ? [phrase('may well lie (95 %)')] : []),
      ...(drawing.against ? [phrase('compared')] : []),
    ],
    rows: [
      {
        key: null,
        cells: [drawing.full, ...(drawing.sure ? [drawing.sure] : []), ...(drawing.against ? [drawing.against] : [])],
      },
    ],
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
