/** How often what has come to rest may ask for more, such as a map whose symbols are gathered for another zoom. */
const ROUNDS = 3;

export const painted = () => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)));

/**
 * Waits until a page shows all it is to show: rows that were on their way, shapes, grounds and pictures of maps.
 * @param {import('./sheet.js').Sheet} sheet
 * @throws {Error} where the figures were refused
 */
export async function settled(sheet) {
  for (let round = 0; round < ROUNDS && (!round || sheet.asking.isUnderWay); round++) {
    await sheet.asking.over();
    await sheet.coming.over();
    await sheet.catchUp?.();
    await Promise.all([...sheet.visuals.values()].map(({ kind, handle }) => kind.settled?.(handle)));
    await painted();
  }
}
