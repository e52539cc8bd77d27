import { turns } from './turns.js';
import { phrase } from '../language.js';

/** A filter that keeps the newest row, or the newest of each device. */
export function control(sheet, id, offer) {
  const on = sheet.turnedTo(id).length > 0;
  return turns(offer.words, [
    { words: phrase('all rows'), part: `${id}-all`, on: !on, run: () => sheet.filter(id, []) },
    { words: offer.said.words, part: `${id}-on`, on, run: () => sheet.filter(id, ['on']) },
  ]);
}
