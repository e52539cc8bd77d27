import { el } from '../elements.js';
import { act, choice, datasets, kept, line, number, page, place } from './page.js';

/** How devices are watched, and for how long their readings are kept. */

export function drawWatch() {
  const s = page.feed.settings;
  const change = more => {
    page.feed.settings = { ...page.feed.settings, ...more };
    drawWatch();
  };
  const numbers = (page.feed.shape?.fields ?? [])
    .filter(f => f.type === 'DECIMAL' || f.type === 'WHOLE')
    .map(f => f.name);
  const threshold = (t, i) => {
    const set = more =>
      change({
        thresholds: s.thresholds.map((o, j) => (j === i ? { ...o, ...more } : o)),
      });
    const value = (label, name) =>
      line(label, t[name], v => set({ [name]: number(v) }), {
        look: 'feed-number',
        hint: name === 'watch' || name === 'bad' ? 'none' : '0',
      });
    return el(
      'li',
      { class: 'form-sentence' },
      choice('Which measure', Object.fromEntries(numbers.map(n => [n, n])), t.column, column => set({ column })),
      ' is to be watched ',
      choice('On which side', { ABOVE: 'from … upwards', BELOW: 'from … downwards' }, t.side, side => set({ side })),
      ': watch at ',
      value('Watch from', 'watch'),
      ', bad at ',
      value('Bad from', 'bad'),
      ', once it has lasted ',
      value('For how many seconds', 'seconds'),
      ' seconds, and until it has come back by ',
      value('By how much it has to come back', 'back'),
      '. ',
      act('Leave out', async () => change({ thresholds: s.thresholds.filter(o => o !== t) })),
    );
  };
  const list = datasets.find(d => d.id === s.devices?.dataset);
  const of = (label, name, none) =>
    choice(
      label,
      {
        ...(none ? { '': none } : {}),
        ...Object.fromEntries((list?.columns ?? []).map(c => [c, c])),
      },
      s.devices?.[name] ?? '',
      column => change({ devices: { ...s.devices, [name]: column || null } }),
    );
  place('watch').replaceChildren(
    el(
      'p',
      { class: 'form-sentence' },
      'A device is silent after ',
      line('Silent after how many seconds', s.silentSeconds, v => change({ silentSeconds: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' seconds without a reading. Readings are kept for ',
      line('For how many days readings are kept', s.keepDays, v => change({ keepDays: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' days, put together by hour and day for ',
      line(
        'For how many days what is put together is kept',
        s.keepRolledDays,
        v => change({ keepRolledDays: number(v) ?? 0 }),
        {
          look: 'feed-number',
        },
      ),
      ' days; those of the last ',
      line('Of how many hours readings are at hand', s.windowHours, v => change({ windowHours: number(v) ?? 0 }), {
        look: 'feed-number',
      }),
      ' hours are at hand for dashboards.',
    ),
    el(
      'p',
      { class: 'form-sentence' },
      'Names, kinds and places of devices stand in ',
      choice(
        'Where devices stand',
        {
          '': 'no dataset',
          ...Object.fromEntries(datasets.map(d => [d.id, d.name])),
        },
        String(s.devices?.dataset ?? ''),
        chosen =>
          change({
            devices: chosen
              ? {
                  dataset: Number(chosen),
                  code: datasets.find(d => d.id === Number(chosen)).columns[0],
                  name: null,
                  kind: null,
                }
              : null,
          }),
      ),
      list
        ? el(
            'span',
            {},
            ': their code is ',
            of('The column of codes', 'code'),
            ', their name ',
            of('The column of names', 'name', 'their code'),
            ', their kind ',
            of('The column of kinds', 'kind', 'not said'),
          )
        : '',
      '. Devices that no dataset names are ',
      choice('What of strangers', { true: 'taken in all the same', false: 'refused' }, String(s.strangers), v =>
        change({ strangers: v === 'true' }),
      ),
      '.',
    ),
    el('ul', { class: 'doubts' }, ...s.thresholds.map(threshold)),
    numbers.length
      ? act('Add a threshold', async () =>
          change({
            thresholds: [
              ...s.thresholds,
              {
                column: numbers[0],
                side: 'ABOVE',
                watch: null,
                bad: null,
                back: 0,
                seconds: 0,
              },
            ],
          }),
        )
      : el('p', { class: 'text-faint' }, 'Thresholds can be set once messages are read.'),
    el('p', {}, kept()),
  );
}
