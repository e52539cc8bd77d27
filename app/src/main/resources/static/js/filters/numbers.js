import { el } from '../elements.js';
import { spreadOf, stepOf } from './spread.js';
import { phrase } from '../language.js';

const END = { from: phrase('end|from'), to: phrase('end|to') };

/** A filter that keeps a range of numbers: two handles over the spread of the values, or typed. */
export function control(sheet, id, offer) {
  const scale = stepOf(offer);
  const shade = spreadOf(offer);
  const ends = (sheet.turnedTo(id)[0] ?? '..').split('..');
  const keep = (passing = false) => {
    if (ends[0] !== '' && ends[1] !== '' && Number(ends[0]) > Number(ends[1])) ends.reverse();
    sheet.filter(id, ends[0] === '' && ends[1] === '' ? [] : [ends.join('..')], passing);
  };
  const show = () => {
    const [from, to] = ends.map(end => (end === '' ? null : Number(end)));
    if (from !== null && to !== null && from > to) shade.keep(to, from);
    else shade.keep(from, to);
  };
  const open = end => (end ? offer.to : offer.from);
  const typed = (end, words) =>
    el('input', {
      type: 'number',
      class: 'filter-number',
      step: 'any',
      value: ends[end],
      placeholder: String(Number(Number(open(end)).toPrecision(4))),
      'aria-label': `${offer.words} ${END[words]}`,
      'data-filter-part': `${id}-${words}`,
      onchange: e => {
        ends[end] = e.target.value;
        keep();
      },
    });
  const boxes = [typed(0, 'from'), typed(1, 'to')];
  const handle = (end, words) =>
    el('input', {
      type: 'range',
      class: 'spread-handle',
      min: 0,
      max: scale.steps,
      step: 1,
      value: ends[end] === '' ? end * scale.steps : scale.place(Number(ends[end])),
      'aria-label': phrase('{0}, handle', `${offer.words} ${END[words]}`),
      'aria-valuetext': ends[end] || open(end),
      'data-filter-part': `${id}-${words}-handle`,
      oninput: e => {
        const step = Number(e.target.value);
        // At its own end of the spread a handle leaves the range open.
        ends[end] = step === end * scale.steps ? '' : String(scale.value(step));
        boxes[end].value = ends[end];
        e.target.setAttribute('aria-valuetext', ends[end] || open(end));
        show();
        keep(true);
      },
      onchange: () => keep(),
      // A handle that is let go where it was taken up has not changed, but has been turned.
      onpointerup: () => sheet.turning === id && keep(),
    });
  show();
  return el(
    'span',
    { class: 'spread-filter' },
    boxes[0],
    el('span', { class: 'spread' }, shade.drawing, handle(0, 'from'), handle(1, 'to')),
    boxes[1],
  );
}
