import { openSheet } from './dialogs.js';
import { settled } from './duplicate.js';
import { el, refuse, say } from './elements.js';
import { ask } from './http.js';

/** More than any dashboard’s file. */
const LARGEST = 3 * 2 ** 20;

/**
 * Brings a dashboard in from a file: each of its datasets is matched with one that is there, and what is not found by
 * name is settled here.
 * @param {File} chosen @param {{id: number, name: string}[]} datasets those that are there
 */
export async function bringDashboard(chosen, datasets) {
  if (chosen.size > LARGEST)
    return say(
      `“${chosen.name}” holds ${Math.round(chosen.size / 2 ** 20)} MB. A dashboard’s file has up to 3 MB and no rows.`,
    );
  let file;
  try {
    file = JSON.parse(await chosen.text());
  } catch {
    return say(`“${chosen.name}” is no dashboard’s file: it cannot be read as JSON.`);
  }
  const title = el('input', { class: 'entry', 'aria-label': 'Its question', maxlength: 200 });
  const parts = el('div', {});
  const refusal = el('div', { role: 'alert' });
  const make = el('button', { type: 'button', class: 'do' }, 'Bring it in');
  const onto = new Map();
  let turn = 0;

  const look = async () => {
    // An answer that comes late would put back what has been settled since.
    const mine = ++turn;
    refuse(refusal, '');
    try {
      const found = await ask('POST', '/api/dashboard-files/match', { body: { file, onto: Object.fromEntries(onto) } });
      if (mine !== turn) return false;
      title.value ||= found.title;
      parts.replaceChildren(
        ...found.datasets.map(matched),
        ...found.keys.map(words => el('p', { class: 'popup-words' }, words)),
      );
      return true;
    } catch (refused) {
      if (mine === turn) refuse(refusal, refused.message);
      return refused.status !== 400 || onto.size > 0;
    }
  };

  const matched = ({ id, name, to, guessed, used }) => {
    const choice = el(
      'select',
      {
        class: 'entry',
        'aria-label': `What takes the place of ${name}`,
        onchange: () => {
          onto.set(id, Number(choice.value));
          look();
        },
      },
      to === null ? el('option', { value: '' }, 'choose a dataset') : '',
      ...datasets.map(d => el('option', { value: d.id, selected: d.id === to }, d.name)),
    );
    const by = used.filter(u => u.to).length;
    return el(
      'div',
      { class: 'file-dataset', 'data-dataset': id },
      el(
        'p',
        { class: 'popup-words' },
        `For “${name}” stands${guessed && to !== null ? `, by a guess (${by} of ${used.length} columns are found)` : ''}:`,
      ),
      choice,
      el('div', { class: 'settling' }, ...(to === null ? [] : settled(used))),
    );
  };

  make.addEventListener('click', async () => {
    const said = {};
    for (const part of parts.querySelectorAll('[data-dataset]')) {
      const [choice, ...columns] = part.querySelectorAll('select');
      if (!choice.value) return refuse(refusal, 'Choose a dataset for each of those of the file.');
      said[part.dataset.dataset] = {
        dataset: Number(choice.value),
        columns: Object.fromEntries(columns.filter(c => c.value).map(c => [c.dataset.column, c.value])),
      };
    }
    try {
      const made = await ask('POST', '/api/dashboard-files', { body: { file, title: title.value, onto: said } });
      location.assign(`/dashboards/${made.dashboard}/compose`);
    } catch (refused) {
      refuse(refusal, refused.message);
    }
  });
  const sheet = openSheet(
    'A dashboard from a file',
    el('div', { class: 'duplicate-form' }, title, parts, refusal, make),
  );
  if (!(await look())) make.disabled = true;
  return sheet;
}
