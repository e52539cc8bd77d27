import { el, refuse } from './elements.js';
import { ask } from './http.js';
import { openPopup } from './popup.js';

/** How long a formula rests before it is tried out, in milliseconds. */
const REST = 250;

/** A measure of the dashboard's own: what it comes to is said while it is written. */
export async function openFormula(opener, slot, board, take) {
  // The editor is large, and few open it.
  const { FormulaEditor } = await import('./formula-editor.js');
  const [, , id] = slot.path.split('/');
  const place = el('div', { class: 'popup-formula' });
  const said = el('p', { class: 'formula-trouble', role: 'status' });
  let asked = 0;
  let resting;
  const tryOut = async text => {
    const turn = ++asked;
    if (!text.trim()) {
      said.textContent = '';
      return;
    }
    try {
      const { trouble, value } = await ask('POST', `/api/dashboards/${board.sheet.id}/formulas/try`, {
        body: { formula: id, text },
      });
      if (turn !== asked || !said.isConnected) return;
      editor.mark(trouble);
      said.classList.toggle('is-wrong', Boolean(trouble));
      said.textContent = [value && `All rows, as it is at first: ${value}.`, trouble?.words].filter(Boolean).join(' ');
    } catch (refused) {
      if (turn === asked) refuse(said, refused.message);
    }
  };
  openPopup(opener, [
    place,
    said,
    el(
      'p',
      { class: 'popup-words' },
      'What readers set stands in it behind a colon. Ctrl and space shows all that can stand there.',
    ),
    el(
      'button',
      { type: 'button', class: 'popup-option text-loch', onclick: () => take(editor.text.trim()) },
      'Take this formula',
    ),
  ]);
  const words = slot.options.map(({ text, hint, value }) => ({ word: text, hint, kind: value }));
  const editor = new FormulaEditor(place, words, text => {
    clearTimeout(resting);
    resting = setTimeout(tryOut, REST, text);
  });
  // Arrows move within the formula, not from one part of the popup to the next.
  place.addEventListener('keydown', e => e.key !== 'Escape' && e.stopPropagation());
  editor.text = board.now ?? '';
  editor.focus();
}
