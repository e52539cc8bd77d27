import { arc } from '/vendor/d3.js';
import { el } from '../elements.js';
import { Tip, lightMarks, notesOf, pressable, shortened, whenSized, within } from './chart.js';
import { sizeOf } from '../sizes.js';
import { phrase } from '../language.js';

/** Width of a line of the list beside the ring, pixels. */
const LINE = 22;

/** A ring: parts of a whole, the whole in its middle, the parts by name and share beside it. */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.place = el('div', { class: 'ring-visual' });
  handle.notes = el('div', {});
  body.append(handle.place, handle.notes);
  handle.tip = new Tip(body);
  handle.sized = whenSized(body, () => handle.drawing && draw(handle, handle.drawing));
  return handle;
}

export function draw(handle, drawing) {
  handle.drawing = drawing;
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.key : null;
  handle.notes.replaceChildren(notesOf(drawing.notes));
  const width = sizeOf(handle.place).width;
  const height = Math.max(90, sizeOf(handle.place).height);
  const beside = width > 300;
  const size = Math.min(beside ? width * 0.5 : width, beside ? height : height - LINE * drawing.parts.length - 8, 320);
  const radius = Math.max(30, size / 2 - 4);
  let from = 0;
  const shape = arc()
    .innerRadius(radius * 0.62)
    .outerRadius(radius);
  const wedges = drawing.parts.map(part => {
    const start = from;
    from += part.share * 2 * Math.PI;
    return mark(
      handle,
      part,
      el('path', { class: 'wedge', d: shape({ startAngle: start, endAngle: from }), style: { fill: part.colour } }),
    );
  });
  const ring = el(
    'svg',
    {
      class: 'ring-picture',
      width: 2 * radius + 8,
      height: 2 * radius + 8,
      viewBox: `${-radius - 4} ${-radius - 4} ${2 * radius + 8} ${2 * radius + 8}`,
      role: 'group',
      'aria-label': phrase('{0}: {1} in all', handle.title, drawing.wholeFull),
    },
    ...wedges,
    // The whole fits the hole: so many letters over a chord of the ring.
    el(
      'text',
      {
        class: 'ring-whole',
        y: radius < 60 ? 5 : 2,
        'text-anchor': 'middle',
        style: { fontSize: `${Math.min(24, (radius * 1.9) / Math.max(3, drawing.whole.length))}px` },
      },
      drawing.whole,
    ),
    radius < 60
      ? ''
      : el('text', { class: 'ring-words', y: 19, 'text-anchor': 'middle' }, shortened(drawing.words, radius * 1.1)),
    el('title', {}, `${drawing.wholeFull} (${drawing.words})`),
  );
  const list = el(
    'ul',
    { class: 'ring-list' },
    ...drawing.parts.map(part =>
      el(
        'li',
        {},
        el('i', { class: 'dab', style: { background: part.colour } }),
        el('span', { class: 'ring-name' }, part.label),
        el('b', {}, part.percent),
        el('span', { class: 'ring-amount' }, part.text),
      ),
    ),
  );
  handle.place.classList.toggle('is-beside', beside);
  handle.place.replaceChildren(ring, list);
  if (focused !== null)
    marks(handle)
      .find(m => m.dataset.key === focused)
      ?.focus();
  light(handle, handle.picks);
}

const marks = handle => [...handle.place.querySelectorAll('.wedge')];

function mark(handle, part, path) {
  path.dataset.key = part.key ?? '';
  path.setAttribute('tabindex', 0);
  path.setAttribute('role', 'button');
  path.setAttribute('aria-label', `${part.label}: ${part.full}, ${part.percent}`);
  path.addEventListener('pointermove', e =>
    handle.tip.show(within(handle.body, e), part.label, [
      ['', part.full],
      [phrase('of the whole'), part.percent],
    ]),
  );
  path.addEventListener('pointerleave', () => handle.tip.hide());
  return pressable(path, add => part.key !== null && handle.emit({ type: 'pick', values: [part.key], add }));
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  lightMarks(marks(handle), handle.picks);
}

export function unmount(handle) {
  handle.sized.stop();
}

export function figures(drawing) {
  return {
    head: [phrase('part'), drawing.words, phrase('share')],
    rows: drawing.parts.map(p => ({ key: p.key, cells: [p.label, p.full, p.percent] })),
  };
}

export function mini(drawing) {
  let from = 0;
  const shape = arc().innerRadius(30).outerRadius(50);
  return el(
    'svg',
    { viewBox: '-103 -56 206 112' },
    ...drawing.parts.map(part => {
      const start = from;
      from += part.share * 2 * Math.PI;
      return el('path', { d: shape({ startAngle: start, endAngle: from }), fill: part.colour });
    }),
  );
}
