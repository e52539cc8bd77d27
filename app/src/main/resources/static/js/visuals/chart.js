import { el } from '../elements.js';
import { phrase } from '../language.js';

/** What drawings of figures have in common: a tip, a key of colours, notes, marks that take focus. */

/** About how wide a text is at 13 px, pixels. */
export const wide = text => 7.1 * text.length;

/** A text cut to a width, pixels. */
export function shortened(text, room) {
  const most = Math.max(1, Math.floor(room / 7.1));
  return text.length <= most ? text : `${text.slice(0, most - 1)}…`;
}

/** A tip beside the pointer, with a name and lines below it. */
export class Tip {
  constructor(body) {
    this.box = el('div', { class: 'tip', hidden: true });
    body.append(this.box);
  }

  /**
   * @param {number[]} at pixels from the body's corner
   * @param {string} name
   * @param {string[][]} lines words and figure
   */
  show([x, y], name, lines) {
    this.box.replaceChildren(
      el('b', {}, name),
      ...lines.map(([words, figure, colour]) =>
        el(
          'div',
          {},
          colour ? el('i', { class: 'dab', style: { background: colour } }) : '',
          words ? el('i', {}, `${words}: `) : '',
          figure,
        ),
      ),
    );
    this.box.hidden = false;
    const room = this.box.parentElement.clientWidth;
    const right = x > room * 0.6;
    Object.assign(this.box.style, {
      left: right ? '' : `${x + 14}px`,
      right: right ? `${room - x + 10}px` : '',
      top: `${Math.max(0, Math.min(y + 12, this.box.parentElement.clientHeight - this.box.offsetHeight - 4))}px`,
    });
  }

  hide() {
    this.box.hidden = true;
  }
}

/** What colours stand for, in a line above a drawing. @param {{colour: string, text: string}[]} colours */
export function colourKey(colours, words = '') {
  if (!colours.length) return '';
  return el(
    'div',
    { class: 'colour-key' },
    words ? el('span', { class: 'colour-key-words' }, words) : '',
    ...colours.map(({ colour, text }) =>
      el('span', { class: 'colour-key-part' }, el('i', { class: 'dab', style: { background: colour } }), text),
    ),
  );
}

/** Marks of an axis that have room: all of them, or each second, fourth … where the axis is short, pixels. */
export function spaced(ticks, length) {
  let every = 1;
  while (ticks.length / every > Math.max(2, length / 22)) every *= 2;
  return ticks.filter((_, i) => i % every === 0);
}

/** Letters of a note in a line. */
const NOTE_LINE = 26;
const NOTE_LINES = 4;
const NOTE_HIGH = 15;

/** The words of a note in lines. */
export function linesOf(text) {
  const lines = [''];
  for (const word of text.split(/\s+/)) {
    const last = lines.at(-1);
    if (last && last.length + word.length + 1 > NOTE_LINE) lines.push(word);
    else lines[lines.length - 1] = last ? `${last} ${word}` : word;
  }
  const shown = lines.slice(0, NOTE_LINES).map(line => shortened(line, NOTE_LINE * 7.1));
  if (lines.length > NOTE_LINES) shown[NOTE_LINES - 1] = `${shown[NOTE_LINES - 1].slice(0, NOTE_LINE - 2)} …`;
  return shown;
}

/**
 * Notes, each with a line that leads to what it is pinned to. A note gives way to those before it and to the words that
 * stand there already.
 * @param {{x: number, y: number, text: string}[]} notes where they are pinned, pixels
 * @param {{left: number, right: number, top: number, bottom: number}} room
 * @param {{left: number, right: number, top: number, bottom: number}[]} taken boxes in which words stand
 */
export function pinned(notes, room, taken = []) {
  const boxes = [...taken];
  const hits = box =>
    boxes.some(b => box.left < b.right && b.left < box.right && box.top < b.bottom && b.top < box.bottom);
  return notes.flatMap(({ x, y, text }) => {
    const lines = linesOf(text);
    const width = Math.max(...lines.map(wide)) * 0.92 + 8;
    const height = lines.length * NOTE_HIGH + 4;
    const places = [-1, 1].flatMap(side =>
      [28, 56, 90].flatMap(away =>
        [-0.5, 0, -1].map(shift => [x + shift * width, side < 0 ? y - away - height : y + away]),
      ),
    );
    const boxOf = ([left, top]) => {
      const at = Math.max(room.left, Math.min(left, room.right - width));
      return { left: at, right: at + width, top, bottom: top + height };
    };
    const fits = places.map(boxOf).filter(b => b.top >= room.top && b.bottom <= room.bottom);
    const box = fits.find(b => !hits(b)) ?? fits[0] ?? boxOf([x + 10, room.top]);
    boxes.push(box);
    const below = box.top > y;
    const foot = Math.max(box.left + 4, Math.min(x, box.right - 4));
    return [
      el('line', { class: 'note-leader', x1: x, y1: y, x2: foot, y2: below ? box.top : box.bottom }),
      el('circle', { class: 'note-pin', cx: x, cy: y, r: 3.2 }),
      el(
        'g',
        { class: 'note', role: 'note', 'aria-label': text },
        el('title', {}, text),
        el('rect', { x: box.left, y: box.top, width, height }),
        ...lines.map((words, i) => el('text', { x: box.left + 4, y: box.top + 13 + i * NOTE_HIGH }, words)),
      ),
    ];
  });
}

/**
 * Lines and bands that figures are compared with.
 * @param {{value: number, to: ?number, text: string}[]} references
 * @param {(value: number) => number} at where a value lies, pixels
 * @param {number[]} ends where they begin and end, pixels
 * @param {boolean} level whether they lie level @param {(text: string, at: number) => number[]} words where words stand
 */
export function referencesOf(references, at, [from, to], level, words) {
  return references.flatMap(({ value, to: end, text }) => {
    const one = at(value);
    const other = end === null || end === undefined ? null : at(end);
    const [x, y] = words(text, other === null ? one : Math.min(one, other));
    const low = Math.min(one, other);
    const thick = Math.abs(one - other);
    return [
      other === null
        ? el('line', {
            class: 'reference',
            ...(level ? { x1: from, x2: to, y1: one, y2: one } : { x1: one, x2: one, y1: from, y2: to }),
          })
        : el('rect', {
            class: 'reference-band',
            ...(level
              ? { x: from, y: low, width: to - from, height: thick }
              : { x: low, y: from, width: thick, height: to - from }),
          }),
      el('text', { class: 'reference-words', x, y }, text),
    ];
  });
}

/** Signs beside the words for good, watch and bad, so that no state is told by its colour alone. */
const SIGNS = { good: '●', watch: '◆', bad: '▲' };

const STATES = { good: phrase('state|good'), watch: phrase('state|watch'), bad: phrase('state|bad') };

/** The sign and the word of a state; nothing where there is none. @param {'good'|'watch'|'bad'|null} state */
export const stateSign = state =>
  state ? el('b', { class: `state is-${state}` }, `${SIGNS[state]} ${STATES[state]}`, ' ') : '';

/** A tiny line without an axis, its words below it. @param {(number|string)[]} line heights, 0 to 1 */
export function tinyLine(line, words) {
  const x = i => (200 * i) / (line.length - 1);
  const y = v => 30 - 26 * v;
  let path = '';
  const has = i => Number.isFinite(Number(line[i] ?? NaN));
  line.forEach((v, i) => {
    if (!has(i)) return;
    path += `${has(i - 1) ? 'L' : 'M'}${x(i).toFixed(1)} ${y(v).toFixed(1)}`;
    // A point between two gaps is seen as a dot.
    if (!has(i - 1) && !has(i + 1)) path += 'h.01';
  });
  return el(
    'figure',
    {},
    el(
      'svg',
      { viewBox: '0 0 200 34', preserveAspectRatio: 'none', role: 'img', 'aria-label': words },
      el('path', { d: path, fill: 'none', stroke: 'currentColor', 'vector-effect': 'non-scaling-stroke' }),
    ),
    el('figcaption', {}, words),
  );
}

/** Sentences below a drawing. */
export const notesOf = notes => (notes?.length ? el('p', { class: 'chart-notes' }, notes.join(' ')) : '');

/**
 * Makes a mark one that is pressed and reached with Tab. Enter and the space bar do what a press does; Shift adds.
 * @param {(add: boolean) => void} press
 */
export function pressable(mark, press) {
  mark.addEventListener('click', e => press(e.shiftKey));
  mark.addEventListener('keydown', e => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    press(e.shiftKey);
  });
  return mark;
}

/**
 * Draws anew whenever the body has another size; one that is not shown, as while another page is printed, has none.
 * @returns {{stop: () => void}}
 */
export function whenSized(body, run) {
  const sized = new ResizeObserver(() => body.clientWidth > 0 && body.clientHeight > 0 && run());
  sized.observe(body);
  return { stop: () => sized.disconnect() };
}

/** Marks that are picked, and those that pale beside them; `keyOf` tells what a mark stands for. */
export function lightMarks(marks, picks, keyOf = m => m.dataset.key) {
  for (const mark of marks) {
    const picked = picks.has(keyOf(mark));
    mark.classList.toggle('is-picked', picked);
    mark.classList.toggle('is-dim', picks.size > 0 && !picked);
    mark.setAttribute('aria-pressed', picked);
  }
}

/** The position of an event within a body, in its own pixels: larger letters make them larger. */
export function within(body, e) {
  const box = body.getBoundingClientRect();
  const scale = body.offsetWidth ? box.width / body.offsetWidth : 1;
  return [(e.clientX - box.left) / scale, (e.clientY - box.top) / scale];
}
