/** Builds elements: `el('button', {class: 'do', onclick}, 'Keep', child)`. Text is always text, never markup. */
const SVG = 'http://www.w3.org/2000/svg';
const SVG_TAGS = new Set([
  'svg',
  'defs',
  'pattern',
  'g',
  'rect',
  'circle',
  'line',
  'path',
  'polyline',
  'polygon',
  'text',
  'title',
]);

export function el(tag, attributes = {}, ...children) {
  const made = SVG_TAGS.has(tag) ? document.createElementNS(SVG, tag) : document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) {
    if (value === null || value === undefined || value === false) continue;
    if (name.startsWith('on')) made.addEventListener(name.slice(2), value);
    else if (name === 'style') Object.assign(made.style, value);
    else made.setAttribute(name, value === true ? '' : value);
  }
  for (const child of children.flat()) {
    if (child !== null && child !== undefined && child !== '' && child !== false) made.append(child);
  }
  return made;
}

/** Says a sentence at the foot of the page for a while, with one thing to do about it. */
export function say(sentence, action = null, seconds = 7) {
  document.querySelector('.said')?.remove();
  const box = el(
    'div',
    { class: 'said', role: 'status' },
    el('span', {}, sentence),
    action &&
      el(
        'button',
        {
          type: 'button',
          onclick: () => {
            box.remove();
            action.run();
          },
        },
        action.words,
      ),
  );
  document.body.append(box);
  setTimeout(() => box.remove(), seconds * 1000);
}

/** A sentence about something that went wrong, in a place of its own; empty takes it away. */
export function refuse(place, sentence) {
  place.replaceChildren(...(sentence ? [el('p', { class: 'sentence-bad' }, sentence)] : []));
}
