import { el, say } from '../elements.js';
import { ask } from '../http.js';
import { act, choice, attempt, below, line, page, place } from './page.js';

/** How messages become readings: what was guessed of them and how sure that is, and what real ones become. */

/** The shape as it is being said; null while there is none. */
let shape = null;
/** What was guessed and how sure that is. */
let guess = null;

const FORMS = {
  ISO: 'date and time (ISO 8601)',
  SECONDS: 'seconds since 1970',
  MILLISECONDS: 'milliseconds since 1970',
  MICROSECONDS: 'microseconds since 1970',
};
const TYPES = { DECIMAL: 'decimal number', WHOLE: 'whole number', TEXT: 'text', YES_NO: 'yes/no' };

/** Draws how the feed is read now, or what is guessed of its first messages. */
export async function beginShape() {
  shape = page.feed.shape;
  if (!shape && page.feed.samples.length) {
    guess = await ask('GET', below('guess'));
    shape = guess.shape;
  }
  drawShape();
  drawMessages();
}

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
        page.feed.samples.length
          ? (remark('device')?.words ?? 'How these messages become readings cannot be guessed.')
          : 'No message has come yet. Send some; they are kept here to be looked at, and how they become readings is guessed from them.',
      ),
      el(
        'p',
        {},
        act('Look again', page.begin, 'do'),
        ' ',
        page.feed.samples.length
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
        page.feed.shape ? 'Keep what has changed' : 'Read messages so from now on',
        async () => {
          await ask('PUT', below('shape'), { body: shape, headers: { 'If-Match': `"${page.feed.revision}"` } });
          guess = null;
          say('Kept. What comes from now on is read so.');
          await page.begin();
        },
        'do do-first',
      ),
    ),
  );
}

function drawMessages() {
  place('messages').replaceChildren(
    el('h3', { class: 'text-small text-faint' }, page.feed.samples.length ? 'The newest messages' : ''),
    ...page.feed.samples.slice(0, 2).map(sample => {
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

export async function drawPreview() {
  if (!shape || !page.feed.samples.length) {
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
