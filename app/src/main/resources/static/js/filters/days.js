import { el } from '../elements.js';
import { LANGUAGE, phrase } from '../language.js';

/** The order of day, month and year as the reader writes dates; in the language of the page, where that is another. */
const WRITES = LANGUAGE === 'en' || navigator.language.startsWith(LANGUAGE) ? navigator.language : LANGUAGE;
const READER = new Intl.DateTimeFormat(WRITES, { year: 'numeric', month: '2-digit', day: '2-digit' });
const ORDER = READER.formatToParts(new Date(2024, 10, 25))
  .filter(({ type }) => ['day', 'month', 'year'].includes(type))
  .map(({ type }) => type);
const BETWEEN =
  READER.formatToParts(new Date(2024, 10, 25))
    .find(({ type }) => type === 'literal')
    ?.value.trim() || '-';

const pad = (number, digits = 2) => String(number).padStart(digits, '0');
const iso = (year, month, day) => `${pad(year, 4)}-${pad(month)}-${pad(day)}`;
const date = day => {
  const [year, month, of] = day.split('-').map(Number);
  const made = new Date(Date.UTC(2000, month - 1, of));
  made.setUTCFullYear(year, month - 1, of);
  return made;
};
const isoOf = made => iso(made.getUTCFullYear(), made.getUTCMonth() + 1, made.getUTCDate());

/** A day so many days later, or before. */
function plus(day, days) {
  const made = date(day);
  made.setUTCDate(made.getUTCDate() + days);
  return isoOf(made);
}

/** A day as the reader writes it, in the order that the reader is used to. */
export function written(day) {
  if (!day) return '';
  const [year, month, of] = day.split('-');
  const parts = { year, month, day: of };
  return ORDER.map(part => parts[part]).join(BETWEEN);
}

/** What the reader has written as a day, ISO 8601; null where it is none. An ISO date is read as well. */
export function read(text) {
  const numbers = text
    .trim()
    .split(/[^0-9]+/)
    .filter(Boolean);
  if (numbers.length !== 3) return null;
  const order = numbers[0].length === 4 ? ['year', 'month', 'day'] : ORDER;
  const of = Object.fromEntries(order.map((part, i) => [part, Number(numbers[i])]));
  // Two digits of a year are of this century.
  const year = of.year < 100 && numbers[order.indexOf('year')].length <= 2 ? 2000 + of.year : of.year;
  const day = iso(year, of.month, of.day);
  return year >= 1 && year <= 9999 && isoOf(date(day)) === day ? day : null;
}

/** How a day is to be written, for an empty box. */
const LETTERS = { year: phrase('letters|yyyy'), month: phrase('letters|mm'), day: phrase('letters|dd') };
export const WRITTEN_AS = ORDER.map(part => LETTERS[part]).join(BETWEEN);

/** Days are written as in Europe where the page is in English. */
const DATES = LANGUAGE === 'en' ? 'en-GB' : LANGUAGE;
const NAMED = new Intl.DateTimeFormat(DATES, { weekday: 'short', timeZone: 'UTC' });
const MONTH = new Intl.DateTimeFormat(DATES, { month: 'long', year: 'numeric', timeZone: 'UTC' });
const WHOLE = new Intl.DateTimeFormat(DATES, { dateStyle: 'full', timeZone: 'UTC' });

/**
 * A sheet of the days of a month: weeks in rows, Monday first. A day is pressed for one end, another for the other.
 * @param {{from: string, to: string, least: string, greatest: string, taken: (day: string) => void}} of
 */
export function sheetOfDays({ from, to, least, greatest, taken }) {
  const place = el('div', { class: 'days' });
  let month = (to || from || greatest || isoOf(new Date())).slice(0, 7);
  let ends = [from, to];
  let focus = null;

  const step = count => {
    const made = date(`${month}-01`);
    made.setUTCMonth(made.getUTCMonth() + count);
    if (made.getUTCFullYear() < 1 || made.getUTCFullYear() > 9999) return;
    month = isoOf(made).slice(0, 7);
    draw();
  };
  const arrow = (words, sign, count) =>
    el(
      'button',
      { type: 'button', class: 'days-step', 'aria-label': words, title: words, onclick: () => step(count) },
      sign,
    );

  function cell(day) {
    const [first, last] = ends;
    const within = (first || last) && (!first || day >= first) && (!last || day <= last);
    return el(
      'button',
      {
        type: 'button',
        class: [
          'day',
          day.slice(0, 7) !== month && 'is-beside',
          (day < (least ?? day) || day > (greatest ?? day)) && 'is-bare',
          within && 'is-kept',
          (day === first || day === last) && 'is-end',
        ]
          .filter(Boolean)
          .join(' '),
        'data-day': day,
        tabindex: day === (focus ?? first ?? `${month}-01`) ? 0 : -1,
        'aria-label': WHOLE.format(date(day)),
        'aria-pressed': String(Boolean(within)),
        onclick: () => {
          focus = day;
          taken(day);
        },
      },
      String(Number(day.slice(8))),
    );
  }

  function draw() {
    const first = `${month}-01`;
    const start = plus(first, -((date(first).getUTCDay() + 6) % 7));
    const rows = [];
    for (let week = 0; week < 6; week++)
      rows.push(
        el('div', { class: 'days-week' }, ...Array.from({ length: 7 }, (_, i) => cell(plus(start, 7 * week + i)))),
      );
    place.replaceChildren(
      el(
        'div',
        { class: 'days-head' },
        arrow(phrase('A year back'), '«', -12),
        arrow(phrase('A month back'), '‹', -1),
        el('b', { 'aria-live': 'polite' }, MONTH.format(date(first))),
        arrow(phrase('A month on'), '›', 1),
        arrow(phrase('A year on'), '»', 12),
      ),
      el(
        'div',
        { class: 'days-week days-names', 'aria-hidden': 'true' },
        ...Array.from({ length: 7 }, (_, i) => el('span', {}, NAMED.format(date(plus('2024-01-01', i))).slice(0, 2))),
      ),
      ...rows,
    );
  }

  place.addEventListener('keydown', e => {
    const day = e.target.dataset?.day;
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[e.key];
    if (!day || !by) return;
    e.preventDefault();
    e.stopPropagation();
    focus = plus(day, by);
    month = focus.slice(0, 7);
    draw();
    place.querySelector(`[data-day="${focus}"]`)?.focus();
  });
  draw();
  return {
    place,
    /** Shows other ends. */
    set(first, last) {
      ends = [first, last];
      const shown = last || first;
      if (shown && !place.querySelector(`[data-day="${shown}"]`)) month = shown.slice(0, 7);
      const held = place.contains(document.activeElement) ? document.activeElement.dataset.day : null;
      draw();
      if (held) place.querySelector(`[data-day="${held}"]`)?.focus();
    },
  };
}
