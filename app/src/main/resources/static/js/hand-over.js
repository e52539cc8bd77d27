import './head.js';
import { el, refuse, say } from './elements.js';
import { drawGrants } from './grants.js';
import { ask } from './http.js';
import { drawLinks } from './share-links.js';

/** The page on which a dashboard is published, given to people, and shown by links. */
const id = document.body.dataset.dashboard;
const below = what => `/api/dashboards/${id}/${what}`;
const place = name => document.getElementById(name);

/** Does something and says on top of the page what stood in the way. */
async function attempt(run) {
  refuse(place('refusal'), '');
  try {
    await run();
  } catch (refused) {
    refuse(place('refusal'), refused.message);
    place('refusal').scrollIntoView({ block: 'nearest' });
  }
}

const act = (words, run, kind = 'quiet') =>
  el('button', { type: 'button', class: kind, onclick: () => attempt(run) }, words);

// --- publishing ------------------------------------------------------------------------------

/** Phrases as one sentence’s list, the first few of many. */
const list = (phrases, most = 8) =>
  phrases.length > most
    ? `${phrases.slice(0, most).join('; ')}; and ${phrases.length - most} more`
    : phrases.join('; ');

function standing({ editions, since }) {
  const shown = editions.find(e => e.shown);
  if (!shown)
    return el(
      'p',
      { id: 'standing' },
      el('b', {}, 'Nothing yet. '),
      'It is a draft, which only those see who may compose it, and analysts who may read it.',
    );
  return el(
    'p',
    { id: 'standing' },
    el('b', {}, `Edition ${shown.number}`),
    `, published by ${shown.by} ${shown.day}. `,
    since.length ? `Changed in the draft since: ${list(since)}. ` : 'The draft says the same. ',
    act('Take it back from readers', async () => {
      await ask('PUT', below('edition'), { body: { number: null } });
      say('Readers no longer see this dashboard; its links show nothing.');
      await drawPublish();
    }),
  );
}

function publishing({ editions, datasets }) {
  const frozen = new Map(datasets.map(d => [d.id, d.frozen]));
  const words = el('input', {
    class: 'wide',
    maxlength: 400,
    placeholder: 'nothing to say',
    'aria-label': 'What is new in it',
    id: 'edition-words',
  });
  const next = Math.max(0, ...editions.map(e => e.number)) + 1;
  return [
    ...datasets
      .filter(d => d.live || d.staysIn)
      .map(d =>
        el(
          'p',
          { class: 'form-sentence' },
          d.live
            ? `Of “${d.name}” it always shows the newest rows, which come by themselves.`
            : `Of “${d.name}” it shows what stands in “${d.staysIn}” whenever somebody looks.`,
        ),
      ),
    ...datasets
      .filter(d => !d.live && !d.staysIn)
      .map(d =>
        el(
          'p',
          { class: 'form-sentence' },
          `Of “${d.name}” it shows `,
          el(
            'select',
            {
              'aria-label': `Which rows of ${d.name}`,
              'data-frozen': d.id,
              onchange: e => frozen.set(d.id, e.target.value === 'frozen'),
            },
            el('option', { value: '' }, 'always the newest rows'),
            el(
              'option',
              { value: 'frozen', selected: d.frozen },
              `the rows of now: version ${d.version}, ${d.rows.toLocaleString('en')} rows`,
            ),
          ),
          '.',
        ),
      ),
    el('p', { class: 'form-sentence' }, 'New in it: ', words, '.'),
    act(
      `Publish this version as edition ${next}`,
      async () => {
        await ask('POST', below('editions'), {
          body: { frozen: [...frozen].filter(([, is]) => is).map(([dataset]) => dataset), words: words.value },
        });
        // Said once nothing moves any more under what is pressed next.
        await Promise.all([drawPublish(), draw()]);
        say(`Edition ${next} is what readers see now.`);
      },
      'do do-first',
    ),
  ];
}

function listed(edition) {
  const differences = el('p', { class: 'text-small text-faint', hidden: true });
  return el(
    'li',
    { 'data-edition': edition.number },
    el('b', {}, `Edition ${edition.number}`),
    edition.shown ? el('span', { class: 'is-shown' }, ' readers see this one') : '',
    el('br'),
    [edition.words, `${edition.by}, ${edition.day}`, edition.rows].filter(Boolean).join('. '),
    '. ',
    el(
      'span',
      { class: 'hand-acts' },
      el('a', { class: 'quiet', href: `/editions/${edition.id}` }, 'Look at it'),
      act('What is different in the draft', async () => {
        const found = await ask('GET', below(`editions/${edition.number}/differences`));
        differences.hidden = false;
        differences.textContent = found.length ? `In the draft: ${list(found, 30)}.` : 'The draft says the same.';
      }),
      edition.shown
        ? ''
        : act('Show readers this one', async () => {
            await ask('PUT', below('edition'), { body: { number: edition.number } });
            say(`Readers see edition ${edition.number} now.`);
            await drawPublish();
          }),
      edition.shown
        ? ''
        : act('Take it away', async () => {
            await ask('DELETE', below(`editions/${edition.number}`));
            await drawPublish();
          }),
    ),
    differences,
  );
}

async function drawFindings(box) {
  try {
    const findings = await ask('GET', below('findings'));
    box.replaceChildren(
      findings.length
        ? el(
            'details',
            { class: 'findings' },
            el(
              'summary',
              {},
              `The checker found ${findings.length === 1 ? 'one thing' : `${findings.length} things`} to look at before it is published`,
            ),
            el('ul', { class: 'doubts' }, ...findings.map(f => el('li', {}, f.words))),
            el('a', { class: 'quiet', href: `/dashboards/${id}/wiring` }, 'Mend it on the wiring sheet'),
          )
        : el('p', { class: 'text-small text-faint' }, 'The checker found nothing amiss.'),
    );
  } catch (refused) {
    refuse(box, refused.message);
  }
}

async function drawPublish() {
  const now = await ask('GET', below('editions'));
  const findings = el('div', { id: 'findings' });
  place('publish').replaceChildren(
    standing(now),
    findings,
    ...publishing(now),
    el('ul', { class: 'doubts editions' }, ...now.editions.map(listed)),
  );
  drawTakes(now.takes);
  drawFindings(findings);
}

// --- what may be taken along -----------------------------------------------------------------

function drawTakes(takes) {
  const box = (name, words) =>
    el(
      'label',
      {},
      el('input', {
        type: 'checkbox',
        'data-takes': name,
        checked: takes[name],
        onchange: e =>
          attempt(async () => {
            await ask('PUT', below('takes'), { body: { ...takes, [name]: e.target.checked } });
            takes[name] = e.target.checked;
            say('Kept.', null, 2);
          }),
      }),
      ` ${words} `,
    );
  place('takes').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'Whoever reads it may take ',
      box('rows', 'rows and figures'),
      ', ',
      box('pictures', 'pictures'),
      ', ',
      box('prints', 'prints'),
      ' along. Who composes it takes all. A link can allow less.',
    ),
  );
}

// --- tags ------------------------------------------------------------------------------------

place('keep-tags').addEventListener('click', () =>
  attempt(async () => {
    const kept = await ask('PUT', below('tags'), { body: place('own-tags').value.split(',') });
    place('own-tags').value = kept.join(', ');
    say('Kept.', null, 2);
  }),
);

// --- as static files -------------------------------------------------------------------------

const size = bytes =>
  `${(bytes / 1e6).toLocaleString('en', { maximumFractionDigits: 1, minimumFractionDigits: 1 })} MB`;

/** What a package would hold, before it is taken. */
function packed({ bytes, dataBytes, datasets, lacking }) {
  return [
    el(
      'p',
      { id: 'package-size' },
      el('b', {}, size(bytes)),
      ` in one zip, of which the data are ${size(dataBytes)} before they are packed.`,
    ),
    el(
      'ul',
      { class: 'doubts' },
      ...datasets.map(({ dataset, rows, sums, columns, left }) =>
        el(
          'li',
          {},
          el('b', {}, dataset),
          `: ${rows.toLocaleString('en')} rows, as somebody sees them of whom nothing is known, `,
          sums === null
            ? 'with '
            : `as ${sums.toLocaleString('en')} sums at the finest grain that is asked for, so that single rows stay here; with `,
          columns.join(', '),
          '. ',
          el(
            'span',
            { class: 'text-faint' },
            left.length
              ? `Not taken along, since nothing shows it: ${left.join(', ')}.`
              : 'All columns are taken along.',
          ),
        ),
      ),
      ...lacking.map(words => el('li', { class: 'text-faint' }, words)),
    ),
    el(
      'p',
      { class: 'hand-acts' },
      el('a', { class: 'do do-first', href: below('package.zip'), download: '' }, 'Take the package along'),
      ' ',
      el(
        'a',
        { class: 'quiet', href: below('package-data.js'), download: '' },
        'Only newer data for one that stands already',
      ),
    ),
  ];
}

function drawPackage() {
  const look = act(
    'See what it would hold',
    async () => {
      look.disabled = true;
      look.textContent = 'Packing';
      try {
        place('package').replaceChildren(...packed(await ask('GET', below('package'))));
      } finally {
        look.disabled = false;
        look.textContent = 'See what it would hold';
      }
    },
    'do',
  );
  place('package').replaceChildren(el('p', {}, look));
}

// --- people and links ------------------------------------------------------------------------

const draw = () => drawLinks(place('links'), id, JSON.parse(place('datasets').textContent), attempt);

drawPackage();
attempt(async () => {
  await Promise.all([drawPublish(), drawGrants(place('grants'), `dashboards/${id}`, attempt), draw()]);
  document.body.dataset.ready = 'true';
});
