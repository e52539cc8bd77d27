import { el } from '../elements.js';
import { notesOf } from './chart.js';
import { phrase } from '../language.js';

/** Words on the sheet. They arrive as parts, never as markup, so nothing in them can be run. */
export function mount(body) {
  const handle = { place: el('div', { class: 'sheet-words', tabindex: 0 }), notes: el('div', {}) };
  body.append(handle.place, handle.notes);
  return handle;
}

const TAGS = {
  paragraph: 'p',
  list: 'ul',
  numbers: 'ol',
  item: 'li',
  quote: 'blockquote',
  strong: 'strong',
  emphasis: 'em',
  code: 'code',
  rule: 'hr',
  line: 'br',
};

function made(node) {
  if (node.kind === 'text') return node.text;
  if (node.kind === 'figure') return el('b', { class: 'live-figure' }, node.text);
  if (node.kind === 'heading') return el(`h${node.level + 2}`, {}, ...node.parts.map(made));
  if (node.kind === 'link') return el('a', { href: node.href, rel: 'noopener noreferrer' }, ...node.parts.map(made));
  return el(TAGS[node.kind] ?? 'p', {}, ...(node.text ? [node.text] : []), ...node.parts.map(made));
}

export function draw(handle, drawing) {
  handle.place.replaceChildren(...drawing.blocks.map(made));
  handle.notes.replaceChildren(notesOf(drawing.notes));
}

export function light() {
  // Nothing can be picked on words.
}

export function unmount() {
  // They hold nothing.
}

const textOf = node => node.text ?? node.parts.map(textOf).join('');

export function figures(drawing) {
  return { head: [phrase('words')], rows: drawing.blocks.map(b => ({ key: null, cells: [textOf(b)] })) };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.blocks
      .slice(0, 4)
      .map((b, i) =>
        el(
          'text',
          { x: 0, y: 22 + i * 24, 'font-size': b.kind === 'heading' ? 18 : 13, fill: 'currentColor' },
          textOf(b).slice(0, 30),
        ),
      ),
  );
}
