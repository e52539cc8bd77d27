import { el, refuse, say } from '../elements.js';
import { ask } from '../http.js';

/** What the parts of a feed's page share: the feed, and the words and lines that sentences about it are made of. */

const id = document.body.dataset.feed;
export const place = name => document.getElementById(name);
export const below = path => `/api/feeds/${id}${path ? `/${path}` : ''}`;
export const readings = `${window.location.origin}/readings/${id}`;
export const datasets = JSON.parse(place('datasets').textContent);

/** `feed` is what the server says of it; `begin` asks it anew and draws all. */
export const page = { feed: null, begin: null };

export async function attempt(work) {
  try {
    refuse(place('refusal'), '');
    await work();
  } catch (refused) {
    refuse(place('refusal'), refused.message);
    place('refusal').scrollIntoView({ block: 'center' });
  }
}

export const act = (words, work, look = 'quiet') =>
  el('button', { type: 'button', class: look, onclick: () => attempt(work) }, words);

/** A line to write in; `taken` is told what stands there once it is left. */
export const line = (label, value, taken, { look = '', hint = '' } = {}) =>
  el('input', {
    class: look,
    value: value ?? '',
    placeholder: hint,
    'aria-label': label,
    spellcheck: 'false',
    autocomplete: 'off',
    onchange: e => taken(e.target.value.trim()),
  });

export const choice = (label, options, value, taken) =>
  el(
    'select',
    { 'aria-label': label, onchange: e => taken(e.target.value) },
    Object.entries(options).map(([key, words]) => el('option', { value: key, selected: key === value }, words)),
  );

export const number = text => (text === '' ? null : Number(text.replace(',', '.')));

/** Keeps all that is said of how it is watched. */
export const kept = () =>
  act(
    'Keep how it is watched',
    async () => {
      await ask('PUT', below('settings'), {
        body: { settings: page.feed.settings },
        headers: { 'If-Match': `"${page.feed.revision}"` },
      });
      say('Kept.');
      await page.begin();
    },
    'do',
  );
