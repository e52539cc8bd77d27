import { turns } from './turns.js';

/** Rules of the author's, turned on and off by name. */
export function control(sheet, id, offer) {
  const on = new Set(sheet.turnedTo(id));
  return turns(
    offer.words,
    offer.values.map(rule => ({
      words: offer.said.names[rule],
      part: `${id}-${rule}`,
      on: on.has(rule),
      run: () => sheet.filter(id, on.has(rule) ? [...on].filter(other => other !== rule) : [...on, rule]),
    })),
    true,
  );
}
