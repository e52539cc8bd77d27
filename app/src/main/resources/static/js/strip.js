import { el } from './elements.js';
import { FILTERS } from './filters/kinds.js';
import { parameterControl } from './parameters.js';
import { KINDS } from './visuals/kinds.js';

/** The filters and parameters of the page. */

export function drawStrip(sheet) {
  // What is being turned stays in the hand.
  if (sheet.turning) return;
  const strip = document.getElementById('strip');
  const focused = document.activeElement?.dataset?.filterPart;
  const { visuals, parameters, filters } = sheet.opened.document;
  const held = new Set(Object.values(visuals).flatMap(v => KINDS[v.type].holds?.(v) ?? []));
  // Authors see what readers do not.
  const stands = ({ page, terms }) =>
    (page === sheet.page || terms?.everywhere) && (!terms?.hidden || Boolean(sheet.hooks.strip));
  const numbers = Object.entries(parameters ?? {}).sort(([, a], [, b]) => a.order - b.order);
  strip.replaceChildren(
    ...[...Object.keys(sheet.opened.offers).filter(id => stands(filters[id])), ...numbers.map(([id]) => id)]
      .filter(id => !held.has(id))
      .map(id => controlOf(sheet, id)),
    // Only authors see what figures are worked out by.
    ...(sheet.hooks.strip ? Object.entries(sheet.opened.document.formulas ?? {}) : []).map(([id, formula]) =>
      named(
        id,
        formula.name,
        el('button', { type: 'button', class: 'strip-formula', 'data-filter-part': id }, madeOf(formula)),
      ),
    ),
  );
  if (focused) strip.querySelector(`[data-filter-part="${focused}"]`)?.focus();
  sheet.hooks.strip?.(strip);
}

/** What a measure of the sheet's own is made of, in a few words. */
const madeOf = ({ text, change }) => text ?? (change ? 'a change' : 'against a figure of another dataset');

/** A filter or a number with its name; null where there is none of this id. */
export function controlOf(sheet, id) {
  const offer = sheet.opened.offers[id];
  const parameter = sheet.opened.document.parameters?.[id];
  if (!offer) return parameter ? named(id, parameter.name, parameterControl(sheet, id, parameter)) : null;
  // While rows are on their way nothing can be said of their columns.
  const amiss = sheet.opened.coming ? '…' : offer.misfit;
  const control = offer.misfit ? el('span', {}, amiss) : FILTERS[offer.type].control(sheet, id, offer);
  return named(id, offer.words, control);
}

const named = (id, words, control) =>
  el('div', { class: 'filter', 'data-filter': id }, el('span', { class: 'filter-name' }, words), control);
