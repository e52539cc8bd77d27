import { el } from '../elements.js';
import { ask } from '../http.js';
import { act, below, page, place } from './page.js';

/** What could not be read. */

export function drawTroubles() {
  place('troubles').replaceChildren(
    page.feed.troubles.length
      ? el(
          'ul',
          { class: 'doubts max-h-[320px]' },
          ...page.feed.troubles.map(t =>
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
    page.feed.troubles.length
      ? act('I have seen them', async () => {
          await ask('DELETE', below('troubles'));
          await page.begin();
        })
      : '',
  );
}
