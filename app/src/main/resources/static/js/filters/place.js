import { commonAddress } from '../base.js';
import { chooseButton } from './choose.js';
import { el, say } from '../elements.js';
import { ask } from '../http.js';
import { closePopup, openPopup } from '../popup.js';
import { any, phrase } from '../language.js';

/** Kilometres around a place that are offered. */
const KILOMETRES = [5, 10, 25, 50, 100, 250];
const PAUSE = 150;

/** A filter that keeps rows by where they lie. */
export function control(sheet, id, offer) {
  return chooseButton(id, wordsOf(sheet.turnedTo(id), offer), opener => chooser(sheet, id, offer, opener));
}

function wordsOf(chosen, { said }) {
  if (!chosen.length) return phrase('anywhere');
  const [first] = chosen;
  if (first.startsWith('~box.')) return phrase('in sight of the map');
  const around = aroundOf(first);
  if (around) return phrase('within {0} km of {1}', around.km, around.name);
  const names = chosen.map(value => said.areas.find(area => area.id === value)?.name ?? phrase('a place'));
  return names.length <= 2 ? any(names) : phrase('{0} areas', names.length);
}

function aroundOf(text) {
  const found = /^~around\.(-?[\d.]+)_(-?[\d.]+)_(\d+(?:\.\d+)?)\.([^.].*)$/.exec(text ?? '');
  return found && { lon: found[1], lat: found[2], km: Number(found[3]) / 1000, name: decodeURIComponent(found[4]) };
}

function chooser(sheet, id, offer, opener) {
  const { areas, map } = offer.said;
  const chosen = new Set(sheet.turnedTo(id).filter(value => !value.startsWith('~')));
  let around = aroundOf(sheet.turnedTo(id)[0]);
  const list = el('div', { class: 'popup-list' });
  const rings = el('div', { class: 'place-rings' });
  const keepAround = () =>
    sheet.filter(id, {
      predicate: `~around.${around.lon}_${around.lat}_${around.km * 1000}.${encodeURIComponent(around.name).replaceAll('.', '%2E')}`,
    });
  const showRings = () =>
    rings.replaceChildren(
      ...(around
        ? [
            el('p', { class: 'popup-words' }, phrase('Around {0}, within', around.name)),
            el(
              'span',
              { class: 'turns' },
              ...KILOMETRES.map(km =>
                el(
                  'button',
                  {
                    type: 'button',
                    class: 'turn',
                    'aria-pressed': String(km === around.km),
                    onclick: () => {
                      around.km = km;
                      keepAround();
                      showRings();
                    },
                  },
                  `${km} km`,
                ),
              ),
            ),
          ]
        : []),
    );
  const area = ({ id: value, name }) => {
    const box = el('input', {
      type: 'checkbox',
      value,
      onchange: () => {
        if (box.checked) chosen.add(value);
        else chosen.delete(value);
        around = null;
        showRings();
        sheet.filter(id, [...chosen]);
      },
    });
    box.checked = chosen.has(value);
    return el('label', {}, box, name);
  };
  const place = ({ words, lon, lat }) =>
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option',
        onclick: () => {
          around = { lon, lat, km: around?.km ?? 25, name: words.split(',')[0] };
          chosen.clear();
          keepAround();
          showRings();
        },
      },
      words,
      el('span', { class: 'hint' }, phrase('around it')),
    );
  let turn = 0;
  let waiting = null;
  const show = (places = []) => {
    const wanted = search.value.trim().toLowerCase();
    const named = areas
      .filter(a => a.name.toLowerCase().includes(wanted))
      .sort((a, b) => a.name.localeCompare(b.name))
      .slice(0, 60);
    list.replaceChildren(
      ...named.map(area),
      ...places.map(place),
      wanted && !named.length && !places.length
        ? el('p', { class: 'popup-words' }, phrase('No place is called so.'))
        : '',
    );
  };
  const look = async () => {
    const mine = ++turn;
    const name = search.value.trim();
    if (name.length < 2) return show();
    try {
      const found = await ask('GET', `${commonAddress('places')}?name=${encodeURIComponent(name)}`);
      if (mine === turn) show(found);
    } catch (refused) {
      say(refused.message);
    }
  };
  const search = el('input', {
    class: 'entry',
    type: 'search',
    placeholder: areas.length ? phrase('An area, or a place to go around') : phrase('A place to go around'),
    'aria-label': phrase('Find an area or a place'),
    oninput: () => {
      clearTimeout(waiting);
      waiting = setTimeout(look, PAUSE);
    },
  });
  show();
  showRings();
  const shown = map ? sheet.visuals.get(map) : null;
  openPopup(opener, [
    search,
    list,
    rings,
    shown?.kind.extent
      ? el(
          'button',
          {
            type: 'button',
            class: 'popup-option',
            onclick: () => {
              closePopup(true);
              sheet.filter(id, { predicate: boxOf(shown.kind.extent(shown.handle)) });
            },
          },
          phrase('What is in sight of the map'),
        )
      : '',
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option text-loch',
        onclick: () => {
          closePopup(true);
          sheet.filter(id, []);
        },
      },
      phrase('Anywhere'),
    ),
  ]);
}

/** An extent as an address has it. */
export const boxOf = ({ west, south, east, north }) =>
  `~box.${[west, south, east, north].map(d => Number(d.toFixed(4))).join('_')}`;

/** The filters that keep to what is in sight of a map follow it when it is moved. */
export function followed(sheet, map) {
  return Object.entries(sheet.opened.offers)
    .filter(([, offer]) => offer.type === 'place' && offer.said?.map === map)
    .map(([id]) => id)
    .filter(id => sheet.turnedTo(id)[0]?.startsWith('~box.'));
}
