import { el } from './elements.js';

/**
 * The arrangement of a page on a phone, while one composes it: the visuals stand one below the other, as wide as a
 * phone, and each says what can be done with it there.
 */
export class Phone {
  constructor(sheet, edits) {
    Object.assign(this, { sheet, edits });
    document.body.classList.add('as-phone');
  }

  get #spots() {
    return [...this.sheet.opened.phone[this.sheet.page]];
  }

  /** Keeps another arrangement; what only says what is so anyway is not written. */
  #keep(spots) {
    const value = spots.map(({ visual, rows, left }) => ({
      visual,
      ...(rows ? { rows } : {}),
      ...(left ? { left } : {}),
    }));
    return this.edits.edit([{ op: 'add', path: `/pages/${this.sheet.page}/phone`, value }]);
  }

  /** Moves a visual up or down. @param {number} by -1 or 1 */
  move(id, by) {
    const spots = this.#spots;
    const at = spots.findIndex(spot => spot.visual === id);
    const to = Math.max(0, Math.min(spots.length - 1, at + by));
    if (to === at) return;
    const [spot] = spots.splice(at, 1);
    spots.splice(to, 0, spot);
    this.#keep(spots);
  }

  #change(id, change) {
    this.#keep(this.#spots.map(spot => (spot.visual === id ? { ...spot, ...change } : spot)));
  }

  /** What can be done with a visual here. @returns {HTMLElement} */
  sentence(id) {
    const spots = this.#spots;
    const at = spots.findIndex(spot => spot.visual === id);
    const { rows, left } = spots[at];
    const rowsNow = rows ?? null;
    const word = (words, run, disabled = false) =>
      el('button', { type: 'button', class: 'slot', disabled, onclick: run }, words);
    const height = (words, value) => word(words, () => this.#change(id, { rows: value }), rowsNow === value);
    return el(
      'p',
      { class: 'dock-brief' },
      'On a phone it stands ',
      word('higher', () => this.move(id, -1), at === 0),
      ' or ',
      word('lower', () => this.move(id, 1), at === spots.length - 1),
      ', is ',
      height('as high as its kind needs', null),
      ', ',
      height('low', 5),
      ', ',
      height('half a screen', 10),
      ' or ',
      height('a whole screen high', 17),
      ', and is ',
      left
        ? word('left out: show it again', () => this.#change(id, { left: false }))
        : word('shown: leave it out there', () => this.#change(id, { left: true })),
      '.',
    );
  }

  /** What is said of the page here. */
  page() {
    const own = Boolean(this.sheet.opened.document.pages[this.sheet.page].phone);
    return el(
      'p',
      { class: 'dock-brief' },
      own ? 'The page has an arrangement of its own for phones. ' : 'On phones the page is read from the top left. ',
      'Choose a visual to move it, make it higher or leave it out there.',
      own
        ? el(
            'button',
            {
              type: 'button',
              class: 'slot',
              onclick: () => this.edits.edit([{ op: 'remove', path: `/pages/${this.sheet.page}/phone` }]),
            },
            'Back to reading order',
          )
        : '',
    );
  }
}
