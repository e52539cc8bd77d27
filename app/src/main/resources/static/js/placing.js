import './head.js';
import { fromLonLat, toLonLat } from '/vendor/ol.js';
import { el, refuse } from './elements.js';
import { ask } from './http.js';
import { MapView } from './map/map-view.js';

const by = id => document.getElementById(id);
const dataset = document.body.dataset.dataset;
const number = value => value.toLocaleString('en');
const SIGNS = { doubtful: '?', unplaced: '–', decided: '✓', placed: '•' };

/** Words that are chosen together, by their line; empty where only the one at hand is. */
const chosen = new Set();

let sheet = JSON.parse(by('sheet-data').textContent);
let at = 0;
let offers = [];

const view = new MapView(by('placing-map').querySelector('.visual-body'), 'Where they may lie');
const marks = view.add(paint);
// Above the names of the ground.
marks.setZIndex(11);
view.map.on('click', e => {
  const hit = offers.findIndex(o => near(o, e.pixel));
  const [lon, lat] = toLonLat(e.coordinate);
  take(hit >= 0 ? offers[hit].id : `c${lon.toFixed(5)},${lat.toFixed(5)}`);
});

function near(offer, pixel) {
  const [x, y] = view.map.getPixelFromCoordinate(fromLonLat([offer.lon, offer.lat]));
  return Math.hypot(x - pixel[0], y - pixel[1]) < 14;
}

/** @param {import('./map/painted-layer.js').Sheet} paper */
function paint(paper) {
  const { context } = paper;
  const style = getComputedStyle(document.documentElement);
  const taken = sheet.open[at]?.taken?.id;
  context.font = '600 12px "Hanken Grotesk", sans-serif';
  context.textAlign = 'center';
  offers.forEach((offer, i) => {
    const [mapX, mapY] = fromLonLat([offer.lon, offer.lat]);
    const [x, y] = [paper.x(mapX), paper.y(mapY)];
    context.beginPath();
    context.arc(x, y, 11, 0, 7);
    context.fillStyle = style.getPropertyValue(offer.id === taken ? '--rust' : '--loch');
    context.fill();
    context.fillStyle = style.getPropertyValue('--paper');
    context.fillText(String(i + 1), x, y + 4);
  });
  context.textAlign = 'start';
}

// --- what is shown ---------------------------------------------------------------------------------

function draw() {
  const count = (kind, value, words) => el('span', { class: kind }, el('b', {}, number(value)), words);
  by('counts').replaceChildren(
    count('good', sheet.placed, 'rows placed'),
    count('watch', sheet.doubtful, 'doubtful'),
    count('bad', sheet.unplaced, 'unplaced'),
    ...sheet.remarks.map(words => el('span', { class: 'text-faint' }, words)),
  );
  for (const line of [...chosen]) if (!sheet.open.some(open => open.line === line)) chosen.delete(line);
  by('show').value = sheet.show;
  const reason = by('reasons').value;
  by('reasons').replaceChildren(
    el('option', { value: '' }, 'for any reason'),
    ...sheet.reasons.map(r => el('option', { value: r.words }, `${r.words} (${number(r.rows)})`)),
  );
  by('reasons').value = sheet.reasons.some(r => r.words === reason) ? reason : '';
  by('take-all').hidden = !sheet.open.some(open => open.taken && open.state !== 'decided');
  const rows = sheet.open.map((open, i) =>
    el(
      'li',
      {
        role: 'option',
        id: `word-${i}`,
        'aria-selected': String(i === at),
        onclick: e => (e.ctrlKey || e.metaKey ? together(i) : (chosen.clear(), choose(i))),
      },
      el('span', { class: `sign is-${open.state}`, title: open.state }, SIGNS[open.state]),
      el('span', {}, open.line),
      el(
        'span',
        { class: 'text-faint' },
        `${number(open.rows)} ${open.rows === 1 ? 'row' : 'rows'}, ${open.taken ? open.taken.words : open.state === 'decided' ? 'left out' : 'nowhere yet'}`,
      ),
    ),
  );
  by('words').replaceChildren(...rows);
  by('pages').hidden = sheet.pages < 2;
  by('pages-words').textContent =
    `Page ${number(sheet.page + 1)} of ${number(sheet.pages)}, ${number(sheet.found)} sets of words in all`;
  by('pages-back').disabled = sheet.page === 0;
  by('pages-on').disabled = sheet.page + 1 >= sheet.pages;
  choose(Math.min(at, Math.max(0, sheet.open.length - 1)));
}

/** Adds words to those that are chosen together, or takes them out. */
function together(i) {
  if (!chosen.size && sheet.open[at] && i !== at) chosen.add(sheet.open[at].line);
  const { line } = sheet.open[i];
  if (chosen.has(line)) chosen.delete(line);
  else chosen.add(line);
  choose(i);
}

function choose(i) {
  at = i;
  const open = sheet.open[at];
  for (const [n, row] of [...by('words').children].entries())
    row.setAttribute('aria-selected', String(n === at || chosen.has(sheet.open[n].line)));
  by('words').setAttribute('aria-activedescendant', `word-${at}`);
  by(`word-${at}`)?.scrollIntoView({ block: 'nearest' });
  by('chosen').textContent =
    chosen.size > 1
      ? `${chosen.size} sets of words`
      : open
        ? open.line
        : sheet.found
          ? ''
          : 'Every row has its place. There is nothing to decide.';
  by('reason').textContent = open ? `${open.reason} Confidence ${Math.round(open.confidence * 100)} %.` : '';
  by('search').value = '';
  show(open ? [open.taken, ...open.offers].filter(Boolean) : []);
}

function show(next) {
  const open = sheet.open[at];
  offers = next;
  const rows = offers.map((offer, i) =>
    el(
      'li',
      {},
      el(
        'button',
        {
          type: 'button',
          class: 'offer',
          'aria-pressed': String(offer.id === open.taken?.id),
          onclick: () => take(offer.id),
        },
        el('b', {}, String(i + 1)),
        offer.words,
      ),
    ),
  );
  if (open) {
    if (chosen.size > 1)
      rows.unshift(
        el(
          'li',
          {},
          el(
            'button',
            { type: 'button', class: 'offer', onclick: () => send({ taken: true, back: false }) },
            el('b', {}, '='),
            'Each as it is taken',
          ),
        ),
      );
    rows.push(
      el(
        'li',
        {},
        el(
          'button',
          { type: 'button', class: 'offer', onclick: () => take(null) },
          el('b', {}, 'X'),
          'Leave these rows out',
        ),
      ),
    );
    if (open.state === 'decided')
      rows.push(
        el(
          'li',
          {},
          el('button', { type: 'button', class: 'offer', onclick: back }, el('b', {}, 'B'), 'Take the decision back'),
        ),
      );
  }
  by('offers').replaceChildren(...rows);
  view.fit(
    offers.map(o => fromLonLat([o.lon, o.lat])),
    true,
  );
  marks.repaint();
}

// --- what is decided ---------------------------------------------------------------------------------

async function send(decision) {
  const open = sheet.open[at];
  if (!open) return;
  refuse(by('refusal'), '');
  try {
    const decided = open.line;
    const several = chosen.size > 1 ? sheet.open.filter(o => chosen.has(o.line)).map(o => o.words) : null;
    sheet = await ask('POST', address(sheet.page), {
      body: { ...(several ? { several } : { words: open.words }), shared: by('shared').checked, ...decision },
    });
    chosen.clear();
    // On to the next words that are still open.
    const here = sheet.open.findIndex(o => o.line === decided);
    const next = sheet.open.findIndex((o, i) => i > here && o.state !== 'decided');
    at = decision.back ? Math.max(0, here) : next >= 0 ? next : Math.max(0, here);
    draw();
    by('words').focus({ preventScroll: true });
  } catch (refused) {
    refuse(by('refusal'), refused.message);
  }
}
const address = page =>
  `/api/datasets/${dataset}/decisions?page=${page}&show=${by('show').value}&reason=${encodeURIComponent(by('reasons').value)}`;

async function turnTo(page) {
  try {
    sheet = await ask('GET', address(page));
    at = 0;
    chosen.clear();
    draw();
  } catch (refused) {
    refuse(by('refusal'), refused.message);
  }
}
by('pages-back').addEventListener('click', () => turnTo(sheet.page - 1));
by('pages-on').addEventListener('click', () => turnTo(sheet.page + 1));
by('show').addEventListener('change', () => {
  by('reasons').value = '';
  turnTo(0);
});
by('reasons').addEventListener('change', () => turnTo(0));
by('take-all').addEventListener('click', async () => {
  refuse(by('refusal'), '');
  try {
    sheet = await ask('POST', address(0), {
      body: { all: true, taken: true, back: false, shared: by('shared').checked },
    });
    chosen.clear();
    draw();
  } catch (refused) {
    refuse(by('refusal'), refused.message);
  }
});
const take = place => send({ place, back: false });
const back = () => send({ place: null, back: true });

by('words').addEventListener('keydown', e => {
  const digit = Number(e.key);
  if (e.key === 'ArrowDown' && at + 1 < sheet.open.length) choose(at + 1);
  else if (e.key === 'ArrowUp' && at > 0) choose(at - 1);
  else if (digit >= 1 && digit <= offers.length) take(offers[digit - 1].id);
  else if (e.key === 'Enter' && offers.length) take(offers[0].id);
  else if (e.key === ' ' && sheet.open[at]) together(at);
  else if (e.key === '=' && chosen.size > 1) send({ taken: true, back: false });
  else if (e.key.toLowerCase() === 'x') take(null);
  else if (e.key.toLowerCase() === 'b' && sheet.open[at]?.state === 'decided') back();
  else if (e.key.toLowerCase() === 's') by('search').focus();
  else return;
  e.preventDefault();
});

let turn = 0;
by('search').addEventListener('input', async () => {
  const mine = ++turn;
  const name = by('search').value.trim();
  if (name.length < 2) return;
  try {
    const found = await ask('GET', `/api/places?name=${encodeURIComponent(name)}`);
    if (mine === turn) show(found);
  } catch (refused) {
    refuse(by('refusal'), refused.message);
  }
});
by('search').addEventListener('keydown', e => {
  if (e.key === 'Enter' && offers.length) take(offers[0].id);
  if (e.key === 'Escape') by('words').focus();
});

draw();
