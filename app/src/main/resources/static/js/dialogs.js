import { el } from './elements.js';
import { phrase } from './language.js';

/** A sheet of its own over the page, with a title and a way to close it. */
export function openSheet(title, ...content) {
  const dialog = el(
    'dialog',
    { class: 'sheet-dialog', 'aria-label': title },
    el('h2', {}, title),
    el('button', { type: 'button', class: 'quiet close', onclick: () => dialog.close() }, phrase('Close')),
    ...content,
  );
  dialog.addEventListener('close', () => dialog.remove());
  dialog.addEventListener('click', e => e.target === dialog && dialog.close());
  document.body.append(dialog);
  dialog.showModal();
}

/** The row trail: which rows a visual shows, and what took the others away. */
export function openTrail({ drawing }) {
  if (!drawing?.trail) return;
  const { steps } = drawing.trail;
  const all = Math.max(1, steps[0]?.left ?? 1);
  const lines = steps.map((step, i) => {
    const groups = step.unit === 'GROUPS';
    const before = steps[i - 1];
    const lost = before?.unit === step.unit && step.unit !== 'WITHOUT' ? before.left - step.left : 0;
    const bar = el('i', {});
    bar.style.width = `${(100 * step.left) / all}%`;
    return el(
      'li',
      { class: step.unit === 'ROWS' ? null : step.unit.toLowerCase() },
      el('span', {}, step.words),
      el(
        'b',
        {},
        groups
          ? phrase('{0, plural, one {# group} other {# groups}}', step.left)
          : phrase('{0, plural, one {# row} other {# rows}}', step.left),
      ),
      lost ? el('span', { class: 'lost' }, phrase('takes away {0}', lost)) : '',
      el('div', { class: 'bar-line' }, bar),
    );
  });
  openSheet(
    phrase('Row trail: {0}', drawing.title),
    drawing.trail.empty ? el('p', { class: 'sentence-bad' }, drawing.trail.empty) : '',
    el('ol', { class: 'trail' }, ...lines),
  );
}

/** The figures of a visual as a table, from which can be picked too. */
export function openFigures(sheet, id, { drawing, kind }) {
  if (!drawing || drawing.type === 'misfit') return;
  const { head, rows, figureFrom = 1 } = kind.figures(drawing);
  const chosen = () => sheet.pickedOn(id);
  const line = ({ key, cells }) => {
    let pick = '';
    if (key !== null) {
      pick = el('input', { type: 'checkbox', 'aria-label': phrase('Pick {0}', cells[0]) });
      pick.checked = chosen().includes(key);
      pick.addEventListener('change', () => sheet.pick(id, [key], true));
    }
    return el(
      'tr',
      {},
      el('td', {}, pick),
      ...cells.map((c, i) => el('td', { class: i >= figureFrom ? 'n' : null }, c)),
    );
  };
  openSheet(
    drawing.title,
    el(
      'div',
      { class: 'scrolls', tabindex: 0, role: 'region', 'aria-label': drawing.title },
      el(
        'table',
        { class: 'rows' },
        el(
          'thead',
          {},
          el(
            'tr',
            {},
            el('th', {}, phrase('pick')),
            ...head.map((h, i) => el('th', { class: i >= figureFrom ? 'n' : null }, h)),
          ),
        ),
        el('tbody', {}, ...rows.map(line)),
      ),
    ),
  );
}
