import { offerCopies } from './duplicate.js';
import { el, refuse, say } from './elements.js';
import { ask } from './http.js';
import { aboveOf, pagesOf } from './pages.js';
import { remember } from './places.js';
import { closePopup, openPopup } from './popup.js';
import { KINDS } from './visuals/kinds.js';
import { Sentence } from './sentence.js';
import { openSlot } from './slots.js';

const QUESTIONS = [
  ['WHERE', 'Where?'],
  ['HOW_MUCH', 'How much?'],
  ['CHANGED', 'How has it changed?'],
  ['WHICH_MOST', 'Which are the most?'],
  ['TOGETHER', 'How do two things go together?'],
  ['EXACTLY', 'What exactly?'],
  ['SAY', 'Say something.'],
  ['LET_CHOOSE', 'Let the reader choose.'],
];

/**
 * The dock: the brief of what is selected, its words being its controls; with nothing selected, the questions by which
 * something is added.
 */
export class Dock {
  #turn = 0;
  /** How the questions that are shown are brought up to date; they are gone where what they stand in is. */
  #questioned = null;
  #finishOpen = false;

  /**
   * @param {import('./arrange.js').Several} several
   * @param {import('./phone.js').Phone | null} phone where the page is arranged for phones
   * @param {{added: (id: string) => void, released: () => void, chosen: (ids: string[]) => void}} hooks
   */
  constructor(place, sheet, edits, several, phone, hooks) {
    Object.assign(this, { place, sheet, edits, several, phone, hooks });
  }

  /** Shows what can be done with several visuals. */
  showSeveral() {
    this.#turn++;
    const { ids } = this.several;
    const focused = document.activeElement?.dataset?.act;
    const button = (words, run) =>
      el('button', { type: 'button', class: 'quiet', onclick: () => run().catch(r => say(r.message)) }, words);
    this.place.replaceChildren(
      el(
        'div',
        { class: 'dock-row' },
        this.several.sentence(),
        el(
          'div',
          { class: 'dock-side' },
          button('One more of each', () => this.#copyHere(ids.join(','))),
          button('Take away', () => this.#takeAway(ids.join(','))),
          button('Choose none', async () => this.hooks.released()),
        ),
      ),
    );
    if (focused) this.place.querySelector(`[data-act="${focused}"]`)?.focus();
  }

  /** What is said of a visual, or of the page, where it is arranged for phones. */
  #onPhone(id) {
    const visual = Boolean(this.sheet.opened.document.visuals[id]);
    this.place.replaceChildren(el('div', { class: 'dock-row' }, visual ? this.phone.sentence(id) : this.phone.page()));
  }

  /** Shows the brief of a visual, filter or parameter; null shows the questions. */
  async show(id) {
    const turn = ++this.#turn;
    if (this.phone) {
      this.#onPhone(id);
      return;
    }
    if (!id) {
      this.#questions();
      return;
    }
    try {
      const brief = await ask('GET', `/api/dashboards/${this.sheet.id}/briefs/${id}`);
      if (turn !== this.#turn) return;
      this.#brief(id, brief);
    } catch (refused) {
      if (turn !== this.#turn) return;
      this.place.replaceChildren(
        el('div', { class: 'dock-row' }, el('p', { class: 'dock-brief' }, refused.message), this.#side(id)),
      );
    }
  }

  /** Shows again what is shown, after an edit: what was asked or typed meanwhile stays. */
  again(id) {
    if (id || this.phone || !this.#questioned?.stands()) return this.show(id);
    this.#questioned.again();
    return Promise.resolve();
  }

  #brief(id, brief) {
    const had = this.#focused();
    const finish = el(
      'p',
      { class: 'dock-finish', hidden: !this.#finishOpen },
      ...brief.finish.map(p => this.#part(p)),
    );
    const fold = el(
      'button',
      {
        type: 'button',
        class: 'quiet',
        'aria-expanded': String(this.#finishOpen),
        onclick: () => {
          this.#finishOpen = !this.#finishOpen;
          finish.hidden = !this.#finishOpen;
          fold.setAttribute('aria-expanded', String(this.#finishOpen));
        },
      },
      'Finish',
    );
    const side = this.#side(id);
    side.prepend(fold);
    this.place.replaceChildren(
      el('div', { class: 'dock-row' }, el('p', { class: 'dock-brief' }, ...brief.parts.map(p => this.#part(p))), side),
      finish,
    );
    if (had) [...this.place.querySelectorAll('button')].find(had)?.focus();
  }

  /**
   * What tells the button of the dock that has the keyboard from the others, once all are made anew; null if none has
   * it.
   */
  #focused() {
    const has = document.activeElement;
    if (!has || !this.place.contains(has) || has.tagName !== 'BUTTON') return null;
    const { slot } = has.dataset;
    const words = has.textContent;
    return button => (slot ? button.dataset.slot === slot : !button.dataset.slot && button.textContent === words);
  }

  #side(id) {
    return el(
      'div',
      { class: 'dock-side' },
      ...(this.sheet.opened.document.visuals[id] ? this.#remaking(id) : []),
      ...(this.sheet.opened.document.pages[id] ? this.#ofPage(id) : []),
      el('button', { type: 'button', class: 'quiet', onclick: () => this.#takeAway(id) }, 'Take away'),
      el('button', { type: 'button', class: 'quiet', onclick: () => this.hooks.released() }, 'Add something else'),
    );
  }

  #remaking(id) {
    const button = (words, run) =>
      el(
        'button',
        { type: 'button', class: 'quiet', onclick: e => run(e.currentTarget).catch(r => say(r.message)) },
        words,
      );
    return [
      button('Show it otherwise', async opener => {
        const others = await ask('GET', `/api/dashboards/${this.sheet.id}/others/${id}`);
        if (!others.length) say('No other kind can show this. Add something else instead.');
        else openPopup(opener, [el('div', { class: 'popup-list' }, ...others.map(o => this.#other(o)))]);
      }),
      this.several.isGrouped(id) && button('Its whole group', async () => this.hooks.chosen(this.several.with(id))),
      button('One more of it', async opener => {
        offerCopies(opener, this.sheet, id, () => this.#copyHere(id).catch(refused => say(refused.message)));
      }),
    ];
  }

  async #copyHere(id) {
    const { id: fresh, ops } = await ask('GET', `/api/dashboards/${this.sheet.id}/copies/${id}`);
    await this.edits.edit(ops);
    if (this.sheet.opened.document.pages[fresh]) this.sheet.goTo(fresh);
    else if (fresh.includes(',')) this.hooks.chosen(fresh.split(','));
    else this.hooks.added(fresh);
  }

  /** What can be done with a page besides what its brief says. */
  #ofPage(id) {
    const { document: dashboard } = this.sheet.opened;
    const all = pagesOf(dashboard);
    const order = all.filter(page => aboveOf(dashboard, page) === aboveOf(dashboard, id));
    const at = order.indexOf(id);
    /** Numbers the pages anew with this one in another place among those beside it. */
    const move = to => {
      const moved = order.filter(page => page !== id);
      moved.splice(to, 0, id);
      const next = all.map(page => (order.includes(page) ? moved.shift() : page));
      this.edits.edit(
        next.flatMap((page, i) =>
          dashboard.pages[page].order === i + 1 ? [] : [{ op: 'replace', path: `/pages/${page}/order`, value: i + 1 }],
        ),
      );
    };
    const button = (words, run, disabled = false) =>
      el('button', { type: 'button', class: 'quiet', disabled, onclick: run }, words);
    return [
      button('Earlier', () => move(at - 1), at === 0),
      button('Later', () => move(at + 1), at === order.length - 1),
      button('One more of it', () => this.#copyHere(id).catch(refused => say(refused.message))),
    ];
  }

  /** Another kind as something to choose; what it does not take over is said before and after. */
  #other({ kind, sign, ops, left }) {
    const lost = left.length ? `without ${left.join(', ')}` : '';
    return el(
      'button',
      {
        type: 'button',
        class: 'popup-option',
        onclick: async () => {
          closePopup(true);
          await this.edits.edit(ops);
          if (lost) say(`Shown as ${kind} ${lost}. Undo brings it back as it was.`);
        },
      },
      el('svg', { class: 'kind-sign', viewBox: '0 0 10 10', 'aria-hidden': 'true' }, el('path', { d: sign })),
      `as ${kind}`,
      lost && el('span', { class: 'hint' }, lost),
    );
  }

  /** Takes a part away with what rests on it; what that is the server knows. */
  async #takeAway(id) {
    try {
      const { patch, words } = await ask('GET', `/api/dashboards/${this.sheet.id}/removals/${id}`);
      await this.edits.edit(JSON.parse(patch));
      if (words.length) say(`With it went ${words.join(' and ')}. Undo brings all of it back.`);
    } catch (refused) {
      say(refused.message);
    }
  }

  #part(part) {
    if (part.type === 'words') return part.text;
    const slot = el(
      'button',
      {
        type: 'button',
        class: `slot${part.empty ? ' is-empty' : ''}`,
        'data-slot': part.path,
        'aria-haspopup': 'true',
        'aria-expanded': 'false',
        'aria-label': `${part.name}: ${part.text}`,
        onclick: e => this.#open(e.currentTarget, part),
      },
      part.text,
    );
    return slot;
  }

  #open(opener, slot) {
    openSlot(opener, slot, { sheet: this.sheet, edit: patch => this.edits.edit(patch) });
  }

  // --- adding by question ------------------------------------------------------------------------

  #questions() {
    const datasets = JSON.parse(document.getElementById('datasets').textContent);
    if (!datasets.length) {
      this.place.replaceChildren(
        el(
          'p',
          { class: 'dock-brief' },
          'There is no dataset to compose from yet. ',
          el('a', { href: '/bring' }, 'Bring a table in'),
          '.',
        ),
      );
      return;
    }
    const had = this.#focused();
    const proposals = el('div', { class: 'proposals', hidden: true });
    const refusal = el('div', {});
    const from = el(
      'select',
      { class: 'slot', 'aria-label': 'Dataset' },
      ...datasets.map(d => el('option', { value: d.id }, d.name)),
    );
    from.value = this.#likely(datasets);
    const starts = this.sheet.visuals.size ? '' : this.#starts(from);
    let asked = null;
    const ask = async question => {
      asked = question;
      for (const b of buttons) b.setAttribute('aria-pressed', String(b.dataset.question === question));
      await this.#propose(question, from.value, proposals, refusal);
    };
    const buttons = QUESTIONS.map(([question, words]) =>
      el(
        'button',
        {
          type: 'button',
          class: 'question',
          'data-question': question,
          'aria-pressed': 'false',
          onclick: () => ask(question),
        },
        words,
      ),
    );
    const sentence = new Sentence({
      sheet: this.sheet,
      dataset: () => from.value,
      add: visual => this.#add(visual),
      typing: typing => {
        proposals.hidden = typing || !proposals.children.length;
      },
    });
    from.addEventListener('change', () => {
      sentence.again();
      if (asked) ask(asked);
    });
    this.place.replaceChildren(
      el(
        'div',
        { class: 'dock-row' },
        el('p', { class: 'dock-brief' }, 'Add an answer from ', from, ' to the question'),
        el('div', { class: 'dock-questions' }, ...buttons),
      ),
      sentence.element,
      starts,
      refusal,
      proposals,
    );
    this.#questioned = {
      stands: () => sentence.element.isConnected && Boolean(asked || sentence.field.value.trim()),
      again: () => {
        if (this.sheet.visuals.size && starts) starts.remove();
        sentence.again();
        if (asked) ask(asked);
      },
    };
    if (had) [...this.place.querySelectorAll('button')].find(had)?.focus();
  }

  /** The sheets to start from, for an empty page. */
  #starts(from) {
    const row = el('div', { class: 'starts' });
    ask('GET', '/api/dashboards/starting-sheets')
      .then(sheets => {
        row.append(
          el('span', {}, 'or begin with a sheet:'),
          ...sheets.map(sheet =>
            el(
              'button',
              {
                type: 'button',
                class: 'start',
                'data-start': sheet.name,
                onclick: () => this.#start(sheet, from.value),
              },
              el(
                'svg',
                { viewBox: '0 0 24 18', preserveAspectRatio: 'xMidYMin slice', 'aria-hidden': 'true' },
                ...sheet.boxes.map(({ x, y, w, h }) =>
                  el('rect', { x: x + 0.4, y: y * 0.8 + 0.4, width: w - 0.8, height: h * 0.8 - 0.8 }),
                ),
              ),
              el('span', {}, el('b', {}, sheet.words), el('span', { class: 'hint' }, sheet.hint)),
            ),
          ),
        );
      })
      .catch(refused => say(refused.message));
    return row;
  }

  async #start(sheet, dataset) {
    try {
      const { ops, bare } = await ask(
        'GET',
        `/api/dashboards/${this.sheet.id}/starting-sheets/${sheet.name}?dataset=${dataset}&page=${this.sheet.page}`,
      );
      if (ops.length) await this.edits.edit(ops);
      if (bare.length) say(`Nothing of this dataset answers ${bare.join(' or ')}, so that place is left bare.`);
    } catch (refused) {
      say(refused.message);
    }
  }

  /** The dataset that is added from most likely: the one that most of the page rests on, or else of the dashboard. */
  #likely(datasets) {
    const { visuals } = this.sheet.opened.document;
    const uses = new Map(datasets.map(d => [d.id, 0]));
    for (const visual of Object.values(visuals))
      for (const one of [visual, ...Object.values(visual.layers ?? {})])
        if (uses.has(one.dataset))
          uses.set(one.dataset, uses.get(one.dataset) + (visual.page === this.sheet.page ? 100 : 1));
    return [...uses].sort(([, a], [, b]) => b - a)[0][0];
  }

  async #propose(question, dataset, place, refusal) {
    const turn = ++this.#turn;
    refuse(refusal, '');
    try {
      const found = await ask(
        'GET',
        `/api/dashboards/${this.sheet.id}/proposals?question=${question}&dataset=${dataset}&page=${this.sheet.page}`,
      );
      if (turn !== this.#turn) return;
      place.hidden = false;
      const had = this.#focused();
      place.replaceChildren(...found.map(p => this.#proposal(p)));
      if (had) [...place.children].find(had)?.focus();
      if (!found.length)
        refuse(
          refusal,
          question === 'WHERE'
            ? 'The rows of this dataset have no place. Say on its page how they are placed.'
            : 'This dataset has no column that answers this.',
        );
    } catch (refused) {
      refuse(refusal, refused.message);
    }
  }

  async #add({ id, ops }) {
    await this.edits.edit(ops);
    this.hooks.added(id);
  }

  #proposal({ id, words, ops, drawing, places }) {
    remember(places);
    const kind = drawing && KINDS[drawing.type];
    return el(
      'button',
      {
        type: 'button',
        class: 'proposal',
        'data-kind': drawing?.type ?? 'filter',
        onclick: () => this.#add({ id, ops }),
      },
      kind ? el('div', { class: 'mini' }, kind.mini(drawing)) : null,
      words,
    );
  }
}
