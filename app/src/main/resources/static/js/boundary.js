import './head.js';
import { el, refuse, say } from './elements.js';
import { ask } from './http.js';
import { box, corners } from './map/area-paths.js';

const name = document.body.dataset.set;
const place = document.getElementById('areas-map');
const refusal = document.getElementById('refusal');
const WIDE = 1000;

/** Draws all areas at once; the one under the pointer, and its line in the table, are lit. */
async function draw() {
  try {
    const sheet = await ask('GET', `/api/boundary-sets/${encodeURIComponent(name)}/shapes/FAR`);
    const areas = sheet.areas.map(a => ({ ...a, lists: a.rings.map(r => corners(r, sheet.scale)) }));
    const [west, north, east, south] = box(areas.flatMap(a => a.lists));
    const scale = WIDE / (east - west);
    const path = lists =>
      lists
        .map(
          list =>
            `M${list.map(([x, y]) => `${((x - west) * scale).toFixed(1)} ${((y - north) * scale).toFixed(1)}`).join('L')}Z`,
        )
        .join('');
    const svg = el(
      'svg',
      {
        viewBox: `0 0 ${WIDE} ${((south - north) * scale).toFixed(1)}`,
        class: 'area-sheet',
        role: 'img',
        'aria-label': `A drawing of the areas of ${name}`,
      },
      areas.map(a => el('path', { d: path(a.lists), 'data-code': a.code }, el('title', {}, `${a.name} (${a.code})`))),
    );
    place.replaceChildren(svg);
    svg.addEventListener('pointerover', e => light(e.target.dataset?.code));
  } catch (refused) {
    refuse(refusal, refused.message);
  }
}

function light(code) {
  for (const row of document.querySelectorAll('#area-table .is-lit, .area-sheet .is-lit'))
    row.classList.remove('is-lit');
  if (!code) return;
  const row = document.querySelector(`#area-table [data-code="${CSS.escape(code)}"]`);
  row?.classList.add('is-lit');
  document.querySelector(`.area-sheet [data-code="${CSS.escape(code)}"]`)?.classList.add('is-lit');
}
document.getElementById('area-table').addEventListener('pointerover', e => light(e.target.closest('tr')?.dataset.code));
document.getElementById('remove')?.addEventListener('click', () =>
  say(
    'Datasets that are placed by this set would lose their place.',
    {
      words: 'Take it away',
      run: async () => {
        try {
          await ask('DELETE', `/api/boundary-sets/${encodeURIComponent(name)}`);
          location.assign('/boundary-sets');
        } catch (refused) {
          refuse(refusal, refused.message);
        }
      },
    },
    12,
  ),
);
draw();
