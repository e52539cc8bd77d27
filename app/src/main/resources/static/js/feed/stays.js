import { el } from '../elements.js';
import { choice, datasets, kept, line, number, page, place } from './page.js';

/** Where devices stop and arrive. */

export function drawStays() {
  const s = page.feed.settings.stays;
  const change = more => {
    page.feed.settings = { ...page.feed.settings, stays: { ...s, ...more } };
    drawStays();
  };
  place('stays').hidden = !page.feed.shape?.lon;
  const list = datasets.find(d => d.id === s.places);
  place('stays').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'A device stops where it stays within ',
      line('Within how many metres a device stops', s.metres, v => change({ metres: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' metres for ',
      line('For how many minutes', s.minutes, v => change({ minutes: number(v) ?? 0 }), { look: 'feed-number' }),
      ' minutes. It arrives ',
      choice(
        'Where devices arrive',
        { '': 'nowhere', ...Object.fromEntries(datasets.map(d => [d.id, `at the places of ${d.name}`])) },
        String(s.places ?? ''),
        chosen =>
          change(
            chosen
              ? {
                  places: Number(chosen),
                  name: datasets.find(d => d.id === Number(chosen)).columns[0],
                  within: s.within ?? 200,
                }
              : { places: null, name: null, within: null },
          ),
      ),
      list
        ? el(
            'span',
            {},
            ', which ',
            choice('What places are called by', Object.fromEntries(list.columns.map(c => [c, c])), s.name, name =>
              change({ name }),
            ),
            ' names, when it is within ',
            line('Within how many metres of a place', s.within, v => change({ within: number(v) }), {
              look: 'feed-number',
            }),
            ' metres',
          )
        : '',
      ', and within the areas of ',
      line('A set of boundaries', s.boundaries, v => change({ boundaries: v || null }), {
        look: 'feed-at',
        hint: 'none',
      }),
      '.',
    ),
    kept(),
  );
}
