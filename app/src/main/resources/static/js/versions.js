import './head.js';
import { el, refuse, say } from './elements.js';
import { ask } from './http.js';

/** The versions of a draft: named, compared in words and side by side, brought back. */
const id = document.body.dataset.dashboard;
const place = name => document.getElementById(name);
const below = what => `/api/dashboards/${id}/versions${what}`;
let versions = [];

async function attempt(run) {
  refuse(place('refusal'), '');
  try {
    await run();
  } catch (refused) {
    refuse(place('refusal'), refused.message);
  }
}

const called = ({ revision, name, now }) => `${name || `version ${revision}`}${now ? ', the draft as it stands' : ''}`;

function line(version) {
  const { id: number, revision, by, moment, words, name, now } = version;
  const input = el('input', {
    value: name,
    maxlength: 120,
    placeholder: 'no name',
    'aria-label': `Name of version ${revision}`,
    onchange: () =>
      attempt(async () => {
        await ask('PUT', below(`/${revision}/name`), { body: { name: input.value } });
        say('Kept.', null, 2);
        await draw();
      }),
  });
  return el(
    'li',
    { 'data-revision': revision, class: name ? 'is-named' : '' },
    el('b', {}, `${revision}`),
    ` ${words}. `,
    el('span', { class: 'text-faint' }, `${by}, ${moment}. `),
    el('span', { class: 'form-sentence' }, 'Called ', input),
    ' ',
    el('a', { class: 'quiet', href: `/versions/${number}` }, 'Look at it'),
    ' ',
    now
      ? el('span', { class: 'text-faint' }, 'the draft as it stands')
      : el(
          'button',
          {
            type: 'button',
            class: 'quiet',
            onclick: () =>
              attempt(async () => {
                await ask('POST', below(`/${revision}/back`));
                say(`The draft is as version ${revision} was. Undo takes that back.`);
                await draw();
              }),
          },
          'Bring it back',
        ),
  );
}

async function draw() {
  const chosen = ['from', 'to'].map(name => place(name).value);
  versions = await ask('GET', below(''));
  for (const [at, name] of ['from', 'to'].entries()) {
    place(name).replaceChildren(...versions.map(version => el('option', { value: version.revision }, called(version))));
    const usual = versions[Math.min(versions.length - 1, at === 0 ? 1 : 0)]?.revision;
    place(name).value = versions.some(v => String(v.revision) === chosen[at]) ? chosen[at] : usual;
  }
  const named = place('named').checked;
  place('versions').replaceChildren(...versions.filter(v => !named || v.name).map(line));
  document.body.dataset.ready = 'true';
}

place('named').addEventListener('change', () => attempt(draw));
place('compare').addEventListener('click', () =>
  attempt(async () => {
    const found = await ask('GET', below(`/${place('from').value}/differences?to=${place('to').value}`));
    place('differences').textContent = found.length ? `${found.join('; ')}.` : 'Both say the same.';
  }),
);
place('beside').addEventListener('click', () => {
  const of = name => versions.find(v => String(v.revision) === place(name).value);
  place('both').hidden = false;
  place('both').replaceChildren(
    ...['from', 'to'].map(name =>
      el(
        'figure',
        {},
        el('figcaption', {}, called(of(name))),
        el('div', {}, el('iframe', { src: `/versions/${of(name).id}?bare=true`, title: called(of(name)) })),
      ),
    ),
  );
});

attempt(draw);
