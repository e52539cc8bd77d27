import { addressOf } from './base.js';
import { el } from './elements.js';
import { sendFiles } from './http.js';

/** Pictures of things that a dataset tells of: whose each is, is guessed by the name of its file and can be changed. */

const GUESSED = { sure: 'by its name', likely: 'likely, by its name', none: 'whose is it?' };

const plain = text =>
  text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/**
 * Whose picture a file holds, by its name: the one that is called so, or the only one whose name stands in it.
 * @param {string} file @param {{text: string, value: string}[]} options what there is
 * @returns {{value: string, how: 'sure' | 'likely' | 'none'}}
 */
export function whose(file, options) {
  const name = plain(file.replace(/\.[^.]*$/, ''));
  const called = options.filter(o => plain(o.value) === name || plain(o.text) === name);
  if (called.length === 1) return { value: called[0].value, how: 'sure' };
  const within = options
    .map(o => ({
      o,
      length: Math.max(...[o.value, o.text].map(t => (plain(t) && name.includes(plain(t)) ? plain(t).length : 0))),
    }))
    .filter(({ length }) => length > 1)
    .sort((a, b) => b.length - a.length);
  // Of P-1 and P-12 in “P-12 seen from the road” the longer is meant.
  if (within.length && within[0].length > (within[1]?.length ?? 0)) return { value: within[0].o.value, how: 'likely' };
  return { value: '', how: 'none' };
}

/** @typedef {{image: string, shows: string | null, value: string, how: string, address: string}} Shot */

/** A line for a picture: what it looks like, whose it is, what it shows. */
function line(shot, options, remove) {
  const owner = el(
    'select',
    { 'aria-label': 'Whose picture it is' },
    el('option', { value: '' }, 'nobody’s'),
    ...options.map(o => el('option', { value: o.value, selected: o.value === shot.value }, o.text)),
  );
  owner.value = shot.value;
  const how = el('span', { class: 'hint' }, GUESSED[shot.how] ?? '');
  owner.addEventListener('change', () => {
    shot.value = owner.value;
    shot.how = owner.value ? '' : 'none';
    how.textContent = GUESSED[shot.how] ?? '';
  });
  const shows = el('input', {
    class: 'entry',
    maxlength: 1000,
    value: shot.shows ?? '',
    placeholder: 'what it shows',
    'aria-label': 'What it shows, for those who cannot see it',
    onchange: () => (shot.shows = shows.value.trim() || null),
  });
  return el(
    'li',
    { class: 'shot-line' },
    el('img', { src: shot.address, alt: '' }),
    el('span', { class: 'shot-owner' }, owner, how),
    shows,
    el(
      'button',
      { type: 'button', class: 'text-loch', 'aria-label': 'Leave this picture out', onclick: remove },
      'Leave out',
    ),
  );
}

/**
 * What opens at a slot of such pictures.
 * @param {Object} slot whose options are those that can have one
 * @param {Record<string, {image: string, shows: string | null}>} now by value
 * @param {(shots: Record<string, {image: string, shows: string | null}>) => void} take
 * @returns {HTMLElement[]}
 */
export function shotsOf(slot, now, take) {
  /** @type {Shot[]} */
  let shots = Object.entries(now ?? {})
    .map(([value, shot]) => ({ shows: null, ...shot, value, how: '', address: addressOf(`files/${shot.image}`) }))
    .sort((a, b) => a.value.localeCompare(b.value, 'en', { numeric: true }));
  const list = el('ul', { class: 'shot-lines' });
  const state = el(
    'p',
    { class: 'popup-words', role: 'status' },
    'PNG, JPEG, GIF or BMP, up to 12 MB each. Whose it is, is guessed by the name of its file.',
  );
  const draw = () =>
    list.replaceChildren(
      ...shots.map(shot =>
        line(shot, slot.options, () => {
          shots = shots.filter(s => s !== shot);
          draw();
        }),
      ),
    );
  const file = el('input', {
    type: 'file',
    multiple: true,
    accept: 'image/png,image/jpeg,image/gif,image/webp,image/bmp',
    'aria-label': 'Pictures',
  });
  file.addEventListener('change', async () => {
    const refused = [];
    for (const [i, one] of [...file.files].entries()) {
      state.textContent = `${one.name} is being looked at, ${i + 1} of ${file.files.length}…`;
      try {
        const { name } = await sendFiles('/api/images', [one], () => {}).promise;
        shots.push({ image: name, shows: null, ...whose(one.name, slot.options), address: URL.createObjectURL(one) });
        draw();
      } catch (why) {
        refused.push(`${one.name}: ${why.message}`);
      }
    }
    file.value = '';
    state.textContent = refused.join(' ') || `${shots.length} pictures`;
  });
  const done = el(
    'button',
    {
      type: 'button',
      class: 'popup-option text-loch',
      onclick: () => {
        const said = shots.filter(shot => shot.value);
        const twice = said.find((shot, i) => said.findIndex(other => other.value === shot.value) < i);
        if (twice) {
          state.textContent = `There are two pictures of ${twice.value}. Leave one out, or say whose it is.`;
          return;
        }
        if (said.length < shots.length && !done.dataset.asked) {
          done.dataset.asked = 'yes';
          state.textContent = `Of ${shots.length - said.length} it is not said whose they are; they would be left out. Press again to go on.`;
          return;
        }
        take(Object.fromEntries(said.map(({ value, image, shows }) => [value, { image, shows }])));
      },
    },
    'Take these pictures',
  );
  draw();
  return [file, state, list, done];
}
