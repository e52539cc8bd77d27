/** Sizes of elements that were measured together. */
const known = new Map();

const measured = element => ({ width: element.clientWidth, height: element.clientHeight });

/** The inner size of an element, in pixels: as it was measured together with others, or as it is now. */
export const sizeOf = element => known.get(element) ?? measured(element);

/**
 * Measures elements before what stands in them is drawn, so that the browser lays the page out once and not once for
 * each.
 * @param {HTMLElement[]} elements
 * @param {() => void} draw
 * @returns {HTMLElement[]} those that have another size afterwards
 */
export function measuredTogether(elements, draw) {
  for (const element of elements) known.set(element, measured(element));
  const before = [...known];
  try {
    draw();
  } finally {
    known.clear();
  }
  return before
    .filter(([element, { width, height }]) => element.clientWidth !== width || element.clientHeight !== height)
    .map(([element]) => element);
}
