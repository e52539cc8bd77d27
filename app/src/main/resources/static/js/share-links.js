import { el, say } from './elements.js';
import { ask } from './http.js';

const OPENS_TO = [
  ['ANYONE', 'anyone who has it'],
  ['SIGNED_IN', 'anyone who can sign in'],
  ['NAMED', 'those named'],
];
const TAKES = [
  ['rows', 'rows and figures'],
  ['pictures', 'pictures'],
  ['prints', 'prints'],
];

/**
 * The links of a dashboard, with a sentence in which another is made.
 * @param {HTMLElement} place
 * @param {string} dashboard its id
 * @param {{id: number, name: string, columns: {name: string, values: string[]}[]}[]} datasets those it rests on
 * @param {(run: () => Promise<void>) => void} attempt
 */
export async function drawLinks(place, dashboard, datasets, attempt) {
  const address = `/api/dashboards/${dashboard}/links`;
  const [links, { given, candidates }] = await Promise.all([
    ask('GET', address),
    ask('GET', `/api/dashboards/${dashboard}/grants`),
  ]);
  const people = [...given, ...candidates]
    .map(({ who, name }) => ({ who, name }))
    .filter(({ who }) => who.kind === 'PERSON' || who.kind === 'GROUP');
  const again = () => drawLinks(place, dashboard, datasets, attempt);
  const act = (words, run, kind = 'quiet') =>
    el('button', { type: 'button', class: kind, onclick: () => attempt(run) }, words);

  const copy = async (text, said) => {
    try {
      await navigator.clipboard.writeText(text);
      say(said, null, 3);
    } catch {
      say('This browser does not let pages write into the clipboard. Select the text and copy it.');
    }
  };

  function listed(link) {
    const whole = location.origin + link.path;
    const more = el('div', { class: 'link-more' });
    const facts = [
      `Opens to ${link.to}`,
      link.ends && `until ${link.ends}`,
      link.password && 'asks for a password',
      ...link.bound.map(rule => `keeps to ${rule}`),
      link.sites.length && `may stand in pages of ${link.sites.join(', ')}`,
    ].filter(Boolean);
    const kept = TAKES.filter(([name]) => !link.takes[name]).map(([, words]) => words);
    return el(
      'li',
      { 'data-link': link.id, class: link.open ? '' : 'is-ended' },
      el('b', {}, link.name),
      link.open ? '' : el('span', { class: 'is-bad' }, ' has ended'),
      el('br'),
      el('code', { class: 'link-address' }, whole),
      el('br'),
      `${facts.join(', ')}. `,
      kept.length ? `No ${kept.join(', no ')} can be taken along. ` : '',
      el(
        'span',
        { class: 'text-faint' },
        `Made by ${link.by} ${link.made}; ${link.lastUsed ? `last opened ${link.lastUsed}` : 'never opened yet'}. `,
      ),
      ...link.warnings.map(words => el('p', { class: 'sentence-watch' }, words)),
      el(
        'span',
        { class: 'hand-acts' },
        ...(link.open
          ? [
              act('Copy the address', () => copy(whole, 'The address is in the clipboard.')),
              el('a', { class: 'quiet', href: link.path, target: '_blank', rel: 'noopener' }, 'Open it'),
              act('Show it on another page', async () => more.replaceChildren(embedding(whole, link, copy))),
              act('Hang it on a wall', async () => more.replaceChildren(walling(whole, copy))),
              act('Change it', async () => more.replaceChildren(form(link))),
              act('End it', async () => {
                await ask('POST', `${address}/${link.id}/end`);
                say('The link opens to nobody any more.');
                await again();
              }),
            ]
          : [
              act('Take it away', async () => {
                await ask('DELETE', `${address}/${link.id}`);
                await again();
              }),
            ]),
      ),
      more,
    );
  }

  /** The sentence in which a link is made, or changed. */
  function form(link) {
    const name = el('input', {
      'aria-label': 'Name of the link',
      maxlength: 80,
      value: link?.name ?? '',
      placeholder: 'A link',
    });
    const opens = el(
      'select',
      { 'aria-label': 'To whom it opens', onchange: () => settle() },
      ...OPENS_TO.map(([value, words]) => el('option', { value, selected: value === link?.opensTo }, words)),
    );
    const named = el(
      'select',
      { 'aria-label': 'Who is named', multiple: true, size: Math.min(6, Math.max(2, people.length)), class: 'named' },
      ...people.map((p, i) =>
        el(
          'option',
          { value: i, selected: (link?.named ?? []).some(w => w.kind === p.who.kind && w.id === p.who.id) },
          p.name,
        ),
      ),
    );
    const ends = el('input', {
      'aria-label': 'Last day',
      placeholder: 'it is ended',
      value: link?.ends ?? '',
      maxlength: 10,
      size: 12,
    });
    const password = el('input', {
      type: 'password',
      'aria-label': 'Password of the link',
      autocomplete: 'new-password',
      placeholder: link?.password ? 'the one it has' : 'no password',
      size: 14,
    });
    const unlock = link?.password ? el('label', {}, el('input', { type: 'checkbox' }), ' ask for none any more') : null;
    const takes = TAKES.map(([part, words]) =>
      el(
        'label',
        {},
        el('input', { type: 'checkbox', 'data-part': part, checked: link?.takes[part] ?? true }),
        ` ${words}`,
      ),
    );
    const sites = el('input', {
      class: 'wide',
      'aria-label': 'Sites that may show it',
      placeholder: 'no other site',
      value: (link?.sites ?? []).join(' '),
    });
    const keepings = el('span', {});
    const keeps = el('span', {}, link?.bound.length ? `It keeps to ${link.bound.join('; ')}. ` : 'It shows all rows. ');
    let changedKeeping = !link;
    const keeping = () => {
      changedKeeping = true;
      keeps.textContent = 'It keeps to ';
      const dataset = el(
        'select',
        { 'aria-label': 'Dataset', onchange: () => columns() },
        ...datasets.map((d, i) => el('option', { value: i }, d.name)),
      );
      const column = el('select', { 'aria-label': 'Column' });
      const values = el('input', {
        class: 'wide',
        'aria-label': 'Values, separated by commas',
        placeholder: 'Soria, Burgos',
      });
      const columns = () => column.replaceChildren(...datasets[dataset.value].columns.map(c => el('option', {}, c)));
      columns();
      const line = el(
        'span',
        { class: 'keeping' },
        ' of ',
        dataset,
        ' the rows whose ',
        column,
        ' is one of ',
        values,
        el('button', { type: 'button', class: 'quiet', onclick: () => line.remove() }, 'Not that'),
        ';',
      );
      line.read = () => ({
        dataset: datasets[dataset.value].id,
        column: column.value,
        values: values.value
          .split(',')
          .map(v => v.trim())
          .filter(Boolean),
      });
      keepings.append(line);
    };
    const namedLine = el('span', {}, ': ', named);
    const settle = () => (namedLine.hidden = opens.value !== 'NAMED');
    settle();
    const read = () => ({
      name: name.value,
      opensTo: opens.value,
      named: [...named.selectedOptions].map(o => people[o.value].who),
      ends: ends.value.trim() || null,
      password: unlock?.querySelector('input').checked ? '' : password.value || null,
      keeping: changedKeeping ? [...keepings.children].map(line => line.read()) : null,
      takes: Object.fromEntries(
        takes.map(t => [t.querySelector('input').dataset.part, t.querySelector('input').checked]),
      ),
      sites: sites.value.split(/[\s,]+/).filter(Boolean),
    });
    return el(
      'div',
      { class: 'form-sentence link-form' },
      'Called ',
      name,
      ', it opens to ',
      opens,
      namedLine,
      ', until ',
      ends,
      ', with ',
      password,
      unlock ?? '',
      '. ',
      keeps,
      keepings,
      act(link?.bound.length ? 'Keep it to other rows' : datasets.length ? 'Keep it to some rows only' : '', async () =>
        keeping(),
      ),
      ' Whoever has it may take ',
      ...takes.flatMap(take => [take, ' ']),
      'along. Pages of ',
      sites,
      ' may show it. ',
      act(
        link ? 'Keep the change' : 'Make the link',
        async () => {
          await ask(link ? 'PUT' : 'POST', link ? `${address}/${link.id}` : address, { body: read() });
          say(link ? 'The link is changed.' : 'The link is made.');
          await again();
        },
        'do',
      ),
    );
  }

  const begin = el('div', {});
  place.replaceChildren(
    el('ul', { class: 'doubts links' }, ...links.map(listed)),
    begin,
    act('Make a link', async () => begin.replaceChildren(form(null)), 'do'),
  );
}

/** The code that shows a link on another page, with what can be chosen of it. */
function embedding(whole, link, copy) {
  const code = el('textarea', {
    class: 'entry embed-code',
    rows: 5,
    readonly: true,
    'aria-label': 'Code for the other page',
  });
  const parts = { title: true, strip: true, controls: true };
  let mood = '';
  const write = () => {
    const said = [
      ...Object.keys(parts)
        .filter(p => !parts[p])
        .map(p => `no-${p}`),
      mood,
    ]
      .filter(Boolean)
      .join('.');
    const address = `${whole}#framed${said ? `.${said}` : ''}`;
    code.value = `<iframe src="${address}" title="${link.name.replaceAll('"', '&quot;')}" style="width:100%;height:600px;border:0" loading="lazy" allow="fullscreen; clipboard-write"></iframe>\n<script src="${location.origin}/js/framing.js"></script>`;
  };
  const tick = (part, words) =>
    el(
      'label',
      {},
      el('input', {
        type: 'checkbox',
        checked: true,
        onchange: e => {
          parts[part] = e.target.checked;
          write();
        },
      }),
      ` ${words} `,
    );
  write();
  return el(
    'div',
    { class: 'form-sentence' },
    link.sites.length
      ? `Pages of ${link.sites.join(', ')} may show it with this code. `
      : 'No other site may show it yet: name the sites by “Change it”. ',
    'It is shown with ',
    tick('title', 'its title'),
    tick('strip', 'its filters'),
    tick('controls', 'the controls of its visuals'),
    ', by ',
    el(
      'select',
      {
        'aria-label': 'Day or night',
        onchange: e => {
          mood = e.target.value;
          write();
        },
      },
      el('option', { value: '' }, 'day or night as the reader has it'),
      el('option', { value: 'day' }, 'day'),
      el('option', { value: 'night' }, 'night'),
      el('option', { value: 'page' }, 'day or night as the page says'),
    ),
    '. The second line makes the frame as high as what it shows; without it the frame keeps its height.',
    code,
    el(
      'button',
      { type: 'button', class: 'quiet', onclick: () => copy(code.value, 'The code is in the clipboard.') },
      'Copy the code',
    ),
  );
}

/** The address that shows a link on a screen that nobody touches. */
function walling(whole, copy) {
  const address = el('code', { class: 'link-address' });
  const seconds = el('input', { 'aria-label': 'Seconds for each page', value: '20', maxlength: 5, size: 5 });
  const dim = ['21', '7'].map((value, i) =>
    el('input', { 'aria-label': i ? 'Bright again at' : 'Dim from', value, maxlength: 2, size: 3 }),
  );
  const write = () => {
    const number = (input, otherwise) => (/^\d+$/.test(input.value) ? input.value : otherwise);
    address.textContent = `${whole}#wall.${number(seconds, 20)}s.dim${number(dim[0], 21)}-${number(dim[1], 7)}`;
  };
  for (const input of [seconds, ...dim]) input.addEventListener('input', write);
  write();
  return el(
    'div',
    { class: 'form-sentence' },
    'Open this address on the screen and give the browser the whole of it: each page is shown for ',
    seconds,
    ' seconds, and it is dim from ',
    dim[0],
    ' to ',
    dim[1],
    ' o’clock. ',
    address,
    ' ',
    el(
      'button',
      { type: 'button', class: 'quiet', onclick: () => copy(address.textContent, 'The address is in the clipboard.') },
      'Copy it',
    ),
  );
}
