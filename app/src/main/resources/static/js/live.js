import { Amiss } from './amiss.js';
import { BASE } from './base.js';
import { el } from './elements.js';
import { LANGUAGE, phrase } from './language.js';

/** After so long without a word the connection is taken for lost, ms. */
const LOST = 40_000;

/** What is about to come into sight is drawn anew as well. */
const NEAR = '200px';

/**
 * Keeps what a page shows of live rows as they are: it is told which datasets have newer ones, and asks for the visuals
 * that show those and are in sight, one question at a time; the others are asked for as they come into sight. A hidden
 * page rests, and asks once when it is seen again; so does one whose connection was lost, which is said meanwhile.
 *
 * @param {import('./sheet.js').Sheet} sheet
 */
export function keepLive(sheet) {
  const live = sheet.opened?.live ?? {};
  if (!Object.keys(live).length || globalThis.sarnikCarried || !('EventSource' in window)) return;
  const sign = el('span', { class: 'live-sign', id: 'live-sign', role: 'status' });
  const line = el('div', { class: 'live-line' }, sign);
  document.getElementById('showing')?.before(line);
  const amiss = new Amiss(sheet, line);
  amiss.look();
  let source = null;
  let since = null;
  let watch = null;
  let asking = false;
  const due = new Set();

  const say = words => {
    sign.textContent = words;
    sign.classList.toggle('is-lost', since !== null);
  };

  async function ask() {
    if (asking || !due.size || document.hidden) return;
    // Nothing is drawn anew under a hand that turns something.
    if (sheet.turning) {
      setTimeout(ask, 250);
      return;
    }
    asking = true;
    const ids = [...due].filter(id => sheet.visuals.has(id));
    due.clear();
    try {
      if (ids.length) await sheet.ask(ids);
    } finally {
      asking = false;
      if (due.size) setTimeout(ask, 0);
    }
  }

  const all = () => Object.values(live).flat();
  /** By their cells the visuals that have newer rows and are not known to be in sight. */
  const behind = new Map();
  const sight = new IntersectionObserver(
    entries => {
      for (const { target, isIntersecting } of entries) {
        if (!isIntersecting) continue;
        sight.unobserve(target);
        due.add(behind.get(target));
        behind.delete(target);
      }
      ask();
    },
    { rootMargin: NEAR },
  );
  const want = ids => {
    for (const id of ids) {
      const cell = sheet.visuals.get(id)?.cell;
      if (!cell) continue;
      behind.set(cell, id);
      // Taken up anew, it is told at once whether it is in sight.
      sight.unobserve(cell);
      sight.observe(cell);
    }
  };
  // What is put on paper is of one moment, in sight or not.
  sheet.catchUp = async () => {
    const ids = [...behind.values()].filter(id => sheet.visuals.has(id));
    behind.clear();
    sight.disconnect();
    if (ids.length) await sheet.ask(ids);
  };

  function heard() {
    amiss.look();
    if (since !== null) {
      since = null;
      want(all());
    }
    say(phrase('Live'));
    clearTimeout(watch);
    watch = setTimeout(lost, LOST);
  }

  function lost() {
    since ??= new Date();
    say(
      phrase(
        'Not live since {0}: the connection is lost. It is tried again.',
        since.toLocaleTimeString(LANGUAGE, { hour: '2-digit', minute: '2-digit' }),
      ),
    );
  }

  function open() {
    source = new EventSource(`${BASE}/changes`);
    source.onopen = heard;
    source.onmessage = event => {
      heard();
      want(JSON.parse(event.data).datasets.flatMap(id => live[id] ?? []));
    };
    source.onerror = () => {
      lost();
      // A refusal closes it for good; a page that may be shown again tries later.
      if (source.readyState === EventSource.CLOSED) {
        source = null;
        setTimeout(() => source ?? (document.hidden || open()), 5000);
      }
    };
  }

  document.addEventListener('visibilitychange', () => {
    if (document.hidden) {
      source?.close();
      source = null;
      clearTimeout(watch);
    } else if (!source) {
      open();
      want(all());
    }
  });
  if (!document.hidden) open();
}
