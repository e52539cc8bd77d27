import * as choice from './choice.js';
import * as dates from './dates.js';
import * as numbers from './numbers.js';

/** The kinds of filter, by the name that documents give them; `control(sheet, id, offer)` makes what is turned. */
export const FILTERS = { choice, dates, numbers };
