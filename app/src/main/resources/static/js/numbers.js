import { LANGUAGE } from './language.js';
/** What lies below as many decimals is the noise of adding up. */
const MOST_DECIMALS = 8;

/** Decimals that tell something of a number: two, none of large ones, and below a tenth as many as show two figures. */
function decimals(size) {
  if (size >= 1000) return 0;
  if (size >= 100) return 1;
  return size >= 0.1 ? 2 : Math.min(MOST_DECIMALS, 1 - Math.floor(Math.log10(size)));
}

/**
 * Numbers as people read them: in the language of the page; as many decimals as the size asks
 * for.
 */
export function full(value) {
  if (!Number.isFinite(value)) return '–';
  const digits = Number.isInteger(value) ? 0 : decimals(Math.abs(value));
  return value.toLocaleString(LANGUAGE, { minimumFractionDigits: digits, maximumFractionDigits: digits });
}

/**
 * A value as its measure is read.
 * @param {number} value
 * @param {'NUMBER'|'DATE'|'TIME'} [read] a date is a number of days since 1970-01-01, a date-time one of seconds
 */
export function written(value, read = 'NUMBER') {
  if (read === 'NUMBER' || !Number.isFinite(value)) return full(value);
  const moment = new Date(Math.floor(value) * (read === 'DATE' ? 86_400_000 : 1000)).toISOString();
  return read === 'DATE' ? moment.slice(0, 10) : moment.slice(0, 19).replace(/:00$/, '');
}

/** The same for a file, of which programs read it: a number with all the digits that are sure; empty for a missing one. */
export function forFile(value, read = 'NUMBER') {
  if (!Number.isFinite(value)) return '';
  return read === 'NUMBER' ? Number(value.toPrecision(15)) : written(value, read);
}

/** Figures as they arrive: missing ones are words in JSON. */
export const figures = list => Float64Array.from(list);

/**
 * The largest of some numbers, 0 where there is none. Not Math.max(...): an argument list has a bound, a table may
 * have any number of places.
 */
export function largest(numbers) {
  let most = 0;
  for (const n of numbers) if (n > most) most = n;
  return most;
}
