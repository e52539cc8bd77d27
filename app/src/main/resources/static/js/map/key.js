import { el } from '../elements.js';

/**
 * The colours of a key's classes, lowest first. On the dark ground of the night the bright end stands out, so there the
 * highest class takes it.
 */
export function coloursOf(key) {
  const colours = key.colours.map(c => c.colour);
  return document.documentElement.dataset.mood === 'night' ? colours.reverse() : colours;
}

/**
 * The key of a layer: nested example circles, then the classes with how many places are in each.
 * @param {Object} key as the server draws it
 * @returns {HTMLElement[]}
 */
export function keyOf(key) {
  const parts = [];
  if (key.sizeWords && key.circles.length) {
    parts.push(el('h3', {}, sentence(key.sizeWords)), circles(key.circles));
  }
  if (key.colourWords) {
    parts.push(el('h3', { class: 'mt-1.5' }, sentence(key.colourWords)));
    const colours = coloursOf(key);
    key.colours.forEach(({ text, count }, i) => parts.push(row({ background: colours[i] }, text, count)));
    if (key.missing) parts.push(row({ background: 'none' }, 'no data', key.missing));
  }
  return parts;
}

const sentence = words => words.charAt(0).toUpperCase() + words.slice(1);

function row(style, text, count) {
  return el('div', { class: 'map-key-row' }, el('i', { style }), el('span', {}, text), el('span', {}, String(count)));
}

function circles(list) {
  const largest = list[0].radius;
  const width = 2 * largest + 2;
  const height = Math.max(2 * largest + 2, list.length * 13);
  const marks = [];
  let last = Infinity;
  for (const { radius, text } of list) {
    const top = height - 1 - 2 * radius;
    const label = Math.max(9, Math.min(height - 1, last === Infinity ? top + 4 : Math.max(top + 4, last + 13)));
    last = label;
    marks.push(
      el('circle', { cx: largest + 1, cy: height - 1 - radius, r: radius, fill: 'none', stroke: 'currentColor', 'stroke-width': 0.9 }),
      el('line', { x1: largest + 1, y1: top, x2: width + 6, y2: label - 4, stroke: 'currentColor', 'stroke-width': 0.5 }),
      el('text', { x: width + 9, y: label, fill: 'currentColor', 'font-size': 11.5 }, text));
  }
  return el('svg', { width: width + 60, height, 'aria-hidden': 'true' }, ...marks);
}
