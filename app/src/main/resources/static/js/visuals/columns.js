import { el } from '../elements.js';
import { phrase } from '../language.js';

/** Narrower than this a column shows nothing. */
const LEAST = 40;
const WIDEST = 2000;
/** A column grows by this at a press of an arrow key, pixels. */
const STEP = 16;
/** A press that goes further than this is a drag, pixels. */
const DRAGGED = 6;

/**
 * How a reader has arranged the columns of a table: in which order, and how wide. It is kept in this browser, for this
 * table; columns are known by their words, so that what an author adds comes in where it stands.
 */
export class Columns {
  #order = [];
  #widths = {};

  /** @param {string} name of the table, by which its arrangement is kept @param {() => void} changed shows it anew */
  constructor(name, changed) {
    this.name = `sarnik.columns ${name}`;
    this.changed = changed;
    try {
      const kept = JSON.parse(localStorage.getItem(this.name) ?? '{}');
      if (Array.isArray(kept.order)) this.#order = kept.order.map(String);
      for (const [words, width] of Object.entries(kept.widths ?? {}))
        if (Number.isFinite(width)) this.#widths[words] = width;
    } catch {
      // What cannot be read or kept is not arranged.
    }
  }

  /** The numbers of the columns, in the order in which they are shown. @param {string[]} heads their words */
  inOrder(heads) {
    const left = new Set(heads.keys());
    const placed = this.#order.map(words => heads.indexOf(words)).filter(i => i >= 0 && left.delete(i));
    // A column that has not been moved keeps its place behind the one before it.
    for (const i of left) placed.splice(i === 0 ? 0 : placed.indexOf(i - 1) + 1, 0, i);
    return placed;
  }

  width(words) {
    return this.#widths[words] ?? null;
  }

  #keep() {
    try {
      if (this.#order.length || Object.keys(this.#widths).length)
        localStorage.setItem(this.name, JSON.stringify({ order: this.#order, widths: this.#widths }));
      else localStorage.removeItem(this.name);
    } catch {
      // It holds until the page is left.
    }
    this.changed();
  }

  /**
   * Moves a column beside another.
   * @param {string[]} heads all, as they are shown
   * @param {number} from
   * @param {number} to
   */
  move(heads, from, to) {
    if (to < 0 || to >= heads.length || from === to) return;
    const order = [...heads];
    order.splice(to, 0, ...order.splice(from, 1));
    this.#order = order;
    this.#keep();
  }

  /** @param {?number} width pixels; null for as wide as it needs */
  size(words, width) {
    if (width === null) delete this.#widths[words];
    else this.#widths[words] = Math.max(LEAST, Math.min(WIDEST, Math.round(width)));
    this.#keep();
  }

  /** The edge of a header, by which its column is sized with the pointer or with the arrow keys. */
  grip(words) {
    const width = () => grip.parentElement.offsetWidth;
    const grip = el('span', {
      class: 'column-grip',
      role: 'separator',
      tabindex: 0,
      'aria-orientation': 'vertical',
      'aria-label': phrase('Width of {0}', words),
      'aria-valuemin': LEAST,
      'aria-valuemax': WIDEST,
      'aria-valuenow': this.width(words) ?? LEAST,
      'aria-valuetext': this.width(words) ? phrase('{0} pixels', this.width(words)) : phrase('as wide as it needs'),
      'data-part': `grip ${words}`,
      title: phrase('Drag to size the column, press twice for as wide as it needs'),
      ondblclick: () => this.size(words, null),
      onkeydown: e => {
        const by = { ArrowLeft: -STEP, ArrowRight: STEP }[e.key];
        if (by) this.size(words, width() + by);
        else if (e.key === 'Escape' || e.key === 'Delete') this.size(words, null);
        else return;
        e.preventDefault();
      },
      onpointerdown: down => {
        const began = width();
        const column = grip.closest('table').querySelectorAll('col')[grip.parentElement.cellIndex];
        grip.setPointerCapture(down.pointerId);
        const sized = e => Math.max(LEAST, began + e.clientX - down.clientX);
        const move = e => (column.style.width = `${sized(e)}px`);
        grip.addEventListener('pointermove', move);
        const done = e => {
          grip.removeEventListener('pointermove', move);
          if (Math.abs(e.clientX - down.clientX) > 2) this.size(words, sized(e));
        };
        grip.addEventListener('pointerup', done, { once: true });
        down.preventDefault();
      },
    });
    return grip;
  }

  /**
   * Lets a header be moved by dragging it, or with Shift and the arrow keys.
   * @param {string[]} heads as they are shown
   */
  movable(button, heads, at) {
    button.addEventListener('keydown', e => {
      const by = e.shiftKey && { ArrowLeft: -1, ArrowRight: 1 }[e.key];
      if (!by) return;
      e.preventDefault();
      this.move(heads, at, at + by);
    });
    button.addEventListener('pointerdown', down => {
      if (down.button) return;
      const row = button.closest('tr');
      let over = null;
      const move = e => {
        if (Math.abs(e.clientX - down.clientX) < DRAGGED && over === null) return;
        over = [...row.cells].findIndex(c => e.clientX < c.getBoundingClientRect().right);
        if (over < 0 || over >= heads.length) over = heads.length - 1;
        for (const [i, c] of [...row.cells].entries()) c.classList.toggle('is-target', i === over && i !== at);
      };
      const done = () => {
        removeEventListener('pointermove', move);
        for (const c of row.cells) c.classList.remove('is-target');
        if (over === null) return;
        // The press that ends a drag is none.
        button.addEventListener('click', e => e.stopImmediatePropagation(), { once: true, capture: true });
        setTimeout(() => this.move(heads, at, over));
      };
      addEventListener('pointermove', move);
      addEventListener('pointerup', done, { once: true });
    });
  }
}
