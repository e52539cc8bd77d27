import { el } from '../elements.js';
import { closePopup, openPopup } from '../popup.js';

/** A filter that keeps some of the values of a column. */
export function control(sheet, id, offer) {
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
