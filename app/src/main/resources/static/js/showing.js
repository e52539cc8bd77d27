import { isBorne } from './base.js';
import { el, refuse } from './elements.js';
import { readState } from './state.js';
import { viewsButton } from './views.js';
import { phrase } from './language.js';

/** Milliseconds after the last letter before words are read. */
const PAUSE = 160;

const besideButton = sheet =>
  el(
    'button',
    {
      type: 'button',
      class: 'clear quiet-act',
      'data-beside': '',
      title: phrase('The page twice, each narrowed by itself'),
      onclick: () => sheet.standBeside(),
    },
    phrase('Side by side'),
  );

/** "Now showing": one sentence whose parts can be taken away, and into which a reader can type. */
export class Showing {
  #sheet;
  #sentence = el('span', { class: 'showing-parts' });
  #understood = el('div', { class: 'understood', 'aria-live': 'polite' });
  #input;
  #found = null;
  #turn = 0;
  #waiting = null;

  constructor(sheet) {
    this.#sheet = sheet;
    this.#input = el('input', {
      type: 'text',
      class: 'showing-typed',
      maxlength: 400,
      placeholder: phrase('narrow in words…'),
      'aria-label': phrase('Narrow in words, such as a value, a place or since June'),
      autocomplete: 'off',
      spellcheck: 'false',
      oninput: () => {
        clearTimeout(this.#waiting);
        this.#waiting = setTimeout(() => this.#read(), PAUSE);
      },
      onkeydown: e => {
        if (e.key === 'Escape') this.#empty();
        if (e.key !== 'Enter') return;
        e.preventDefault();
        clearTimeout(this.#waiting);
        this.#read().then(() => this.#take());
      },
    });
    document
      .getElementById('showing')
      .replaceChildren(
        this.#sentence,
        isBorne ? '' : viewsButton(sheet),
        besideButton(sheet),
        this.#input,
        this.#understood,
      );
  }

  #empty() {
    this.#turn++;
    this.#found = null;
    this.#input.value = '';
    this.#understood.replaceChildren();
  }

  async #read() {
    const mine = ++this.#turn;
    const words = this.#input.value.trim();
    if (!words) return this.#empty();
    try {
      const found = await this.#sheet.find(words);
      if (mine !== this.#turn) return;
      this.#found = { ...found, chosen: found.understood.map(({ part }) => part) };
      this.#show();
    } catch (refused) {
      if (mine === this.#turn) refuse(this.#understood, refused.message);
    }
  }

  /** What was understood, before it is taken. */
  #show() {
    const { understood, missed } = this.#found;
    this.#understood.replaceChildren(
      ...understood.map(({ said, words, note, others }, i) => {
        const all = [{ words, part: understood[i].part }, ...others];
        const now = all.find(({ part }) => part === this.#found.chosen[i]);
        return el(
          'span',
          { class: 'understood-part' },
          el('i', {}, `${said}: `),
          others.length
            ? el(
                'button',
                {
                  type: 'button',
                  title: phrase('Means something else'),
                  onclick: () => {
                    this.#found.chosen[i] = all[(all.indexOf(now) + 1) % all.length].part;
                    this.#found.changed = true;
                    this.#show();
                  },
                },
                now.words,
              )
            : el('b', {}, now.words),
          note ? el('i', {}, ` (${note})`) : '',
        );
      }),
      missed.length
        ? el(
            'span',
            { class: 'understood-missed' },
            phrase('Nothing here is called {0}.', missed.map(w => `“${w}”`).join(', ')),
          )
        : '',
      understood.length
        ? el(
            'button',
            { type: 'button', class: 'understood-take', onclick: () => this.#take() },
            phrase('Narrow to this'),
          )
        : '',
    );
  }

  #take() {
    if (!this.#found?.understood.length) return;
    // Where another meaning was chosen, each part is set by itself.
    const next = this.#found.changed ? this.#chosen() : readState(this.#found.state);
    const { missed } = this.#found;
    this.#empty();
    // What was not understood stays to be written otherwise.
    this.#input.value = missed.join(' ');
    this.#sheet.went(next, null);
  }

  #chosen() {
    const next = new Map(this.#sheet.state);
    const fresh = new Set();
    for (const part of this.#found.chosen)
      for (const [name, value] of readState(part)) {
        const before = fresh.has(name) && Array.isArray(next.get(name)) ? next.get(name) : [];
        next.set(name, Array.isArray(value) ? [...new Set([...before, ...value])] : value);
        fresh.add(name);
      }
    return next;
  }

  /** @param {{id: string, words: string, part: string}[]} parts */
  draw(parts) {
    const sheet = this.#sheet;
    const press = (sign, words, run) =>
      el('button', { type: 'button', title: words, 'aria-label': words, onclick: run }, sign);
    this.#sentence.replaceChildren(
      ...(parts.length
        ? [
            `${phrase('Now showing')} `,
            ...parts.flatMap(({ id, words, part }, i) => [
              i ? ' · ' : '',
              el(
                'span',
                {},
                el('b', {}, words),
                part === 'p' ? press('⇄', phrase('Turn round: {0}', words), () => sheet.turnRound(id)) : '',
                press('×', phrase('Take away: {0}', words), () => sheet.clear(id, part)),
              ),
            ]),
            sheet.hasScales()
              ? el(
                  'button',
                  {
                    type: 'button',
                    class: 'scales-held',
                    title: sheet.scalesTurned
                      ? phrase('Colours and sizes are of what is shown, and change with it. Press to hold them.')
                      : phrase(
                          'Colours and sizes mean the same as before anything was picked or played. Press to take them of what is shown.',
                        ),
                    onclick: () => sheet.turnScales(),
                  },
                  sheet.scalesTurned ? phrase('scales of what is shown') : phrase('scales held'),
                )
              : '',
            el(
              'button',
              { type: 'button', class: 'clear', onclick: () => sheet.clear() },
              phrase('Put everything back'),
            ),
          ]
        : [phrase('Now showing everything')]),
    );
  }
}
