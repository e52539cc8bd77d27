import { addressOf } from './base.js';
import { el, say } from './elements.js';
import { ask } from './http.js';
import { closePopup, openPopup } from './popup.js';
import { readState, writeState } from './state.js';
import { phrase } from './language.js';

/**
 * What people keep under a name of what they have chosen: views of their own, and those that the author offers to all.
 */
export function viewsButton(sheet) {
  return el(
    'button',
    {
      type: 'button',
      class: 'clear quiet-act',
      'aria-haspopup': 'true',
      'aria-expanded': 'false',
      onclick: e => open(sheet, e.currentTarget),
    },
    phrase('Views'),
  );
}

const address = () => addressOf('views');

async function open(sheet, opener) {
  try {
    show(sheet, opener, await ask('GET', address()));
  } catch (refused) {
    say(refused.message);
  }
}

function show(sheet, opener, views) {
  const row = view =>
    el(
      'div',
      { class: 'ordered' },
      el(
        'button',
        {
          type: 'button',
          class: 'popup-option',
          onclick: () => {
            closePopup(true);
            const page = sheet.state.get('g.page')?.[0];
            sheet.went(readState(view.state), null);
            if (page !== sheet.state.get('g.page')?.[0]) sheet.turnPage();
          },
        },
        view.name,
        view.offered ? el('span', { class: 'hint' }, phrase('for all')) : '',
      ),
      view.mine
        ? el(
            'button',
            {
              type: 'button',
              'aria-label': phrase('Forget {0}', view.name),
              title: phrase('Forget {0}', view.name),
              onclick: async () => {
                await ask('DELETE', `${address()}/${view.id}`).catch(refused => say(refused.message));
                open(sheet, opener);
              },
            },
            '×',
          )
        : '',
    );
  const name = el('input', {
    class: 'entry',
    maxlength: 80,
    placeholder: phrase('Keep this as …'),
    'aria-label': phrase('Name of the view'),
  });
  const offered = el('input', { type: 'checkbox' });
  const keep = async () => {
    if (!name.value.trim()) return name.focus();
    try {
      await ask('PUT', address(), {
        body: { name: name.value.trim(), state: writeState(sheet.state), offered: offered.checked },
      });
      open(sheet, opener);
    } catch (refused) {
      say(refused.message);
    }
  };
  name.addEventListener('keydown', e => e.key === 'Enter' && keep());
  openPopup(opener, [
    el('p', { class: 'popup-words' }, views.length ? phrase('Kept views') : phrase('Nothing is kept yet.')),
    el('div', { class: 'popup-list' }, ...views.map(row)),
    name,
    sheet.opened.mayChange ? el('label', {}, offered, phrase('offered to all readers')) : '',
    el('button', { type: 'button', class: 'popup-option text-loch', onclick: keep }, phrase('Keep what is chosen now')),
  ]);
}
