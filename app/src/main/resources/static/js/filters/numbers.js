import { el } from '../elements.js';

/** Of the drawing of the spread, in pixels. */
const WIDE = 132;
const HIGH = 24;
/** Steps of a handle between the least and the greatest value. */
const STEPS = 200;

/** A filter that keeps a range of numbers: two handles over the spread of the values, or typed. */
export function control(sheet, id, offer) {
  const low = Number(offer.from);
  const high = Number(offer.to);
  const [from, to] = (sheet.state.get(`f.${id}`)?.[0] ?? '..').split('..');
  const ends = [from, to];
  const place = value => (high > low ? (Math.min(high, Math.max(low, value)) - low) / (high - low) : 0);
  const keep = (passing = false) => {
    if (ends[0] !== '' && ends[1] !== '' && Number(ends[0]) > Number(ends[1])) ends.reverse();
    sheet.filter(id, ends[0] === '' && ends[1] === '' ? [] : [ends.join('..')], passing);
  };
  const bars = offer.spread.map((share, i) =>
    el('rect', {
      x: (i * WIDE) / offer.spread.length,
      y: HIGH - (share * HIGH) / 100,
      width: WIDE / offer.spread.length - 1,
      height: (share * HIGH) / 100,
    }),
  );
  const shade = () => {
    const [first, last] = [ends[0] === '' ? 0 : place(Number(ends[0])), ends[1] === '' ? 1 : place(Number(ends[1]))];
    bars.forEach((bar, i) => {
      const middle = (i + 0.5) / bars.length;
      bar.classList.toggle('is-out', middle < Math.min(first, last) || middle > Math.max(first, last));
    });
  };
  const typed = (end, words) =>
    el('input', {
      type: 'number',
      class: 'filter-number',
      step: 'any',
      value: ends[end],
      placeholder: end ? offer.to : offer.from,
      'aria-label': `${offer.words} ${words}`,
      'data-filter-part': `${id}-${words}`,
      onchange: e => {
        ends[end] = e.target.value;
        keep();
      },
    });
  const boxes = [typed(0, 'from'), typed(1, 'to')];
  const handle = (end, words) =>
    el('input', {
      type: 'range',
      class: 'spread-handle',
      min: 0,
      max: STEPS,
      step: 1,
      value: Math.round(STEPS * (ends[end] === '' ? end : place(Number(ends[end])))),
      'aria-label': `${offer.words} ${words}, handle`,
      'aria-valuetext': ends[end] === '' ? (end ? offer.to : offer.from) : ends[end],
      'data-filter-part': `${id}-${words}-handle`,
      oninput: e => {
        const share = Number(e.target.value) / STEPS;
        // At its own end of the spread a handle leaves the range open.
        ends[end] = share === end ? '' : String(rounded(low + share * (high - low), high - low));
        boxes[end].value = ends[end];
        e.target.setAttribute('aria-valuetext', ends[end] || (end ? offer.to : offer.from));
        shade();
        keep(true);
      },
      onchange: () => keep(),
      // A handle that is let go where it was taken up has not changed, but has been turned.
      onpointerup: () => sheet.turning === id && keep(),
    });
  shade();
  return el(
    'span',
    { class: 'spread-filter' },
    boxes[0],
    el(
      'span',
      { class: 'spread' },
      el('svg', { viewBox: `0 0 ${WIDE} ${HIGH}`, 'aria-hidden': 'true' }, ...bars),
      handle(0, 'from'),
      handle(1, 'to'),
    ),
    boxes[1],
  );
}

/** A number with as many decimals as tell one step of a handle from the next. */
function rounded(value, span) {
  const decimals = Math.max(0, Math.min(6, Math.ceil(-Math.log10(span / STEPS))));
  return Number(value.toFixed(decimals));
}
