import { chooseButton } from './choose.js';
import { el } from '../elements.js';
import { openPopup } from '../popup.js';
import { WRITTEN_AS, read, sheetOfDays, written } from './days.js';
import { phrase } from '../language.js';

const END = { from: phrase('end|from'), to: phrase('end|to') };

/** What is chosen, as ends and as the period that says them. */
function chosenOf(sheet, id, offer) {
  const [text] = sheet.turnedTo(id);
  if (!text) return { ends: ['', ''], period: null };
  const period = offer.said.periods.find(p => p.text === text);
  if (period) return { ends: [period.from, period.to], period };
  return {
    ends: text.startsWith('~') ? ['', ''] : text.split('..'),
    period: text.startsWith('~') ? { text, words: text } : null,
  };
}

/** A filter that keeps a range of days. */
export function control(sheet, id, offer) {
  const { ends, period } = chosenOf(sheet, id, offer);
  const text = period
    ? period.words
    : ends[0] && ends[1]
      ? phrase('{0} to {1}', written(ends[0]), written(ends[1]))
      : ends[0]
        ? phrase('day|from {0}', written(ends[0]))
        : ends[1]
          ? phrase('up to {0}', written(ends[1]))
          : phrase('all days');
  return chooseButton(id, text, opener => chooser(sheet, id, offer, opener));
}

function chooser(sheet, id, offer, opener) {
  const { end, periods, countedWords } = offer.said;
  let { ends, period } = chosenOf(sheet, id, offer);
  /** Which end the next press on a day is for. */
  let next = end === 'UNTIL' ? 1 : 0;
  const keep = () => sheet.filter(id, ends[0] || ends[1] ? [ends.join('..')] : []);
  const show = () => {
    boxes.forEach((box, i) => (box.value = written(ends[i])));
    days.set(...ends);
    for (const option of list.querySelectorAll('[data-period]'))
      option.setAttribute('aria-pressed', String(option.dataset.period === period?.text));
  };
  const taken = day => {
    period = null;
    if (end !== 'BOTH') ends = end === 'SINCE' ? [day, ''] : ['', day];
    else if (next === 0) ends = [day, ends[1] && ends[1] < day ? '' : ends[1]];
    else ends = day < ends[0] ? [day, ends[0]] : [ends[0], day];
    if (end === 'BOTH') next = 1 - next;
    show();
    keep();
  };
  const box = (i, words) =>
    el('input', {
      class: 'entry days-typed',
      'aria-label': `${offer.words} ${END[words]}`,
      placeholder: WRITTEN_AS,
      inputmode: 'numeric',
      'data-filter-part': `${id}-${words}`,
      onchange: e => {
        const day = e.target.value.trim() === '' ? '' : read(e.target.value);
        e.target.setCustomValidity(day === null ? phrase('Write a day as {0}.', WRITTEN_AS) : '');
        if (day === null) return e.target.reportValidity();
        period = null;
        ends[i] = day;
        if (ends[0] && ends[1] && ends[0] > ends[1]) ends.reverse();
        show();
        keep();
      },
      onfocus: () => (next = i),
    });
  const boxes = [box(0, 'from'), box(1, 'to')];
  const days = sheetOfDays({ from: ends[0], to: ends[1], least: offer.from, greatest: offer.to, taken });
  const list = el(
    'div',
    { class: 'days-periods' },
    el('p', { class: 'popup-words' }, phrase('{0}:', countedWords)),
    ...periods.map(p =>
      el(
        'button',
        {
          type: 'button',
          class: 'popup-option',
          'data-period': p.text,
          title: phrase('{0} to {1}', written(p.from), written(p.to)),
          onclick: () => {
            period = p;
            ends = [p.from, p.to];
            show();
            sheet.filter(id, [p.text]);
          },
        },
        p.words,
      ),
    ),
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option text-loch',
        onclick: () => {
          period = null;
          ends = ['', ''];
          next = end === 'UNTIL' ? 1 : 0;
          show();
          sheet.filter(id, []);
        },
      },
      phrase('All days'),
    ),
  );
  const shown =
    end === 'SINCE'
      ? [END.from, boxes[0]]
      : end === 'UNTIL'
        ? [phrase('end|up to'), boxes[1]]
        : [END.from, boxes[0], END.to, boxes[1]];
  show();
  openPopup(opener, [
    el(
      'div',
      { class: 'days-chooser' },
      end === 'BOTH' ? list : '',
      el(
        'div',
        {},
        el('div', { class: 'days-ends' }, ...shown),
        days.place,
        el(
          'p',
          { class: 'popup-words' },
          offer.from
            ? phrase('There are rows from {0} to {1}.', written(offer.from), written(offer.to))
            : phrase('There are no rows with a day.'),
        ),
      ),
    ),
  ]);
}
