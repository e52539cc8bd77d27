import { ask } from './http.js';
import { BASE } from './base.js';

/** How long it rests before it asks again, milliseconds: the server waits for rows itself before it answers. */
const REST = 1000;
const LONGEST_REST = 30_000;

/** Asks again for what was answered while rows of a page were still on their way, until all are there. */
export class Coming {
  #resting = null;
  #rest = REST;
  /** Called once all that is shown is there. */
  #waiting = [];
  #isOn = false;

  /** @param {import('./sheet.js').Sheet} sheet */
  constructor(sheet) {
    this.sheet = sheet;
  }

  /** What is shown. @param {boolean} coming whether that was drawn while rows were on their way */
  shown({ coming }) {
    this.#isOn = coming;
    if (coming) this.#again(() => this.#askAgain());
    else {
      this.#tell();
      this.#rest = REST;
      // What filters offer was said while rows were on their way, and is known only now.
      if (this.sheet.opened.coming) this.#again(() => this.#openAgain(), 0);
    }
  }

  /**
   * Settles once no rows are on their way any more, of what is shown and of what filters offer.
   * @returns {Promise<void>}
   */
  over() {
    return new Promise(done => {
      this.#waiting.push(done);
      this.#tell();
    });
  }

  #tell() {
    if (this.#isOn || this.sheet.opened.coming) return;
    for (const done of this.#waiting.splice(0)) done();
  }

  /** One thing is done again at a time. */
  #again(run, rest = REST) {
    clearTimeout(this.#resting);
    this.#resting = setTimeout(run, rest);
  }

  #askAgain() {
    // What was fetched ahead was fetched without those rows as well.
    this.sheet.asking.renewed();
    return this.sheet.ask(this.sheet.ids());
  }

  async #openAgain() {
    const { sheet } = this;
    const whole = await ask('GET', BASE).catch(() => null);
    // An edit made here may have brought it, or a newer one.
    if (!sheet.opened.coming) return this.#tell();
    if (!whole || whole.coming || whole.revision < sheet.opened.revision) {
      this.#again(() => this.#openAgain(), this.#rest);
      this.#rest = Math.min(2 * this.#rest, LONGEST_REST);
    } else {
      sheet.renew(sheet.hooks.opening?.(whole) ?? whole);
      this.#tell();
    }
  }
}
