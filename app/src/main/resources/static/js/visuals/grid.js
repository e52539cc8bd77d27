import { el } from '../elements.js';
import { coloursOf } from '../map/key.js';
import { Tip, colourKey, lightMarks, notesOf, pressable, shortened, whenSized, wide, within } from './chart.js';
import { sizeOf } from '../sizes.js';

const NAMES_BELOW = 20;
const LEAST_HIGH = 18;

/** A grid: two things crossed, each cell in the colour of its class. A press on a row picks it, Shift adds. */
/** Its colours stand for something. */
export const scaled = true;

export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.place = el('div', { class: 'grid-cells' });
  handle.key = el('div', {});
  handle.notes = el('div', {});
  body.append(handle.key, handle.place, handle.notes);
  handle.tip = new Tip(body);
  handle.sized = whenSized(body, () => handle.drawing && draw(handle, handle.drawing));
  handle.mood = () => handle.drawing && draw(handle, handle.drawing);
  document.addEventListener('mood', handle.mood);
  return handle;
}

export function draw(handle, drawing) {
  handle.drawing = drawing;
  const { across, down, classes, texts } = drawing;
  const focused = handle.place.contains(document.activeElement) ? document.activeElement.dataset.key : null;
  const shades = coloursOf(drawing.key);
  handle.key.replaceChildren(
    colourKey(
      drawing.key.colours.map(({ text }, i) => ({ colour: shades[i], text })),
      drawing.key.colourWords,
    ),
  );
  handle.notes.replaceChildren(notesOf(drawing.notes));
  const width = sizeOf(handle.place).width;
  const names = Math.min(width * 0.3, 10 + Math.max(20, ...down.map(d => wide(d.label))));
  const cell = (width - names - 2) / Math.max(1, across.length);
  const high = Math.max(LEAST_HIGH, (sizeOf(handle.place).height - NAMES_BELOW) / Math.max(1, down.length));
  const colours = shades;
  const every = Math.max(1, Math.ceil((Math.max(10, ...across.map(a => wide(a.label))) + 8) / cell));
  const rows = down.map((row, r) => {
    const y = r * high;
    const cells = across.map((column, c) => {
      const i = r * across.length + c;
      const made = el('rect', {
        class: classes[i] < 0 ? 'cell is-missing' : 'cell',
        x: names + c * cell,
        y: y + 0.5,
        width: Math.max(1, cell - 1),
        height: high - 1,
        style: classes[i] < 0 ? {} : { fill: colours[classes[i]] },
      });
      made.addEventListener('pointermove', e =>
        handle.tip.show(within(handle.body, e), `${row.label}, ${column.label}`, [[drawing.words, texts[i]]]),
      );
      return made;
    });
    const said = across.map((column, c) => `${column.label} ${texts[r * across.length + c]}`).join(', ');
    const made = el(
      'g',
      { class: 'grid-row', tabindex: 0, role: 'button', 'data-key': row.key, 'aria-label': `${row.label}: ${said}` },
      el('rect', { class: 'track', x: 0.5, y: y + 0.5, width: width - 2, height: high - 1 }),
      el('text', { x: 2, y: y + high / 2 + 4.5 }, shortened(row.label, names - 8)),
      ...cells,
    );
    return pressable(made, add => handle.emit({ type: 'pick', values: [row.key], add }));
  });
  handle.place.replaceChildren(
    el(
      'svg',
      { width, height: down.length * high + NAMES_BELOW, role: 'group', 'aria-label': handle.title },
      ...rows,
      ...across.map((column, c) =>
        c % every
          ? ''
          : el(
              'text',
              {
                class: 'axis-words',
                x: Math.min(width - wide(column.label) / 2, names + (c + 0.5) * cell),
                y: down.length * high + 15,
                'text-anchor': 'middle',
              },
              column.label,
            ),
      ),
    ),
  );
  handle.place.firstChild.addEventListener('pointerleave', () => handle.tip.hide());
  if (focused !== null)
    marks(handle)
      .find(m => m.dataset.key === focused)
      ?.focus();
  light(handle, handle.picks);
}

const marks = handle => [...handle.place.querySelectorAll('.grid-row')];

export function light(handle, picks) {
  handle.picks = new Set(picks);
  lightMarks(marks(handle), handle.picks);
}

export function unmount(handle) {
  handle.sized.stop();
  document.removeEventListener('mood', handle.mood);
}

export function figures(drawing) {
  const { across, down, texts } = drawing;
  return {
    head: ['', ...across.map(a => a.label)],
    rows: down.map((row, r) => ({
      key: row.key,
      cells: [row.label, ...texts.slice(r * across.length, (r + 1) * across.length)],
    })),
  };
}

export function mini(drawing) {
  const { across, down, classes } = drawing;
  const colours = coloursOf(drawing.key);
  const [w, h] = [206 / Math.max(1, across.length), 112 / Math.max(1, down.length)];
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...classes.map((c, i) =>
      c < 0
        ? ''
        : el('rect', {
            x: (i % across.length) * w,
            y: Math.floor(i / across.length) * h,
            width: Math.max(0.5, w - 0.6),
            height: Math.max(0.5, h - 0.6),
            fill: colours[c],
          }),
    ),
  );
}
