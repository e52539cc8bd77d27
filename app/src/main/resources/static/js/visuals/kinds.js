import * as bars from './bars.js';
import * as button from './button.js';
import * as details from './details.js';
import * as difference from './difference.js';
import * as figure from './figure.js';
import * as filter from './filter.js';
import * as funnel from './funnel.js';
import * as grid from './grid.js';
import * as key from './key.js';
import * as lines from './lines.js';
import * as list from './list.js';
import * as map from './map.js';
import * as picture from './picture.js';
import * as player from './player.js';
import * as ring from './ring.js';
import * as scatter from './scatter.js';
import * as table from './table.js';
import * as unlikely from './unlikely.js';
import * as words from './words.js';

/**
 * The kinds of visual, by the name that documents and drawings give them. Each is a module with
 * - `mount(body, context)` makes it and gives its handle; `draw(handle, drawing)` shows a drawing; `unmount(handle)`
 * lets go of all it holds on to;
 * - `light(handle, values, predicate)` shows which marks are picked, or what was picked by a predicate;
 * - `figures(drawing, file)` gives its figures as rows, for a file where that is said; `mini(drawing)` a small picture;
 * and, where it needs them, `set(handle, visual)` for what the author changes while it stands, `made(visual)` for what
 * cannot change while it stands, `sight(handle)` for what is in sight, `resize(handle)` when its box has another size,
 * `even(handles)` for what those that stand in a row have in common, `holds(visual)` for the filters and numbers that
 * stand in it instead of in the strip, `whole(handle)` for what would be in sight if all of it were, `takesItself`
 * where it offers by itself to be taken along, `fly(handle, ids)` to move to places, `extent(handle)` for what is in
 * sight in degrees, `scaled` where colours or sizes stand for something, `part` for what of the state its name stands
 * for, `settled(handle)` where something of it comes after it was drawn, `compared(drawing)`, `onMoved(handle, run)` and `showView(handle, view)` for where it stands twice, `bare` where
 * it has nothing to be looked at, so that it has no signs in its corner.
 *
 * A kind has one way out: `context.emit({ type, … })`. Nothing reaches into the handle of another module.
 *
 * @typedef {{
 *   id: string, title: string, titleElement: HTMLElement, visual: Object, composing: boolean,
 *   emit: (event: Object) => any
 * }} Context
 */
export const KINDS = {
  map,
  bars,
  figure,
  lines,
  ring,
  scatter,
  funnel,
  difference,
  unlikely,
  grid,
  table,
  list,
  details,
  words,
  key,
  picture,
  button,
  filter,
  player,
};
