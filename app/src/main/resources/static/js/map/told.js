import { encode } from '../state.js';
import { el, say } from '../elements.js';
import { phrase } from '../language.js';

/** A tiny chart: a bar a value. */
function tinyChart({ words, labels, values, texts }) {
  const wide = Math.max(2, Math.min(14, 190 / values.length));
  const bars = values.map((v, i) =>
    el(
      'rect',
      { x: i * wide, y: 30 - 30 * (v || 0), width: wide - 0.8, height: Math.max(0.5, 30 * (v || 0)) },
      el('title', {}, `${labels[i]}: ${texts[i]}`),
    ),
  );
  return el(
    'figure',
    { class: 'told-chart' },
    el('svg', { width: Math.ceil(values.length * wide), height: 30, role: 'img', 'aria-label': words }, ...bars),
    el('figcaption', {}, labels.length > 1 ? `${words}, ${labels[0]} to ${labels.at(-1)}` : words),
  );
}

const line = ({ words, value }) => el('div', { class: 'told-line' }, el('i', {}, words), el('b', {}, value));

/**
 * The lines and the chart that are told of a place.
 * @param {{words: string, value: string}[]} trust how far its figures can be trusted
 * @returns {HTMLElement[]}
 */
export function toldParts({ lines, chart, text = null }, trust = []) {
  return [
    ...(text ? [el('p', { class: 'told-text' }, text)] : lines.map(line)),
    ...trust.map(line),
    ...(chart ? [tinyChart(chart)] : []),
  ];
}

/**
 * The box that tells of one picked place, from which the places near it and those most like it can be picked.
 * @param {Object} does ask for what is told (`tell`), for other places (`others`), and pick (`pick`)
 */
export class ToldBox {
  #turn = 0;
  #shown = null;

  constructor(body, does, withOthers) {
    this.does = does;
    this.withOthers = withOthers;
    this.box = el('aside', { class: 'told-box', hidden: true, 'aria-label': phrase('The picked place') });
    body.append(this.box);
  }

  /** Whether it stands open and tells of this place. */
  tellsOf(place) {
    return !this.box.hidden && this.place === place;
  }

  hide() {
    this.#turn++;
    this.box.hidden = true;
  }

  /**
   * @param {string} layer its id @param {string} place its id @param {{name: string, within: string}} first what is
   *     known already
   */
  async show(layer, place, first) {
    const turn = ++this.#turn;
    this.place = place;
    this.#shown = { layer, place, first };
    this.box.hidden = false;
    const close = el(
      'button',
      {
        type: 'button',
        class: 'told-close',
        title: phrase('Close'),
        'aria-label': phrase('Close'),
        onclick: () => this.hide(),
      },
      '×',
    );
    const head = el('h3', {}, first.name, first.within ? el('span', {}, `, ${first.within}`) : '');
    this.box.replaceChildren(close, head, ...toldParts({ lines: first.lines }, first.trust));
    try {
      const told = await this.does.tell(layer, place);
      if (turn !== this.#turn) return;
      this.box.replaceChildren(
        close,
        head,
        ...toldParts(told, first.trust),
        ...(this.withOthers ? [this.#others(layer, place)] : []),
      );
    } catch (refused) {
      if (turn === this.#turn) this.box.append(el('p', { class: 'sentence-bad' }, refused.message));
    }
  }

  /** What is told follows what narrows the map. */
  again() {
    if (!this.box.hidden && this.#shown) this.show(this.#shown.layer, this.#shown.place, this.#shown.first);
  }

  #others(layer, place) {
    const far = el('input', { type: 'number', min: 1, max: 2000, value: 25, 'aria-label': phrase('Kilometres') });
    const many = el('input', { type: 'number', min: 1, max: 50, value: 5, 'aria-label': phrase('How many alike') });
    const list = el('p', { class: 'told-others' });
    const find = async asked => {
      try {
        const found = await this.does.others(layer, place, asked);
        if (!found.length) {
          say(phrase('No other place was found.'));
          return;
        }
        const names = found
          .slice(1, 8)
          .map(f => `${f.name} (${f.words})`)
          .join(', ');
        list.textContent = found.length > 8 ? phrase('{0} and {1} more', names, found.length - 8) : names;
        this.does.pick(
          found.map(f => f.id),
          asked.metres ? `~near.${asked.metres}.${encode(place).replaceAll('.', '%2E')}` : null,
        );
      } catch (refused) {
        say(refused.message);
      }
    };
    return el(
      'div',
      { class: 'told-find' },
      el(
        'p',
        {},
        el(
          'button',
          { type: 'button', class: 'quiet', onclick: () => find({ metres: Number(far.value) * 1000 }) },
          phrase('Pick all within'),
        ),
        far,
        phrase('km of here'),
      ),
      el(
        'p',
        {},
        el(
          'button',
          { type: 'button', class: 'quiet', onclick: () => find({ count: Number(many.value) }) },
          phrase('Pick the'),
        ),
        many,
        phrase('most like it'),
      ),
      list,
    );
  }
}
