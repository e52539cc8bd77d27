import { el, say } from './elements.js';
import { ask } from './http.js';
import { remember } from './places.js';
import { KINDS } from './visuals/kinds.js';

/** The field in which an author types a visual's sentence: what it says is drawn while it is being written. */
export class Sentence {
  /** The sentence that is being read, and whether another has been typed meanwhile. */
  #asking = null;
  #behind = false;
  #read = null;
  #at = -1;

  /**
   * @param {{sheet: Object, dataset: () => string, add: (visual: Object) => void, typing: (is: boolean) => void}} hooks
   *     called to add what was written, and when there is something typed or no longer
   */
  constructor(hooks) {
    this.hooks = hooks;
    this.field = el('input', {
      class: 'sentence-field',
      type: 'text',
      maxlength: 2000,
      role: 'combobox',
      'aria-label': 'The sentence of a visual',
      'aria-expanded': 'false',
      'aria-controls': 'sentence-next',
      'aria-autocomplete': 'list',
      autocomplete: 'off',
      spellcheck: 'false',
      placeholder: 'or type it: bars of … by …, the top ten, only where …',
      oninput: () => this.#ask(),
      onkeydown: e => this.#key(e),
      onfocus: () => this.#ask(),
      onblur: () => this.#offer([]),
    });
    this.next = el('ul', { class: 'sentence-next', id: 'sentence-next', role: 'listbox', hidden: true });
    this.said = el('div', { class: 'sentence-said', hidden: true });
    this.element = el('div', { class: 'sentence' }, this.field, this.next, this.said);
  }

  #readAs(text) {
    const { sheet } = this.hooks;
    return ask('POST', `/api/dashboards/${sheet.id}/sentences`, {
      body: { text, dataset: Number(this.hooks.dataset()), page: sheet.page },
    });
  }

  /** Reads what is typed; while one sentence is read, only the newest of those behind it is read next. */
  #ask() {
    this.#behind = true;
    this.#asking ??= this.#catchUp().finally(() => (this.#asking = null));
    return this.#asking;
  }

  async #catchUp() {
    while (this.#behind) {
      this.#behind = false;
      const text = this.field.value;
      this.hooks.typing(text.trim() !== '');
      try {
        this.#read = await this.#readAs(text);
        this.#show();
        this.#offer(document.activeElement === this.field ? this.#read.read.next : []);
      } catch (refused) {
        this.said.hidden = false;
        this.said.replaceChildren(el('p', { class: 'sentence-bad' }, refused.message));
      }
    }
  }

  /** Asks again, about another dataset. */
  again() {
    if (this.field.value.trim()) this.#ask();
  }

  #write(sentence) {
    this.field.value = sentence;
    this.field.focus();
    this.#ask();
  }

  #offer(next) {
    this.#at = -1;
    this.next.hidden = !next.length;
    this.field.setAttribute('aria-expanded', String(Boolean(next.length)));
    this.field.removeAttribute('aria-activedescendant');
    this.next.replaceChildren(
      ...next.map((one, i) =>
        el(
          'li',
          {
            role: 'option',
            id: `sentence-next-${i}`,
            'aria-selected': 'false',
            // Before the field loses the focus.
            onpointerdown: e => {
              e.preventDefault();
              this.#write(one.sentence);
            },
          },
          one.words,
          one.hint && el('span', { class: 'hint' }, one.hint),
        ),
      ),
    );
  }

  #key(e) {
    const offered = [...this.next.children];
    if (e.key === 'Escape' && this.next.hidden) {
      this.field.value = '';
      this.#ask();
    } else if (e.key === 'Escape') {
      this.#offer([]);
    } else if ((e.key === 'ArrowDown' || e.key === 'ArrowUp') && offered.length) {
      e.preventDefault();
      this.#at = (this.#at + (e.key === 'ArrowDown' ? 1 : -1) + offered.length + 1) % (offered.length + 1);
      if (this.#at === offered.length) this.#at = -1;
      offered.forEach((one, i) => one.setAttribute('aria-selected', String(i === this.#at)));
      offered[this.#at]?.scrollIntoView({ block: 'nearest' });
      if (this.#at < 0) this.field.removeAttribute('aria-activedescendant');
      else this.field.setAttribute('aria-activedescendant', offered[this.#at].id);
    } else if (e.key === 'Enter' && this.#at >= 0) {
      e.preventDefault();
      this.#write(this.#read.read.next[this.#at].sentence);
    } else if (e.key === 'Enter') {
      e.preventDefault();
      this.#tryAdd();
    }
  }

  #tryAdd() {
    this.#offer([]);
    return this.#add().catch(refused => say(refused.message));
  }

  async #add() {
    await this.#asking;
    // The last word is finished now.
    this.#read = await this.#readAs(`${this.field.value} `);
    this.#show();
    const { read, visual } = this.#read;
    if (!visual) {
      say(read.words || 'Begin with what it shall be: bars, lines, a map, a table …');
      return;
    }
    if (read.unread.length) {
      say(`${list(read.unread)} was not understood. Leave it out, or say it otherwise.`);
      return;
    }
    this.field.value = '';
    await this.hooks.add(visual);
  }

  /** What was read, and what is uncertain about it. */
  #show() {
    const { read, visual } = this.#read;
    this.said.hidden = !this.field.value.trim();
    if (visual) remember(visual.places);
    const kind = visual?.drawing && KINDS[visual.drawing.type];
    const press = (words, run) => el('button', { type: 'button', class: 'slot', onclick: run }, words);
    const lines = [
      read.words && el('p', { class: 'sentence-words' }, read.words),
      ...read.slips.map(slip => el('p', {}, `“${slip.written}” is read as “${slip.read}”.`)),
      ...read.doubts.map(doubt =>
        el(
          'p',
          {},
          `“${doubt.written}” is read as ${doubt.read}. It could also be `,
          ...doubt.otherwise.flatMap((other, i) => [
            i ? ' or ' : '',
            press(other.words, () => this.#write(other.sentence)),
          ]),
          '.',
        ),
      ),
      read.guessed.length > 0 && el('p', {}, `Not said, so guessed: ${list(read.guessed)}.`),
      read.unread.length > 0 && el('p', { class: 'sentence-unread' }, `Not understood: ${list(read.unread)}.`),
    ];
    this.said.replaceChildren(
      kind && kind.mini ? el('div', { class: 'mini' }, kind.mini(visual.drawing)) : '',
      el('div', { class: 'sentence-lines' }, ...lines),
      visual
        ? el(
            'button',
            { type: 'button', class: 'do', disabled: read.unread.length > 0, onclick: () => this.#tryAdd() },
            'Put it on the sheet',
          )
        : '',
    );
  }
}

const list = words => words.map(word => `“${word}”`).join(', ');
