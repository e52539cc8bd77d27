import { el } from '../elements.js';

/** Of the drawing of the spread, in pixels. */
const WIDE = 132;
const HIGH = 24;
/** Steps of a handle between the least and the greatest value. */
const STEPS = 200;

/** The steps of a handle over an offer's values, and the values at them. */
export function stepOf(offer) {
  const low = Number(offer.from);
  const high = Number(offer.to);
  return {
    low,
    high,
    steps: STEPS,
    place: value =>
      high > low ? Math.round((STEPS * (Math.min(high, Math.max(low, value)) - low)) / (high - low)) : 0,
    value: step =>
      step === 0 ? low : step === STEPS ? high : rounded(low + (step / STEPS) * (high - low), high - low),
  };
}

/** How an offer's values are spread, with what is kept of them. */
export function spreadOf(offer) {
  const low = Number(offer.from);
  const high = Number(offer.to);
  const count = offer.spread.length;
  const bars = offer.spread.map((share, i) =>
    el('rect', {
      x: (i * WIDE) / count,
      y: HIGH - (share * HIGH) / 100,
      width: WIDE / count - 1,
      height: (share * HIGH) / 100,
    }),
  );
  return {
    drawing: el('svg', { viewBox: `0 0 ${WIDE} ${HIGH}`, 'aria-hidden': 'true' }, ...bars),
    /** @param {number | null} from what is less is out; null for nothing @param {number | null} to */
    keep(from, to) {
      bars.forEach((bar, i) => {
        const middle = low + ((i + 0.5) / count) * (high - low);
        bar.classList.toggle('is-out', (from !== null && middle < from) || (to !== null && middle > to));
      });
    },
  };
}

/** A number with as many decimals as tell one step of a handle from the next. */
function rounded(value, span) {
  const decimals = Math.max(0, Math.min(6, Math.ceil(-Math.log10(span / STEPS))));
  return Number(value.toFixed(decimals));
}
