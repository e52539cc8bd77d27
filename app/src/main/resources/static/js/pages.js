import { el } from './elements.js';
import { phrase } from './language.js';

/** Id of the page under which a page's title stands, if any. */
export const aboveOf = ({ pages }, id) => (pages[pages[id].under] ? pages[id].under : null);

/** Ids of the pages in their order, each followed by those under it. */
export const pagesOf = dashboard => {
  const inOrder = Object.entries(dashboard.pages)
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([id]) => id);
  const under = above => inOrder.filter(id => aboveOf(dashboard, id) === above);
  return under(null).flatMap(id => [id, ...under(id)]);
};

/** What a page is called. */
export const pageName = (document, id) =>
  document.pages[id].title || phrase('Page {0}', pagesOf(document).indexOf(id) + 1);

/**
 * The titles of the pages in a quiet row. Readers see those that are shown, if there are several, and the one they look
 * at; authors see all of them, and what they can do with one.
 */
export function drawPages(sheet) {
  const row = document.getElementById('pages');
  const { document: dashboard } = sheet.opened;
  const composing = Boolean(sheet.hooks.page);
  const family = aboveOf(dashboard, sheet.page) ?? sheet.page;
  // Those under a page are read once one is there.
  const isOpen = id => [null, family].includes(aboveOf(dashboard, id)) && !dashboard.pages[id].hidden;
  const shown = pagesOf(dashboard).filter(id => composing || id === sheet.page || isOpen(id));
  row.hidden = !composing && shown.length < 2;
  const focused = row.contains(document.activeElement) ? document.activeElement.dataset.page : null;
  row.replaceChildren(
    ...shown.map(id => {
      const here = id === sheet.page;
      return el(
        'button',
        {
          type: 'button',
          class: `page-title${dashboard.pages[id].hidden ? ' is-hidden' : ''}${
            aboveOf(dashboard, id) ? ' is-under' : ''
          }`,
          'data-page': id,
          'aria-current': here ? 'page' : undefined,
          title: here && composing ? 'Say what this page is called' : undefined,
          onclick: () => (here ? sheet.hooks.page?.(id) : sheet.goTo(id)),
        },
        pageName(dashboard, id),
        dashboard.pages[id].hidden ? el('span', { class: 'page-hidden' }, 'hidden') : '',
      );
    }),
    ...(composing
      ? [el('button', { type: 'button', class: 'page-add', onclick: () => sheet.hooks.addPage() }, '+ page')]
      : []),
  );
  if (focused) row.querySelector(`[data-page="${focused}"]`)?.focus();
}
