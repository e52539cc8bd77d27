/**
 * What the reader has chosen, as it stands in the web address: `f.ID=a,b` and `f.ID=FROM..TO` for filters, `p.ID=a,b`
 * for picks and `p.ID=~near.5000.PLACE` for one that a predicate says, `h.ID=a,b` for layers turned from shown to hidden
 * or back, `s.ID.LAYER=1` for a measure that was chosen, `v.ID=12.5` for the value of a parameter, `g.page=ID` for the page that is looked at. The server has the
 * last word on its form.
 */
const parts = text =>
  text
    .split('&')
    .map(p => p.split('='))
    .filter(([name, value]) => /^[fphsvg]\../.test(name) && value);

/** A pick that is said by a predicate. */
const isPredicate = what => what && !Array.isArray(what);

/**
 * @returns {Map<string, string[] | {predicate: string}>} by "f.ID", "p.ID" and so on: values, of which a range is the one
 *   "FROM..TO"; or a predicate
 */
export function readState(text) {
  return new Map(
    parts(text.replace(/^\?/, '')).map(([name, value]) => [
      name,
      value.startsWith('~') ? { predicate: value } : value.split(',').map(decode),
    ]),
  );
}

function decode(text) {
  try {
    return decodeURIComponent(text.replaceAll('+', ' '));
  } catch {
    return text;
  }
}

/** A value as an address has it; one that begins like a predicate is told from one. */
export const encode = value => encodeURIComponent(value).replace(/^~/, '%7E');

export function writeState(state) {
  return [...state]
    .filter(([, values]) => isPredicate(values) || values.length)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(
      ([name, values]) =>
        `${name}=${isPredicate(values) ? values.predicate : [...values].sort().map(encode).join(',')}`,
    )
    .join('&');
}

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
