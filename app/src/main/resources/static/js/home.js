import './head.js';
import { el, say } from './elements.js';
import { ask } from './http.js';
import { phrase } from './language.js';

/** A row of the grid is as high as so much of a column is wide, on a desk. */
const ROW = 0.79;

/**
 * Draws the first page of each dashboard small, with its own figures, once it comes in sight; until then, and where it
 * cannot be drawn, its plan stands there.
 */
const waiting = [];
let drawing = false;

async function drawNext() {
  if (drawing || !waiting.length) return;
  drawing = true;
  const plan = waiting.shift();
  try {
    await draw(plan);
  } catch {
    /* the plan stays */
  } finally {
    drawing = false;
    drawNext();
  }
}

async function draw(plan) {
  const boxes = JSON.parse(plan.dataset.boxes);
  const [{ KINDS }, { remember }] = await Promise.all([import('./visuals/kinds.js'), import('./places.js')]);
  const frames = await ask('POST', `/api/dashboards/${plan.dataset.dashboard}/frames`, {
    body: { state: '', ids: boxes.map(box => box.id), sights: {}, known: [] },
  });
  remember(frames.places);
  const picture = el(
    'div',
    { class: 'plan-picture' },
    ...boxes.map(({ id, x, y, w, h }) => {
      const drawn = frames.drawings[id];
      const kind = drawn && KINDS[drawn.type];
      const style = {
        left: `${(100 * x) / 24}%`,
        width: `${(100 * w) / 24}%`,
        top: `${(100 * y * ROW) / 24}cqw`,
        height: `${(100 * h * ROW) / 24}cqw`,
      };
      const mini = kind && drawn.type !== 'misfit' ? kind.mini(drawn) : '';
      return el('div', { class: `plan-box plan-${drawn?.type}`, style }, el('div', { class: 'plan-mini' }, mini));
    }),
  );
  plan.querySelector('svg').replaceWith(picture);
}

/** What others ask of this person. */
async function drawRequests(place) {
  const waiting = await ask('GET', '/api/requests');
  const answer = (id, given) => async () => {
    await ask('POST', `/api/requests/${id}`, { body: given }).catch(refused => say(refused.message));
    drawRequests(place);
  };
  place.replaceChildren(
    waiting.length
      ? el(
          'ul',
          { class: 'doubts requests' },
          ...waiting.map(({ id, name, may, of, words }) =>
            el(
              'li',
              {},
              `${name} asks to be let ${{ READ: 'read', COMPOSE: 'change', HAND_ON: 'hand on' }[may]} the ${of.thing.toLowerCase()} “${of.name}”`,
              words ? `: “${words}”. ` : '. ',
              el('button', { type: 'button', class: 'do', onclick: answer(id, true) }, 'Let them'),
              ' ',
              el('button', { type: 'button', class: 'quiet', onclick: answer(id, false) }, 'Not this time'),
            ),
          ),
        )
      : '',
  );
}
const requests = document.getElementById('requests');
if (requests) drawRequests(requests).catch(refused => say(refused.message));

const file = document.getElementById('dashboard-file');
file?.addEventListener('change', async () => {
  const { bringDashboard } = await import('./dashboard-file.js');
  const datasets = JSON.parse(document.getElementById('datasets').textContent);
  if (file.files[0]) await bringDashboard(file.files[0], datasets);
  file.value = '';
});

/** Words without their accents and case, so that “evora” finds Évora. */
const plain = text => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

const places = [...document.querySelectorAll('.plan-place')];
const value = id => document.getElementById(id)?.value ?? '';
const pressed = () => [...document.querySelectorAll('.tag[aria-pressed=true]')].map(tag => tag.dataset.tag);

/** In which order dashboards stand. */
const ORDERS = {
  changed: (a, b) => a.dataset.order - b.dataset.order,
  seen: (a, b) => b.dataset.seen - a.dataset.seen || a.dataset.order - b.dataset.order,
  title: (a, b) => a.dataset.title.localeCompare(b.dataset.title),
};

/** Whose dashboards are shown. */
const WHOSE = {
  '': () => true,
  mine: ({ mine }) => mine === 'true',
  others: ({ mine }) => mine !== 'true',
  published: ({ published }) => published === 'true',
  marked: ({ marked }) => marked === 'true',
};

/** Shows those dashboards and datasets that hold all words that are typed, in the order and form that is chosen. */
function find() {
  const words = plain(value('find')).split(/\s+/).filter(Boolean);
  const tags = pressed();
  const holds = text => words.every(word => plain(text).includes(word));
  let shown = 0;
  for (const place of places) {
    const own = (place.dataset.tags ?? '').split('|');
    place.hidden = !(
      holds(place.dataset.words) &&
      WHOSE[value('whose')](place.dataset) &&
      tags.every(t => own.includes(t))
    );
    shown += place.hidden ? 0 : 1;
  }
  for (const row of document.querySelectorAll('#dataset-rows tr')) row.hidden = !holds(row.textContent);
  document.getElementById('plans').classList.toggle('plans-table', value('as') === 'table');
  document.getElementById('plans').append(...places.sort(ORDERS[value('order') || 'changed']));
  document.getElementById('found').textContent =
    words.length || value('whose') || tags.length
      ? phrase('{0, plural, =0 {No dashboards.} one {One dashboard.} other {# dashboards.}}', shown)
      : '';
}

/** How somebody likes home to be is kept in the browser. */
const LIKED = 'sarnik.home';
function like() {
  localStorage.setItem(LIKED, JSON.stringify({ order: value('order'), as: value('as') }));
  find();
}
if (document.getElementById('find')) {
  const liked = JSON.parse(localStorage.getItem(LIKED) ?? '{}');
  for (const id of ['order', 'as']) {
    const choice = document.getElementById(id);
    if ([...choice.options].some(option => option.value === liked[id])) choice.value = liked[id];
    choice.addEventListener('input', like);
  }
  for (const id of ['find', 'whose']) document.getElementById(id).addEventListener('input', find);
  document.getElementById('tags')?.addEventListener('click', ({ target }) => {
    if (!target.dataset.tag) return;
    target.setAttribute('aria-pressed', target.getAttribute('aria-pressed') !== 'true');
    find();
  });
  find();
}

document.getElementById('plans')?.addEventListener('click', async ({ target }) => {
  const mark = target.closest('[data-mark]');
  if (!mark) return;
  const marked = mark.getAttribute('aria-pressed') !== 'true';
  try {
    await ask('PUT', `/api/dashboards/${mark.dataset.mark}/mark`, { body: marked });
    mark.setAttribute('aria-pressed', marked);
    mark.title = marked ? phrase('Marked by you') : phrase('Mark it for yourself');
    mark.closest('.plan-place').dataset.marked = marked;
    find();
  } catch (refused) {
    say(refused.message);
  }
});

const seen = new IntersectionObserver(entries => {
  for (const { target, isIntersecting } of entries) {
    if (!isIntersecting) continue;
    seen.unobserve(target);
    if (JSON.parse(target.dataset.boxes).length) waiting.push(target);
  }
  drawNext();
});
for (const plan of document.querySelectorAll('.plan')) seen.observe(plan);
