import './head.js';
import { el, refuse, say } from './elements.js';
import { drawGrants } from './grants.js';
import { ask } from './http.js';
import { PlacingMap } from './map/placing-map.js';
import { bring, withProgress } from './sending.js';

const id = document.body.dataset.dataset;
const by = name => document.getElementById(name);
const number = value => value.toLocaleString('en');

const ready = document.body.dataset.ready === 'true';
const tries = 600;

if (ready && by('placing-map')) {
  const map = new PlacingMap(by('placing-map'));
  ask('GET', `/api/datasets/${id}/placing`).then(
    found => map.show(found.points),
    refused => refuse(by('refusal'), refused.message),
  );
}
/**
 * Rows that are on their way: the page is looked at again when they are there, unless something is being written on it.
 */
async function untilReady() {
  for (let i = 0; i < tries; i++) {
    if ((await ask('GET', `/api/datasets/${id}`)).ready) {
      if (!document.querySelector('input:focus, textarea:focus')) location.reload();
      else by('on-their-way').textContent = 'The rows are there now. Look at the page again to see them.';
      return;
    }
    await new Promise(resolve => {
      setTimeout(resolve, 500);
    });
  }
}
by('first-page').addEventListener('click', async e => {
  const button = e.currentTarget;
  refuse(by('refusal'), '');
  button.disabled = true;
  try {
    const { dashboard, guesses } = await ask('POST', '/api/dashboards/first', { body: { dataset: Number(id) } });
    try {
      // What was guessed is said where it can be changed.
      sessionStorage.setItem('sarnik.guesses', guesses);
    } catch {
      /* it is not said then */
    }
    location.assign(`/dashboards/${dashboard}/compose`);
  } catch (refused) {
    refuse(by('refusal'), refused.message);
    button.disabled = false;
  }
});
if (!ready) untilReady().catch(refused => refuse(by('refusal'), refused.message));

let revision = Number(document.body.dataset.revision);
/** Changes what is said about the dataset, on the revision that this page knows. */
async function change(part, body) {
  revision = (await ask('PUT', `/api/datasets/${id}/${part}`, { body, headers: { 'If-Match': `"${revision}"` } }))
    .revision;
}

/** Does something that may be refused, and says so where it is. */
async function attempt(action) {
  refuse(by('refusal'), '');
  try {
    return await action();
  } catch (refused) {
    refuse(by('refusal'), refused.message);
    if (refused.status === 412) by('refusal').append(...afterOthers(action));
    by('refusal').scrollIntoView({ block: 'center' });
    return undefined;
  }
}

/** What can be done when somebody else has changed the dataset meanwhile. */
function afterOthers(action) {
  const again = async () => {
    revision = (await ask('GET', `/api/datasets/${id}`)).revision;
    await attempt(action);
  };
  return [
    el('button', { class: 'do', type: 'button', onclick: again }, 'Keep mine'),
    ' ',
    el('button', { class: 'quiet', type: 'button', onclick: () => location.reload() }, 'Look at what stands now'),
  ];
}

/* Rows, a page at a time. */
const view = { page: 0, find: '', sort: '', down: false };
const sorters = [...document.querySelectorAll('.sorter')];
let asked = 0;

async function showRows() {
  const turn = ++asked;
  const answer = await attempt(() => ask('GET', `/api/datasets/${id}/rows?${new URLSearchParams(view)}`));
  if (!answer || turn !== asked) return;
  view.page = answer.page;
  const numeric = sorters.map(s => s.parentElement.classList.contains('n'));
  by('row-table').tBodies[0].replaceChildren(
    ...answer.rows.map((row, r) =>
      el(
        'tr',
        {},
        row.map((cell, c) => el('td', { class: numeric[c] ? 'n' : null }, cell)),
        answer.places ? el('td', { class: answer.places[r] ? null : 'is-bad' }, answer.places[r] || 'nowhere') : null,
      ),
    ),
  );
  by('page').textContent =
    answer.found === 0
      ? `No row holds “${view.find}”.`
      : `${number(answer.found)} ${answer.found === 1 ? 'row' : 'rows'}${view.find ? ` with “${view.find}”` : ''}, page ${number(answer.page + 1)} of ${number(answer.pages)}`;
  by('back').disabled = answer.page === 0;
  by('on').disabled = answer.page + 1 >= answer.pages;
}
for (const sorter of sorters) {
  sorter.addEventListener('click', () => {
    const column = sorter.dataset.sort;
    if (view.sort === column && view.down) Object.assign(view, { sort: '', down: false });
    else Object.assign(view, { down: view.sort === column, sort: column });
    view.page = 0;
    for (const s of sorters)
      s.parentElement.setAttribute(
        'aria-sort',
        s.dataset.sort !== view.sort ? 'none' : view.down ? 'descending' : 'ascending',
      );
    showRows();
  });
}
let typing;
by('find').addEventListener('input', () => {
  clearTimeout(typing);
  typing = setTimeout(() => {
    view.find = by('find').value;
    view.page = 0;
    showRows();
  }, 250);
});
by('back').addEventListener('click', () => {
  view.page--;
  showRows();
});
by('on').addEventListener('click', () => {
  view.page++;
  showRows();
});
if (ready) showRows();

/* What is told of it. */
function about() {
  const told = { columns: {} };
  for (const entry of document.querySelectorAll('[data-about]')) told[entry.dataset.about] = entry.value;
  const of = name => (told.columns[name] ??= { unit: '', description: '' });
  for (const entry of document.querySelectorAll('[data-unit]'))
    if (entry.value.trim()) of(entry.dataset.unit).unit = entry.value;
  for (const entry of document.querySelectorAll('[data-description]'))
    if (entry.value.trim()) of(entry.dataset.description).description = entry.value;
  for (const entry of document.querySelectorAll('[data-meaning]'))
    if (entry.value) of(entry.dataset.meaning).meaning = entry.value;
  return told;
}
for (const entry of document.querySelectorAll('[data-about], [data-unit], [data-description], [data-meaning]')) {
  entry.addEventListener('change', () =>
    attempt(async () => {
      await change('about', about());
      say('Kept.', null, 2);
    }),
  );
}
by('rename').addEventListener('change', () =>
  attempt(async () => {
    await change('name', { name: by('rename').value });
    by('name').textContent = by('rename').value.trim();
    say('Kept.', null, 2);
  }),
);

/* What its columns mean the same as. */
const ties = JSON.parse(by('ties-data').textContent);
const targets = JSON.parse(by('tie-targets').textContent);
const tieNow = () => ({
  column: by('tie-column').value,
  dataset: Number(by('tie-dataset').value),
  equals: by('tie-equals').value,
  step: by('tie-step').value || null,
});

function showTies() {
  const words = t =>
    `${t.column} ${t.step ? `lies in the same ${t.step.toLowerCase()} as` : 'means the same as'} ${t.equals} in ${targets.find(d => d.id === t.dataset)?.name ?? 'a dataset that has gone'}. `;
  by('tie-list').replaceChildren(
    ...ties.map(t =>
      el(
        'li',
        {},
        words(t),
        el('button', { class: 'quiet', type: 'button', onclick: () => keepTies(ties.filter(x => x !== t)) }, 'Untie'),
      ),
    ),
  );
}
async function keepTies(next) {
  const kept = await attempt(async () => {
    await change('ties', next);
    return true;
  });
  if (kept) {
    ties.splice(0, ties.length, ...next);
    showTies();
  }
}
async function showPartners() {
  by('tie-partners').textContent = '';
  if (!tieNow().equals) return;
  const found = await attempt(() => ask('POST', `/api/datasets/${id}/ties/match`, { body: tieNow() }));
  if (found) by('tie-partners').textContent = found.words;
}
function showTargetColumns() {
  const target = targets.find(d => d.id === Number(by('tie-dataset').value));
  by('tie-equals').replaceChildren(...(target?.columns ?? []).map(c => el('option', {}, c)));
}
by('tie-dataset').replaceChildren(...targets.map(d => el('option', { value: d.id }, d.name)));
by('tie-dataset').addEventListener('change', () => {
  showTargetColumns();
  showPartners();
});
by('tie-equals').addEventListener('change', showPartners);
by('tie-column').addEventListener('change', showPartners);
by('tie-step').addEventListener('change', showPartners);
by('tie-keep').addEventListener('click', () => keepTies([...ties, tieNow()]));
by('tie-keep').disabled = targets.length === 0;
showTargetColumns();
showTies();

/* How it is refreshed. */
const input = by('file');
input.addEventListener('change', () => input.files[0] && bring([...input.files], Number(input.dataset.dataset)));
const feeding = () => {
  const of = name => document.querySelector(`[data-feed=${name}]`)?.value ?? '';
  return {
    address: of('address'),
    seconds: of('seconds') === '' ? null : Number(of('seconds')),
    append: of('append') === 'true',
  };
};
/** How long answers hold of rows that stay in a database elsewhere; missing where rows are held here. */
const staying = by('keep-answers');
staying?.addEventListener('change', () =>
  attempt(async () => {
    await change('kept-answers', { seconds: Number(staying.value) });
    say('Kept.', null, 2);
  }),
);
for (const control of document.querySelectorAll('[data-feed]')) {
  control.addEventListener('change', () =>
    attempt(async () => {
      await change('feed', feeding());
      by('ask').disabled = !staying && !feeding().address.trim();
      say('Kept.', null, 2);
    }),
  );
}
by('ask').addEventListener('click', () =>
  attempt(async () => {
    by('ask').disabled = true;
    try {
      const came = await withProgress('POST', `/api/datasets/${id}/feed`);
      if (came.outcome === 'FAILED') refuse(by('refusal'), came.words);
      else location.reload();
    } finally {
      by('ask').disabled = false;
    }
  }),
);
for (const button of document.querySelectorAll('[data-serve]')) {
  button.addEventListener('click', () =>
    attempt(async () => {
      await ask('POST', button.dataset.serve);
      location.reload();
    }),
  );
}
let attempts = 0;
/** What a rule on rows would leave to somebody, as it is written. */
async function tryRule() {
  const mine = ++attempts;
  const rule = by('viewer-rule').value.trim();
  const seen = by('rule-seen');
  if (!rule) {
    seen.textContent = 'all rows.';
    return;
  }
  try {
    const body = { rule, person: Number(by('rule-viewer').value) || null };
    const { words } = await ask('POST', `/api/datasets/${id}/viewer-rule/try`, { body });
    if (mine === attempts) seen.textContent = words;
  } catch (refused) {
    if (mine === attempts) seen.textContent = refused.message;
  }
}
if (by('viewer-rule')) {
  drawGrants(by('grants'), `datasets/${id}`, attempt).catch(refused => say(refused.message));
  by('viewer-rule').addEventListener('input', tryRule);
  by('rule-viewer').addEventListener('change', tryRule);
  by('keep-rule').addEventListener('click', () =>
    attempt(async () => {
      await change('viewer-rule', { rule: by('viewer-rule').value });
      say('Kept. It holds from now on, wherever the dataset is shown.');
    }),
  );
  tryRule();
}
by('shared').addEventListener('change', () =>
  attempt(async () => {
    await ask('PUT', `/api/datasets/${id}/shared`, { body: by('shared').value === 'true' });
    say('Kept.', null, 2);
  }),
);
by('remove').addEventListener('click', () => {
  say(
    'The dataset and all its versions would be gone for good.',
    {
      words: 'Take it away',
      run: () =>
        attempt(async () => {
          await ask('DELETE', `/api/datasets/${id}`);
          location.assign('/');
        }),
    },
    12,
  );
});
