import { el } from '../elements.js';

/** A filter that keeps a range of days. */
export function control(sheet, id, offer) {
  const [from, to] = (sheet.state.get(`f.${id}`)?.[0] ?? '..').split('..');
  const input = (name, value, words) =>
    el('input', {
      type: 'date',
      value,
      min: offer.from,
      max: offer.to,
      'aria-label': `${offer.words} ${words}`,
      'data-filter-part': `${id}-${name}`,
      onchange: () => {
        const ends = [first.value, last.value];
        sheet.filter(id, ends[0] || ends[1] ? [ends.join('..')] : []);
      },
    });
  const first = input('from', from, 'from');
  const last = input('to', to, 'to');
  return el('span', { class: 'inline-flex gap-2 items-center' }, first, 'to', last);
}
