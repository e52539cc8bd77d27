import { el, say } from './elements.js';
import { ask } from './http.js';

/** What can be done with several visuals, as they are read, by what it is called for the server. */
const ACTS = [
  [
    'line up their',
    [
      ['LEFT', 'left'],
      ['RIGHT', 'right'],
      ['TOP', 'top'],
      ['BOTTOM', 'bottom edges'],
    ],
  ],
  [
    'spread them',
    [
      ['ACROSS', 'across'],
      ['DOWN', 'down'],
    ],
  ],
  ['make them', [['SAME_SIZE', 'as large as the first']]],
];

/** A visual or a box shorter than this has not been dragged, in pixels. */
const DRAGGED = 4;

/**
 * Several visuals, chosen together: with Shift, or by a box drawn on the bare sheet. What is done with them is one
 * edit.
 */
export class Several {
  /** Ids in the order in which they were chosen. */
  ids = [];

  /** @param {{chosen: () => void}} hooks called when other visuals are chosen */
  constructor(sheet, edits, hooks) {
    Object.assign(this, { sheet, edits, hooks });
    sheet.place.addEventListener('pointerdown', e => this.#draw(e));
  }

  clear() {
    this.ids = [];
  }

  /** Chooses one more, or no longer. @param {string | null} selected what was selected alone before */
  toggle(id, selected) {
    const begun = !this.ids.length && selected && this.sheet.opened.document.visuals[selected];
    if (begun) this.ids = [selected];
    // The one that is selected begins a choice of several.
    if (!begun || id !== selected)
      this.ids = this.ids.includes(id) ? this.ids.filter(other => other !== id) : [...this.ids, id];
    this.hooks.chosen();
  }

  /** Leaves out what has gone. */
  keep() {
    this.ids = this.ids.filter(id => this.sheet.visuals.has(id));
  }

  /** Those that move with a visual: what is chosen with it, and its group. */
  with(id) {
    const { groups = {} } = this.sheet.opened.document;
    const chosen = this.ids.includes(id) ? this.ids : [id];
    const grouped = Object.values(groups ?? {}).filter(group => group.visuals.some(one => chosen.includes(one)));
    return [...new Set([...chosen, ...grouped.flatMap(group => group.visuals)])].filter(one =>
      this.sheet.visuals.has(one),
    );
  }

  isGrouped(id) {
    return Object.values(this.sheet.opened.document.groups ?? {}).some(group => group.visuals.includes(id));
  }

  /**
   * Arranges visuals.
   * @param {string} act what the server calls it
   * @param {{across?: number, down?: number}} by for moves, in cells
   */
  async arrange(ids, act, { across = 0, down = 0 } = {}) {
    try {
      const ops = await ask(
        'GET',
        `/api/dashboards/${this.sheet.id}/arrangements/${ids.join(',')}?act=${act}&across=${across}&down=${down}`,
      );
      if (ops.length) await this.edits.edit(ops);
      else if (act !== 'MOVE') say('They stand like that already.');
    } catch (refused) {
      say(refused.message);
    }
  }

  /** What the dock says of them, its words being what can be done. */
  sentence() {
    const { ids } = this;
    const word = (act, words) =>
      el('button', { type: 'button', class: 'slot', 'data-act': act, onclick: () => this.arrange(ids, act) }, words);
    const grouped = ids.some(id => this.isGrouped(id));
    const hidden = ids.every(id => this.sheet.opened.document.finishes?.[id]?.hidden);
    return el(
      'p',
      { class: 'dock-brief' },
      `${ids.length} visuals: `,
      ...ACTS.flatMap(([words, acts], i) => [
        `${i ? ', ' : ''}${words} `,
        ...acts.flatMap(([act, text], j) => [j ? (j === acts.length - 1 ? ' or ' : ', ') : '', word(act, text)]),
      ]),
      ', ',
      ...(grouped
        ? [word('UNGROUP', 'take the group apart')]
        : [word('GROUP', 'keep them together as a group'), ', ', word('SWAP', 'swap them in one place')]),
      ', ',
      hidden ? word('SHOW', 'show them to readers') : word('HIDE', 'hide them from readers'),
      '.',
    );
  }

  /** A box drawn from a bare place of the sheet chooses all that it touches. */
  #draw(down) {
    const { place } = this.sheet;
    if (down.button || down.target !== place) return;
    down.preventDefault();
    const before = down.shiftKey ? this.ids : [];
    const frame = place.getBoundingClientRect();
    const box = el('div', { class: 'choosing' });
    const follow = e => {
      const [left, right] = [down.clientX, e.clientX].sort((a, b) => a - b);
      const [top, bottom] = [down.clientY, e.clientY].sort((a, b) => a - b);
      if (!box.isConnected && right - left < DRAGGED && bottom - top < DRAGGED) return;
      if (!box.isConnected) place.append(box);
      Object.assign(box.style, {
        left: `${left - frame.left}px`,
        top: `${top - frame.top}px`,
        width: `${right - left}px`,
        height: `${bottom - top}px`,
      });
      const touched = [...this.sheet.visuals].filter(([, { box: visual }]) => {
        const at = visual.getBoundingClientRect();
        return at.left < right && left < at.right && at.top < bottom && top < at.bottom;
      });
      this.ids = [...new Set([...before, ...touched.map(([id]) => id)])];
      this.hooks.marked();
    };
    const done = () => {
      removeEventListener('pointermove', follow);
      removeEventListener('pointerup', done);
      if (!box.isConnected) this.ids = before;
      box.remove();
      this.hooks.chosen();
    };
    addEventListener('pointermove', follow);
    addEventListener('pointerup', done);
  }
}

/** Lines through the edges that a dragged visual has in common with others. */
export class Guides {
  #lines = [];

  constructor(sheet) {
    this.sheet = sheet;
  }

  /** @param {string} id what is dragged @param {{x: number, y: number, w: number, h: number}} box in cells */
  show(id, box, row) {
    this.hide();
    const { place, opened, visuals } = this.sheet;
    const cell = place.clientWidth / 24;
    const edges = ({ x, y, w, h }) => ({ across: [x, x + w], down: [y, y + h] });
    const own = edges(box);
    for (const way of ['across', 'down']) {
      const others = new Set(
        [...visuals.keys()]
          .filter(other => other !== id)
          .flatMap(other => edges(opened.document.visuals[other].at)[way]),
      );
      for (const at of new Set(own[way].filter(edge => others.has(edge)))) {
        const style = way === 'across' ? { left: `${at * cell}px` } : { top: `${at * row}px` };
        const line = el('div', { class: `guide guide-${way}`, style });
        place.append(line);
        this.#lines.push(line);
      }
    }
  }

  hide() {
    for (const line of this.#lines) line.remove();
    this.#lines = [];
  }
}
