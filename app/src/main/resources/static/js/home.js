import './head.js';
import { el } from './elements.js';
import { ask } from './http.js';

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

const seen = new IntersectionObserver(entries => {
  for (const { target, isIntersecting } of entries) {
    if (!isIntersecting) continue;
    seen.unobserve(target);
    if (JSON.parse(target.dataset.boxes).length) waiting.push(target);
  }
  drawNext();
});
for (const plan of document.querySelectorAll('.plan')) seen.observe(plan);
