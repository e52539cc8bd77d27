import { say } from './elements.js';
import { ask } from './http.js';
import { phrase } from './language.js';
import { known } from './places.js';
import { writeState } from './state.js';

/** Names this page where it asks, so that the server drops what a newer question of it has overtaken. */
const PAGE = Math.random().toString(36).slice(2);

/** What the server answers to a question that a newer one has overtaken. */
const OVERTAKEN = 409;

/** Answers that are kept before they are shown, and those of them that are fetched at once. */
const MOST_AHEAD = 80;
const MOST_FETCHING = 2;

/** How many questions ahead are told apart. */
const MOST_TURNS = 64;

/** The headers of a question; one with a name of its own does not overtake the page's others. */
const headers = (own = '') => ({ 'Sarnik-Page': PAGE + (own === '' ? '' : `-${own}`) });

/** Asks the server for the frames of a page's visuals; what was asked last is shown, and no older answer after it. */
export class Asking {
  /** Visuals that are to be asked for. */
  #pending = new Set();
  /** The question under way, as what gives it up. */
  #under = null;
  /** The state and the revision that were drawn last; what comes anew of the same is not dimmed until it is there. */
  #drawnAs = null;
  /** Settles when what was asked for is drawn. */
  #drawing = Promise.resolve();
  /** Why the last question was not answered; null where it was. */
  #refused = null;
  /** Whether something was turned while an answer was under way. */
  #late = false;
  /** Answers that were fetched before they are shown, by state. */
  #ahead = new Map();
  /** What was asked for before the page was laid out; null once it is shown. */
  #first = null;
  #fetching = 0;
  #turns = 0;

  /** @param {import('./sheet.js').Sheet} sheet @param {() => string} address where frames are asked for */
  constructor(sheet, address) {
    Object.assign(this, { sheet, address });
    addEventListener(
      'pagehide',
      () =>
        this.#under &&
        ask('DELETE', '/api/questions', {
          headers: headers(),
          keepalive: true,
        }).catch(() => {}),
    );
  }

  /** Asks before the page is laid out. @param {string[]} ids of the visuals that it will have */
  first(ids) {
    const text = writeState(this.sheet.state);
    const frames = this.#post(this.#withStrangers(text), ids, {}, { headers: headers() });
    frames.catch(() => {});
    this.#first = { text, ids, frames };
  }

  get isUnderWay() {
    return this.#under !== null;
  }

  /**
   * Waits for what is asked for now.
   * @returns {Promise<void>} settles once it is drawn
   * @throws {Error} the refusal, where it was refused
   */
  async over() {
    await this.#drawing;
    if (this.#refused) throw this.#refused;
  }

  /** Another revision is shown: what was fetched ahead is of the one before. */
  renewed() {
    this.#ahead.clear();
  }

  /**
   * Asks for the frames of these visuals in one request. An older request still under way is given up; while something
   * is being turned it is let finish, so that what is shown follows the hand, and only the newest is asked for after
   * it.
   */
  async ask(ids, passing = false) {
    for (const id of ids) this.#pending.add(id);
    const { text, wanted } = this.#under ?? {};
    // What is asked already is not asked again: let go where it was, a handle says so a second time.
    if (text === writeState(this.sheet.state) && [...this.#pending].every(id => wanted.includes(id))) {
      this.#pending.clear();
      return this.#drawing;
    }
    if (passing && this.#under) {
      this.#late = true;
      return this.#drawing;
    }
    this.#under?.abort();
    const under = (this.#under = new AbortController());
    this.#drawing = this.#answer(under);
    return this.#drawing;
  }

  async #answer(under) {
    const { visuals, opened } = this.sheet;
    const wanted = [...this.#pending].filter(id => visuals.has(id));
    this.#pending.clear();
    const text = writeState(this.sheet.state);
    const behind = text !== this.#drawnAs?.text || opened !== this.#drawnAs.opened;
    for (const id of wanted) {
      const { box } = visuals.get(id);
      box.classList.add('is-asking');
      box.classList.toggle('is-behind', behind);
    }
    Object.assign(under, { text, wanted });
    try {
      const sights = this.#sights(wanted);
      const request = { headers: headers(), signal: under.signal };
      const frames = await (this.#has(text, wanted, sights) ??
        this.#post(this.#withStrangers(text), wanted, sights, request));
      this.#drawnAs = { text, opened: this.sheet.opened };
      this.sheet.shown(frames, wanted, text);
      this.#refused = null;
    } catch (refused) {
      for (const id of wanted) this.#pending.add(id);
      // An older question came later on its way, and was taken for a newer one.
      if (refused.status === OVERTAKEN && under === this.#under) this.#late = true;
      else if (refused.name !== 'AbortError') {
        this.#refused = refused;
        if (!this.sheet.hooks.failed?.(refused))
          say(refused.message, {
            words: phrase('Try again'),
            run: () => this.ask([]),
          });
      }
    } finally {
      if (under === this.#under) {
        this.#under = null;
        if (this.#late) {
          this.#late = false;
          this.ask([]);
        } else for (const { box } of visuals.values()) box.classList.remove('is-asking', 'is-behind');
      }
    }
  }

  /** What of visuals is in sight, by id, where that matters. */
  #sights(ids) {
    const { visuals } = this.sheet;
    return Object.fromEntries(
      ids.map(id => [id, visuals.get(id).kind.sight?.(visuals.get(id).handle)]).filter(([, sight]) => sight),
    );
  }

  /** Frames that were asked for already, before the page was laid out or ahead; null if there are none. */
  #has(text, wanted, sights) {
    const first = this.#first;
    this.#first = null;
    if (first?.text === text && !Object.keys(sights).length && wanted.every(id => first.ids.includes(id)))
      return first.frames;
    const ahead = this.#ahead.get(text);
    return ahead && ahead.sights === JSON.stringify(sights) && wanted.every(id => ahead.ids.includes(id))
      ? ahead.frames
      : null;
  }

  #post(state, ids, sights, request, file = false) {
    return ask('POST', this.address(), {
      body: { state, ids, sights, known: known(), ...(file && { file }) },
      ...request,
    });
  }

  /** The state as the server is asked for it; at first with what in the address is nobody's, so that it says so. */
  #withStrangers(state) {
    const text = [state, this.sheet.strangers].filter(Boolean).join('&');
    this.sheet.strangers = '';
    return text;
  }

  /**
   * The frame of one visual by itself for a file: with its numbers as programs read them.
   * @param {Object} [sight] what would be in sight of it
   * @throws {Error} where it cannot be drawn any more
   */
  async forFile(id, sight) {
    const sights = sight ? { [id]: sight } : {};
    const frames = await this.#post(writeState(this.sheet.state), [id], sights, { headers: headers('take') }, true);
    const drawing = frames.drawings[id];
    if (drawing.type === 'misfit') throw new Error(drawing.why);
    return drawing;
  }

  /** Fetches what will be shown next, so that a player need not wait. @param {string[]} texts of moments */
  ahead(id, texts) {
    const { visuals, opened, state } = this.sheet;
    const ids = (opened.played[id] ?? []).filter(other => visuals.has(other));
    const sights = this.#sights(ids);
    for (const moment of texts) {
      if (this.#fetching >= MOST_FETCHING) return;
      const next = new Map(state);
      next.set(`m.${id}`, [moment]);
      const text = writeState(next);
      if (this.#ahead.has(text)) continue;
      this.#fetching++;
      this.#turns = (this.#turns + 1) % MOST_TURNS;
      const frames = this.#post(text, ids, sights, {
        headers: headers(this.#turns),
      });
      this.#ahead.set(text, { ids, sights: JSON.stringify(sights), frames });
      if (this.#ahead.size > MOST_AHEAD) this.#ahead.delete(this.#ahead.keys().next().value);
      frames.then(
        () => this.#fetching--,
        () => {
          this.#fetching--;
          this.#ahead.delete(text);
        },
      );
    }
  }
}
