import { el, say } from '../elements.js';
import { ask } from '../http.js';
import { act, attempt, below, line, page, place } from './page.js';

/** A server of SensorThings that the feed is read from. */

export function drawThings() {
  const now = { address: '', seconds: 60, ...page.feed.things };
  const keep = (source, words) =>
    attempt(async () => {
      await ask('PUT', below('things'), { body: { source }, headers: { 'If-Match': `"${page.feed.revision}"` } });
      say(words);
      await page.begin();
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
    page.feed.thingsStanding
      ? el(
          'p',
          { class: page.feed.thingsStanding.open ? '' : 'sentence-bad' },
          page.feed.thingsStanding.open
            ? `Read last ${page.feed.thingsStanding.since}.`
            : `Not read (${page.feed.thingsStanding.since}): ${page.feed.thingsStanding.words}`,
        )
      : '',
    act('Read from this server', () => keep(now, 'Kept. It is read from now on.'), 'do'),
    ' ',
    page.feed.things ? act('Read from it no more', () => keep(null, 'It is read no more.')) : '',
  );
}
