import { el } from './elements.js';
import { closePopup, openPopup } from './popup.js';

/** The filters and parameters of the page, and under the title what is now showing. */

export function drawStrip(sheet) {
  const strip = document.getElementById('strip');
  const focused = document.activeElement?.dataset?.filterPart;
  const { filters } = sheet.opened.document;
  strip.replaceChildren(
    ...Object.entries(sheet.opened.offers).map(([id, offer]) => {
      const control = offer.misfit
        ? el('span', {}, offer.misfit)
        : filters[id].type === 'choice'
          ? choice(sheet, id, offer)
          : dates(sheet, id, offer);
      return el(
        'div',
        { class: 'filter', 'data-filter': id },
        el('span', { class: 'filter-name' }, offer.words),
        control,
      );
    }),
    ...Object.entries(sheet.opened.document.parameters ?? {})
      .sort(([, a], [, b]) => a.order - b.order)
      .map(([id, parameter]) => number(sheet, id, parameter)),
  );
  if (focused) strip.querySelector(`[data-filter-part="${focused}"]`)?.focus();
  sheet.hooks.strip?.(strip);
}

function choice(sheet, id, offer) {
  const chosen = sheet.state.get(`f.${id}`) ?? [];
  const text =
    chosen.length === 0
      ? 'all'
      : chosen.length <= 2
        ? chosen.join(' or ')
        : `${chosen.length} of ${offer.values.length + offer.more}`;
  return el(
    'button',
    {
      type: 'button',
      class: 'filter-choose',
      'aria-haspopup': 'true',
      'aria-expanded': 'false',
      'data-filter-part': `${id}-choose`,
      onclick: e => chooser(sheet, id, offer, e.currentTarget),
    },
    text,
  );
}

function chooser(sheet, id, offer, opener) {
  const chosen = new Set(sheet.state.get(`f.${id}`) ?? []);
  const rows = offer.values.map(value => {
    const box = el('input', { type: 'checkbox', value });
    box.checked = chosen.has(value);
    box.addEventListener('change', () => {
      if (box.checked) chosen.add(value);
      else chosen.delete(value);
      sheet.filter(id, [...chosen]);
    });
    return el('label', {}, box, value);
  });
  const list = el(
    'div',
    { class: 'popup-list' },
    ...rows,
    offer.more ? el('p', { class: 'text-faint px-2' }, `and ${offer.more} more that are not listed`) : '',
  );
  const search = el('input', {
    class: 'entry',
    type: 'search',
    placeholder: 'Find a value',
    'aria-label': 'Find a value',
  });
  search.addEventListener('input', () => {
    const wanted = search.value.toLowerCase();
    rows.forEach((row, i) => {
      row.hidden = !offer.values[i].toLowerCase().includes(wanted);
    });
  });
  openPopup(opener, [
    ...(rows.length > 8 ? [search] : []),
    list,
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option text-loch',
        onclick: () => {
          closePopup(true);
          sheet.filter(id, []);
        },
      },
      'All of them',
    ),
  ]);
}

function dates(sheet, id, offer) {
  const [from, to] = (sheet.state.get(`f.${id}`)?.[0] ?? '..').split('..');
  const input = (name, value, words) =>
    el('input', {
      type: 'date',
      value,
      min: offer.from,
      max: offer.to,
      'aria-label': `${offer.words} ${words}`,
      'data-filter-part': `${id}-${name}`,
      onchange: () => {
        const ends = [first.value, last.value];
        sheet.filter(id, ends[0] || ends[1] ? [ends.join('..')] : []);
      },
    });
  const first = input('from', from, 'from');
  const last = input('to', to, 'to');
  return el('span', { class: 'inline-flex gap-2 items-center' }, first, 'to', last);
}

/** A number that the reader sets. What lies beyond its bounds is said by the control and not sent. */
function number(sheet, id, { name, value, low, high }) {
  const input = el('input', {
    type: 'number',
    class: 'filter-number',
    step: 'any',
    min: low ?? undefined,
    max: high ?? undefined,
    value: sheet.state.get(`v.${id}`)?.[0] ?? value,
    'aria-label': name,
    'data-filter-part': `${id}-number`,
    onchange: () => {
      if (input.reportValidity())
        sheet.number(id, input.value === '' || Number(input.value) === value ? null : Number(input.value));
    },
  });
  return el('div', { class: 'filter', 'data-filter': id }, el('span', { class: 'filter-name' }, name), input);
}

/** "Now showing": each part can be taken away. */
export function drawShowing(sheet, frames) {
  const showing = document.getElementById('showing');
  const parts = frames.showing.flatMap(({ id, words }, i) => [
    i ? ' · ' : '',
    el(
      'span',
      {},
      el('b', {}, words),
      el(
        'button',
        {
          type: 'button',
          title: `Take away: ${words}`,
          'aria-label': `Take away: ${words}`,
          onclick: () => sheet.clear(id),
        },
        '×',
      ),
    ),
  ]);
  showing.replaceChildren(
    ...(parts.length
      ? [
          'Now showing ',
          ...parts,
          el('button', { type: 'button', class: 'clear', onclick: () => sheet.clear() }, 'Clear all'),
        ]
      : ['Now showing everything']),
  );
  if (frames.misfits.length) {
    document
      .getElementById('misfits')
      .replaceChildren(...frames.misfits.map(m => el('p', { class: 'sentence-bad' }, m)));
  }
}
