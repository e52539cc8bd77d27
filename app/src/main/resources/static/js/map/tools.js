import { commonAddress } from '../base.js';
import { el, say } from '../elements.js';
import { ask } from '../http.js';
import { closePopup, openPopup } from '../popup.js';
import { DETAILS, MOODS } from './ground.js';
import { showHere } from './here.js';
import { movesOf, sign } from './moves.js';
import { copyPicture, savePicture, saveDrawing, savePlaces, saveRows } from './take-along.js';
import { phrase } from '../language.js';

/**
 * The buttons of a map: what an author has not withheld from readers.
 * @param {Object} handle of the map visual @param {Object} visual the map in the document
 */
export function toolsOf(handle, visual, composing) {
  const { view } = handle;
  const has = control => composing || !(visual.withheld ?? []).includes(control);
  const moves = !visual.locked;
  return el(
    'div',
    { class: 'map-buttons' },
    ...(moves ? movesOf(view, has) : []),
    moves && has('SEARCH') && sign('find', phrase('Find a place'), e => search(handle, e.currentTarget)),
    sign('ring', phrase('Pick with a ring (L)'), () => handle.ring()),
    (has('GROUND') || has('LAYERS')) && sign('ground', phrase('Ground'), e => grounds(handle, visual, e.currentTarget)),
    moves &&
      Object.keys(visual.views ?? {}).length > 0 &&
      sign('views', phrase('Saved views'), e => views(handle, visual, e.currentTarget)),
    moves && has('FOLLOW') && following(handle),
    has('FULL') && sign('full', phrase('Full screen'), () => full(handle)),
    has('PICTURE') &&
      Object.values(handle.does.takes()).some(Boolean) &&
      sign('take', phrase('Take along'), e => take(handle, e.currentTarget)),
  );
}

/** Whether the map moves with what it shows. */
function following(handle) {
  const button = sign('follow', phrase('Follow what is shown'), () => {
    handle.follow.turn(handle.layers.flatMap(layer => layer.xy ?? []));
    button.setAttribute('aria-pressed', String(handle.follow.on));
  });
  button.setAttribute('aria-pressed', String(handle.follow.on));
  return button;
}

const option = (words, run, selected = false) =>
  el(
    'button',
    { type: 'button', class: 'popup-option', 'aria-selected': String(selected), role: 'option', onclick: run },
    words,
  );

/** What the map shows, for what is asked: what lies there is offered first. */
function shown(handle) {
  const sight = handle.view.sight();
  return sight ? `&view=${[sight.west, sight.south, sight.east, sight.north].map(d => d.toFixed(3)).join(',')}` : '';
}

function search(handle, opener) {
  const list = el('div', { class: 'popup-list', role: 'listbox', 'aria-label': phrase('Places found') });
  let turn = 0;
  const input = el('input', {
    class: 'entry',
    type: 'search',
    placeholder: phrase('A town, province or country'),
    'aria-label': phrase('Find a place'),
    oninput: async () => {
      const mine = ++turn;
      if (input.value.trim().length < 2) {
        list.replaceChildren();
        return;
      }
      try {
        const found = await ask(
          'GET',
          `${commonAddress('places')}?name=${encodeURIComponent(input.value.trim())}${shown(handle)}`,
        );
        if (mine !== turn) return;
        list.replaceChildren(
          ...(found.length
            ? found.map(p =>
                option(p.words, () => {
                  closePopup(true);
                  handle.view.flyTo(p.lon, p.lat);
                }),
              )
            : [el('p', { class: 'px-2 text-faint' }, phrase('No place is called so.'))]),
        );
      } catch (refused) {
        say(refused.message);
      }
    },
  });
  const has = !(handle.visual.withheld ?? []).includes('HERE') || handle.composing;
  const here =
    has &&
    option(phrase('Where I am'), () => {
      closePopup(true);
      showHere(handle.view);
    });
  // Enter takes the first.
  input.addEventListener('keydown', e => {
    if (e.key === 'Enter') list.querySelector('button')?.click();
  });
  openPopup(opener, here ? [input, here, list] : [input, list]);
}

/** The ground for this visit: it is put back when the page is opened anew. */
function grounds(handle, visual, opener) {
  const { ground } = handle.view;
  const choose = next => {
    ground.set(next);
    handle.credits();
    closePopup(true);
  };
  const own = visual.ground ?? { mood: 'paper', detail: 2 };
  const sources = handle.projection.ol
    ? []
    : handle.does
        .sources()
        .map(name =>
          option(
            name,
            () => choose({ mood: `source:${name}`, detail: ground.detail }),
            ground.mood === `source:${name}`,
          ),
        );
  openPopup(
    opener,
    [
      el('p', { class: 'popup-words' }, phrase('For this visit, the map stands on')),
      ...Object.entries(MOODS).map(([mood, words]) =>
        option(words, () => choose({ mood, detail: ground.detail }), ground.mood === mood),
      ),
      ...sources,
      el('p', { class: 'popup-words' }, phrase('with')),
      ...DETAILS.map((words, i) =>
        option(words, () => choose({ mood: ground.mood, detail: i + 1 }), ground.detail === i + 1),
      ),
      ground.mood !== own.mood || ground.detail !== own.detail
        ? option(phrase('Put it back'), () => choose(own))
        : null,
    ].filter(Boolean),
  );
}

function views(handle, visual, opener) {
  const list = Object.values(visual.views).sort((a, b) => a.order - b.order);
  openPopup(opener, [
    el(
      'div',
      { class: 'popup-list', role: 'listbox', 'aria-label': phrase('Saved views') },
      ...list.map(v =>
        option(v.name, () => {
          closePopup(true);
          handle.view.goTo(v.extent);
        }),
      ),
    ),
  ]);
}

function full(handle) {
  const box = handle.body.closest('.visual');
  if (document.fullscreenElement) document.exitFullscreen();
  else if (box.requestFullscreen)
    box.requestFullscreen().catch(() => say(phrase('This browser does not give the map the whole screen.')));
}

function take(handle, opener) {
  const doing = run => async () => {
    closePopup(true);
    try {
      await run();
    } catch (failed) {
      say(failed.message || phrase('That did not work.'));
    }
  };
  const pictures = [
    option(
      phrase('Copy the picture'),
      doing(async () => {
        await copyPicture(handle);
        say(phrase('The picture is in the clipboard.'));
      }),
    ),
    option(
      phrase('Picture, PNG'),
      doing(() => savePicture(handle, 1)),
    ),
    option(
      phrase('Picture of twice the size, PNG'),
      doing(() => savePicture(handle, 2)),
    ),
    option(
      phrase('Drawing, SVG'),
      doing(() => saveDrawing(handle)),
    ),
  ];
  const rows = [
    option(
      phrase('Rows in sight, CSV'),
      doing(() => saveRows(handle, false)),
    ),
    option(
      phrase('Rows in sight, for a spreadsheet (CSV)'),
      doing(() => saveRows(handle, true)),
    ),
    option(
      phrase('Places in sight with their figures, CSV'),
      doing(() => savePlaces(handle, 'csv')),
    ),
    option(
      phrase('Places in sight, GeoJSON'),
      doing(() => savePlaces(handle, 'geojson')),
    ),
  ];
  const takes = handle.does.takes();
  openPopup(opener, [...(takes.pictures ? pictures : []), ...(takes.rows ? rows : [])]);
}
