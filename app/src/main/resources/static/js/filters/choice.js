import { chooseButton } from './choose.js';
import { el, say } from '../elements.js';
import { openPopup } from '../popup.js';
import { any, count, phrase } from '../language.js';

/** Milliseconds after the last letter before values are looked for. */
const PAUSE = 120;

/** A filter that keeps some of the values of a column. */
export function control(sheet, id, offer) {
  const chosen = sheet.turnedTo(id);
  const { all } = offer.said;
  const text =
    chosen.length === 0
      ? all
      : chosen.length <= 2
        ? any(chosen)
        : phrase('{0} of {1}', chosen.length, offer.values.length + offer.more);
  return chooseButton(id, text, opener => chooser(sheet, id, offer, opener));
}

function chooser(sheet, id, offer, opener) {
  const { all, one } = offer.said;
  const chosen = new Set(sheet.turnedTo(id));
  const list = el('div', { class: 'popup-list counted', role: 'group', 'aria-label': offer.words });
  const foot = el('p', { class: 'popup-words' });
  const take = (value, on) => {
    if (one) chosen.clear();
    if (on) chosen.add(value);
    else chosen.delete(value);
    sheet.filter(id, [...chosen]);
    if (one) for (const box of list.querySelectorAll('input')) box.checked = chosen.has(box.value);
  };
  /** A line stays the one that it is, so that a press on it holds while the numbers of rows arrive. */
  const lines = new Map();
  const line = ({ value, rows }) => {
    if (!lines.has(value)) lines.set(value, made(value));
    const label = lines.get(value);
    label.firstChild.checked = chosen.has(value);
    label.classList.toggle('is-none', rows === 0);
    label.lastChild.textContent = rows === null ? '' : count(rows);
    return label;
  };
  const made = value => {
    const box = el('input', {
      type: one ? 'radio' : 'checkbox',
      name: `${id}-values`,
      value,
      onchange: () => take(value, box.checked),
    });
    return el('label', {}, box, el('span', { class: 'counted-value' }, value), el('span', { class: 'hint' }));
  };
  const show = (values, more) => {
    const all = values.map(line);
    if (all.length !== list.children.length || all.some((label, i) => label !== list.children[i]))
      list.replaceChildren(...all);
    foot.textContent = more
      ? phrase('and {0} more: look for one by its letters', more)
      : values.length
        ? ''
        : phrase('No value is written so.');
  };
  let turn = 0;
  const look = async () => {
    const mine = ++turn;
    try {
      const found = await sheet.valuesOf(id, search.value.trim());
      if (mine === turn) show(found.values, found.more);
    } catch (refused) {
      if (mine === turn) say(refused.message);
    }
  };
  let waiting = null;
  const search = el('input', {
    class: 'entry',
    type: 'search',
    placeholder: phrase('Find a value'),
    'aria-label': phrase('Find a value'),
    oninput: () => {
      clearTimeout(waiting);
      waiting = setTimeout(look, PAUSE);
    },
  });
  show(
    offer.values.slice(0, 200).map(value => ({ value, rows: null })),
    0,
  );
  look();
  openPopup(opener, [
    ...(offer.values.length + offer.more > 8 ? [search] : []),
    list,
    foot,
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option text-loch',
        onclick: () => {
          chosen.clear();
          for (const box of list.querySelectorAll('input')) box.checked = false;
          sheet.filter(id, []);
        },
      },
      all === phrase('values|all') ? phrase('All of them') : all,
    ),
  ]);
}
