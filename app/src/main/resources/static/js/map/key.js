import { el } from '../elements.js';
import { full, written } from '../numbers.js';
import { arrow, marksBeyond } from './beyond.js';
import { outline } from './symbols.js';
import { phrase } from '../language.js';

/**
 * The colours of a key's classes, lowest first. On the dark ground of the night the bright end stands out, so there the
 * highest class of a palette that runs from light to deep takes it.
 */
export function coloursOf(key) {
  const colours = key.colours.map(c => c.colour);
  return key.turns && document.documentElement.dataset.mood === 'night' ? colours.reverse() : colours;
}

/**
 * The key of a layer: nested example sizes, then the classes with how many places are in each.
 * @param {Object} key as the server draws it
 * @param {{kind?: string, pick?: (c: number, add: boolean) => void, choose?: (i: number) => void}} does what a press
 *     does
 * @returns {HTMLElement[]}
 */
export function keyOf(key, does = {}) {
  const parts = [];
  if (key.sizesOffered?.length)
    parts.push(
      choice(phrase('What sizes stand for'), key.sizesOffered, key.sizeChosen, i => does.choose?.(i, '.size')),
    );
  if (key.sizeWords && key.circles.length) {
    parts.push(
      key.sizesOffered?.length ? '' : el('h3', {}, sentence(key.sizeWords)),
      does.kind === 'flows' ? widths(key.circles) : circles(key.circles),
    );
  }
  if (key.offered?.length) {
    parts.push(choice(phrase('What the colours stand for'), key.offered, key.chosen, i => does.choose?.(i, '')));
  }
  if (key.colourWords) {
    if (!key.offered?.length) parts.push(el('h3', { class: 'mt-1.5' }, sentence(key.colourWords)));
    const colours = coloursOf(key);
    if (key.ramp) parts.push(ramp(key, colours));
    else if (wearsShapes(key))
      key.colours.forEach(({ text, count }, i) => parts.push(shapeRow(key.shapes[i].shape, text, count, colours[i])));
    else
      key.colours.forEach(({ text, count }, i) =>
        parts.push(
          row({ background: colours[i] }, text, count, does.kind, does.pick && (e => does.pick(i, e.shiftKey))),
        ),
      );
    if (key.missing)
      parts.push(row(null, phrase('no data'), key.missing, does.kind, does.pick && (e => does.pick(-1, e.shiftKey))));
    if (key.unsure)
      parts.push(
        el(
          'div',
          { class: 'map-key-row' },
          el('i', { class: `${does.kind === 'areas' ? 'is-area' : ''} is-unsure` }),
          el('span', {}, key.unsureWords),
          el('span', {}, String(key.unsure)),
        ),
      );
    if (key.below.length)
      parts.push(beyondRow(key.below, phrase('below {0}', written(key.low, key.read)), false, does));
    if (key.above.length)
      parts.push(beyondRow(key.above, phrase('above {0}', written(key.high, key.read)), true, does));
  }
  if (!wearsShapes(key))
    for (const { shape, text, count } of key.shapes ?? []) parts.push(shapeRow(shape, text, count));
  return parts;
}

/** What lies beyond an end that was set, with the mark that it wears on the map. */
function beyondRow(marks, text, up, does) {
  const mark = marksBeyond(does.kind) ? drawing(path => arrow(path, 7, 7.5, 4, up)) : el('i', { class: 'is-nothing' });
  return pressable(
    [mark, el('span', {}, text), el('span', {}, full(marks.length))],
    phrase('Pick the places beyond this end'),
    does.pickMarks && (e => does.pickMarks(marks, e.shiftKey)),
  );
}

/** A line of the key, which can be pressed where a press does something. */
function pressable(content, title, press) {
  return press
    ? el('button', { type: 'button', class: 'map-key-row', title, onclick: press }, ...content)
    : el('div', { class: 'map-key-row' }, ...content);
}

/** A slot that is left open to the reader. */
function choice(label, offered, chosen, run) {
  return el(
    'select',
    { class: 'key-choice', 'aria-label': label, onchange: e => run(Number(e.target.value)) },
    ...offered.map((words, i) => el('option', { value: i, selected: i === chosen }, words)),
  );
}

const sentence = words => words.charAt(0).toUpperCase() + words.slice(1);

function row(style, text, count, kind, pick) {
  const content = [
    el('i', { class: `${kind === 'areas' ? 'is-area' : ''}${style ? '' : ' is-missing'}`, style: style ?? {} }),
    el('span', {}, text),
    el('span', {}, String(count)),
  ];
  return pressable(content, phrase('Pick the places of this class'), pick);
}

/** A ramp as one bar; its ends in words. */
function ramp(key, colours) {
  const wide = 150;
  const bars = colours.map((fill, i) =>
    el('rect', { x: (i * wide) / colours.length, y: 0, width: wide / colours.length + 0.5, height: 10, fill }),
  );
  return el(
    'div',
    { class: 'key-ramp' },
    el('svg', { width: wide, height: 10, 'aria-hidden': 'true' }, ...bars),
    el(
      'p',
      {},
      el('span', {}, key.low === null ? '' : written(key.low, key.read)),
      el('span', {}, key.high === null ? '' : written(key.high, key.read)),
    ),
  );
}

/** Whether colours and shapes stand for the same values: then one list says both. */
export const wearsShapes = key =>
  key.colourWords &&
  key.shapes?.length > 0 &&
  key.shapes.length === key.colours.length &&
  key.shapes.every((s, i) => s.text === key.colours[i].text);

function shapeRow(shape, text, count, colour) {
  return el(
    'div',
    { class: 'map-key-row' },
    drawing(path => outline(path, shape, 7, 7, 4.6), colour),
    el('span', {}, text),
    el('span', {}, String(count)),
  );
}

/** A filled outline in a square of 14 pixels. */
function drawing(follow, colour = getComputedStyle(document.documentElement).getPropertyValue('--ink')) {
  const mark = el('canvas', { width: 28, height: 28, class: 'key-shape', 'aria-hidden': 'true' });
  const context = mark.getContext('2d');
  context.scale(2, 2);
  context.fillStyle = colour;
  context.beginPath();
  follow(context);
  context.fill();
  return mark;
}

function circles(list) {
  const largest = list[0].radius;
  const width = 2 * largest + 2;
  const height = Math.max(2 * largest + 2, list.length * 13);
  const marks = [];
  let last = -4;
  list.forEach(({ radius, text }, i) => {
    const top = height - 1 - 2 * radius;
    // No lower than leaves room for those that follow, no higher than the one above it leaves.
    const label = Math.max(last + 13, Math.min(top + 4, height - 1 - 13 * (list.length - 1 - i)));
    last = label;
    marks.push(
      el('circle', {
        cx: largest + 1,
        cy: height - 1 - radius,
        r: radius,
        fill: 'none',
        stroke: 'currentColor',
        'stroke-width': 0.9,
      }),
      el('line', {
        x1: largest + 1,
        y1: top,
        x2: width + 6,
        y2: label - 4,
        stroke: 'currentColor',
        'stroke-width': 0.5,
      }),
      el('text', { x: width + 9, y: label, fill: 'currentColor', 'font-size': 11.5 }, text),
    );
  });
  return el('svg', { width: width + 60, height, 'aria-hidden': 'true' }, ...marks);
}

/** Example widths of flows, one below the other. */
function widths(list) {
  const height = list.length * 17;
  return el(
    'svg',
    { width: 120, height, 'aria-hidden': 'true' },
    ...list.flatMap(({ radius, text }, i) => [
      el('line', { x1: 2, x2: 46, y1: i * 17 + 9, y2: i * 17 + 9, stroke: 'currentColor', 'stroke-width': radius }),
      el('text', { x: 54, y: i * 17 + 13, fill: 'currentColor', 'font-size': 11.5 }, text),
    ]),
  );
}
