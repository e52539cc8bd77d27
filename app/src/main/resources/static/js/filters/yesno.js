import { turns } from './turns.js';

/** A filter that is a switch: the rows with yes, those with no, and both. */
export function control(sheet, id, offer) {
  const [chosen] = sheet.turnedTo(id);
  return turns(
    offer.words,
    [
      ['both', undefined],
      ['yes', 'yes'],
      ['no', 'no'],
    ].map(([words, value]) => ({
      words,
      part: `${id}-${words}`,
      on: chosen === value,
      run: () => sheet.filter(id, value ? [value] : []),
    })),
  );
}
