import { el, refuse } from './elements.js';
import { coloursOf } from './map/key.js';
import { written as asRead } from './numbers.js';
import { closePopup, openPopup } from './popup.js';

const WIDE = 420;
const HIGH = 96;
const STEP = 200;

/** A number with few figures, near enough to where the hand has put it. */
function rounded(value, span) {
  const power = 10 ** Math.floor(Math.log10(span / STEP));
  return Number((Math.round(value / power) * power).toPrecision(12));
}

/**
 * Opens the scale of a layer: how its values are spread, with the breaks over them, which can be dragged or written,
 * and the ends.
 * @param {Object} key the layer's key as it is drawn
 * @param {Object} colour the colour as the document has it
 * @param {(colour: Object) => void} take gets the colour with own breaks and ends
 */
export function openScale(opener, key, colour, take) {
  const { low, high } = key;
  const span = high - low || 1;
  let breaks = [...key.breaks];
  const written = () => breaks.map(b => Number(b.toPrecision(6))).join(' ');
  const x = value => ((value - low) / span) * WIDE;
  const most = Math.max(1, ...key.spread);
  const colours = coloursOf(key);
  const drawing = el('svg', {
    class: 'scale-drawing',
    width: WIDE,
    height: HIGH + 26,
    viewBox: `0 0 ${WIDE} ${HIGH + 26}`,
  });
  const words = el('input', { class: 'entry', 'aria-label': 'Breaks', value: written() });
  const [from, to] = [
    ['low', 'Low end'],
    ['high', 'High end'],
  ].map(([name, label]) =>
    el('input', {
      class: 'entry',
      'aria-label': label,
      placeholder: asRead(key[name], key.read),
      value: colour[name] ?? '',
      inputmode: 'decimal',
    }),
  );
  const problem = el('div', {});

  function draw() {
    const bars = key.spread.map((count, i) => {
      const w = WIDE / key.spread.length;
      const middle = low + ((i + 0.5) * span) / key.spread.length;
      const c = breaks.filter(b => middle > b).length;
      return el(
        'rect',
        {
          x: i * w,
          width: w - 1,
          y: HIGH - (count / most) * (HIGH - 8),
          height: (count / most) * (HIGH - 8),
          fill: colours[Math.min(c, colours.length - 1)] ?? 'currentColor',
        },
        el('title', {}, `${count}`),
      );
    });
    const grips = breaks.map((b, i) => {
      const grip = el(
        'g',
        {
          class: 'scale-break',
          tabindex: 0,
          role: 'slider',
          'aria-label': `Break ${i + 1}`,
          'aria-valuenow': b,
          'aria-valuemin': low,
          'aria-valuemax': high,
        },
        el('line', { x1: x(b), x2: x(b), y1: 0, y2: HIGH + 4 }),
        el('rect', { x: x(b) - 12, y: 0, width: 24, height: HIGH + 8, fill: 'transparent' }),
        el(
          'text',
          { x: Math.max(14, Math.min(WIDE - 14, x(b))), y: HIGH + 18, 'text-anchor': 'middle' },
          asRead(b, key.read),
        ),
      );
      grip.addEventListener('pointerdown', e => drag(e, i));
      grip.addEventListener('keydown', e => {
        const step = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
        if (!step) return;
        e.preventDefault();
        e.stopPropagation();
        move(i, breaks[i] + (step * span) / STEP);
        drawing.querySelectorAll('.scale-break')[i].focus();
      });
      return grip;
    });
    drawing.replaceChildren(
      ...bars,
      el('line', { x1: 0, x2: WIDE, y1: HIGH, y2: HIGH, stroke: 'currentColor' }),
      ...grips,
    );
  }

  function move(i, value) {
    const near = span / STEP;
    const between = Math.max((breaks[i - 1] ?? low) + near, Math.min((breaks[i + 1] ?? high) - near, value));
    breaks[i] = rounded(between, span);
    words.value = written();
    draw();
  }

  function drag(e, i) {
    e.preventDefault();
    const box = drawing.getBoundingClientRect();
    const follow = at => move(i, low + ((at.clientX - box.left) / box.width) * span);
    const stop = () => {
      removeEventListener('pointermove', follow);
      removeEventListener('pointerup', stop);
    };
    addEventListener('pointermove', follow);
    addEventListener('pointerup', stop);
  }

  words.addEventListener('change', () => {
    const found = words.value
      .trim()
      .split(/[\s;]+/)
      .filter(Boolean)
      .map(Number);
    if (found.some(b => !Number.isFinite(b)) || found.some((b, i) => i && b <= found[i - 1]))
      refuse(problem, 'Write ascending numbers with blanks between, such as 10 25 50.');
    else {
      refuse(problem, '');
      breaks = found;
      draw();
    }
  });
  const end = input => (input.value.trim() === '' ? null : Number(input.value));
  const keep = () => {
    if ([from, to].some(i => i.value.trim() !== '' && !Number.isFinite(Number(i.value))))
      refuse(problem, 'The ends have to be numbers.');
    else if (breaks.length > 10) refuse(problem, 'There can be eleven classes, so ten breaks at most.');
    else take({ ...colour, breaks: breaks.length && !colour.ramp ? breaks : null, low: end(from), high: end(to) });
  };
  draw();
  openPopup(
    opener,
    [
      drawing,
      el('p', { class: 'popup-words' }, 'Breaks, to be dragged or written'),
      words,
      el('div', { class: 'scale-ends' }, el('label', {}, 'from', from), el('label', {}, 'to', to)),
      problem,
      el('button', { type: 'button', class: 'popup-option text-loch', onclick: keep }, 'Keep these breaks and ends'),
      (colour.breaks || colour.low !== undefined || colour.high !== undefined) &&
        el(
          'button',
          {
            type: 'button',
            class: 'popup-option',
            onclick: () => {
              closePopup(true);
              take({ ...colour, breaks: null, low: null, high: null });
            },
          },
          'Find them from the values again',
        ),
    ].filter(Boolean),
  );
}
