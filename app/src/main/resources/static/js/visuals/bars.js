import { el } from '../elements.js';
import {
  colourKey,
  lightMarks,
  notesOf,
  pinned,
  pressable,
  referencesOf,
  shortened,
  spaced,
  Tip,
  whenSized,
  wide,
  within,
} from './chart.js';
import { sizeOf } from '../sizes.js';
import { phrase } from '../language.js';

const ROW = 25;
const BAR = 15;
/** Room for the names below upright bars, pixels. */
const BELOW = 34;
/** Height of a row's gap between the most and the least. */
const GAP = 12;

/** Bars, level or upright: name, bar, amount. Each is an element that takes focus. Press to pick, Shift adds. */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.key = el('div', {});
  handle.list = el('div', { class: 'bars' });
  handle.notes = el('div', {});
  body.append(handle.key, handle.list, handle.notes);
  handle.tip = new Tip(body);
  handle.sized = whenSized(body, () => handle.drawing && draw(handle, handle.drawing));
  return handle;
}

export function draw(handle, drawing) {
  handle.drawing = drawing;
  const focused = handle.list.contains(document.activeElement) ? document.activeElement.dataset.key : null;
  handle.key.replaceChildren(colourKey(drawing.colours));
  pictures++;
  const picture = drawing.upright ? upright(handle, drawing) : level(handle, drawing);
  handle.list.replaceChildren(
    picture,
    drawing.others
      ? el(
          'p',
          { class: 'bars-others' },
          phrase('and {0} more; a rank in the brief keeps the largest or smallest', drawing.others),
        )
      : '',
  );
  handle.notes.replaceChildren(notesOf(drawing.notes));
  if (focused !== null)
    marks(handle)
      .find(b => b.dataset.key === focused)
      ?.focus();
  light(handle, handle.picks);
}

/** Tells the pictures of a page apart, whose patterns have names. */
let pictures = 0;

/** What is told of how sure a rate is. */
const sureLines = ({ sure }) =>
  sure
    ? [
        [phrase('may well lie (95 %)'), sure.text],
        ...(sure.unsure ? [[phrase('unsure'), phrase('of too few to be sure')]] : []),
      ]
    : [];

const unsurePattern = () =>
  el(
    'defs',
    {},
    el(
      'pattern',
      {
        id: `unsure-${pictures}`,
        width: 5,
        height: 5,
        patternUnits: 'userSpaceOnUse',
        patternTransform: 'rotate(-45)',
      },
      el('line', { x1: 0, y1: 0, x2: 0, y2: 5, class: 'unsure-line' }),
    ),
  );

const marks = handle => [...handle.list.querySelectorAll('.bar')];

function mark(handle, bar, track, label, pieces, amount) {
  const more = bar.parts ? `. ${bar.parts.map(p => `${p.label} ${p.text}`).join(', ')}` : '';
  // Its name is what stands in it; only where nothing does, it is said.
  const words = `${handle.drawing.words} ${bar.full}${more}${sureLines(bar)
    .map(line => `. ${line.join(' ')}`)
    .join('')}`;
  const said = label.length ? { 'aria-description': words } : { 'aria-label': `${bar.label}: ${words}` };
  const made = el(
    'g',
    {
      class: `bar${bar.key === null ? ' is-nothing' : ''}`,
      tabindex: 0,
      role: 'button',
      'data-key': bar.key ?? '',
      ...said,
    },
    track,
    ...label,
    ...pieces,
    amount,
  );
  made.addEventListener('pointermove', e =>
    handle.tip.show(
      within(handle.body, e),
      bar.label,
      bar.parts
        ? bar.parts.map(p => [p.label, p.text, p.colour])
        : [[handle.drawing.words, bar.full], ...sureLines(bar)],
    ),
  );
  made.addEventListener('pointerleave', () => handle.tip.hide());
  return pressable(made, add => bar.key !== null && handle.emit({ type: 'pick', values: [bar.key], add }));
}

/** Where a rate may well lie; what goes on beyond the scale ends in dashes. */
function sureLine({ low, high }, place) {
  const line = (from, to, what) => el('rect', { class: what, ...place(from, to, 0.45, 0.1) });
  if (high <= 1) return [line(low, high, 'sure')];
  return [line(Math.min(low, 0.95), 0.95, 'sure'), line(0.962, 0.974, 'sure-beyond'), line(0.986, 1, 'sure-beyond')];
}

/** Where each bar stands: parts beside each other share its width. */
function pieces(bar, grouped, place) {
  if (!bar.parts)
    return [
      el('rect', { class: 'fill', ...place(bar.start, bar.end, 0, 1) }),
      ...(bar.sure?.unsure
        ? [el('rect', { fill: `url(#unsure-${pictures})`, class: 'unsure', ...place(bar.start, bar.end, 0, 1) })]
        : []),
      ...(bar.sure ? sureLine(bar.sure, place) : []),
    ];
  const count = grouped ? bar.parts.length : 1;
  return bar.parts.map((part, i) =>
    el('rect', {
      class: 'part',
      style: { fill: part.colour },
      ...place(part.start, part.end, grouped ? i / count : 0, 1 / count),
    }),
  );
}

function level(handle, drawing) {
  const width = sizeOf(handle.list).width - 2;
  const grouped = drawing.layout === 'grouped';
  const high = grouped ? Math.max(ROW, 9 * Math.max(1, ...drawing.bars.map(b => b.parts?.length ?? 1)) + 8) : ROW;
  const names = Math.min(width * 0.36, 12 + 7.2 * Math.max(4, ...drawing.bars.map(b => Math.min(26, b.label.length))));
  const amounts = 14 + 7.4 * Math.max(2, ...drawing.bars.map(b => b.text.length));
  const room = Math.max(20, width - names - amounts);
  let y = drawing.references.length ? 14 : 0;
  const top = y;
  const pins = [];
  const rows = drawing.bars.map(bar => {
    if (bar.after) y += GAP;
    const at = y;
    y += high;
    pins.push(...pinsOf(drawing, bar, names + room * bar.end, at + high / 2));
    const thick = grouped ? high - 8 : BAR;
    const place = (start, end, from, share) => ({
      x: names + room * start,
      y: at + (high - thick) / 2 + thick * from,
      width: Math.max(1, room * (end - start)),
      height: Math.max(1, thick * share - (grouped ? 1 : 0)),
    });
    return mark(
      handle,
      bar,
      el('rect', { class: 'track', x: 1, y: at + 1, width: width - 2, height: high - 2 }),
      [el('text', { x: 2, y: at + high / 2 + 4.5 }, shortened(bar.label, names - 8))],
      pieces(bar, grouped, place),
      el('text', { class: 'amount', x: width - 3, y: at + high / 2 + 4.5 }, bar.text),
    );
  });
  const zero = zeroOf(drawing);
  return el(
    'svg',
    { height: Math.max(1, y), role: 'group', 'aria-label': handle.title },
    unsurePattern(),
    ...rows,
    zero !== null && el('line', { class: 'zero', x1: names + room * zero, x2: names + room * zero, y1: top, y2: y }),
    ...referencesOf(
      drawing.references,
      value => names + room * value,
      [top - 2, y],
      false,
      (text, at) => [Math.min(width - wide(text), Math.max(2, at - wide(text) / 2)), 10],
    ),
    ...pinned(pins, { left: 0, right: width - amounts, top: 0, bottom: Math.max(y, 60) }),
  );
}

/** The notes that are pinned to a bar. */
const pinsOf = (drawing, bar, x, y) => drawing.pinned.filter(n => n.at === bar.key).map(({ text }) => ({ x, y, text }));

/** Where zero lies, if bars run to both sides of it. */
function zeroOf(drawing) {
  const { low, high } = drawing.axis;
  return low < 0 && high > 0 ? -low / (high - low) : null;
}

function upright(handle, drawing) {
  const width = sizeOf(handle.list).width - 2;
  const left = 10 + 7.2 * Math.max(2, ...drawing.axis.ticks.map(t => t.text.length));
  const height = Math.max(90, sizeOf(handle.list).height - (drawing.others ? 26 : 4));
  const room = height - BELOW - 12;
  const step = Math.max(6, (width - left) / Math.max(1, drawing.bars.length));
  const thick = Math.min(56, step * 0.76);
  const y = at => 12 + room * (1 - at);
  // As many names as there is room for, each whole if it is not long.
  const longest = Math.min(110, Math.max(...drawing.bars.map(b => wide(b.label)), 1) + 10);
  const every = Math.ceil(longest / step);
  const rows = drawing.bars.map((bar, i) => {
    const x = left + step * i + (step - thick) / 2;
    const place = (start, end, from, share) => ({
      x: x + thick * from,
      y: y(end),
      width: Math.max(1, thick * share - (share < 1 ? 1 : 0)),
      height: Math.max(1, room * (end - start)),
    });
    return mark(
      handle,
      bar,
      el('rect', { class: 'track', x: left + step * i, y: 2, width: step, height: height - 4 }),
      i % every
        ? []
        : [
            el(
              'text',
              { x: x + thick / 2, y: height - BELOW + 16, 'text-anchor': 'middle' },
              shortened(bar.label, step * every - 4),
            ),
          ],
      pieces(bar, drawing.layout === 'grouped', place),
      '',
    );
  });
  return el(
    'svg',
    { height, role: 'group', 'aria-label': handle.title },
    unsurePattern(),
    ...spaced(drawing.axis.ticks, room).flatMap(({ at, text }) => [
      el('line', { class: 'axis-line', x1: left, x2: width, y1: y(at), y2: y(at) }),
      el('text', { class: 'axis-words', x: left - 6, y: y(at) + 4, 'text-anchor': 'end' }, text),
    ]),
    ...rows,
    ...referencesOf(drawing.references, y, [left, width], true, (text, at) => [width - wide(text), at - 4]),
    ...pinned(
      drawing.bars.flatMap((bar, i) => pinsOf(drawing, bar, left + step * (i + 0.5), y(bar.end))),
      { left, right: width, top: 0, bottom: height - BELOW },
    ),
  );
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  lightMarks(marks(handle), handle.picks);
}

export function unmount(handle) {
  handle.sized.stop();
}

export function figures(drawing) {
  const parts = [...new Set(drawing.bars.flatMap(b => b.parts?.map(p => p.label) ?? []))];
  return {
    head: [phrase('value'), drawing.words, ...parts],
    rows: drawing.bars.map(b => ({
      key: b.key,
      cells: [b.label, b.full, ...parts.map(p => b.parts?.find(q => q.label === p)?.text ?? '–')],
    })),
  };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.bars.slice(0, 6).flatMap((bar, i) => [
      el('text', { x: 0, y: 14 + i * 18, 'font-size': 11, fill: 'currentColor' }, shortened(bar.label, 80)),
      el('rect', {
        x: 84 + 116 * bar.start,
        y: 4 + i * 18,
        width: Math.max(1, 116 * (bar.end - bar.start)),
        height: 11,
        fill: 'var(--bar)',
      }),
    ]),
  );
}
