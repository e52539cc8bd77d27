import { el, refuse } from './elements.js';
import { ask } from './http.js';
import { openSheet } from './dialogs.js';
import { closePopup, openPopup } from './popup.js';

const listOf = id => JSON.parse(document.getElementById(id).textContent);

const select = (label, options, chosen) =>
  el(
    'select',
    { class: 'entry', 'aria-label': label },
    ...options.map(({ id, name }) => el('option', { value: id, selected: id === chosen }, name)),
  );

/**
 * Another of a dashboard: of the same datasets, or with one of them in the place of another. Columns are matched by
 * name; what is left is settled here.
 */
export function openDuplicate(sheet) {
  const { title } = sheet.opened.document;
  const name = el('input', {
    class: 'entry',
    'aria-label': 'Its question',
    value: `${title} (another)`,
    maxlength: 200,
  });
  const datasets = listOf('datasets');
  const used = new Set();
  JSON.stringify(sheet.opened.document, (key, value) => {
    if (key === 'dataset') used.add(value);
    return value;
  });
  const same = { id: '', name: 'the same datasets' };
  const from = select('Dataset to replace', [same, ...datasets.filter(d => used.has(d.id))], '');
  const to = select('Dataset that takes its place', datasets, null);
  const columns = el('div', { class: 'settling' });
  const onto = el('div', { hidden: true }, el('p', { class: 'popup-words' }, 'its place is taken by'), to, columns);
  const refusal = el('div', {});
  let turn = 0;
  const look = async () => {
    // An answer that comes late would put back what has been settled since.
    const mine = ++turn;
    onto.hidden = !from.value;
    columns.replaceChildren();
    refuse(refusal, '');
    if (!from.value) return;
    try {
      const found = await ask('GET', `/api/dashboards/${sheet.id}/moves?from=${from.value}&to=${to.value}`);
      if (mine === turn) columns.replaceChildren(...settled(found));
    } catch (refused) {
      if (mine === turn) refuse(refusal, refused.message);
    }
  };
  from.addEventListener('change', look);
  to.addEventListener('change', look);
  const make = el('button', { type: 'button', class: 'do' }, 'Make it');
  make.addEventListener('click', async () => {
    const pairs = [...columns.querySelectorAll('select')].filter(s => s.value).map(s => [s.dataset.column, s.value]);
    try {
      const made = await ask('POST', `/api/dashboards/${sheet.id}/duplicates`, {
        body: from.value
          ? { title: name.value, from: Number(from.value), to: Number(to.value), columns: Object.fromEntries(pairs) }
          : { title: name.value },
      });
      location.assign(`/dashboards/${made.dashboard}/compose`);
    } catch (refused) {
      refuse(refusal, refused.message);
    }
  });
  openSheet(
    'Another of this dashboard',
    el('div', { class: 'duplicate-form' }, name, el('p', { class: 'popup-words' }, 'of'), from, onto, refusal, make),
  );
}

/** Each column with what stands for it; those without a match first, so that they are seen. */
export function settled(found) {
  const open = found.filter(f => !f.to).length;
  const sorted = [...found].sort((a, b) => Number(Boolean(a.to)) - Number(Boolean(b.to)));
  return [
    el(
      'p',
      { class: 'popup-words', role: 'status' },
      open
        ? `${open} of ${found.length} columns have no column of that name. Say what stands for each, or leave it: what uses it will say what is missing.`
        : `All ${found.length} columns were found by their names.`,
    ),
    ...sorted.map(({ name, words, to, fitting }) => {
      const options = [
        { id: '', name: fitting.length ? 'nothing stands for it' : 'nothing there fits' },
        ...fitting.map(f => ({ id: f, name: f })),
      ];
      const choice = select(`What stands for ${name}`, options, to ?? '');
      choice.dataset.column = name;
      return el('label', { class: `settling-line${to ? '' : ' is-open'}` }, el('span', {}, words), choice);
    }),
  ];
}

/** Where one more of a visual is put: on this sheet, on another dashboard, or on a new one that begins with it. */
export function offerCopies(opener, sheet, id, here) {
  const others = listOf('dashboards').filter(d => String(d.id) !== String(sheet.id));
  const refusal = el('div', {});
  const onto = async body => {
    try {
      const made = await ask('POST', `/api/dashboards/${sheet.id}/duplicates/${id}`, { body });
      location.assign(`/dashboards/${made.dashboard}/compose`);
    } catch (refused) {
      refuse(refusal, refused.message);
    }
  };
  const option = (words, hint, onclick) =>
    el(
      'button',
      { type: 'button', class: 'popup-option', onclick },
      words,
      hint ? el('span', { class: 'hint' }, hint) : '',
    );
  const title = sheet.visuals.get(id)?.drawing?.title || sheet.opened.document.title;
  openPopup(opener, [
    el(
      'div',
      { class: 'popup-list' },
      option('On this sheet', '', () => {
        closePopup(true);
        here();
      }),
      option('On a new dashboard', title, () => onto({ title })),
      ...others.map(d => option(`On “${d.name}”`, '', () => onto({ dashboard: d.id }))),
    ),
    refusal,
  ]);
}
