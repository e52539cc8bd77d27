import './head.js';
import { el, refuse, say } from './elements.js';
import { ask } from './http.js';

/**
 * The texts of a dashboard in other languages: each beside what its author has written, kept together as one edit of
 * the draft.
 */
const { id, languages, texts, ...begun } = JSON.parse(document.getElementById('texts').textContent);
const place = document.getElementById('texts-in');
const refusal = document.getElementById('refusal');
let { revision, said, language } = begun;
let now = languages[0].tag;
let changed = false;

addEventListener('beforeunload', e => changed && e.preventDefault());

show();

function show() {
  const known = said?.[now] ?? {};
  const choose = el(
    'select',
    { class: 'entry', 'aria-label': 'Language of the texts', onchange: e => turn(e.target) },
    ...languages.map(({ tag, name }) => {
      const count = Object.keys(said?.[tag] ?? {}).length;
      return el('option', { value: tag, selected: tag === now }, count ? `${name} (${count})` : name);
    }),
  );
  const handed = el(
    'select',
    { class: 'entry', 'aria-label': 'Language in which it is handed over', onchange: e => hand(e.target.value) },
    el('option', { value: '' }, 'the language of each reader'),
    ...languages.map(({ tag, name }) => el('option', { value: tag, selected: tag === language }, name)),
  );
  place.replaceChildren(
    el('p', { class: 'form-sentence' }, 'It is handed over in ', handed, '; a reader may still choose another.'),
    el('p', { class: 'form-sentence' }, 'The texts in ', choose, ':'),
    el(
      'table',
      { class: 'rows texts-table' },
      el('thead', {}, el('tr', {}, ...['Where', 'As it is written', 'In this language'].map(h => el('th', {}, h)))),
      el('tbody', {}, ...texts.map(one => row(one, known[one.at]))),
    ),
    el(
      'p',
      { class: 'mt-4' },
      el('button', { type: 'button', class: 'do do-first', id: 'keep-texts', onclick: keep }, 'Keep these texts'),
      ' Readers see them with the next edition that you publish.',
    ),
  );
  changed = false;
}

function row({ at, where, text }, known) {
  const long = text.length > 60 || text.includes('\n');
  const input = el(long ? 'textarea' : 'input', {
    class: 'entry',
    rows: long ? Math.min(8, 1 + Math.ceil(text.length / 50)) : null,
    lang: now,
    'data-at': at,
    maxlength: 20_000,
    'aria-label': `${where}: ${text.slice(0, 60)}`,
    oninput: () => (changed = true),
  });
  input.value = known?.text ?? '';
  return el(
    'tr',
    {},
    el('td', { class: 'text-faint' }, where),
    el(
      'td',
      { class: 'say' },
      text,
      known && known.of !== text
        ? el('p', { class: 'sentence-bad' }, `It read “${known.of}” when this was written.`)
        : '',
    ),
    el('td', {}, input),
  );
}

function turn(select) {
  if (changed) {
    say('Keep these texts first, or leave the page to give them up.');
    select.value = now;
    return;
  }
  now = select.value;
  show();
}

async function keep() {
  const own = {};
  for (const { at, text } of texts) {
    const written = place.querySelector(`[data-at="${CSS.escape(at)}"]`).value.trim();
    if (written) own[at] = { of: text, text: written };
  }
  const all = { ...said, [now]: own };
  if (!Object.keys(own).length) delete all[now];
  if (!(await edited('/texts', all))) return;
  said = all;
  show();
  say('The texts are kept.');
}

async function hand(tag) {
  if (await edited('/language', tag || null)) {
    language = tag;
    say('Kept. Readers see it with the next edition that you publish.');
  }
}

/** Sets a part of the draft. @returns {Promise<boolean>} whether it was kept */
async function edited(path, value) {
  try {
    const kept = await ask('PATCH', `/api/dashboards/${id}`, {
      body: [{ op: 'add', path, value }],
      type: 'application/json-patch+json',
      headers: { 'If-Match': `"${revision}"` },
    });
    revision = kept?.revision ?? revision + 1;
    refuse(refusal, '');
    return true;
  } catch (refused) {
    refuse(refusal, refused.message);
    return false;
  }
}
