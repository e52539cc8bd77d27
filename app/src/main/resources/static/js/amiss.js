import { addressOf, BASE } from './base.js';
import { el, say } from './elements.js';
import { ask } from './http.js';
import { LANGUAGE, phrase } from './language.js';

/** Milliseconds between two looks at what is amiss, however often something is newer. */
const APART = 2000;

const STATES = () => ({ WATCH: phrase('watch'), BAD: phrase('bad'), SILENT: phrase('silent') });

/** Paths of the signs of states, in a box of 12 by 12, as maps have them in the order of states. */
const SIGNS = { WATCH: 'M1 1h10v10H1z', BAD: 'M6 0L12 6 6 12 0 6z', SILENT: 'M6 1L11.5 11H.5z' };

const timeOf = (millis, now = Date.now()) =>
  new Date(millis).toLocaleString(LANGUAGE, {
    hour: '2-digit',
    minute: '2-digit',
    ...(now - millis > 20 * 3600e3 ? { day: 'numeric', month: 'short' } : {}),
  });

/** How long, in its largest unit. */
function span(millis) {
  const [unit, length] = [
    ['day', 86400e3],
    ['hour', 3600e3],
    ['minute', 60e3],
  ].find(([, one]) => millis >= one) ?? ['second', 1e3];
  const count = Math.max(0, Math.floor(millis / length));
  return new Intl.NumberFormat(LANGUAGE, { style: 'unit', unit, unitDisplay: 'long' }).format(count);
}

/**
 * What is amiss now among the devices that a page shows: a count that is always in sight, and the list, the longest
 * first, in which people say that they have seen it.
 */
export class Amiss {
  #sheet;
  #button = el('button', { type: 'button', class: 'amiss-count', id: 'amiss', hidden: true });
  #list = null;
  #told = { amiss: [] };
  #looked = 0;
  #due = null;

  /** @param {import('./sheet.js').Sheet} sheet @param {HTMLElement} line in which the count stands */
  constructor(sheet, line) {
    this.#sheet = sheet;
    line.append(this.#button);
    this.#button.addEventListener('click', () => (this.#list ? this.#close() : this.#open()));
    addEventListener('keydown', e => e.key === 'Escape' && this.#list && this.#close());
  }

  /** Looks again, soon. */
  look() {
    if (this.#due) return;
    this.#due = setTimeout(
      async () => {
        this.#due = null;
        this.#looked = performance.now();
        try {
          this.#told = await ask('GET', addressOf('amiss'));
          this.#draw();
        } catch {
          /* it is looked at again with the next change */
        }
      },
      Math.max(0, this.#looked + APART - performance.now()),
    );
  }

  #draw() {
    const { shows, amiss } = this.#told;
    this.#button.hidden = !shows;
    this.#button.textContent = amiss.length
      ? phrase('{0} amiss', amiss.length.toLocaleString(LANGUAGE))
      : phrase('Nothing amiss');
    const unseen = amiss.filter(one => !one.seenBy).length;
    this.#button.classList.toggle('is-unseen', unseen > 0);
    this.#button.title = amiss.length ? phrase('{0} of them nobody has seen yet', unseen.toLocaleString(LANGUAGE)) : '';
    this.#drawList();
  }

  #open() {
    this.#list = el(
      'section',
      { class: 'amiss', role: 'dialog', 'aria-label': phrase('What is amiss, the longest first') },
      el(
        'header',
        { class: 'aside-head' },
        el('h2', { class: 'aside-title' }, phrase('What is amiss')),
        el('span', { class: 'aside-page text-faint' }, phrase('the longest first')),
        el(
          'button',
          { type: 'button', class: 'aside-close', 'aria-label': phrase('Fold away'), onclick: () => this.#close() },
          '×',
        ),
      ),
      el('ol', { class: 'amiss-list' }),
    );
    document.body.append(this.#list);
    this.#drawList();
    this.#list.querySelector('.aside-close').focus({ preventScroll: true });
  }

  #close() {
    this.#list?.remove();
    this.#list = null;
    this.#button.focus();
  }

  /** Lines stay in place while one of them is written in: what is read does not move under a hand. */
  #drawList() {
    const list = this.#list?.querySelector('.amiss-list');
    if (!list || list.contains(document.activeElement?.closest?.('.amiss-note') ?? null)) return;
    const top = list.scrollTop;
    list.replaceChildren(
      ...(this.#told.amiss.length
        ? this.#told.amiss.map(one => this.#line(one))
        : [el('li', { class: 'text-faint' }, phrase('All devices are well.'))]),
    );
    list.scrollTop = top;
  }

  #line(one) {
    const now = Date.now();
    return el(
      'li',
      { class: `amiss-line is-${one.state.toLowerCase()}`, 'data-turn': one.turn },
      el(
        'svg',
        { viewBox: '0 0 12 12', class: 'amiss-sign', 'aria-hidden': 'true' },
        el('path', { d: SIGNS[one.state] }),
      ),
      el(
        'div',
        {},
        el(
          'p',
          {},
          el('button', { type: 'button', class: 'amiss-device', onclick: () => this.#pick(one) }, one.name),
          one.kind ? el('span', { class: 'text-faint' }, ` ${one.kind}`) : '',
        ),
        el(
          'p',
          { class: 'text-small' },
          phrase('{0} for {1}, since {2}', STATES()[one.state], span(now - one.since), timeOf(one.since, now)),
          one.why && one.state !== 'SILENT' ? `: ${one.why}` : '',
        ),
        one.seenBy
          ? el(
              'p',
              { class: 'text-small amiss-seen' },
              one.note
                ? phrase('Seen by {0} at {1}: {2}', one.seenBy, timeOf(one.seenAt, now), one.note)
                : phrase('Seen by {0} at {1}', one.seenBy, timeOf(one.seenAt, now)),
            )
          : '',
        this.#told.notes && !BASE.startsWith('/api/shown/') ? this.#note(one) : '',
      ),
    );
  }

  #note(one) {
    const said = el('input', {
      class: 'amiss-note-words',
      'aria-label': phrase('A note about {0}', one.name),
      placeholder: phrase('a note, if there is one to make'),
      maxlength: 400,
      value: one.note ?? '',
    });
    return el(
      'form',
      {
        class: 'amiss-note',
        onsubmit: async e => {
          e.preventDefault();
          try {
            await ask('POST', addressOf(`amiss/${one.turn}`), { body: { note: said.value } });
            said.blur();
            e.submitter?.blur();
          } catch (refused) {
            say(refused.message);
          }
          this.#looked = 0;
          this.look();
        },
      },
      said,
      el('button', { class: 'quiet' }, one.seenBy ? phrase('Note') : phrase('I have seen it')),
    );
  }

  /** Picks the device where devices can be picked: by their code, or on a map. */
  #pick({ dataset, device }) {
    const { sources } = this.#sheet.opened;
    const values = { [`${dataset}.device`]: device, [`${dataset}.@place`]: `t${device}` };
    const on = Object.keys(values).flatMap(source => this.#sheet.ids().filter(id => sources?.[id] === source));
    if (on.length) this.#sheet.pick(on[0], [values[sources[on[0]]]], false);
    this.#close();
  }
}
