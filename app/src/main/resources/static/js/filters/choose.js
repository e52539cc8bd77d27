import { el } from '../elements.js';

/** The words of what is chosen, which open what can be. @param {(opener: HTMLElement) => void} open */
export function chooseButton(id, words, open) {
  return el(
    'button',
    {
      type: 'button',
      class: 'filter-choose',
      'aria-haspopup': 'true',
      'aria-expanded': 'false',
      'data-filter-part': `${id}-choose`,
      onclick: e => open(e.currentTarget),
    },
    words,
  );
}
