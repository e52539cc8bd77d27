import { ask } from './http.js';
import { el } from './elements.js';
import { bringFrom } from './sending.js';

const by = id => document.getElementById(id);
const words = new Intl.NumberFormat('en');

/** Offers the tables of databases that a steward lets be asked; nothing where there is none. */
export async function elsewhere() {
  const databases = await ask('GET', '/api/databases').catch(() => []);
  if (!databases.length) return;
  by('elsewhere').hidden = false;
  by('database').append(...databases.map(({ id, name }) => el('option', { value: id }, name)));
  const chosen = () => databases.find(({ id }) => String(id) === by('database').value);
  let tables = [];
  const list = async () => {
    by('tables-elsewhere').replaceChildren();
    say('Looking which tables there are …');
    try {
      tables = await ask('GET', `/api/databases/${chosen().id}/tables`);
      by('tables-elsewhere').append(...tables.map(t => el('option', { value: t.name }, size(t))));
      say(
        tables.length === 1 ? 'One table can be read.' : `${words.format(tables.length)} tables and views can be read.`,
      );
    } catch (refused) {
      tables = [];
      say(refused.message);
    }
  };
  by('elsewhere').addEventListener('toggle', () => by('elsewhere').open && list(), { once: true });
  by('database').addEventListener('change', list);
  by('table-elsewhere').addEventListener('change', () => {
    const table = tables.find(({ name }) => name === by('table-elsewhere').value.trim());
    if (table) say(`${table.name}: ${size(table)}. At most ${words.format(chosen().mostRows)} rows are taken.`);
  });
  by('count-elsewhere').addEventListener('click', async () => {
    say('Counting …');
    try {
      const { rows } = await ask('POST', `/api/databases/${chosen().id}/count`, { of: what() });
      say(
        `${words.format(rows)} rows.` +
          (rows > chosen().mostRows ? ` That is more than the ${words.format(chosen().mostRows)} that are taken.` : ''),
      );
    } catch (refused) {
      say(refused.message);
    }
  });
  const look = way =>
    what() ? bringFrom(`${way}:${chosen().name}/${what()}`) : say('Choose a table or write a query.');
  by('rows-elsewhere').addEventListener('submit', e => {
    e.preventDefault();
    look('database');
  });
  by('stay-elsewhere').addEventListener('click', () => look('stays'));
}

/** A query of one's own, or else the table. */
const what = () => by('query-elsewhere').value.trim() || by('table-elsewhere').value.trim();

const say = sentence => {
  by('size-elsewhere').textContent = sentence;
};

const size = ({ kind, rows, bytes }) =>
  [
    kind,
    rows >= 0 ? `about ${words.format(rows)} rows` : 'rows not counted',
    bytes ? `${words.format(Math.ceil(bytes / 1048576))} MB` : '',
  ]
    .filter(Boolean)
    .join(', ');
