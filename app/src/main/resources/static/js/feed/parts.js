import { el } from '../elements.js';
import { ask } from '../http.js';
import { act, below, page, place } from './page.js';

/** Datasets of what a feed holds. */

const PARTS = {
  TURNS: ['The states of its devices, since when, until when, why, and what was noted', 'states'],
  MINUTES: ['Its readings by minute: mean, lowest, highest', 'by minute'],
  HOURS: ['Its readings by hour', 'by hour'],
  DAYS: ['Its readings by day (of UTC)', 'by day'],
  STAYS: ['Where its devices stopped, and when they arrived within areas', 'stays'],
};

export function drawParts() {
  place('parts').replaceChildren(
    page.feed.shape
      ? el(
          'ul',
          { class: 'doubts' },
          ...Object.entries(PARTS)
            .filter(([part]) => part !== 'STAYS' || page.feed.shape.lon)
            .map(([part, [words]]) =>
              el(
                'li',
                {},
                `${words}. `,
                page.feed.parts[part]
                  ? el('a', { href: `/datasets/${page.feed.parts[part]}` }, 'The dataset')
                  : act('Make it a dataset', async () => {
                      await ask('POST', below('parts'), { body: { part } });
                      await page.begin();
                    }),
              ),
            ),
        )
      : el('p', { class: 'text-faint' }, 'Once messages are read.'),
  );
}
