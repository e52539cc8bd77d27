import { el } from '../elements.js';

/**
 * A row of words of which one, or any, holds.
 * @param {{words: string, on: boolean, part: string, run: () => void}[]} turns
 */
export function turns(name, all, any = false) {
  return el(
    'span',
    { class: 'turns', role: 'group', 'aria-label': name },
    ...all.map(({ words, on, part, run }) =>
      el(
        'button',
        {
          type: 'button',
          class: any ? 'turn turn-any' : 'turn',
          'aria-pressed': String(on),
          'data-filter-part': part,
          onclick: run,
        },
        words,
      ),
    ),
  );
}
