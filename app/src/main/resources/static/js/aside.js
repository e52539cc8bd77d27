import { PAGE_ADDRESS } from './base.js';
import { el } from './elements.js';
import { languageAsked, phrase } from './language.js';
import { writeAddress } from './state.js';

/**
 * The page of what is picked, beside the page on which it is picked; from below on a phone. It is a whole page in a
 * frame of its own: it is narrowed, follows what is live, and is left for the whole window by one press.
 */
export class Aside {
  #sheet;
  #box = null;
  /** What it shows: the visual on which it was picked, and the state of the page in the frame. */
  #shown = null;

  /** @param {import('./sheet.js').Sheet} sheet */
  constructor(sheet) {
    this.#sheet = sheet;
    addEventListener('keydown', e => {
      if (e.key === 'Escape' && this.#shown) this.#close();
    });
  }

  /** Id of the visual on which was picked what it is about; null while it is folded away. */
  get about() {
    return this.#shown?.from ?? null;
  }

  /**
   * Shows a page about what is picked.
   * @param {{from: string, part: string}} link @param {string[]} values
   */
  show(link, values) {
    // A page within a page slides nothing in: it goes there. Nor does one that was carried away, which is one file.
    if (document.body.classList.contains('is-framed') || globalThis.sarnikCarried) return this.#sheet.goTo(link.part);
    const state = new Map(this.#sheet.state);
    state.set('g.page', [link.part]);
    // It is about what is picked here, whatever was picked elsewhere before.
    for (const other of Object.values(this.#sheet.opened.document.links))
      if (other.effect === 'BESIDE' && other.part === link.part) state.delete(`p.${other.from}`);
    state.set(`p.${link.from}`, values);
    const text = writeAddress(state);
    if (this.#shown?.text === text) return null;
    const label = values.map(value => this.#sheet.labelOf(link.from, value)).join(', ');
    const address = `${PAGE_ADDRESS}?${[text, languageAsked()].filter(Boolean).join('&')}`;
    const page = this.#sheet.opened.document.pages[link.part]?.title ?? '';
    const frame = this.#box?.querySelector('iframe');
    // It stays in place from one pick to the next, so that only figures change.
    if (frame && this.#shown?.part === link.part)
      frame.contentWindow.postMessage({ to: 'sarnik', type: 'choose', state: text }, location.origin);
    else this.#open(address, page);
    this.#shown = { from: link.from, part: link.part, text };
    this.#box.querySelector('.aside-title').textContent = label;
    this.#box.querySelector('.aside-page').textContent = page;
    this.#box.querySelector('.aside-whole').href = address;
    return null;
  }

  /** Folds it away, where it is about what was picked on a visual. */
  fold(from) {
    if (this.#shown?.from !== from) return;
    this.#box.remove();
    this.#box = null;
    this.#shown = null;
  }

  #close() {
    const { from } = this.#shown;
    this.fold(from);
    this.#sheet.clear(from, 'p');
    this.#sheet.visuals.get(from)?.box.focus?.();
  }

  #open(address, title) {
    this.#box?.remove();
    this.#box = el(
      'aside',
      { class: 'aside', role: 'dialog', 'aria-label': title },
      el(
        'header',
        { class: 'aside-head' },
        el('h2', { class: 'aside-title' }),
        el('span', { class: 'aside-page text-faint' }),
        el('a', { class: 'aside-whole' }, phrase('The whole page')),
        el(
          'button',
          { type: 'button', class: 'aside-close', 'aria-label': phrase('Fold away'), onclick: () => this.#close() },
          '×',
        ),
      ),
      el('iframe', { class: 'aside-frame', title, src: `${address}#framed.no-title.no-strip.slid` }),
    );
    document.body.append(this.#box);
    this.#box.querySelector('.aside-close').focus({ preventScroll: true });
  }
}
