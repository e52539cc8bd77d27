import { el } from '../elements.js';
import { phrase } from '../language.js';

/** Milliseconds after the last letter before rows are looked for. */
const PAUSE = 250;

/** A filter that looks for words in a column. */
export function control(sheet, id, offer) {
  let waiting = null;
  const keep = passing => {
    clearTimeout(waiting);
    const words = input.value.trim();
    sheet.filter(id, words ? [words] : [], passing);
  };
  const input = el('input', {
    type: 'search',
    class: 'filter-words',
    maxlength: 200,
    value: sheet.turnedTo(id)[0] ?? '',
    placeholder: phrase('any words'),
    'aria-label': offer.words,
    'data-filter-part': `${id}-words`,
    oninput: () => {
      clearTimeout(waiting);
      waiting = setTimeout(() => keep(true), PAUSE);
    },
    onchange: () => keep(false),
  });
  return input;
}
