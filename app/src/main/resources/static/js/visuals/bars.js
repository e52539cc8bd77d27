import { el } from '../elements.js';

const ROW = 25;
const BAR = 15;

/** Bars, one a row: name, bar, amount. Each is an element that takes focus. Press to pick, Shift adds. */
export function mount(body, { title, emit }) {
  const handle = { body, title, emit, picks: new Set(), drawing: null };
  handle.list = el('div', { class: 'bars' });
  body.append(handle.list);
  handle.sized = new ResizeObserver(() => handle.drawing && draw(handle, handle.drawing));
  handle.sized.observe(body);
  return handle;
}

export function draw(handle, drawing) {
  handle.drawing = drawing;
  const focused = handle.list.contains(document.activeElement) ? document.activeElement.dataset.key : null;
  const width = handle.list.clientWidth - 2;
  const names = Math.min(width * 0.36, 12 + 7.2 * Math.max(4, ...drawing.bars.map(b => Math.min(26, b.label.length))));
  const amounts = 14 + 7.4 * Math.max(2, ...drawing.bars.map(b => b.text.length));
  const room = Math.max(20, width - names - amounts);
  const rows = drawing.bars.map((bar, i) => {
    const y = i * ROW;
    const mark = el(
      'g',
      { class: 'bar', tabindex: 0, role: 'button', 'data-key': bar.key ?? '' },
      el('rect', { class: 'track', x: 1, y: y + 1, width: width - 2, height: ROW - 2 }),
      el('text', { x: 2, y: y + ROW / 2 + 4.5 }, shortened(bar.label, names)),
      el('rect', {
        class: 'fill',
        x: names + room * bar.start,
        y: y + (ROW - BAR) / 2,
        width: Math.max(1, room * (bar.end - bar.start)),
        height: BAR,
      }),
      el('text', { class: 'amount', x: width - 3, y: y + ROW / 2 + 4.5 }, bar.text),
      el('title', {}, `${bar.label}: ${bar.full} (${drawing.words})`),
    );
    const pick = e => bar.key !== null && handle.emit({ type: 'pick', values: [bar.key], add: e.shiftKey });
    mark.addEventListener('click', pick);
    mark.addEventListener('keydown', e => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), pick(e)));
    return mark;
  });
  handle.list.replaceChildren(
    el('svg', { height: Math.max(1, rows.length * ROW), role: 'group', 'aria-label': handle.title }, ...rows),
    drawing.others
      ? el(
          'p',
          { class: 'bars-others' },
          `and ${drawing.others.toLocaleString('en')} more; a rank in the brief keeps the largest or smallest`,
        )
      : '',
  );
  if (focused !== null) [...handle.list.querySelectorAll('.bar')].find(b => b.dataset.key === focused)?.focus();
  light(handle, handle.picks);
}

function shortened(label, room) {
  const most = Math.floor((room - 8) / 7);
  return label.length <= most ? label : `${label.slice(0, most - 1)}…`;
}

export function light(handle, picks) {
  handle.picks = new Set(picks);
  for (const bar of handle.list.querySelectorAll('.bar')) {
    const picked = handle.picks.has(bar.dataset.key);
    bar.classList.toggle('is-picked', picked);
    bar.classList.toggle('is-dim', handle.picks.size > 0 && !picked);
    bar.setAttribute('aria-pressed', picked);
  }
}

export function unmount(handle) {
  handle.sized.disconnect();
}

export function figures(drawing) {
  return { head: ['value', drawing.words], rows: drawing.bars.map(b => ({ key: b.key, cells: [b.label, b.full] })) };
}

export function mini(drawing) {
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...drawing.bars.slice(0, 6).flatMap((bar, i) => [
      el('text', { x: 0, y: 14 + i * 18, 'font-size': 11, fill: 'currentColor' }, shortened(bar.label, 84)),
      el('rect', {
        x: 84 + 116 * bar.start,
        y: 4 + i * 18,
        width: Math.max(1, 116 * (bar.end - bar.start)),
        height: 11,
        fill: 'var(--bar)',
      }),
    ]),
  );
}
