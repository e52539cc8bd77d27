/**
 * What the reader has chosen, as it stands in the web address: `f.ID=a,b` and `f.ID=FROM..TO` for filters, `p.ID=a,b`
 * for picks and `p.ID=~near.5000.PLACE` for one that a predicate says, `h.ID=a,b` for layers turned from shown to
 * hidden or back, `s.ID.LAYER=1` for a measure that was chosen, `v.ID=12.5` for the value of a parameter,
 * `e.ID=~box.W_S_E_N` for what is in sight of a map, `m.ID=2026-05` for the moment of a player, `w.page=shown` for what
 * scales rest on, `g.page=ID` for the page that is looked at. Where the author has given a name, addresses have that:
 * `product=still`. The server has the last word on its form.
 */
const PARTS = /^[fphsvgemw]\../;

const parts = text =>
  text
    .replace(/^\?/, '')
    .split('&')
    .map(p => p.split('='))
    .filter(([, value]) => value);

/** What is written as it is: a predicate, everything, and all but something. */
const isPredicate = what => what && !Array.isArray(what);
const RAW = /^[~!*]/;

/** Names of parts of the state that the author gave, and the parts they stand for. */
let named = { byName: new Map(), byPart: new Map() };

/**
 * Learns what addresses call the parts of a dashboard.
 * @param {Object} document
 * @param {(visual: Object) => string} partOf
 */
export function knowNames({ names, filters, parameters, pages, visuals }, partOf) {
  named = { byName: new Map(), byPart: new Map() };
  for (const [id, name] of Object.entries(names ?? {})) {
    const part = filters[id]
      ? `f.${id}`
      : parameters?.[id]
        ? `v.${id}`
        : visuals[id]
          ? `${partOf(visuals[id])}.${id}`
          : null;
    if (part) {
      named.byName.set(name, part);
      named.byPart.set(part, name);
    } else if (pages[id]) named.byPart.set(`g.page=${id}`, name);
  }
}

const valueOf = value => (RAW.test(value) ? { predicate: value } : value.split(',').map(decode));

/**
 * @returns {Map<string, string[] | {predicate: string}>} by "f.ID", "p.ID" and so on: values, of which a range is the
 *     one "FROM..TO"; or a predicate
 */
export function readState(text) {
  return new Map(
    parts(text)
      .filter(([name]) => PARTS.test(name))
      .map(([name, value]) => [name, valueOf(value)]),
  );
}

/** The same of an address, where parts have the names that the author gave. */
export function readAddress(text) {
  const state = readState(text);
  for (const [name, value] of parts(text)) {
    const part = named.byName.get(name);
    if (part) state.set(part, valueOf(value));
    if (name === 'page' && !part)
      for (const [page, called] of named.byPart)
        if (page.startsWith('g.page=') && called === decode(value)) state.set('g.page', [page.slice(7)]);
  }
  return state;
}

/** The parts of an address that are nobody's, for the server to say so. */
export const strangersOf = text =>
  parts(text)
    .filter(([name]) => !PARTS.test(name) && !named.byName.has(name) && name !== 'page' && name !== 'language')
    .map(p => p.join('='))
    .join('&');

function decode(text) {
  try {
    return decodeURIComponent(text.replaceAll('+', ' '));
  } catch {
    return text;
  }
}

/** A value as an address has it; one that begins like a predicate is told from one. */
export const encode = value =>
  encodeURIComponent(value).replace(/[~!*]/g, sign => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`);

const written = state =>
  [...state]
    .filter(([, values]) => isPredicate(values) || values.length)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, values]) => [name, isPredicate(values) ? values.predicate : [...values].sort().map(encode).join(',')]);

export const writeState = state =>
  written(state)
    .map(pair => pair.join('='))
    .join('&');

/** The same with the names that the author gave. */
export const writeAddress = state =>
  written(state)
    .map(([name, value]) => {
      const page = named.byPart.get(`${name}=${value}`);
      return page ? `page=${page}` : `${named.byPart.get(name) ?? name}=${value}`;
    })
    .join('&');

/** The values that a part of the state means; `lit` are those that the server says of a predicate. */
export const valuesOf = (what, lit = []) => (isPredicate(what) ? lit : (what ?? []));

/**
 * The state after something was picked.
 * @param {string[] | {predicate: string}} what
 * @param {boolean} add keep what was picked before; a value picked again is released
 * @param {string[]} lit what the predicate means that was picked before
 */
export function picked(state, name, what, add, lit = []) {
  const next = new Map(state);
  const was = state.get(name);
  if (isPredicate(what)) {
    if (was?.predicate === what.predicate) next.delete(name);
    else next.set(name, what);
    return next;
  }
  const before = valuesOf(was, lit);
  const same = before.length === what.length && what.every(v => before.includes(v));
  let after;
  if (add)
    after = [...before.filter(v => !what.includes(v) || what.length > 1), ...what.filter(v => !before.includes(v))];
  else after = same ? [] : what;
  if (after.length) next.set(name, after);
  else next.delete(name);
  return next;
}
