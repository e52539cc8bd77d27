import * as choice from './choice.js';
import * as dates from './dates.js';
import * as newest from './newest.js';
import * as numbers from './numbers.js';
import * as place from './place.js';
import * as rules from './rules.js';
import * as search from './search.js';
import * as threshold from './threshold.js';
import * as yesno from './yesno.js';

/** The kinds of filter, by the name that documents give them; `control(sheet, id, offer)` makes what is turned. */
export const FILTERS = { choice, dates, newest, numbers, place, rules, search, threshold, yesno };
