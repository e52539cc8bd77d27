import { commonAddress } from '../base.js';
import { TileLayer, XYZ } from '/vendor/ol.js';

const CLEAR = 'data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw==';
const FAILED = 3;

/** Tiles of several sources lie on canvases of their own, which a picture of the map has to tell apart. */
let made = 0;

/**
 * The tiles of a source that a steward has added, as a layer of the map.
 * @param {string} name of the source
 * @param {{nearest: number, shapes: boolean}} source the nearest zoom that there are tiles of, and whether they are
 *     drawn on the server
 * @param {{night: boolean, detail: number}} looks in which shapes are drawn
 * @param {() => void} silent called for each tile that does not come
 */
export function tilesOf(name, { nearest, shapes }, { night, detail }, silent) {
  const looks = shapes ? `?night=${night}&detail=${detail}` : '';
  // Shapes are drawn with twice as many pixels as they take up, so that they are sharp on any screen.
  const source = new XYZ({
    url: commonAddress(`grounds/${encodeURIComponent(name)}/{z}/{x}/{y}${looks}`),
    maxZoom: nearest,
    tilePixelRatio: shapes ? 2 : 1,
    transition: 0,
    tileLoadFunction: load,
  });
  source.on('tileloaderror', silent);
  return new TileLayer({ source, zIndex: 1, className: `ol-layer ground-pictures pictures-${++made}` });
}

/** Loads a tile; where the source has none, as over the sea, nothing is drawn and nothing is wrong. */
async function load(tile, address) {
  try {
    const answer = await fetch(address);
    if (!answer.ok && answer.status !== 404) throw new Error(answer.statusText);
    const image = tile.getImage();
    const picture = answer.ok ? URL.createObjectURL(await answer.blob()) : CLEAR;
    image.addEventListener('load', () => answer.ok && URL.revokeObjectURL(picture), { once: true });
    image.src = picture;
  } catch {
    tile.setState(FAILED);
  }
}
