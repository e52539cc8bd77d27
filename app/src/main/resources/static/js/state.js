/**
 * What the reader has chosen, as it stands in the web address: `f.ID=a,b` and `f.ID=FROM..TO` for filters, `p.ID=a,b`
 * for picks, `h.ID=a,b` for layers turned from shown to hidden or back, `s.ID.LAYER=1` for a measure that was chosen,
 * `v.ID=12.5` for the
 * value of a parameter. The server has the last word
 * on its form.
 */
const parts = text =>
  text
    .split('&')
    .map(p => p.split('='))
    .filter(([name, value]) => /^[fphsv]\../.test(name) && value);

/** @returns {Map<string, string[]>} values by "f.ID", "p.ID" and so on; a range is the one value "FROM..TO" */
export function readState(text) {
  return new Map(parts(text.replace(/^\?/, '')).map(([name, value]) => [name, value.split(',').map(decode)]));
}

function decode(text) {
  try {
    return decodeURIComponent(text.replaceAll('+', ' '));
  } catch {
    return text;
  }
}

export function writeState(state) {
  return [...state]
    .filter(([, values]) => values.length)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, values]) => `${name}=${[...values].sort().map(encodeURIComponent).join(',')}`)
    .join('&');
}

/**
 * The state after values were picked.
 * @param {boolean} add keep what was picked before; a value picked again is released
 */
export function picked(state, name, values, add) {
  const before = state.get(name) ?? [];
  const same = before.length === values.length && values.every(v => before.includes(v));
  let after;
  if (add)
    after = [
      ...before.filter(v => !values.includes(v) || values.length > 1),
      ...values.filter(v => !before.includes(v)),
    ];
  else after = same ? [] : values;
  const next = new Map(state);
  if (after.length) next.set(name, after);
  else next.delete(name);
  return next;
}
