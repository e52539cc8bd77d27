import { figures, full, written } from '../numbers.js';
import { phrase } from '../language.js';

/** How far apart the lines over what is unsure lie, pixels, and how strong they are. */
const STEP = 5;
const STRENGTH = 0.75;

/**
 * How far the marks of a layer can be trusted, ready to be told and painted.
 * @param {?Object} trust as the server says it
 * @returns {?{lows: ?number[], highs: ?number[], falses: ?number[], unsure: Set<number>}}
 */
export const trusted = trust =>
  trust && {
    lows: trust.lows && figures(trust.lows),
    highs: trust.highs && figures(trust.highs),
    falses: trust.falses && figures(trust.falses),
    unsure: new Set(trust.unsure),
  };

/** What is told of a mark beside its figures: words and value. */
export function trustLines({ trust, key, classes }, i) {
  if (!trust) return [];
  const lines = [];
  if (trust.falses && classes[i] >= 0) {
    lines.push({ words: phrase('found'), value: key.colours[classes[i]].text });
    if (Number.isFinite(trust.falses[i]))
      lines.push({ words: phrase('false finds among such'), value: share(trust.falses[i]) });
  }
  if (Number.isFinite(trust.lows?.[i]) && Number.isFinite(trust.highs?.[i]))
    lines.push({
      words: phrase('may well lie (95 %)'),
      value: phrase('{0} to {1}', written(trust.lows[i], key.read), written(trust.highs[i], key.read)),
    });
  if (trust.unsure.has(i)) lines.push({ words: phrase('unsure'), value: key.unsureWords });
  return lines;
}

const share = of => (of < 0.001 ? phrase('under {0} %', full(0.1)) : `${full(Math.round(of * 1000) / 10)} %`);

const tiles = new Map();

/** Lines over what rests on too few; they lean the other way than those of what has no data. */
export function unsureLines(context, tone, ratio) {
  const name = `${tone} ${ratio}`;
  if (tiles.has(name)) return tiles.get(name);
  const tile = new OffscreenCanvas(STEP * ratio, STEP * ratio);
  const pen = tile.getContext('2d');
  pen.scale(ratio, ratio);
  pen.strokeStyle = tone;
  pen.globalAlpha = STRENGTH;
  pen.lineWidth = 1;
  pen.beginPath();
  for (const d of [-STEP, 0, STEP]) {
    pen.moveTo(d - 1, -1);
    pen.lineTo(d + STEP + 1, STEP + 1);
  }
  pen.stroke();
  const pattern = context.createPattern(tile, 'repeat');
  if (tiles.size > 8) tiles.clear();
  tiles.set(name, pattern);
  return pattern;
}
