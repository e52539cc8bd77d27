import { el, refuse } from './elements.js';
import { ask } from './http.js';
import { putOn } from './dress.js';
import { closePopup, openPopup } from './popup.js';

const PARTS = [
  ['paper', 'Paper'],
  ['ink', 'Ink'],
  ['deed', 'What can be done'],
  ['picked', 'What is picked'],
];

/**
 * The four colours of which a theme is made, chosen together and tried on at once; what is hard to read is said before
 * it is kept.
 */
export function ownColours(opener, slot, board) {
  const { sheet } = board;
  const worn = { ...(board.now ?? slot.options[0].value) };
  const said = el('div', {});
  const keep = el(
    'button',
    {
      type: 'button',
      class: 'popup-option text-loch',
      onclick: () => {
        closePopup(true);
        board.edit([{ op: 'add', path: slot.path, value: worn }]);
      },
    },
    'Wear these colours',
  );
  let turn = 0;
  const tryOn = async () => {
    const mine = ++turn;
    const query = new URLSearchParams(worn);
    const { colours, trouble } = await ask('GET', `/api/dashboards/${sheet.id}/own-colours?${query}`);
    if (mine !== turn || !said.isConnected) return;
    refuse(said, trouble ?? '');
    keep.disabled = Boolean(trouble);
    putOn(colours);
  };
  const box = openPopup(opener, [
    ...PARTS.map(([part, words]) =>
      el(
        'label',
        {},
        el('input', {
          type: 'color',
          value: worn[part],
          'data-part': part,
          oninput: e => {
            worn[part] = e.target.value;
            tryOn();
          },
        }),
        words,
      ),
    ),
    said,
    keep,
    ...(slot.removable
      ? [
          el(
            'button',
            {
              type: 'button',
              class: 'popup-option text-rust',
              onclick: () => {
                closePopup(true);
                board.edit([{ op: 'remove', path: slot.path }]);
              },
            },
            'Leave your own colours out',
          ),
        ]
      : []),
  ]);
  // However it is closed, what is not kept is taken off again.
  new MutationObserver((_, observer) => {
    if (box.isConnected) return;
    observer.disconnect();
    putOn(sheet.opened.colours);
  }).observe(document.body, { childList: true });
}
