import './head.js';
import { whereAsked } from './asked.js';
import { el, refuse } from './elements.js';
import { ask } from './http.js';
import { untilRead, withProgress } from './sending.js';

const id = document.body.dataset.bring;
const by = name => document.getElementById(name);
const refusal = by('refusal');
// The map comes when it can: the page's controls do not wait for it.
const map = import('./map/placing-map.js').then(({ PlacingMap }) => new PlacingMap(by('placing-map')));
const show = points => map.then(m => m.show(points));
const number = value => value.toLocaleString('en');
let asked = 0;

/* Systems that the numbers fit, as long as nobody has said which it is; the first was guessed. */
const alike = JSON.parse(by('alike-data').textContent);
let decided = alike.length === 0;
const showAlike = () =>
  by('alike').replaceChildren(
    ...(decided
      ? []
      : [
          ` The numbers fit ${alike.length} systems. They are in `,
          ...alike.slice(0, 8).map(({ code, words }) =>
            el(
              'button',
              {
                class: 'do',
                type: 'button',
                onclick: () => {
                  by('epsg').value = code;
                  decided = true;
                  showAlike();
                  place();
                },
              },
              words,
            ),
          ),
        ]),
  );
by('epsg').addEventListener('change', () => {
  decided = true;
  showAlike();
});

/** How an end of the rows is placed: where they come from, or where they go. */
function endOf(end) {
  const said = document.querySelector(`[data-end="${end}"]`);
  const part = name => said.querySelector(`[data-part="${name}"]`);
  const type = part('way').value;
  for (const span of said.querySelectorAll('[data-for]')) span.hidden = span.dataset.for !== type;
  const column = part('column').value;
  if (type === 'coordinates') return { type, lat: column, lon: part('lon').value || null };
  if (type === 'area') return { type, column, set: part('set').value };
  if (type === 'tie') {
    const target = part('target').selectedOptions[0];
    return { type, column, dataset: Number(target.dataset.dataset), equals: target.dataset.column };
  }
  return { type, column };
}

function placing() {
  const way = by('way').value;
  by('by-name').hidden = way !== 'name';
  by('by-tie').hidden = way !== 'tie';
  by('by-column').hidden = way !== 'words' && way !== 'code';
  by('by-coordinates').hidden = way !== 'coordinates';
  by('by-area').hidden = way !== 'area';
  by('by-from-to').hidden = way !== 'from-to';
  if (way === 'none') return null;
  if (way === 'tie') {
    const target = by('tie-target').selectedOptions[0];
    return {
      type: 'tie',
      column: by('tie-column').value,
      dataset: Number(target.dataset.dataset),
      equals: target.dataset.column,
    };
  }
  if (way === 'words' || way === 'code') return { type: way, column: by('column').value };
  if (way === 'from-to') return { type: 'from-to', from: endOf('from'), to: endOf('to') };
  if (way === 'area') return { type: 'area', column: by('area-column').value, set: by('area-set').value };
  if (way === 'coordinates') {
    const epsg = Number(by('epsg').value.replace(/\D/g, ''));
    return {
      type: 'coordinates',
      lat: by('lat').value,
      lon: by('lon').value || null,
      epsg: epsg && epsg !== 4326 ? epsg : null,
      alike: decided || epsg !== alike[0]?.code ? null : alike.slice(1).map(a => a.code),
    };
  }
  const column = name => by(name).value || null;
  return { type: 'name', town: column('town'), province: column('province'), country: column('country') };
}
const isEmpty = p => !p || (p.type === 'name' && !p.town && !p.province && !p.country);

async function place() {
  const recipe = placing();
  const turn = ++asked;
  refuse(refusal, '');
  if (isEmpty(recipe)) {
    by('counts').replaceChildren(
      el(
        'span',
        { class: 'text-faint' },
        recipe ? 'Choose a column that tells where a row is.' : 'The rows are kept without a place.',
      ),
    );
    by('doubts').replaceChildren();
    show([]);
    return;
  }
  try {
    const found = await withProgress('POST', `/api/bring/${id}/placing`, { body: recipe });
    if (turn !== asked) return;
    const count = (kind, value, words) => el('span', { class: kind }, el('b', {}, number(value)), words);
    by('counts').replaceChildren(
      count('good', found.placed, 'rows placed'),
      count('watch', found.doubtful, 'doubtful'),
      count('bad', found.unplaced, 'unplaced'),
    );
    by('doubts').replaceChildren(...(found.doubts.length ? [doubts(found)] : []));
    if (found.partners) by('counts').append(el('p', { class: 'text-small text-faint basis-full' }, found.partners));
    show(found.points);
  } catch (refused) {
    if (turn === asked) refuse(refusal, refused.message);
  }
}

function doubts(found) {
  const line = d =>
    el(
      'li',
      {},
      el('b', {}, d.words),
      ' ',
      el(
        'span',
        { class: 'text-faint' },
        `${number(d.rows)} ${d.rows === 1 ? 'row' : 'rows'}, ${d.taken ? `taken as ${d.taken}` : 'unplaced'}`,
      ),
      el('br'),
      d.reason + (d.runnersUp.length ? ` It might also be ${d.runnersUp.slice(0, 2).join(' or ')}.` : ''),
    );
  return el(
    'ul',
    { class: 'doubts max-h-[230px]' },
    ...found.doubts.map(line),
    found.moreDoubts ? el('li', {}, `and ${number(found.moreDoubts)} more`) : null,
  );
}

const intake = JSON.parse(by('intake').textContent);
const { choices, shaping } = intake;

/* What is changed while the files are read goes along with the next reading; the page comes anew after the last. */
let changed = false;
let reading = false;

/** Reads the files again in another way; where that does not work they stay as they are. */
async function reread() {
  changed = true;
  if (reading) return;
  reading = true;
  refuse(refusal, '');
  let trouble = null;
  while (changed) {
    changed = false;
    try {
      await untilRead(await ask('POST', `/api/bring/${id}/intake`, { body: intake }), 'it again');
      trouble = null;
    } catch (refused) {
      trouble = refused;
    }
  }
  reading = false;
  if (trouble) {
    refuse(refusal, trouble.message);
    by('progress').hidden = true;
    return;
  }
  // A press on what is about to go would be lost.
  document.body.inert = true;
  location.reload();
}

const listed = words =>
  words
    .split(',')
    .map(w => w.trim())
    .filter(Boolean);
const whole = text => (text === '' ? null : Number(text));

for (const control of document.querySelectorAll('[data-choice]')) {
  const name = control.dataset.choice;
  if (choices[name] !== null && choices[name] !== undefined) {
    control.value = choices[name];
    by('form').open = true;
  }
  control.addEventListener('change', () => {
    choices[name] = name.startsWith('headerRow') ? whole(control.value) : control.value === '' ? null : control.value;
    reread();
  });
}
const shapes = {
  decimalMark: { of: () => shaping.decimalMark ?? '', to: value => value || null },
  missing: { of: () => shaping.missing.join(', '), to: listed },
  monthFirst: {
    of: () => (shaping.monthFirst === null || shaping.monthFirst === undefined ? '' : String(shaping.monthFirst)),
    to: value => (value === '' ? null : value === 'true'),
  },
  totals: { of: () => (shaping.totals ? 'true' : ''), to: value => value === 'true' },
};
for (const control of document.querySelectorAll('[data-shape]')) {
  const shape = shapes[control.dataset.shape];
  control.value = shape.of();
  if (control.value) by('form').open = true;
  control.addEventListener('change', () => {
    shaping[control.dataset.shape] = shape.to(control.value);
    reread();
  });
}
whereAsked(shaping, reread);
by('turn')?.addEventListener('click', e => {
  const { columns, year } = e.target.dataset;
  shaping.turn = { columns: JSON.parse(columns), period: 'period', value: 'value', apart: true, year: year ?? null };
  reread();
});
by('drop-repeated')?.addEventListener('click', e => {
  shaping.dropped = [...shaping.dropped, ...JSON.parse(e.currentTarget.dataset.columns)];
  reread();
});
by('turn-back')?.addEventListener('click', () => {
  shaping.turn = null;
  reread();
});
for (const control of document.querySelectorAll('[data-turn]')) {
  control.addEventListener('change', () => {
    shaping.turn[control.dataset.turn] = control.value;
    reread();
  });
}
const keeps = [...document.querySelectorAll('[data-keep]')];
for (const button of document.querySelectorAll('[data-keep-all]')) {
  button.addEventListener('click', () =>
    keeps.forEach(box => {
      box.checked = Boolean(button.dataset.keepAll);
    }),
  );
}
by('keep-columns').addEventListener('click', () => {
  if (!keeps.some(box => box.checked)) {
    refuse(refusal, 'A table needs a column: choose at least one.');
    return;
  }
  shaping.dropped = keeps.filter(box => !box.checked).map(box => box.dataset.keep);
  reread();
});
for (const button of document.querySelectorAll('[data-drop]')) {
  button.addEventListener('click', () => {
    shaping.dropped = [...shaping.dropped, button.dataset.drop];
    reread();
  });
}
for (const button of document.querySelectorAll('[data-as-text]')) {
  button.addEventListener('click', () => {
    shaping.types[button.dataset.asText] = 'TEXT';
    reread();
  });
}
for (const button of document.querySelectorAll('[data-bring-back]')) {
  button.addEventListener('click', () => {
    shaping.dropped = shaping.dropped.filter(c => c !== button.dataset.bringBack);
    reread();
  });
}

function recolumn({ target }) {
  if (target.matches('.type-choice')) shaping.types[target.dataset.column] = target.value;
  else if (target.matches('.column-name')) {
    const source = target.dataset.source;
    if (target.value.trim() && target.value.trim() !== source) shaping.names[source] = target.value.trim();
    else delete shaping.names[source];
  } else return;
  reread();
}

async function keep() {
  const recipe = placing();
  by('keep').disabled = true;
  by('keep').textContent = 'Keeping the rows';
  try {
    const kept = await withProgress('POST', `/api/bring/${id}/keep`, {
      body: { name: by('name').value, placing: isEmpty(recipe) ? null : recipe },
    });
    location.assign(kept.address);
  } catch (refused) {
    refuse(refusal, refused.message);
    by('keep').disabled = false;
    by('keep').textContent = 'Keep this dataset';
  }
}

by('keep-areas')?.addEventListener('click', async () => {
  const chosen = {};
  for (const control of document.querySelectorAll('[data-area]')) chosen[control.dataset.area] = control.value || null;
  try {
    const kept = await ask('POST', `/api/bring/${id}/areas`, { body: chosen });
    by('areas-kept').replaceChildren(
      el(
        'p',
        { class: 'sentence-good' },
        `${number(kept.areas)} areas are kept. `,
        el('a', { href: kept.address }, 'See them'),
      ),
      ...(kept.troubles.length
        ? [el('ul', { class: 'doubts max-h-[160px]' }, ...kept.troubles.map(t => el('li', {}, t)))]
        : []),
    );
  } catch (refused) {
    by('areas-kept').replaceChildren(el('p', { class: 'sentence-bad' }, refused.message));
  }
});
function saySystem(code) {
  choices.system = code;
  reread();
}
for (const button of document.querySelectorAll('[data-system]'))
  button.addEventListener('click', () => saySystem(Number(button.dataset.system)));
by('say-system')?.addEventListener('click', () => {
  const code = Number(by('said-system').value.replace(/\D/g, ''));
  if (code) saySystem(code);
});
showAlike();
by('placing').addEventListener('change', place);
by('columns').addEventListener('change', recolumn);
by('keep').addEventListener('click', keep);
place();
