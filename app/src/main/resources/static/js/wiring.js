import './head.js';
import { el, say } from './elements.js';
import { ask } from './http.js';

const id = document.body.dataset.dashboard;
const place = document.getElementById('wiring');
const findings = document.getElementById('findings');

/** Columns of the drawing, from what rows come from to where one goes. */
const COLUMNS = [['DATASET'], ['KEY', 'FILTER', 'PARAMETER', 'MEASURE'], ['VISUAL'], ['PAGE']];
const WIDE = 178;
const HIGH = 30;
/** Room for the wires that go around on the left. */
const LEFT = 46;
const BETWEEN = 44;
const GAP = 12;
const SORTS = {
  DATASET: 'dataset',
  KEY: 'shared key',
  FILTER: 'filter',
  PARAMETER: 'parameter',
  MEASURE: 'measure',
  VISUAL: 'visual',
  PAGE: 'page',
};

let chosen = null;

load();

async function load() {
  try {
    const sheet = await ask('GET', `/api/dashboards/${id}/wiring`);
    draw(sheet.wiring);
    tell(sheet.findings, sheet.wiring);
  } catch (refused) {
    say(refused.message, { words: 'Try again', run: load });
  }
}

/** Where each part stands: in its column, those of a page together. */
function arranged(parts) {
  const at = new Map();
  const pages = parts.filter(p => p.sort === 'PAGE').map(p => p.id);
  let most = 0;
  COLUMNS.forEach((sorts, column) => {
    const those = parts
      .filter(p => sorts.includes(p.sort))
      .sort(
        (a, b) =>
          sorts.indexOf(a.sort) - sorts.indexOf(b.sort) ||
          pages.indexOf(a.page) - pages.indexOf(b.page) ||
          a.words.localeCompare(b.words),
      );
    those.forEach((part, row) =>
      at.set(part.id, { x: LEFT + column * (WIDE + BETWEEN), y: 34 + row * (HIGH + GAP), part }),
    );
    most = Math.max(most, those.length);
  });
  return { at, high: 34 + most * (HIGH + GAP) + 20 };
}

const shortened = words => (words.length > 22 ? `${words.slice(0, 21)}…` : words);

function draw({ parts, wires }) {
  chosen = null;
  const { at, high } = arranged(parts);
  const wide = LEFT + COLUMNS.length * (WIDE + BETWEEN);
  const lines = wires.map(wire => {
    const line = el('path', {
      class: `wire wire-${wire.course.toLowerCase()}`,
      d: courseOf(at.get(wire.from), at.get(wire.to)),
    });
    line.append(el('title', {}, `${at.get(wire.from).part.words} → ${at.get(wire.to).part.words}: ${wire.words}`));
    return { wire, line };
  });
  const boxes = parts.map(part => {
    const { x, y } = at.get(part.id);
    const box = el(
      'g',
      {
        class: `wired wired-${part.sort.toLowerCase()}`,
        tabindex: 0,
        role: 'button',
        'data-part': part.id,
        'aria-pressed': 'false',
        'aria-label': `${SORTS[part.sort]} ${part.words}`,
        transform: `translate(${x} ${y})`,
        onclick: () => (chosen === part.id ? open(part) : choose(part.id)),
        onkeydown: e => {
          if (e.key === 'Enter' || e.key === ' ') {
            e.preventDefault();
            if (chosen === part.id && e.key === 'Enter') open(part);
            else choose(part.id);
          } else if (e.key === 'Escape') choose(null);
          else step(e, boxes, part);
        },
      },
      el('rect', { width: WIDE, height: HIGH }),
      el('path', { class: 'wired-sign', d: SIGNS[part.sort] }),
      el('text', { x: 28, y: 20 }, shortened(part.words)),
      el('title', {}, `${SORTS[part.sort]} ${part.words}`),
    );
    return box;
  });
  const heads = ['where rows come from', 'what is turned', 'what is shown', 'where it stands'];
  place.replaceChildren(
    el(
      'svg',
      { viewBox: `0 0 ${wide} ${high}`, width: wide, height: high, role: 'group', 'aria-label': 'Wiring' },
      ...heads.map((words, i) => el('text', { class: 'wiring-head', x: LEFT + i * (WIDE + BETWEEN), y: 18 }, words)),
      ...lines.map(({ line }) => line),
      ...boxes,
    ),
    el('p', { class: 'wiring-words', id: 'wiring-words' }),
  );

  function choose(part) {
    chosen = part;
    const up = part ? reach(wires, part, 'to', 'from') : new Set();
    const down = part ? reach(wires, part, 'from', 'to') : new Set();
    const lit = new Set([part, ...up, ...down]);
    for (const box of boxes) {
      const on = lit.has(box.dataset.part);
      box.classList.toggle('is-dim', Boolean(part) && !on);
      box.classList.toggle('is-chosen', box.dataset.part === part);
      box.setAttribute('aria-pressed', String(box.dataset.part === part));
    }
    for (const { wire, line } of lines) {
      const on =
        part &&
        (((wire.to === part || up.has(wire.to)) && (up.has(wire.from) || wire.from === part)) ||
          ((wire.from === part || down.has(wire.from)) && (down.has(wire.to) || wire.to === part)));
      line.classList.toggle('is-lit', Boolean(on));
      line.classList.toggle('is-dim', Boolean(part) && !on);
    }
    const words = document.getElementById('wiring-words');
    const named = set => [...set].map(other => at.get(other).part.words).join(', ') || 'nothing';
    words.textContent = part
      ? `“${at.get(part).part.words}” is reached by ${named(up)}; it reaches ${named(down)}.`
      : '';
  }
  draw.choose = choose;
}

const SIGNS = {
  DATASET: 'M8 9h12v12H8zM8 13h12M12 9v12',
  KEY: 'M8 10h4v10H8zM12 10h4v10h-4zM16 10h4v10h-4z',
  FILTER: 'M8 9h12l-4.5 5v7l-3-2v-5z',
  MEASURE: 'M9 9h10l-6 6 6 6H9',
  PARAMETER: 'M8 15h12M14 15m-3 0a3 3 0 1 0 6 0 3 3 0 1 0-6 0',
  VISUAL: 'M8 20v-5h3v5zM12.5 20V9h3v11zM17 20v-8h3v8z',
  PAGE: 'M9 8h10v14H9zM11 12h6M11 15h6M11 18h4',
};

function courseOf(from, to) {
  const [y1, y2] = [from.y + HIGH / 2, to.y + HIGH / 2];
  // Within a column a wire goes around on the left.
  if (from.x === to.x) {
    const out = Math.min(40, 14 + Math.abs(y2 - y1) / 6);
    return `M${from.x} ${y1}C${from.x - out} ${y1} ${to.x - out} ${y2} ${to.x} ${y2}`;
  }
  const [x1, x2] = from.x < to.x ? [from.x + WIDE, to.x] : [from.x, to.x + WIDE];
  const bend = (x2 - x1) / 2;
  return `M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}`;
}

/** All that is reached along wires, one after the other. Ties go both ways and lead no further. */
function reach(wires, part, side, other) {
  const seen = new Set();
  const open = [part];
  while (open.length) {
    const at = open.pop();
    for (const wire of wires)
      if (wire[side] === at && wire[other] !== part && !seen.has(wire[other])) {
        seen.add(wire[other]);
        if (wire.course !== 'TIE') open.push(wire[other]);
      }
  }
  return seen;
}

function step(e, boxes, part) {
  const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
  if (!by) return;
  e.preventDefault();
  const here = boxes.findIndex(box => box.dataset.part === part.id);
  boxes[(here + by + boxes.length) % boxes.length].focus();
}

/** Goes to where a part is changed. */
function open(part) {
  location.href =
    part.sort === 'DATASET'
      ? `/datasets/${part.id.slice(1)}`
      : part.sort === 'KEY'
        ? '/keys'
        : `/dashboards/${id}/compose${part.page ? `?g.page=${part.page}` : ''}#part.${part.id}`;
}

function tell(all, { parts }) {
  const known = new Set(parts.map(part => part.id));
  findings.replaceChildren(
    ...(all.length
      ? all.map(finding =>
          el(
            'article',
            { class: 'finding' },
            el('p', {}, finding.sentence),
            known.has(finding.about)
              ? el(
                  'button',
                  { type: 'button', class: 'quiet', onclick: () => draw.choose(finding.about) },
                  'Show where',
                )
              : '',
            finding.press
              ? el('button', { type: 'button', class: 'do', onclick: () => mend(finding) }, finding.press)
              : '',
          ),
        )
      : [el('p', {}, 'Nothing is amiss: all that is wired reaches something.')]),
  );
}

async function mend({ mend: operations, press }) {
  try {
    const opened = await ask('GET', `/api/dashboards/${id}`);
    await ask('PATCH', `/api/dashboards/${id}`, {
      body: operations,
      type: 'application/json-patch+json',
      headers: { 'If-Match': `"${opened.revision}"` },
    });
    say(`Done: ${press.charAt(0).toLowerCase()}${press.slice(1)}. It can be undone while composing.`);
    await load();
  } catch (refused) {
    say(refused.message);
  }
}
