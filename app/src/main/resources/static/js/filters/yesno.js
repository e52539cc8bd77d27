import { turns } from './turns.js';
import { phrase } from '../language.js';

/** A filter that is a switch: the rows with yes, those with no, and both. */
export function control(sheet, id, offer) {
  const [chosen] = sheet.turnedTo(id);
  return turns(
    offer.words,
    [
      ['both', undefined, phrase('yes or no|both')],
      ['yes', 'yes', phrase('yes')],
      ['no', 'no', phrase('no')],
    ].map(([part, value, words]) => ({
      words,
      part: `${id}-${part}`,
      on: chosen === value,
      run: () => sheet.filter(id, value ? [value] : []),
    })),
  );
}
