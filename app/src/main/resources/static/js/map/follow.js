/** How often newer rows are asked for while a map follows, in milliseconds. */
const EACH = 10_000;

/**
 * Keeps in sight what a map shows while that changes: the newest record, a moment that is played, what is picked
 * elsewhere. The reader turns it on and off.
 */
export class Follow {
  #view;
  #again;
  #shown = '';
  #timer = null;

  /** @param {Object} view the map's view @param {() => void} again asks for the map's figures anew */
  constructor(view, again) {
    this.#view = view;
    this.#again = again;
  }

  get on() {
    return this.#timer !== null;
  }

  /** @param {number[][]} places what is shown now, in coordinates of the map */
  turn(places) {
    if (this.on) {
      this.stop();
      return;
    }
    // A hidden page rests.
    this.#timer = setInterval(() => document.hidden || this.#again(), EACH);
    this.#shown = '';
    this.drawn(places);
  }

  /** Something else is shown. */
  drawn(places) {
    if (!this.on || !places.length) return;
    const shown = places.join(' ');
    if (shown !== this.#shown) this.#view.flyToAll(places);
    this.#shown = shown;
  }

  stop() {
    clearInterval(this.#timer);
    this.#timer = null;
  }
}
