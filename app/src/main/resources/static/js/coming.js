import { ask } from './http.js';
import { BASE } from './base.js';

/** How long it rests before it asks again, milliseconds: the server waits for rows itself before it answers. */
const REST = 1000;

/** Asks again for what was answered while rows of a page were still on their way, until all are there. */
export class Coming {
  #resting = null;
  #isOpenedWhole = true;

  /** @param {import('./sheet.js').Sheet} sheet */
  constructor(sheet) {
    this.sheet = sheet;
  }

  /** What is known of the page. @param {boolean} coming whether that was said while rows were on their way */
  opened({ coming }) {
    this.#isOpenedWhole = !coming;
  }

  /** What it shows. @param {boolean} coming as for `opened` */
  shown({ coming }) {
    clearTimeout(this.#resting);
    if (coming) this.#resting = setTimeout(() => this.#askAgain(), REST);
    else if (!this.#isOpenedWhole) this.#openAgain();
  }

  #askAgain() {
    // What was fetched ahead was fetched without those rows as well.
    this.sheet.asking.renewed();
    return this.sheet.ask(this.sheet.ids());
  }

  /** What filters offer is known only now. */
  async #openAgain() {
    this.#isOpenedWhole = true;
    const whole = await ask('GET', BASE).catch(() => null);
    // Of another revision it is taken with what changed there.
    if (whole?.revision === this.sheet.opened.revision) this.sheet.take(this.sheet.hooks.opening?.(whole) ?? whole);
  }
}
