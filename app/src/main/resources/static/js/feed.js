import './head.js';
import { el, refuse, say } from './elements.js';
import { ask } from './http.js';

/**
 * A feed: where readings are sent, how its messages become readings (with real ones beside it), how its devices are
 * watched, and what could not be read.
 */

const id = document.body.dataset.feed;
const place = name => document.getElementById(name);
const below = path => `/api/feeds/${id}${path ? `/${path}` : ''}`;
const datasets = JSON.parse(place('datasets').textContent);

let feed = null;
/** The shape as it is being said; null while there is none. */
let shape = null;
/** What was guessed and how sure that is. */
let guess = null;
let token = place('send').dataset.token ?? '';

const FORMS = {
  ISO: 'date and time (ISO 8601)',
  SECONDS: 'seconds since 1970',
  MILLISECONDS: 'milliseconds since 1970',
  MICROSECONDS: 'microseconds since 1970',
};
const TYPES = { DECIMAL: 'decimal number', WHOLE: 'whole number', TEXT: 'text', YES_NO: 'yes/no' };

async function attempt(work) {
  try {
    refuse(place('refusal'), '');
    await work();
  } catch (refused) {
    refuse(place('refusal'), refused.message);
    place('refusal').scrollIntoView({ block: 'center' });
  }
}

const act = (words, work, look = 'quiet') =>
  el('button', { type: 'button', class: look, onclick: () => attempt(work) }, words);

/** A line to write in; `taken` is told what stands there once it is left. */
const line = (label, value, taken, { look = '', hint = '' } = {}) =>
  el('input', {
    class: look,
    value: value ?? '',
    placeholder: hint,
    'aria-label': label,
    spellcheck: 'false',
    autocomplete: 'off',
    onchange: e => taken(e.target.value.trim()),
  });

const choice = (label, options, value, taken) =>
  el(
    'select',
    { 'aria-label': label, onchange: e => taken(e.target.value) },
    Object.entries(options).map(([key, words]) => el('option', { value: key, selected: key === value }, words)),
  );

// --- where readings are sent -----------------------------------------------------------------

function drawSend() {
  const address = `${window.location.origin}/readings/${id}`;
  const example = `curl -H "Authorization: Bearer ${token || 'TOKEN'}" -H "Content-Type: application/json" \\\n  -d '{"device": "p1", "time": "${new Date().toISOString()}", "temperature": 12.5}' \\\n  ${address}`;
  place('send').replaceChildren(
    el(
      'p',
      {},
      'Devices and gateways send JSON, one message or many in an array, or a message a line (NDJSON), to this address. What is answered as taken is safe.',
    ),
    el('p', {}, el('code', { class: 'link-address' }, address)),
    token
      ? el(
          'p',
          {},
          el('b', {}, 'Token: '),
          el('code', { id: 'token' }, token),
          ' It is told this once; whoever sends readings bears it.',
        )
      : el('p', { class: 'text-faint' }, 'Whoever sends readings bears the token that was told when it was made.'),
    el('pre', { class: 'feed-message' }, example),
    act('Make another token', async () => {
      token = (await ask('POST', below('token'))).token;
      say('The token before is taken no longer.');
      drawSend();
    }),
  );
}

// --- a broker that it is read from -----------------------------------------------------------

const VERSIONS = { 5: 'MQTT 5', '3.1.1': 'MQTT 3.1.1' };

function drawBroker() {
  const said = feed.broker ?? { address: '', version: '5', topics: [], user: '' };
  const now = { ...said };
  let word = null;
  const keep = (broker, words) =>
    attempt(async () => {
      await ask('PUT', below('broker'), {
        body: { broker, word },
        headers: { 'If-Match': `"${feed.revision}"` },
      });
      say(words);
      await begin();
    });
  place('broker').replaceChildren(
    el(
      'p',
      {},
      'Sarnik can read messages from a broker as well, each at least once; what comes twice is kept once. While the broker is away it is tried again, and goes on where it was.',
    ),
    el(
      'p',
      { class: 'form-sentence' },
      'The broker is ',
      line('Address of the broker', said.address, v => (now.address = v), {
        look: 'feed-broker',
        hint: 'tcp://broker.example.org:1883',
      }),
      ' and speaks ',
      choice('Which MQTT', VERSIONS, said.version, v => (now.version = v)),
      '. Of its topics ',
      line('Topics, a space between', said.topics.join(' '), v => (now.topics = v.split(/\s+/).filter(Boolean)), {
        look: 'feed-broker',
        hint: 'aljibe/probes/+',
      }),
      ' are read, as ',
      line('As whom', said.user, v => (now.user = v), { look: 'feed-unit', hint: 'nobody' }),
      ' with the password ',
      el('input', {
        type: 'password',
        class: 'feed-unit',
        'aria-label': 'Password for the broker',
        autocomplete: 'off',
        placeholder: feed.broker?.user ? 'as it is' : 'none',
        onchange: e => (word = e.target.value),
      }),
      '.',
    ),
    feed.standing
      ? el(
          'p',
          { id: 'broker-standing', class: feed.standing.open ? '' : 'sentence-bad' },
          feed.standing.open
            ? `Connected; messages come (since ${feed.standing.since}).`
            : `Not connected (since ${feed.standing.since}): ${feed.standing.words}. It is tried again.`,
        )
      : '',
    el(
      'p',
      {},
      act('Read from this broker', () => keep(now, 'Kept. It is read from now on.'), 'do'),
      ' ',
      feed.broker ? act('Read from it no more', () => keep(null, 'It is read no more.')) : '',
    ),
  );
}

// --- a server of SensorThings -----------------------------------------------------------------

function drawThings() {
  const now = { address: '', seconds: 60, ...feed.things };
  const keep = (source, words) =>
    attempt(async () => {
      await ask('PUT', below('things'), { body: { source }, headers: { 'If-Match': `"${feed.revision}"` } });
      say(words);
      await begin();
    });
  place('things').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'The root of the server is ',
      line('Address of the server', now.address, v => (now.address = v), {
        look: 'feed-broker',
        hint: 'https://example.org/v1.1',
      }),
      '; it is asked every ',
      line('How often it is asked, seconds', now.seconds, v => (now.seconds = Number(v)), { look: 'feed-number' }),
      ' seconds. Each observation comes as a message: device, time, measure, value, and where the thing is.',
    ),
    feed.thingsStanding
      ? el(
          'p',
          { class: feed.thingsStanding.open ? '' : 'sentence-bad' },
          feed.thingsStanding.open
            ? `Read last ${feed.thingsStanding.since}.`
            : `Not read (${feed.thingsStanding.since}): ${feed.thingsStanding.words}`,
        )
      : '',
    act('Read from this server', () => keep(now, 'Kept. It is read from now on.'), 'do'),
    ' ',
    feed.things ? act('Read from it no more', () => keep(null, 'It is read no more.')) : '',
  );
}

// --- how messages become readings ------------------------------------------------------------

const remark = part => guess?.remarks.find(r => r.part === part);

/** A mark beside what was guessed: how sure it is, and why. */
function mark(part) {
  const said = remark(part);
  return said
    ? el(
        'span',
        { class: said.sure ? 'guess-sure' : 'guess-unsure', title: said.words },
        said.sure ? ' guessed, sure' : ' guessed, unsure',
      )
    : '';
}

function changeShape(change) {
  shape = { ...shape, ...change };
  drawShape();
  attempt(drawPreview);
}

function columns() {
  const at = index => change =>
    changeShape({ fields: shape.fields.map((f, i) => (i === index ? { ...f, ...change } : f)) });
  return el(
    'table',
    { class: 'rows', id: 'fields' },
    el('thead', {}, el('tr', {}, ...['Column', 'Stands at', 'Holds', 'Unit', ''].map(h => el('th', {}, h)))),
    el(
      'tbody',
      {},
      shape.fields.map((field, i) =>
        el(
          'tr',
          {},
          el(
            'td',
            {},
            line('Name of the column', field.name, name => at(i)({ name })),
            mark(field.name),
          ),
          el(
            'td',
            {},
            line(`Where ${field.name} stands`, field.at, value => at(i)({ at: value }), { look: 'feed-at' }),
          ),
          el(
            'td',
            {},
            choice(`What ${field.name} holds`, TYPES, field.type, type => at(i)({ type })),
          ),
          el(
            'td',
            {},
            line(`Unit of ${field.name}`, field.unit, unit => at(i)({ unit: unit || null }), { look: 'feed-unit' }),
          ),
          el(
            'td',
            {},
            act('Leave out', async () => changeShape({ fields: shape.fields.filter(f => f !== field) })),
          ),
        ),
      ),
    ),
  );
}

function drawShape() {
  if (!shape) {
    place('shape').replaceChildren(
      el(
        'p',
        {},
        feed.samples.length
          ? (remark('device')?.words ?? 'How these messages become readings cannot be guessed.')
          : 'No message has come yet. Send some; they are kept here to be looked at, and how they become readings is guessed from them.',
      ),
      el(
        'p',
        {},
        act('Look again', begin, 'do'),
        ' ',
        feed.samples.length
          ? act('Say it by hand', async () =>
              changeShape({
                readings: '',
                device: '/device',
                time: '/time',
                form: 'ISO',
                lon: null,
                lat: null,
                measure: null,
                value: null,
                fields: [],
              }),
            )
          : '',
      ),
    );
    return;
  }
  const moves = shape.lon !== null && shape.lat !== null;
  place('shape').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'A message ',
      choice(
        'What a message is',
        { one: 'is one reading, or a list of them', many: 'holds its readings at' },
        shape.readings ? 'many' : 'one',
        kind => changeShape({ readings: kind === 'many' ? '/readings' : '' }),
      ),
      shape.readings
        ? line('Where the readings stand', shape.readings, readings => changeShape({ readings }), { look: 'feed-at' })
        : '',
      mark('readings'),
      '. Which device it is of says ',
      line('Where the device stands', shape.device, device => changeShape({ device }), { look: 'feed-at' }),
      mark('device'),
      '. When it was measured says ',
      line('Where the time stands', shape.time, time => changeShape({ time: time || null }), {
        look: 'feed-at',
        hint: 'its receipt',
      }),
      shape.time
        ? el(
            'span',
            {},
            ' as ',
            choice('How the time is written', FORMS, shape.form, form => changeShape({ form })),
          )
        : '',
      mark('time'),
      '. Devices ',
      choice(
        'Whether devices move',
        { no: 'stay where they are', yes: 'say where they are' },
        moves ? 'yes' : 'no',
        kind => changeShape(kind === 'yes' ? { lon: '/lon', lat: '/lat' } : { lon: null, lat: null }),
      ),
      moves
        ? el(
            'span',
            {},
            ', at ',
            line('Where the latitude stands', shape.lat, lat => changeShape({ lat }), { look: 'feed-at' }),
            ' and ',
            line('Where the longitude stands', shape.lon, lon => changeShape({ lon }), { look: 'feed-at' }),
            mark('place'),
          )
        : '',
      '.',
    ),
    columns(),
    el(
      'p',
      {},
      act('Add a column', async () =>
        changeShape({
          fields: [
            ...shape.fields,
            { at: '/value', name: `column ${shape.fields.length + 1}`, type: 'DECIMAL', unit: null },
          ],
        }),
      ),
      ' ',
      act('Guess anew', async () => {
        guess = await ask('GET', below('guess'));
        if (!guess.shape) throw new Error(guess.remarks.at(-1)?.words ?? 'It cannot be guessed.');
        changeShape(guess.shape);
      }),
    ),
    el(
      'p',
      {},
      act(
        feed.shape ? 'Keep what has changed' : 'Read messages so from now on',
        async () => {
          await ask('PUT', below('shape'), { body: shape, headers: { 'If-Match': `"${feed.revision}"` } });
          guess = null;
          say('Kept. What comes from now on is read so.');
          await begin();
        },
        'do do-first',
      ),
    ),
  );
}

function drawMessages() {
  place('messages').replaceChildren(
    el('h3', { class: 'text-small text-faint' }, feed.samples.length ? 'The newest messages' : ''),
    ...feed.samples.slice(0, 2).map(sample => {
      let words = sample.message;
      try {
        words = JSON.stringify(JSON.parse(sample.message), null, 1);
      } catch {
        /* what is no JSON is shown as it came */
      }
      return el(
        'pre',
        { class: 'feed-message' },
        sample.topic ? el('span', { class: 'text-faint' }, `${sample.topic}\n`) : '',
        words.length > 1500 ? `${words.slice(0, 1500)}…` : words,
      );
    }),
  );
}

async function drawPreview() {
  if (!shape || !feed.samples.length) {
    place('preview').replaceChildren();
    return;
  }
  const read = await ask('POST', below('preview'), { body: shape });
  place('preview').replaceChildren(
    el('h3', { class: 'text-small text-faint mt-4' }, 'What they become'),
    el(
      'div',
      { class: 'scrolls' },
      el(
        'table',
        { class: 'rows', id: 'read-as' },
        el('thead', {}, el('tr', {}, ...read.columns.map(c => el('th', {}, c)))),
        el('tbody', {}, ...read.rows.slice(0, 12).map(row => el('tr', {}, ...row.map(v => el('td', {}, v ?? ''))))),
      ),
    ),
    read.rows.length ? '' : el('p', { class: 'sentence-bad' }, 'Nothing comes of them so.'),
    el('ul', { class: 'doubts' }, ...read.troubles.slice(0, 6).map(t => el('li', {}, t))),
  );
}

// --- how devices are watched -----------------------------------------------------------------

/** Keeps all that is said of how it is watched. */
const kept = () =>
  act(
    'Keep how it is watched',
    async () => {
      await ask('PUT', below('settings'), {
        body: { settings: feed.settings },
        headers: { 'If-Match': `"${feed.revision}"` },
      });
      say('Kept.');
      await begin();
    },
    'do',
  );

const number = text => (text === '' ? null : Number(text.replace(',', '.')));

function drawWatch() {
  const s = feed.settings;
  const change = more => {
    feed.settings = { ...feed.settings, ...more };
    drawWatch();
  };
  const numbers = (feed.shape?.fields ?? []).filter(f => f.type === 'DECIMAL' || f.type === 'WHOLE').map(f => f.name);
  const threshold = (t, i) => {
    const set = more => change({ thresholds: s.thresholds.map((o, j) => (j === i ? { ...o, ...more } : o)) });
    const value = (label, name) =>
      line(label, t[name], v => set({ [name]: number(v) }), {
        look: 'feed-number',
        hint: name === 'watch' || name === 'bad' ? 'none' : '0',
      });
    return el(
      'li',
      { class: 'form-sentence' },
      choice('Which measure', Object.fromEntries(numbers.map(n => [n, n])), t.column, column => set({ column })),
      ' is to be watched ',
      choice('On which side', { ABOVE: 'from … upwards', BELOW: 'from … downwards' }, t.side, side => set({ side })),
      ': watch at ',
      value('Watch from', 'watch'),
      ', bad at ',
      value('Bad from', 'bad'),
      ', once it has lasted ',
      value('For how many seconds', 'seconds'),
      ' seconds, and until it has come back by ',
      value('By how much it has to come back', 'back'),
      '. ',
      act('Leave out', async () => change({ thresholds: s.thresholds.filter(o => o !== t) })),
    );
  };
  const list = datasets.find(d => d.id === s.devices?.dataset);
  const of = (label, name, none) =>
    choice(
      label,
      { ...(none ? { '': none } : {}), ...Object.fromEntries((list?.columns ?? []).map(c => [c, c])) },
      s.devices?.[name] ?? '',
      column => change({ devices: { ...s.devices, [name]: column || null } }),
    );
  place('watch').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'A device is silent after ',
      line('Silent after how many seconds', s.silentSeconds, v => change({ silentSeconds: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' seconds without a reading. Readings are kept for ',
      line('For how many days readings are kept', s.keepDays, v => change({ keepDays: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' days, put together by hour and day for ',
      line(
        'For how many days what is put together is kept',
        s.keepRolledDays,
        v => change({ keepRolledDays: number(v) ?? 0 }),
        {
          look: 'feed-number',
        },
      ),
      ' days; those of the last ',
      line('Of how many hours readings are at hand', s.windowHours, v => change({ windowHours: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' hours are at hand for dashboards.',
    ),
    el(
      'p',
      { class: 'form-sentence' },
      'Names, kinds and places of devices stand in ',
      choice(
        'Where devices stand',
        { '': 'no dataset', ...Object.fromEntries(datasets.map(d => [d.id, d.name])) },
        String(s.devices?.dataset ?? ''),
        chosen =>
          change({
            devices: chosen
              ? {
                  dataset: Number(chosen),
                  code: datasets.find(d => d.id === Number(chosen)).columns[0],
                  name: null,
                  kind: null,
                }
              : null,
          }),
      ),
      list
        ? el(
            'span',
            {},
            ': their code is ',
            of('The column of codes', 'code'),
            ', their name ',
            of('The column of names', 'name', 'their code'),
            ', their kind ',
            of('The column of kinds', 'kind', 'not said'),
          )
        : '',
      '. Devices that no dataset names are ',
      choice('What of strangers', { true: 'taken in all the same', false: 'refused' }, String(s.strangers), v =>
        change({ strangers: v === 'true' }),
      ),
      '.',
    ),
    el('ul', { class: 'doubts' }, ...s.thresholds.map(threshold)),
    numbers.length
      ? act('Add a threshold', async () =>
          change({
            thresholds: [
              ...s.thresholds,
              { column: numbers[0], side: 'ABOVE', watch: null, bad: null, back: 0, seconds: 0 },
            ],
          }),
        )
      : el('p', { class: 'text-faint' }, 'Thresholds can be set once messages are read.'),
    el('p', {}, kept()),
  );
}

// --- who is told -----------------------------------------------------------------------------

const TOLD = {
  'BAD,SILENT': 'bad or silent',
  BAD: 'bad',
  SILENT: 'silent',
  'WATCH,BAD,SILENT': 'anything but good',
};
const QUIET = { no: 'At any time of day', yes: 'Not between' };

function drawNotices() {
  const n = feed.settings.notices;
  const change = more => {
    feed.settings = { ...feed.settings, notices: more && { ...n, ...more } };
    drawNotices();
  };
  if (!n) {
    place('notices').replaceChildren(
      el('p', {}, 'Nobody is told when devices turn.'),
      act('Tell somebody', async () =>
        change({
          states: ['BAD', 'SILENT'],
          well: true,
          mails: [],
          hook: null,
          zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        }),
      ),
      ' ',
      kept(),
    );
    return;
  }
  const states = n.states.join();
  place('notices').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'When a device turns ',
      choice('To which states', states in TOLD ? TOLD : { [states]: states, ...TOLD }, states, v =>
        change({ states: v.split(',') }),
      ),
      ', ',
      choice(
        'And when it leaves them',
        { true: 'and when it is well again', false: 'and not when it is well again' },
        String(n.well),
        v => change({ well: v === 'true' }),
      ),
      ', mail goes to ',
      line(
        'Addresses of mail, a space between',
        n.mails.join(' '),
        v => change({ mails: v.split(/[\s,;]+/).filter(Boolean) }),
        {
          look: 'feed-broker',
          hint: 'nobody',
        },
      ),
      ' and JSON to ',
      line('Address of a web hook', n.hook, v => change({ hook: v || null }), {
        look: 'feed-broker',
        hint: 'no web hook',
      }),
      '. ',
      choice('When', QUIET, n.quietFrom ? 'yes' : 'no', v =>
        change(v === 'yes' ? { quietFrom: '22:00', quietUntil: '06:30' } : { quietFrom: null, quietUntil: null }),
      ),
      n.quietFrom
        ? el(
            'span',
            {},
            ' ',
            line('Quiet from', n.quietFrom, v => change({ quietFrom: v }), { look: 'feed-unit' }),
            ' and ',
            line('Quiet until', n.quietUntil, v => change({ quietUntil: v }), { look: 'feed-unit' }),
            ' in ',
            line('In the time of', n.zone, v => change({ zone: v }), { look: 'feed-at' }),
            ': what turns meanwhile is told afterwards',
          )
        : '',
      '. The page that is told along: ',
      line('Address of a page', n.link, v => change({ link: v || null }), { look: 'feed-broker', hint: 'none' }),
      '.',
    ),
    n.mails.length && !feed.mails
      ? el(
          'p',
          { class: 'sentence-bad' },
          'No server for mail is named in the settings (SARNIK_MAIL_HOST), so mail waits.',
        )
      : '',
    act('Tell nobody', async () => change(null)),
    ' ',
    kept(),
    feed.told.length
      ? el(
          'details',
          {},
          el('summary', { class: 'text-small' }, 'What was told, the newest first'),
          el(
            'ul',
            { class: 'doubts' },
            ...feed.told.map(t =>
              el(
                'li',
                {},
                `${t.device} is ${t.state}, to ${t.address}: `,
                t.sent
                  ? `sent ${new Date(t.sent).toLocaleString('en')}`
                  : el(
                      'span',
                      { class: t.failed ? 'sentence-bad' : '' },
                      `${t.givenUp ? 'given up' : `waits until ${new Date(t.due).toLocaleString('en')}`}${t.failed ? `: ${t.failed}` : ''}`,
                    ),
              ),
            ),
          ),
        )
      : '',
  );
}

// --- what it is shown as -----------------------------------------------------------------------

const PARTS = {
  TURNS: ['The states of its devices, since when, until when, why, and what was noted', 'states'],
  MINUTES: ['Its readings by minute: mean, lowest, highest', 'by minute'],
  HOURS: ['Its readings by hour', 'by hour'],
  DAYS: ['Its readings by day (of UTC)', 'by day'],
  STAYS: ['Where its devices stopped, and when they arrived within areas', 'stays'],
};

function drawParts() {
  place('parts').replaceChildren(
    feed.shape
      ? el(
          'ul',
          { class: 'doubts' },
          ...Object.entries(PARTS)
            .filter(([part]) => part !== 'STAYS' || feed.shape.lon)
            .map(([part, [words]]) =>
              el(
                'li',
                {},
                `${words}. `,
                feed.parts[part]
                  ? el('a', { href: `/datasets/${feed.parts[part]}` }, 'The dataset')
                  : act('Make it a dataset', async () => {
                      await ask('POST', below('parts'), { body: { part } });
                      await begin();
                    }),
              ),
            ),
        )
      : el('p', { class: 'text-faint' }, 'Once messages are read.'),
  );
}

function drawStays() {
  const s = feed.settings.stays;
  const change = more => {
    feed.settings = { ...feed.settings, stays: { ...s, ...more } };
    drawStays();
  };
  place('stays').hidden = !feed.shape?.lon;
  const list = datasets.find(d => d.id === s.places);
  place('stays').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'A device stops where it stays within ',
      line('Within how many metres a device stops', s.metres, v => change({ metres: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' metres for ',
      line('For how many minutes', s.minutes, v => change({ minutes: number(v) ?? 0 }), { look: 'feed-number' }),
      ' minutes. It arrives ',
      choice(
        'Where devices arrive',
        { '': 'nowhere', ...Object.fromEntries(datasets.map(d => [d.id, `at the places of ${d.name}`])) },
        String(s.places ?? ''),
        chosen =>
          change(
            chosen
              ? {
                  places: Number(chosen),
                  name: datasets.find(d => d.id === Number(chosen)).columns[0],
                  within: s.within ?? 200,
                }
              : { places: null, name: null, within: null },
          ),
      ),
      list
        ? el(
            'span',
            {},
            ', which ',
            choice('What places are called by', Object.fromEntries(list.columns.map(c => [c, c])), s.name, name =>
              change({ name }),
            ),
            ' names, when it is within ',
            line('Within how many metres of a place', s.within, v => change({ within: number(v) }), {
              look: 'feed-number',
            }),
            ' metres',
          )
        : '',
      ', and within the areas of ',
      line('A set of boundaries', s.boundaries, v => change({ boundaries: v || null }), {
        look: 'feed-at',
        hint: 'none',
      }),
      '.',
    ),
    kept(),
  );
}

// --- what could not be read ------------------------------------------------------------------

function drawTroubles() {
  place('troubles').replaceChildren(
    feed.troubles.length
      ? el(
          'ul',
          { class: 'doubts max-h-[320px]' },
          ...feed.troubles.map(t =>
            el(
              'li',
              {},
              el('b', {}, t.words),
              el(
                'span',
                { class: 'text-faint' },
                ` ${t.times === 1 ? 'once' : `${t.times.toLocaleString('en')} times`}, ${t.last}${t.lost ? ', lost' : ''}`,
              ),
              el(
                'details',
                {},
                el('summary', { class: 'text-small' }, 'the message'),
                el('pre', { class: 'feed-message' }, t.message),
              ),
            ),
          ),
        )
      : el('p', { class: 'text-faint' }, 'Nothing so far.'),
    feed.troubles.length
      ? act('I have seen them', async () => {
          await ask('DELETE', below('troubles'));
          await begin();
        })
      : '',
  );
}

function drawStanding() {
  place('standing').replaceChildren(
    feed.shape
      ? `${feed.devices.toLocaleString('en')} devices have sent; ${feed.readings.toLocaleString('en')} readings are at hand. `
      : 'How its messages become readings is still to be said. ',
    feed.waiting ? el('b', {}, 'The database is away just now; readings wait on the disk. ') : '',
    feed.devicesDataset ? el('a', { href: `/datasets/${feed.devicesDataset}` }, 'Devices as they are now') : '',
    feed.devicesDataset ? ' · ' : '',
    feed.readingsDataset ? el('a', { href: `/datasets/${feed.readingsDataset}` }, 'Newest readings') : '',
  );
}

async function begin() {
  feed = await ask('GET', below(''));
  shape = feed.shape;
  if (!shape && feed.samples.length) {
    guess = await ask('GET', below('guess'));
    shape = guess.shape;
  }
  drawStanding();
  drawBroker();
  drawThings();
  drawShape();
  drawMessages();
  drawWatch();
  drawNotices();
  drawStays();
  drawParts();
  drawTroubles();
  await drawPreview();
}

place('remove').addEventListener('click', () =>
  attempt(async () => {
    await ask('DELETE', below(''));
    window.location.href = '/feeds';
  }),
);
drawSend();
attempt(begin).then(() => {
  document.body.dataset.ready = '';
});
