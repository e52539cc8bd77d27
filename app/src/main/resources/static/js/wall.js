import { BASE } from './base.js';
import { el } from './elements.js';
import { wearMood } from './head.js';
import { ask } from './http.js';
import { pagesOf } from './pages.js';
import { LANGUAGE, phrase } from './language.js';

/**
 * A published dashboard on a screen that nobody touches: pages turn by themselves, newer rows are drawn in place, a
 * lost network or a server that starts anew leaves what is shown standing, and at night the screen is dim. All that
 * comes again and again hangs on the clock, so that nothing drifts and a clock that jumps does no harm.
 */
const SECOND = 1000;
const MINUTE = 60 * SECOND;
const LEAST_TURN = 5;
const MOST_WAIT = 5 * MINUTE;
const RENEW = MINUTE;
/** The page is loaded afresh once a day, in the small hours: whatever a browser gathers in weeks is gone then. */
const AFRESH_HOUR = 4;

/** What the address says of the wall: `#wall.20s.dim21-7`; null where it is none. */
export function wallOf(hash = location.hash) {
  const [wall, ...words] = hash.slice(1).split('.');
  if (wall !== 'wall') return null;
  const said = (pattern, otherwise) => words.map(w => pattern.exec(w)).find(Boolean) ?? otherwise;
  const [, seconds] = said(/^(\d{1,5})s$/, [null, '20']);
  const [, from, to] = said(/^dim(\d{1,2})-(\d{1,2})$/, [null, '21', '7']);
  return {
    turn: Math.max(LEAST_TURN, Number(seconds)) * SECOND,
    dim: { from: Number(from) % 24, to: Number(to) % 24 },
  };
}

/** Which of so many pages a moment shows. */
export const pageAt = (now, turn, pages) => Math.floor(now / turn) % pages;

/** Whether the screen is dim at an hour. */
export const isDim = (hour, { from, to }) => (from <= to ? hour >= from && hour < to : hour >= from || hour < to);

/**
 * @param {import('./sheet.js').Sheet} sheet
 * @param {{turn: number, dim: {from: number, to: number}}} wall
 */
export function hang(sheet, wall) {
  document.body.classList.add('is-wall');
  const sign = el('p', { class: 'wall-sign', role: 'status', hidden: true });
  document.body.append(sign);
  let lost = null;
  let wait = SECOND;
  let next = 0;
  let renewed = Date.now();
  const loaded = Date.now();

  const troubled = refused => {
    lost ??= new Date();
    wait = Math.min(MOST_WAIT, wait * 2);
    next = Date.now() + wait;
    const since = lost.toLocaleTimeString(LANGUAGE === 'en' ? 'en-GB' : LANGUAGE, {
      hour: '2-digit',
      minute: '2-digit',
    });
    sign.textContent =
      refused.status === 0 || refused.status >= 500 || refused.status === 429
        ? phrase('No connection since {0}. What is shown is as of then.', since)
        : phrase('{0} (since {1})', refused.message, since);
    sign.hidden = false;
    return true;
  };
  sheet.hooks.failed = troubled;

  /** Asks for newer rows and a newer edition; what is shown stays until the answer is there. */
  async function renew() {
    const now = Date.now();
    if (now < next || (!lost && now - renewed < RENEW && now >= renewed)) return;
    next = now + RENEW;
    try {
      const opened = await ask('GET', BASE);
      renewed = Date.now();
      lost = null;
      wait = SECOND;
      sign.hidden = true;
      if (opened.edition !== sheet.opened?.edition || opened.revision !== sheet.opened?.revision)
        sheet.take(fitted(opened));
      await sheet.ask(sheet.ids());
      if (!lost && isTimeToLoad()) location.reload();
    } catch (refused) {
      troubled(refused);
    }
  }

  const isTimeToLoad = () => {
    const now = new Date();
    const old = now.getTime() - loaded > 12 * 60 * MINUTE || now.getTime() < loaded;
    return old && now.getHours() === AFRESH_HOUR;
  };

  function turn() {
    const pages = sheet.opened ? pagesOf(sheet.opened.document) : [];
    const { document: dashboard } = sheet.opened ?? {};
    const shown = pages.filter(page => !dashboard.pages[page].hidden);
    if (shown.length < 2) return;
    const page = shown[pageAt(Date.now(), wall.turn, shown.length)];
    if (page !== sheet.page) sheet.goTo(page, true);
  }

  function tick() {
    const dim = isDim(new Date().getHours(), wall.dim);
    document.body.classList.toggle('is-dim', dim);
    wearMood(dim ? 'night' : 'day');
    turn();
    renew();
    setTimeout(tick, SECOND);
  }
  tick();
}

/** A dashboard whose pages fill the screen, whatever its author has said of their size. */
export function fitted(opened) {
  for (const page of Object.values(opened.document.pages)) page.size = { ...page.size, fit: 'WINDOW' };
  return opened;
}
