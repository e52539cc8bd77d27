import { el } from './elements.js';
import { FILTERS } from './filters/kinds.js';
import { KINDS } from './visuals/kinds.js';

/** The filters and parameters of the page, and under the title what is now showing. */

export function drawStrip(sheet) {
  // What is being turned stays in the hand.
  if (sheet.turning) return;
  const strip = document.getElementById('strip');
  const focused = document.activeElement?.dataset?.filterPart;
  const { visuals, parameters, filters } = sheet.opened.document;
  const held = new Set(Object.values(visuals).flatMap(v => KINDS[v.type].holds?.(v) ?? []));
  const numbers = Object.entries(parameters ?? {}).sort(([, a], [, b]) => a.order - b.order);
  strip.replaceChildren(
    ...[...Object.keys(sheet.opened.offers).filter(id => filters[id].page === sheet.page), ...numbers.map(([id]) => id)]
      .filter(id => !held.has(id))
      .map(id => controlOf(sheet, id)),
  );
  if (focused) strip.querySelector(`[data-filter-part="${focused}"]`)?.focus();
  sheet.hooks.strip?.(strip);
}

/** A filter or a number with its name; null where there is none of this id. */
export function controlOf(sheet, id) {
  const offer = sheet.opened.offers[id];
  const parameter = sheet.opened.document.parameters?.[id];
  if (!offer) return parameter ? number(sheet, id, parameter) : null;
  const control = offer.misfit ? el('span', {}, offer.misfit) : FILTERS[offer.type].control(sheet, id, offer);
  return el('div', { class: 'filter', 'data-filter': id }, el('span', { class: 'filter-name' }, offer.words), control);
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
