/** How a sheet looks: the colours it wears, its size, and how each visual on it is dressed. */

const PARTS = ['ground', 'border', 'corners', 'shadow', 'space', 'heading', 'lettering'];

/** The height of a row of the grid, in pixels. */
export const ROW = 42;
/** Rows are never lower than this, however small the window is. */
const LEAST_ROW = 18;

let wearing = '';

/**
 * Puts on the theme of a dashboard, and its author's own colours over it.
 * @param {{document: Object, colours: Object[]}} opened
 */
export function wear(opened) {
  const root = document.documentElement;
  const theme = (opened.document.theme ?? 'FIELD').toLowerCase();
  const now = theme + JSON.stringify(opened.colours);
  if (now === wearing) return;
  const first = wearing === '' && root.dataset.theme === theme && !opened.colours.length;
  wearing = now;
  root.dataset.theme = theme;
  putOn(opened.colours);
  // What paints its colours itself does so again.
  if (!first) document.dispatchEvent(new CustomEvent('mood'));
}

let own = [];

/** Colours by the names they have in the style: those of the day, then those of the night; none for the theme's. */
export function putOn(colours) {
  const root = document.documentElement;
  for (const name of Object.keys(own[0] ?? {})) root.style.removeProperty(`--${name}`);
  own = colours;
  const those = colours[root.dataset.mood === 'night' ? 1 : 0] ?? {};
  for (const [name, colour] of Object.entries(those)) root.style.setProperty(`--${name}`, colour);
}

// Before the kinds paint: they listen later.
document.addEventListener('mood', () => putOn(own), { capture: true });

/**
 * Dresses a visual's box.
 * @param {Object} worn its finish @returns {boolean} whether its drawing has another room now
 */
export function dress(worn, box) {
  const before = box.dataset.lettering + box.dataset.space;
  for (const part of PARTS) box.dataset[part] = worn[part].toLowerCase();
  box.classList.toggle('is-hidden', Boolean(worn.hidden));
  return before !== box.dataset.lettering + box.dataset.space;
}

/**
 * The part of a page's grid that is drawn: all of it, or only as far as something stands on it.
 * @returns {{x: number, y: number, w: number, h: number}} in cells
 */
export function cellsOf(dashboard, page, boxes) {
  const far = (edge, least) => Math.max(least, ...boxes.map(edge));
  const whole = { x: 0, y: 0, w: 24, h: far(b => b.y + b.h, 1) };
  if (!dashboard.pages[page].size?.trimmed || !boxes.length) return whole;
  const x = Math.min(...boxes.map(b => b.x));
  const y = Math.min(...boxes.map(b => b.y));
  return { x, y, w: far(b => b.x + b.w, 1) - x, h: whole.h - y };
}

/** Gives the sheet its size. @returns {number} the height of a row, in pixels */
export function sizeSheet(dashboard, page, cells, place) {
  const size = dashboard.pages[page].size ?? { fit: 'WIDTH' };
  const top = place.getBoundingClientRect().top + scrollY;
  const row = size.fit === 'WINDOW' ? Math.max(LEAST_ROW, (innerHeight - top - 22) / cells.h) : ROW;
  place.style.setProperty('--columns', cells.w);
  place.style.setProperty('--row', `${row}px`);
  place.style.setProperty('--sheet', size.fit === 'FIXED' ? `${size.width ?? 1280}px` : 'auto');
  return row;
}

/** Ids of the visuals of a page from the top, and from the left where they stand side by side. */
export const readingOrder = (dashboard, page) =>
  Object.entries(dashboard.visuals)
    .filter(([, visual]) => visual.page === page)
    .sort(([, a], [, b]) => a.at.y - b.at.y || a.at.x - b.at.x)
    .map(([id]) => id);
