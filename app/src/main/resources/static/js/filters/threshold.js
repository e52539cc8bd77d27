import { el } from '../elements.js';
import { spreadOf, stepOf } from './spread.js';
import { phrase } from '../language.js';

/** A bound that is moved, under or over which rows fall away. */
export function control(sheet, id, offer) {
  const { most } = offer.said;
  const scale = stepOf(offer);
  const open = most ? scale.high : scale.low;
  const [set] = sheet.turnedTo(id);
  const at = set === undefined ? open : Number(set);
  const shade = spreadOf(offer);
  const show = value => (most ? shade.keep(null, value) : shade.keep(value, null));
  const keep = (value, passing) => {
    show(value);
    sheet.filter(id, value === open ? [] : [String(value)], passing);
  };
  const typed = el('input', {
    type: 'number',
    class: 'filter-number',
    step: 'any',
    value: set ?? '',
    placeholder: String(Number(open.toPrecision(3))),
    'aria-label': phrase('{0}, bound', offer.words),
    'data-filter-part': `${id}-bound`,
    onchange: () => keep(typed.value === '' ? open : Number(typed.value), false),
  });
  const handle = el('input', {
    type: 'range',
    class: 'spread-handle',
    min: 0,
    max: scale.steps,
    step: 1,
    value: scale.place(at),
    'aria-label': phrase('{0}, handle', offer.words),
    'aria-valuetext': String(at),
    'data-filter-part': `${id}-handle`,
    oninput: () => {
      const value = scale.value(Number(handle.value));
      typed.value = value === open ? '' : value;
      handle.setAttribute('aria-valuetext', String(value));
      keep(value, true);
    },
    onchange: () => keep(scale.value(Number(handle.value)), false),
    onpointerup: () => sheet.turning === id && keep(scale.value(Number(handle.value)), false),
  });
  show(at);
  return el(
    'span',
    { class: 'spread-filter' },
    el('span', { class: 'filter-side' }, most ? phrase('at most') : phrase('at least')),
    el('span', { class: 'spread' }, shade.drawing, handle),
    typed,
  );
}
