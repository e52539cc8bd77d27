import { Aside } from './aside.js';
import { isBorne } from './base.js';
import { el, say } from './elements.js';
import { encode } from './state.js';
import { phrase } from './language.js';

/** Milliseconds within which a second press on the same opens it. */
const TWICE = 420;

/**
 * What follows when something is done on a visual, as far as it is not the server that works it out: what is lit, where
 * maps fly, what slides in, what is set, where one goes.
 */
export class Links {
  #sheet;
  #pressed = null;
  /** What the pointer rests on, by the meaning of its column. */
  #hovered = null;
  #aside = null;

  constructor(sheet) {
    this.#sheet = sheet;
  }

  #of(from, gesture, effect) {
    return Object.values(this.#sheet.opened.document.links).filter(
      link => link.from === from && (link.on ?? 'PICKED') === gesture && (link.effect ?? 'NARROW') === effect,
    );
  }

  /** Ids of the visuals on the page that a link is about. */
  #targets({ from, to }) {
    return (to ?? this.#sheet.ids()).filter(id => id !== from && this.#sheet.visuals.has(id));
  }

  /** Whether something is opened by this press: the same was pressed a moment ago, and something follows. */
  opens(from, values, gesture = 'OPENED') {
    const now = performance.now();
    const key = `${from} ${values.join()}`;
    const twice = this.#pressed?.key === key && now - this.#pressed.at < TWICE;
    this.#pressed = twice ? null : { key, at: now };
    return twice && ['OPEN', 'GO', 'BESIDE', 'SET', 'FLY'].some(effect => this.#of(from, gesture, effect).length > 0);
  }

  /**
   * What a pick sets besides: filters and parameters take its value.
   * @param {Map} next the state after the pick, which is changed
   * @param {string[]} values what is picked now
   * @returns {string[]} ids of what was set
   */
  sets(from, values, next, gesture = 'PICKED') {
    const set = [];
    for (const { part } of this.#of(from, gesture, 'SET')) {
      const filter = this.#sheet.opened.document.filters[part];
      const name = `${filter ? 'f' : 'v'}.${part}`;
      const said = values.map(value => this.#sheet.labelOf(from, value, Boolean(filter)));
      if (values.length) next.set(name, filter ? said : said.slice(0, 1));
      else next.delete(name);
      set.push(part);
    }
    return set;
  }

  /** What follows a pick once the state is changed. */
  followed(from, values, gesture = 'PICKED') {
    if (values.length)
      for (const link of this.#of(from, gesture, 'FLY'))
        for (const id of link.to ?? this.#sheet.ids()) {
          const { kind, handle } = this.#sheet.visuals.get(id) ?? {};
          kind?.fly?.(handle, values);
        }
    for (const link of this.#of(from, gesture, 'OPEN')) this.#slide(link, values.length > 0);
    for (const link of this.#of(from, gesture, 'BESIDE')) this.#beside(link, values);
    if (!values.length) return;
    for (const link of this.#of(from, gesture, 'GO')) {
      if (link.dashboard && isBorne) say(phrase('This leads to another dashboard, which this link does not show.'));
      else if (link.dashboard) {
        const means = this.#sheet.opened.sources[from];
        location.href = `/dashboards/${link.dashboard}?carry.${means}=${values.map(encode).join(',')}`;
      } else this.#sheet.goTo(link.part);
    }
  }

  /** Ids of the visuals that are folded away until something is picked. */
  folded() {
    return new Set(
      Object.values(this.#sheet.opened.document.links)
        .filter(({ effect }) => effect === 'OPEN')
        .flatMap(({ to }) => to ?? []),
    );
  }

  #slide(link, open) {
    for (const id of this.#targets(link)) {
      const { cell } = this.#sheet.visuals.get(id);
      cell.classList.toggle('is-slid', open);
      if (open && !cell.querySelector('.slid-close'))
        cell.append(
          el(
            'button',
            {
              type: 'button',
              class: 'slid-close',
              'aria-label': phrase('Fold away'),
              onclick: () => {
                cell.classList.remove('is-slid');
                this.#sheet.clear(link.from, 'p');
              },
            },
            '×',
          ),
        );
      if (open) this.#sheet.resize(id);
    }
  }

  /** Lets the page of what is picked slide in, or out where nothing is. */
  #beside(link, values) {
    this.#aside ??= new Aside(this.#sheet);
    if (values.length) this.#aside.show(link, values);
    else this.#aside.fold(link.from);
  }

  /** Lets what slides in be where the state has it: after the page is opened or gone back to. */
  settle() {
    const picked = id => this.#sheet.state.has(`p.${id}`);
    const links = Object.values(this.#sheet.opened.document.links);
    for (const link of links) if (link.effect === 'OPEN') this.#slide(link, picked(link.from));
    // A press twice leaves nothing in the state that a reload could tell from a pick.
    const beside = links.filter(
      ({ effect, on, from }) => effect === 'BESIDE' && (on ?? 'PICKED') === 'PICKED' && this.#sheet.visuals.has(from),
    );
    const about = beside.filter(({ from }) => this.#sheet.pickedOn(from).length);
    // What it is about stays, where that is picked still; else it is what else is picked.
    const one = about.find(({ from }) => from === this.#aside?.about) ?? about[0];
    for (const link of one ? [one] : beside) this.#beside(link, one ? this.#sheet.pickedOn(link.from) : []);
  }

  /**
   * The pointer rests on a mark, or on none: what means the same is lit, on every map and wherever a link says so.
   * @param {string[] | null} values
   */
  hover(from, values) {
    const said = values?.join() ?? '';
    if ((this.#hovered?.said ?? '') === said && (this.#hovered?.from ?? from) === from) return;
    this.#hovered = values && { from, said, values, means: this.#sheet.opened.means[from] };
    for (const id of this.#lights(from, 'HOVERED')) this.#sheet.light(id);
    for (const id of this.#sheet.ids()) if (this.#together(from, id)) this.#sheet.light(id);
    if (values)
      for (const link of this.#of(from, 'HOVERED', 'FLY'))
        for (const id of this.#targets(link))
          this.#sheet.visuals.get(id).kind.fly?.(this.#sheet.visuals.get(id).handle, values);
  }

  /** Maps of one page belong together without a link. */
  #together(from, id) {
    const { visuals } = this.#sheet;
    return id !== from && visuals.get(from)?.kind.fly && visuals.get(id)?.kind.fly;
  }

  #lights(from, gesture) {
    return this.#of(from, gesture, 'LIGHT').flatMap(link => this.#targets(link));
  }

  /** What is lit on a visual besides what is picked on it. @returns {string[]} */
  litOn(id) {
    const { means } = this.#sheet.opened;
    const lit = [];
    const hovered = this.#hovered;
    if (
      hovered &&
      hovered.means === means[id] &&
      hovered.from !== id &&
      (this.#together(hovered.from, id) || this.#lights(hovered.from, 'HOVERED').includes(id))
    )
      lit.push(...hovered.values);
    for (const from of this.#sheet.ids())
      if (from !== id && means[from] === means[id] && this.#lights(from, 'PICKED').includes(id))
        lit.push(...this.#sheet.pickedOn(from));
    return lit;
  }
}
