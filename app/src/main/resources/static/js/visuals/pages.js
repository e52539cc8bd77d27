import { el } from '../elements.js';
import { phrase } from '../language.js';

/** What visuals that show a long matter page by page have in common. */

/** Time after the last letter before rows are looked for, milliseconds. */
const TYPED = 250;
/** From this many rows on they can be searched. */
const SEARCHED = 12;
/** Rows that are given at once to be taken along. */
const MOST_TAKEN = 100_000;
/** A sight says an extent too, which has no meaning here. */
const NOWHERE = { zoom: 0, west: 0, south: 0, east: 0, north: 0, from: 0 };

/** A field above the rows in which words are looked for, and what is in sight. */
export class Finder {
  #seen = {};
  #typing = null;

  /** @param {() => void} again asks for what is in sight now */
  constructor(body, title, again, words) {
    this.again = again;
    this.field = el('input', {
      class: 'entry table-find',
      type: 'search',
      placeholder: words,
      'aria-label': phrase('find, title|{0} of {1}', words, title),
      hidden: true,
    });
    this.field.addEventListener('input', () => {
      clearTimeout(this.#typing);
      this.#typing = setTimeout(() => this.look({ find: this.field.value, from: 0 }), TYPED);
    });
    body.append(this.field);
  }

  /** Asks for something else: from which row, by which column, holding which words. */
  look(change) {
    Object.assign(this.#seen, change);
    this.again();
  }

  /** What has been asked for of it; undefined for the usual. */
  seen(name) {
    return this.#seen[name];
  }

  sight() {
    return Object.keys(this.#seen).length ? { ...NOWHERE, ...this.#seen } : null;
  }

  /** What is in sight, and all that follows it, as far as it is given at once. */
  whole() {
    return { ...NOWHERE, ...this.#seen, from: 0, count: MOST_TAKEN };
  }

  /** A few rows need no search. */
  shown(all) {
    this.field.hidden = all <= SEARCHED && !this.field.value;
  }

  stop() {
    clearTimeout(this.#typing);
  }
}

/** Time after the page has been scrolled during which what lies under the pointer is passed by, milliseconds. */
const PASSING = 350;

/**
 * Lets a page that is being scrolled pass over a place that scrolls by itself: the wheel turns the place only once the
 * page has come to rest, or where the place has been pressed.
 */
export function scrolling(place) {
  let rest = null;
  const passed = e => {
    if (e.target !== document || place.contains(document.activeElement)) return;
    place.classList.add('is-passed');
    clearTimeout(rest);
    rest = setTimeout(() => place.classList.remove('is-passed'), PASSING);
  };
  document.addEventListener('scroll', passed, { passive: true });
  return {
    stop() {
      clearTimeout(rest);
      document.removeEventListener('scroll', passed);
    },
  };
}

/** Back and on, where there is more than a page. @param {{from: number, all: number, page: number}} drawing */
export function pagesOf({ from, all, page }, count, unit, move) {
  if (all <= page) return [];
  const button = (words, to) =>
    el(
      'button',
      { type: 'button', class: 'quiet', disabled: to < 0 || to >= all, onclick: () => move(Math.max(0, to)) },
      words,
    );
  return [
    button(phrase('Back'), from > 0 ? Math.max(0, from - page) : -1),
    el(
      'span',
      { role: 'status' },
      unit === 'rows'
        ? phrase('rows {0} to {1} of {2}', from + 1, from + count, all)
        : phrase('lines {0} to {1} of {2}', from + 1, from + count, all),
    ),
    button(phrase('to the next|On'), from + page),
  ];
}

/**
 * Draws a place anew that scrolls, and leaves what is read in it where it is: the first in sight of what has a key,
 * also where others came or went before it.
 * @param {HTMLElement} place @param {() => void} draw
 */
export function leftInPlace(place, draw) {
  const keyed = () => [...place.querySelectorAll('[data-key]')];
  const topOf = one => one.getBoundingClientRect().top - place.getBoundingClientRect().top;
  const read = place.scrollTop > 0 ? keyed().find(one => topOf(one) + one.offsetHeight > 0) : null;
  const [key, top] = read ? [read.dataset.key, topOf(read)] : [];
  const above = place.scrollTop;
  draw();
  if (!read) return;
  const same = keyed().filter(one => one.dataset.key === key);
  // Of several that are called alike nobody knows which it was.
  if (same.length === 1) place.scrollTop += topOf(same[0]) - top;
  else place.scrollTop = above;
}
