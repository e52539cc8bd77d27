import './head.js';
import { el } from './elements.js';
import { ask } from './http.js';
import { drawBroker } from './feed/broker.js';
import { drawNotices } from './feed/notices.js';
import { attempt, below, page, place } from './feed/page.js';
import { drawParts } from './feed/parts.js';
import { drawSend } from './feed/send.js';
import { beginShape, drawPreview } from './feed/shape.js';
import { drawStays } from './feed/stays.js';
import { drawThings } from './feed/things.js';
import { drawTroubles } from './feed/troubles.js';
import { drawWatch } from './feed/watch.js';

/**
 * A feed: where readings are sent, how its messages become readings (with real ones beside it), how its devices are
 * watched, and what could not be read.
 */

function drawStanding() {
  place('standing').replaceChildren(
    page.feed.shape
      ? `${page.feed.devices.toLocaleString('en')} devices have sent; ${page.feed.readings.toLocaleString('en')} readings are at hand. `
      : 'How its messages become readings is still to be said. ',
    page.feed.waiting ? el('b', {}, 'The database is away just now; readings wait on the disk. ') : '',
    page.feed.devicesDataset
      ? el('a', { href: `/datasets/${page.feed.devicesDataset}` }, 'Devices as they are now')
      : '',
    page.feed.devicesDataset ? ' · ' : '',
    page.feed.readingsDataset ? el('a', { href: `/datasets/${page.feed.readingsDataset}` }, 'Newest readings') : '',
  );
}

page.begin = async () => {
  page.feed = await ask('GET', below(''));
  drawStanding();
  drawBroker();
  drawThings();
  await beginShape();
  drawWatch();
  drawNotices();
  drawStays();
  drawParts();
  drawTroubles();
  await drawPreview();
};

place('remove').addEventListener('click', () =>
  attempt(async () => {
    await ask('DELETE', below(''));
    window.location.href = '/feeds';
  }),
);
drawSend();
attempt(page.begin).then(() => {
  document.body.dataset.ready = '';
});
