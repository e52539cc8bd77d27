import { el, say } from './elements.js';
import { addressOf, BASE, PAGE_ADDRESS } from './base.js';
import { Asking } from './asking.js';
import { Coming } from './coming.js';
import { ask, askBlob } from './http.js';
import { openFigures, openTrail } from './dialogs.js';
import { cellsOf, dress, readingOrder, sizeSheet, wear } from './dress.js';
import { drawPages, pagesOf } from './pages.js';
import { Showing } from './showing.js';
import { controlOf, drawStrip } from './strip.js';
import { Links } from './links.js';
import { forget, remember } from './places.js';
import { followed, boxOf } from './filters/place.js';
import { knowNames, picked, readAddress, readState, strangersOf, valuesOf, writeAddress, writeState } from './state.js';
import { fileName, keepBack, offerTake, save, take } from './take.js';
import { turns } from './filters/turns.js';
import { KINDS } from './visuals/kinds.js';
import { measuredTogether } from './sizes.js';
import { languageAsked, phrase } from './language.js';

/** How the page stands in another one, or on a wall, is said behind the state, and stays. */
const standing = () => (/^#(framed|wall)\b/.test(location.hash) ? location.hash : '');

/** Windows up to this width are read as on a phone, as the style has it. */
const PHONE = 720;

/** What a kind cannot change while it stands. */
const madeOf = visual => KINDS[visual.type].made?.(visual) ?? '';

const SIGNS = {
  trail: 'M4 4h6v4H4zM10 6h4v5M11 13h6v4h-6z',
  figures: 'M3 4h14v12H3zM3 8h14M3 12h14M8 4v12',
  take: 'M10 3v9M6 8l4 4 4-4M4 16h12',
  beside: 'M3 4h6v12H3zM11 4h6v12h-6z',
  enlarge: 'M12 3h5v5M17 3l-6 6M8 17H3v-5M3 17l6-6',
};

/** What is picked in a state. */
const picksOf = state => writeState(new Map([...state].filter(([name]) => name.startsWith('p.'))));

/**
 * A page of a dashboard as it is read: its visuals, what the reader has chosen, and the address that says so.
 * Composing builds on it.
 */
export class Sheet {
  visuals = new Map();

  /** Asks for what is behind newer rows; null where none come by themselves. @type {(() => Promise<void>) | null} */
  catchUp = null;
  /** What is picked by a predicate, as the values that it means, by visual. */
  lit = new Map();
  #litAs = '';

  /**
   * @param {{wrap?: (id: string, visual: Object, cell: HTMLElement) => void}} hooks called for each visual that is
   *     mounted
   */
  constructor(id, hooks = {}) {
    this.id = id;
    this.hooks = hooks;
    this.place = document.getElementById('sheet');
    this.state = new Map();
    this.asking = new Asking(this, () => this.#address('frames'));
    this.coming = new Coming(this);
    this.links = new Links(this);
    this.showing = new Showing(this);
    addEventListener('resize', () => {
      if (!this.opened || this.opened.document.pages[this.page].size?.fit !== 'WINDOW') return;
      this.arrange();
      this.hooks.sized?.();
      for (const visual of this.visuals.keys()) this.resize(visual);
    });
    addEventListener('popstate', () => {
      this.state = readAddress(location.search);
      this.lightAll();
      this.turnPage();
    });
  }

  async load() {
    const answer = await ask('GET', BASE);
    const opened = this.hooks.opening?.(answer) ?? answer;
    knowNames(opened.document, ({ type }) => KINDS[type].part ?? 'p');
    this.state = readAddress(location.search);
    this.strangers = strangersOf(location.search);
    this.#askFirst(opened);
    this.take(opened);
    this.hooks.laidOut?.();
    await this.ask(this.ids());
  }

  /** Asks for the figures before the page is laid out, so that both go on at the same time. */
  #askFirst({ document: dashboard, worn }) {
    if (Object.values(dashboard.groups ?? {}).some(({ swap }) => swap)) return;
    const named = this.state.get('g.page')?.[0];
    const page = dashboard.pages[named] ? named : pagesOf(dashboard)[0];
    this.asking.first(readingOrder(dashboard, page).filter(id => !worn[id].hidden && (!this.only || id === this.only)));
  }

  /** Says which rows this viewer sees, where not all. */
  #sayKept({ kept }) {
    const place = document.getElementById('kept-back');
    if (!place) return;
    place.hidden = !kept.length;
    place.textContent = kept.join(' ');
  }

  /** Id of the page that is looked at. */
  get page() {
    const asked = this.state.get('g.page')?.[0];
    return this.opened.document.pages[asked] ? asked : pagesOf(this.opened.document)[0];
  }

  /**
   * Goes to a page; what was chosen is kept.
   * @param {string} page its id @param {boolean} byItself whether nobody has asked for it, so that nobody goes back
   */
  goTo(page, byItself = false) {
    const next = new Map(this.state);
    if (page === pagesOf(this.opened.document)[0]) next.delete('g.page');
    else next.set('g.page', [page]);
    this.state = next;
    if (byItself) history.replaceState(null, '', this.address());
    else history.pushState(null, '', this.address());
    this.turnPage();
  }

  /** Shows the page that is looked at now, if it is another one than before, and asks for all on it. */
  turnPage() {
    this.take(this.opened);
    this.hooks.turned?.();
    this.ask(this.ids());
  }

  /** Takes a revision: mounts what is new on the page that is looked at, takes away what has gone. */
  take(opened) {
    // Whoever took the page away need not be told; of one that an address names in vain the server says so.
    if (this.opened && !opened.document.pages[this.state.get('g.page')?.[0]]) this.state.delete('g.page');
    this.opened = opened;
    this.asking.renewed();
    knowNames(opened.document, ({ type }) => KINDS[type].part ?? 'p');
    wear(opened);
    keepBack(opened);
    this.#sayKept(opened);
    const spots = opened.phone[this.page];
    const away = this.#away(this.state);
    const inOrder = this.isPhone ? spots.map(spot => spot.visual) : readingOrder(opened.document, this.page);
    const shown = inOrder.filter(
      id => (this.hooks.strip || !opened.worn[id].hidden) && (!this.only || id === this.only) && !away.has(id),
    );
    const visuals = Object.fromEntries(shown.map(id => [id, opened.document.visuals[id]]));
    for (const [id, mounted] of this.visuals)
      if (!visuals[id] || visuals[id].type !== mounted.type || mounted.made !== madeOf(visuals[id])) this.#takeAway(id);
    const roomy = [];
    for (const [id, visual] of Object.entries(visuals)) {
      if (!this.visuals.has(id)) this.#mount(id, visual);
      else this.visuals.get(id).kind.set?.(this.visuals.get(id).handle, visual);
      if (dress(opened.worn[id], this.visuals.get(id).box)) roomy.push(id);
    }
    document.getElementById('empty-sheet').hidden = this.visuals.size > 0;
    drawPages(this);
    drawStrip(this);
    this.arrange(spots);
    this.#switches();
    const folded = this.hooks.strip ? new Set() : this.links.folded();
    for (const [id, { cell }] of this.visuals) cell.classList.toggle('is-folded', folded.has(id));
    for (const id of roomy) this.resize(id);
  }

  /** Takes what was asked for anew: of a revision that somebody else has made, all of it. */
  renew(opened) {
    const isSame = opened.revision === this.opened.revision && opened.edition === this.opened.edition;
    if (isSame) this.take(opened);
    else if (this.hooks.taken) this.hooks.taken(opened);
    else {
      this.take(opened);
      this.ask(this.ids());
    }
  }

  /** Which of a swap is shown, by its number. */
  #shownOf(id, { visuals, by }, state) {
    const parameter = by && this.opened.document.parameters?.[by];
    const said = parameter
      ? (state.get(`v.${by}`)?.[0] ?? parameter.first ?? parameter.value)
      : state.get(`s.${id}`)?.[0];
    const named = (parameter?.options ?? []).findIndex(({ words }) => words === said);
    const number = named >= 0 ? named : Number(said ?? 0);
    return Number.isInteger(number) && number >= 0 && number < visuals.length ? number : 0;
  }

  #swaps() {
    return Object.entries(this.opened.document.groups ?? {}).filter(([, group]) => group.swap);
  }

  /** Ids of the visuals that stand in one place with a visual, itself among them. */
  inOnePlace(id) {
    return this.#swaps().find(([, { visuals }]) => visuals.includes(id))?.[1].visuals ?? [id];
  }

  /** Ids of the visuals in whose place another is shown. */
  #away(state) {
    return new Set(
      this.#swaps().flatMap(([id, group]) => {
        const shown = group.visuals[this.#shownOf(id, group, state)];
        return group.visuals.filter(one => one !== shown);
      }),
    );
  }

  /** On what is shown of a swap: what else can stand there. */
  #switches() {
    for (const { box } of this.visuals.values()) box.querySelector('.swap')?.remove();
    const { visuals, parameters } = this.opened.document;
    for (const [id, group] of this.#swaps()) {
      const now = this.#shownOf(id, group, this.state);
      const mounted = this.visuals.get(group.visuals[now]);
      // Where a parameter says which, its own control is in the strip.
      if (!mounted || (group.by && parameters?.[group.by])) continue;
      const all = group.visuals.map((one, i) => ({
        words: visuals[one]?.title || visuals[one]?.type || '',
        on: i === now,
        part: `${id}-${i}`,
        run: () => this.went(this.#without(`s.${id}`, i), null, []),
      }));
      mounted.box.append(el('div', { class: 'swap' }, turns(phrase('Swap'), all)));
    }
  }

  /** Puts every visual where it stands: on the grid, and one below the other on a phone. */
  arrange(spots = this.opened.phone[this.page]) {
    const { document: dashboard } = this.opened;
    const standing = spots.filter(spot => this.visuals.has(spot.visual));
    const cells = cellsOf(
      dashboard,
      this.page,
      standing.map(spot => dashboard.visuals[spot.visual].at),
    );
    this.row = sizeSheet(dashboard, this.page, cells, this.place);
    standing.forEach(({ visual, rows, left }, order) => {
      const { cell } = this.visuals.get(visual);
      const { x, y, w, h } = dashboard.visuals[visual].at;
      if (!this.hooks.wrap) cell.style.gridArea = `${y - cells.y + 1} / ${x - cells.x + 1} / span ${h} / span ${w}`;
      cell.style.order = order;
      cell.classList.toggle('off-phone', Boolean(left));
      cell.classList.toggle('has-rows', Boolean(rows));
      cell.style.setProperty('--rows', rows ?? 0);
    });
  }

  /** Whether the visuals stand one below the other. */
  get isPhone() {
    return innerWidth <= PHONE || document.body.classList.contains('as-phone');
  }

  ids() {
    return [...this.visuals.keys()];
  }

  #mount(id, visual) {
    const title = el('h2', { class: 'visual-title' });
    const body = el('div', { class: 'visual-body pales' });
    const sign = (name, words, run) =>
      el(
        'button',
        { type: 'button', title: words, 'aria-label': words, onclick: run },
        el('svg', { viewBox: '0 0 20 20', 'aria-hidden': 'true' }, el('path', { d: SIGNS[name] })),
      );
    const mounted = {
      type: visual.type,
      made: madeOf(visual),
      body,
      title,
      drawing: null,
    };
    const box = el(
      'section',
      { class: `visual visual-${visual.type}`, 'data-visual': id },
      title,
      KINDS[visual.type].bare
        ? ''
        : el(
            'div',
            { class: 'visual-signs' },
            (mounted.trailSign = sign('trail', phrase('Which rows are these?'), () => openTrail(mounted))),
            sign('figures', phrase('The figures as a table'), () => openFigures(this, id, mounted)),
            KINDS[visual.type].takesItself || !(this.opened.takes.rows || this.opened.takes.pictures)
              ? ''
              : sign('take', phrase('Take along'), e =>
                  offerTake(e.currentTarget, this.opened.takes, form => this.takeAlong(id, form)),
                ),
            this.hooks.strip || document.body.classList.contains('is-beside-page')
              ? ''
              : sign('beside', phrase('Side by side'), () => this.standBeside(id)),
            sign('enlarge', phrase('Enlarge'), () => this.#enlarge(box)),
          ),
      body,
    );
    // Marks with a key tell by themselves what the pointer rests on.
    body.addEventListener('pointerover', e => {
      if (mounted.kind.fly) return;
      const mark = e.target.closest?.('[data-key]');
      this.links.hover(id, mark?.dataset.key ? [mark.dataset.key] : null);
    });
    body.addEventListener('pointerleave', () => this.links.hover(id, null));
    const cell = el('div', { class: `visual-cell cell-${visual.type}` }, box);
    Object.assign(mounted, { box, cell, kind: KINDS[visual.type] });
    this.visuals.set(id, mounted);
    if (this.hooks.wrap) this.hooks.wrap(id, visual, mounted);
    else this.place.append(cell);
    mounted.handle = mounted.kind.mount(body, {
      id,
      title: visual.title || visual.type,
      titleElement: title,
      visual,
      composing: Boolean(this.hooks.strip),
      emit: event => this.#does[event.type](id, event, mounted),
    });
  }

  /** What kinds may ask of their page, by the type of the event. */
  #does = {
    /** Picks marks: by their values, or by a predicate such as `~near.5000.ID`. */
    pick: (id, { values, predicate, add }) => this.pick(id, predicate ? { predicate } : values, add),
    /** Asks the server about a visual. */
    ask: (id, { what, body }) =>
      ask('POST', this.#address(what), {
        body: { state: writeState(this.state), visual: id, ...body },
      }),
    /** Turns a part from shown to hidden or back. */
    turn: (id, { part }) => this.went(picked(this.state, `h.${id}`, [part], true), id, [id]),
    /** Chooses among what a part offers, by number from 0. */
    choose: (id, { part, number }) => this.went(this.#without(`s.${id}.${part}`, number), id, [id]),
    again: id => this.ask([id]),
    /** What is in sight of it has changed. */
    framed: (id, { extent }) => this.#framed(id, extent),
    /** What the state says of it. */
    said: (id, { part }) => this.state.get(`${part}.${id}`)?.[0] ?? null,
    /** Plays a moment; null for all of it. */
    moment: (id, { text, passing }) =>
      this.#set(`m.${id}`, text === null ? [] : [text], id, passing, this.opened.played[id] ?? []),
    ahead: (id, { texts }) => this.asking.ahead(id, texts),
    /** The pointer rests on marks of it, or on none. */
    hover: (id, { values }) => this.links.hover(id, values),
    figures: (id, _, mounted) => openFigures(this, id, mounted),
    address: (_, { what }) => this.#address(what),
    state: () => this.state,
    clear: () => this.clear(),
    /** Chooses what an address says. */
    chosen: (_, { state }) => this.went(readState(state ?? ''), null),
    take: (_, { visual, form }) => this.takeAlong(visual, form).catch(refused => say(refused.message)),
    /** What is turned of a filter or number, made anew; null where there is none of this id. */
    control: (_, part) => controlOf(this, part.id),
    grounds: () => this.opened.grounds ?? {},
    takes: () => this.opened.takes,
    forFile: id => this.#forFile(id),
    page: (_, { page }) => this.goTo(page),
  };

  #without(name, number) {
    const next = new Map(this.state);
    if (number) next.set(name, [String(number)]);
    else next.delete(name);
    return next;
  }

  #address(what) {
    const address = addressOf(what);
    return globalThis.sarnikCarried?.file(address) ?? address;
  }

  /**
   * Takes a visual along as a file.
   * @param {string} form csv, svg or png of what is drawn; rows.csv, rows.xlsx, rows.geojson, rows.gpkg or rows.parquet
   *     of its rows
   */
  async takeAlong(id, form) {
    const mounted = this.visuals.get(id);
    if (!mounted?.drawing || mounted.drawing.type === 'misfit')
      return say(phrase('There is nothing to take along yet.'));
    if (form.startsWith('rows.')) {
      const ending = form.slice('rows.'.length);
      const rows = await askBlob('POST', this.#address('rows'), {
        state: writeState(this.state),
        visual: id,
        form: ending,
      });
      return save(rows, fileName(mounted.drawing.title || 'rows', ending));
    }
    return take(form, mounted, () => this.#forFile(id));
  }

  /** The drawing of a visual for a file, with all of it that is not in sight. */
  #forFile(id) {
    const { kind, handle } = this.visuals.get(id);
    return this.asking.forFile(id, (kind.whole ?? kind.sight)?.(handle));
  }

  #takeAway(id) {
    const mounted = this.visuals.get(id);
    mounted.kind.unmount(mounted.handle);
    this.visuals.delete(id);
    if (this.hooks.unwrap) this.hooks.unwrap(mounted);
    else mounted.cell.remove();
  }

  /** Tells a visual that its box has another size. */
  resize(id) {
    const mounted = this.visuals.get(id);
    mounted?.kind.resize?.(mounted.handle);
  }

  #enlarge(box) {
    const large = box.classList.toggle('is-large');
    this.resize(box.dataset.visual);
    if (!large) return;
    const back = e => {
      if (e.key && e.key !== 'Escape') return;
      box.classList.remove('is-large');
      this.resize(box.dataset.visual);
      removeEventListener('keydown', back);
    };
    addEventListener('keydown', back);
  }

  // --- gestures ------------------------------------------------------------------------------

  /**
   * Picks on a visual; only what its links reach is asked for again.
   * @param {string[] | {predicate: string}} what values, or a predicate that says which marks are meant
   * @param {boolean} add keep what was picked before
   */
  pick(id, what, add) {
    if (Array.isArray(what) && this.links.opens(id, what)) return this.#opened(id, what);
    const next = picked(this.state, `p.${id}`, what, add, this.lit.get(id));
    this.#follow(id, next, 'PICKED');
  }

  /** A mark was pressed twice: it is picked, and what follows its opening happens. */
  #opened(id, values) {
    const next = new Map(this.state);
    next.set(`p.${id}`, values);
    this.#follow(id, next, 'OPENED');
  }

  #follow(id, next, gesture) {
    const values = valuesOf(next.get(`p.${id}`));
    const set = this.links.sets(id, values, next, gesture);
    const touched = set.length ? [...new Set([id, ...set].flatMap(part => this.opened.touches[part] ?? []))] : null;
    this.went(next, id, touched);
    this.links.followed(id, values, gesture);
  }

  /** Whether the reader has turned scales to what is shown. */
  get scalesTurned() {
    return this.state.get('w.page')?.[0] === 'shown';
  }

  /**
   * Whether colours or sizes of the page stand for something that can be turned: of two side by side they are alike.
   */
  hasScales() {
    if (this.state.get('w.page')?.[0] === 'all') return false;
    return [...this.visuals.values()].some(({ kind }) => kind.scaled);
  }

  /** Goes to where the page stands twice, or one of its visuals. @param {string | null} visual its id */
  standBeside(visual = null) {
    const said = encodeURIComponent(writeAddress(this.state));
    location.href = `${PAGE_ADDRESS}/beside?left=${said}&right=${said}${visual ? `&visual=${visual}` : ''}`;
  }

  /** Turns the scales of the page from what is held to what is shown, and back. */
  turnScales() {
    const next = new Map(this.state);
    if (next.has('w.page')) next.delete('w.page');
    else next.set('w.page', ['shown']);
    this.went(next, null);
  }

  /** Turns a pick round: all but what is picked. */
  turnRound(id) {
    const name = `p.${id}`;
    const text = writeState(new Map([[name, this.state.get(name)]])).slice(name.length + 1);
    const next = new Map(this.state);
    next.set(name, text.startsWith('!') ? readState(`${name}=${text.slice(1)}`).get(name) : { predicate: `!${text}` });
    this.went(next, id);
  }

  /** What a mark of a visual is called, or its value where that is wanted. */
  labelOf(id, value, asValue) {
    const { drawing, kind } = this.visuals.get(id);
    if (asValue || !drawing) return value;
    return kind.figures(drawing).rows.find(row => row.key === value)?.cells[0] ?? value;
  }

  /** The values of the marks that are picked on a visual. */
  pickedOn(id) {
    return valuesOf(this.state.get(`p.${id}`), this.lit.get(id));
  }

  /** What a filter keeps: as it is turned, or as it is at first. @returns {string[]} */
  turnedTo(id) {
    const first = this.opened.document.filters[id]?.terms?.first;
    const said = this.state.get(`f.${id}`) ?? (first ? readState(`f.${id}=${first}`).get(`f.${id}`) : []);
    return said.predicate === '*' ? [] : said.predicate ? [said.predicate] : said;
  }

  /**
   * Sets or clears a filter.
   * @param {string[] | {predicate: string}} values
   * @param {boolean} passing whether it is still being turned: the next value takes this one's place in the history
   */
  filter(id, values, passing = false) {
    // Where something else holds at first, everything has to be said.
    const everything = this.opened.document.filters[id]?.terms?.first ? { predicate: '*' } : [];
    const raw = values.length === 1 && /^~/.test(values[0]) ? { predicate: values[0] } : values;
    this.#set(`f.${id}`, raw.predicate || raw.length ? raw : everything, id, passing);
  }

  /** Sets a parameter, or puts it back with null. @param {boolean} passing as of filters */
  number(id, value, passing = false) {
    this.#set(`v.${id}`, value === null ? [] : [String(value)], id, passing);
  }

  #set(name, values, id, passing, touched = null) {
    const next = new Map(this.state);
    if (values.predicate || values.length) next.set(name, values);
    else next.delete(name);
    const turning = this.turning === id;
    this.turning = passing ? id : null;
    return this.went(next, id, touched, turning, passing);
  }

  /** What is in sight of a map has changed: those that follow it are asked for. */
  #framed(id, extent) {
    const box = { predicate: boxOf(extent) };
    const follow = followed(this, id);
    const touched = this.opened.framed[id] ?? [];
    if (!follow.length && !touched.length) return;
    const next = new Map(this.state);
    for (const filter of follow) next.set(`f.${filter}`, box);
    if (touched.length) next.set(`e.${id}`, box);
    if (writeState(next) === writeState(this.state)) return;
    this.went(next, id, [...new Set([...touched, ...follow.flatMap(filter => this.opened.touches[filter])])], true);
  }

  /** The values of a filter with their rows, as the other filters leave them. @param {string} find */
  valuesOf(id, find) {
    return ask('POST', this.#address('filters/values'), {
      body: { state: writeState(this.state), filter: id, find },
    });
  }

  /** What words mean here. @param {string} words */
  find(words) {
    return ask('POST', this.#address('narrowings'), {
      body: { state: writeState(this.state), words },
    });
  }

  /** Takes away one part of what is shown, by its letter; or puts everything back as it is at first. */
  clear(id = null, part = null) {
    if (part === 'f') return this.filter(id, []);
    const next = new Map(
      [...this.state].filter(([name]) =>
        id
          ? !(part ? [part] : ['f', 'p', 'v', 'e', 'm']).some(letter => name === `${letter}.${id}`)
          : /^[hsgw]/.test(name),
      ),
    );
    this.went(
      next,
      id,
      id && part === 'e' ? this.opened.framed[id] : id && part === 'm' ? this.opened.played[id] : null,
    );
  }

  /**
   * @param {string} id what was touched @param {string[]} touched the visuals whose figures change; those its links
   *     reach if not said
   * @param {boolean} instead whether it takes the place of the newest in the history
   */
  went(next, id, touched = null, instead = false, passing = false) {
    this.began = performance.now();
    const swapped = String([...this.#away(next)]) !== String([...this.#away(this.state)]);
    const repicked = picksOf(next) !== picksOf(this.state);
    this.state = next;
    const stays = instead || this.address() === location.pathname + location.search;
    // While a handle is in the hand, its place goes into the address once it rests: browsers are slow to write it.
    if (!passing || !instead) history[stays ? 'replaceState' : 'pushState'](null, '', this.address());
    if (swapped) {
      this.take(this.opened);
      this.hooks.turned?.();
      return this.ask(this.ids(), passing);
    }
    if (repicked) this.lightAll();
    return this.ask(touched ?? (id ? (this.opened.touches[id] ?? []) : this.ids()), passing);
  }

  address() {
    const text = [writeAddress(this.state), languageAsked()].filter(Boolean).join('&');
    return location.pathname + (text ? `?${text}` : '') + standing();
  }

  lightAll() {
    for (const id of this.visuals.keys()) this.light(id);
  }

  /** Lights what is picked on a visual, and what links light there. */
  light(id) {
    const { kind, handle, drawing } = this.visuals.get(id);
    if (!drawing || drawing.type === 'misfit') return;
    kind.light(handle, [...this.pickedOn(id), ...this.links.litOn(id)], this.state.get(`p.${id}`)?.predicate);
  }

  // --- what is shown ---------------------------------------------------------------------------

  /** Asks for the frames of these visuals, see {@link Asking}. @returns {Promise<void>} settles once they are drawn */
  ask(ids, passing = false) {
    return this.asking.ask(ids, passing);
  }

  /** Draws what was answered. @param {string} text the state that was asked about */
  shown(frames, wanted, text) {
    remember(frames.places);
    const lit = JSON.stringify(frames.lit);
    const relit = lit !== this.#litAs;
    this.#litAs = lit;
    this.lit = new Map(Object.entries(frames.lit));
    this.#drawAll(wanted, frames.drawings);
    this.#even();
    forget(new Set([...this.visuals.values()].flatMap(v => v.drawing?.layers?.map(l => l.places) ?? [])));
    // What was turned on meanwhile stays, and what rows may yet have.
    if (writeState(this.state) === text && !frames.coming) {
      this.state = readState(frames.state);
      if (!this.turning && this.address() !== location.pathname + location.search + standing())
        history.replaceState(null, '', this.address());
    }
    for (const id of relit ? this.visuals.keys() : wanted) if (this.visuals.has(id)) this.light(id);
    this.links.settle();
    this.showing.draw(frames.showing);
    this.coming.shown(frames);
    if (frames.misfits.length && !frames.coming)
      document
        .getElementById('misfits')
        .replaceChildren(...frames.misfits.map(m => el('p', { class: 'sentence-bad' }, m)));
    drawStrip(this);
    if (frames.coming) return;
    this.took = performance.now() - (this.began ?? performance.now());
    this.place.dataset.drawn = String(Number(this.place.dataset.drawn ?? 0) + 1);
    this.place.dispatchEvent(new CustomEvent('drawn', { detail: { milliseconds: this.took } }));
  }

  /** Lets those of a kind that stand in a row agree on a size. */
  #even() {
    const rows = new Map();
    for (const [id, { kind, handle, type }] of this.visuals) {
      const at = this.opened.document.visuals[id]?.at;
      if (!kind.even || !at) continue;
      const row = `${type} ${at.y} ${at.h}`;
      rows.set(row, [...(rows.get(row) ?? []), { kind, handle }]);
    }
    for (const row of rows.values()) row[0].kind.even(row.map(({ handle }) => handle));
  }

  #drawAll(ids, drawings) {
    const placeOf = ({ handle }) => handle.place ?? handle.list;
    const mounted = ids.map(id => this.visuals.get(id)).filter(visual => visual && placeOf(visual) instanceof Element);
    const resized = measuredTogether(mounted.map(placeOf), () => {
      for (const id of ids) this.#draw(id, drawings[id]);
    });
    // A note below it came or went.
    for (const { kind, handle, drawing } of mounted.filter(visual => resized.includes(placeOf(visual))))
      if (drawing && drawing.type !== 'misfit') kind.draw(handle, drawing);
  }

  #draw(id, drawn) {
    const mounted = this.visuals.get(id);
    if (!mounted || !drawn) return;
    // That many rows are not in its figures stands below what there is to say of it.
    const lacking = drawn.trail?.lacking;
    const drawing = lacking && drawn.notes ? { ...drawn, notes: [...drawn.notes, lacking] } : drawn;
    mounted.drawing = drawing;
    mounted.title.textContent = drawing.title;
    mounted.title.title = drawing.title;
    if (mounted.trailSign) mounted.trailSign.hidden = !drawing.trail && drawing.type !== 'misfit';
    mounted.body.querySelector('.visual-misfit')?.remove();
    mounted.body.querySelector('.empty-note')?.remove();
    if (drawing.type === 'misfit') {
      mounted.body.append(el('p', { class: 'visual-misfit' }, drawing.why));
      return;
    }
    mounted.kind.draw(mounted.handle, drawing);
    if (drawing.trail?.empty) mounted.body.append(el('p', { class: 'empty-note' }, drawing.trail.empty));
  }
}
