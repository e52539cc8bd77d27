import { el, say } from '../elements.js';
import { ask } from '../http.js';
import { act, attempt, below, choice, line, page, place } from './page.js';

/** A broker that the feed is read from. */

const VERSIONS = { 5: 'MQTT 5', '3.1.1': 'MQTT 3.1.1' };

export function drawBroker() {
  const said = page.feed.broker ?? { address: '', version: '5', topics: [], user: '' };
  const now = { ...said };
  let word = null;
  const keep = (broker, words) =>
    attempt(async () => {
      await ask('PUT', below('broker'), {
        body: { broker, word },
        headers: { 'If-Match': `"${page.feed.revision}"` },
      });
      say(words);
      await page.begin();
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
        placeholder: page.feed.broker?.user ? 'as it is' : 'none',
        onchange: e => (word = e.target.value),
      }),
      '.',
    ),
    page.feed.standing
      ? el(
          'p',
          { id: 'broker-standing', class: page.feed.standing.open ? '' : 'sentence-bad' },
          page.feed.standing.open
            ? `Connected; messages come (since ${page.feed.standing.since}).`
            : `Not connected (since ${page.feed.standing.since}): ${page.feed.standing.words}. It is tried again.`,
        )
      : '',
    el(
      'p',
      {},
      act('Read from this broker', () => keep(now, 'Kept. It is read from now on.'), 'do'),
      ' ',
      page.feed.broker ? act('Read from it no more', () => keep(null, 'It is read no more.')) : '',
    ),
  );
}
