import { el } from '../elements.js';
import { phrase } from '../language.js';

/** What of the state its name in addresses stands for: a moment. */
export const part = 'm';

/** Of the drawing of the spread, in its own units. */
const WIDE = 600;
const HIGH = 60;
/** Moments that are fetched before they are shown. */
const AHEAD = 12;
const SPEEDS = [1, 2, 4, 10];

/** Time, played for the page: a handle over the spread of the rows. At rest everything is shown. */
export function mount(body, { emit }) {
  const handle = { emit, at: null, playing: false, timer: null, held: null, speed: null };
  const press = (path, words, run) =>
    el(
      'button',
      { type: 'button', class: 'player-press', title: words, 'aria-label': words, onclick: run },
      el('svg', { viewBox: '0 0 20 20', 'aria-hidden': 'true' }, el('path', { d: path })),
    );
  handle.now = el('output', { class: 'player-now', 'aria-live': 'polite' });
  handle.play = press(PLAY, phrase('Play'), () => (handle.playing ? pause(handle) : play(handle)));
  handle.back = press('M13 4v12L5 10z', phrase('A step back'), () => step(handle, -1));
  handle.on = press('M7 4v12l8-6z', phrase('A step on'), () => step(handle, 1));
  handle.rest = el(
    'button',
    { type: 'button', class: 'player-rest', onclick: () => rest(handle) },
    phrase('all of it'),
  );
  handle.faster = el('button', {
    type: 'button',
    class: 'player-rest',
    title: phrase('Steps a second'),
    onclick: () => {
      handle.speed = SPEEDS[(SPEEDS.findIndex(s => s >= handle.speed) + 1) % SPEEDS.length];
      words(handle);
      if (handle.playing) play(handle);
    },
  });
  handle.again = el('button', {
    type: 'button',
    class: 'player-rest',
    'aria-pressed': 'false',
    onclick: () => {
      handle.repeat = !handle.repeat;
      words(handle);
    },
  });
  handle.slide = el('input', {
    type: 'range',
    class: 'player-slide',
    min: 0,
    step: 1,
    'aria-label': phrase('Moment'),
    oninput: () => {
      pause(handle);
      show(handle, Number(handle.slide.value), true);
    },
    onchange: () => show(handle, Number(handle.slide.value)),
  });
  handle.track = el('div', { class: 'player-track' });
  handle.ends = el('div', { class: 'player-ends' });
  handle.note = el('p', { class: 'player-note' });
  body.append(
    el(
      'div',
      { class: 'player' },
      el(
        'div',
        { class: 'player-head' },
        handle.play,
        handle.back,
        handle.on,
        handle.now,
        handle.rest,
        handle.faster,
        handle.again,
      ),
      handle.track,
      handle.ends,
      handle.note,
    ),
  );
  body.addEventListener('keydown', e => {
    if (e.key === ' ' && e.target.tagName !== 'BUTTON') {
      e.preventDefault();
      handle.play.click();
    } else if (e.key === 'Escape' && handle.at !== null) rest(handle);
  });
  return handle;
}

const PLAY = 'M5 3l12 7-12 7z';
const PAUSE = 'M5 3h4v14H5zM11 3h4v14h-4z';

/** The text of a moment, as an address has it. */
function textOf({ drawing }, at) {
  const { steps, mode, window } = drawing;
  if (mode === 'UP_TO') return `..${steps[at]}`;
  if (mode === 'WINDOW' && window > 1) return `${steps[Math.max(0, at - window + 1)]}..${steps[at]}`;
  return steps[at];
}

export function draw(handle, drawing) {
  const same =
    handle.drawing?.steps.join() === drawing.steps.join() && handle.drawing.spread.join() === drawing.spread.join();
  handle.drawing = drawing;
  handle.speed ??= drawing.speed;
  handle.repeat ??= drawing.repeat;
  const last = drawing.steps.length - 1;
  handle.slide.max = Math.max(0, last);
  handle.slide.disabled = last < 1;
  for (const button of [handle.play, handle.back, handle.on]) button.disabled = last < 1;
  if (!same) spread(handle);
  handle.ends.replaceChildren(
    ...(last > 0 ? [el('span', {}, drawing.labels[0]), el('span', {}, drawing.labels[last])] : []),
  );
  handle.note.textContent = drawing.note;
  light(handle);
}

function spread(handle) {
  const { spread: shares } = handle.drawing;
  // More bars than pixels say no more than their greatest.
  const bars = Math.min(shares.length, 300);
  const each = shares.length / Math.max(1, bars);
  handle.bars = Array.from({ length: bars }, (_, i) => {
    const of = shares.slice(Math.floor(i * each), Math.max(Math.floor(i * each) + 1, Math.floor((i + 1) * each)));
    const most = Math.max(...of);
    const high = most < 0 ? 2 : Math.max(1, (most * HIGH) / 100);
    const bar = el('rect', {
      x: (i * WIDE) / bars,
      y: HIGH - high,
      width: Math.max(0.6, WIDE / bars - 1),
      height: high,
    });
    bar.classList.toggle('is-none', most < 0);
    return bar;
  });
  handle.track.replaceChildren(
    el('svg', { viewBox: `0 0 ${WIDE} ${HIGH}`, preserveAspectRatio: 'none', 'aria-hidden': 'true' }, ...handle.bars),
    handle.slide,
  );
}

/** Follows what the state has. */
export function light(handle) {
  if (!handle.drawing) return;
  const text = handle.emit({ type: 'said', part: 'm' });
  const steps = handle.drawing.steps;
  const found = text ? steps.indexOf(text.split('..').at(-1)) : -1;
  if (!handle.playing) handle.at = found < 0 ? null : found;
  words(handle);
}

function words(handle) {
  const { drawing, at } = handle;
  const { labels, mode, window } = drawing;
  const label =
    at === null
      ? null
      : mode === 'UP_TO'
        ? phrase('up to {0}', labels[at])
        : mode === 'WINDOW' && window > 1
          ? phrase('{0} to {1}', labels[Math.max(0, at - window + 1)], labels[at])
          : labels[at];
  const none = at !== null && drawing.spread[at] < 0 ? ` ${phrase('(the data have nothing of it)')}` : '';
  handle.now.textContent =
    label === null ? phrase('Everything is shown') : drawing.words.replace('{moment}', label) + none;
  handle.slide.value = at ?? drawing.steps.length - 1;
  handle.slide.setAttribute('aria-valuetext', handle.now.textContent);
  handle.rest.hidden = at === null;
  handle.faster.textContent = phrase('{0} a second', handle.speed);
  handle.again.textContent = handle.repeat ? phrase('again and again') : phrase('once');
  handle.again.setAttribute('aria-pressed', String(Boolean(handle.repeat)));
  const each = drawing.steps.length / Math.max(1, handle.bars?.length ?? 1);
  const from = at === null ? 0 : mode === 'UP_TO' ? 0 : mode === 'WINDOW' ? Math.max(0, at - window + 1) : at;
  handle.bars?.forEach((bar, i) => {
    const [first, past] = [Math.floor(i * each), Math.max(Math.floor(i * each) + 1, Math.floor((i + 1) * each))];
    bar.classList.toggle('is-out', at !== null && (past <= from || first > at));
  });
  handle.play.querySelector('path').setAttribute('d', handle.playing ? PAUSE : PLAY);
  handle.play.setAttribute('aria-label', handle.playing ? phrase('Pause') : phrase('Play'));
  handle.play.title = handle.playing ? phrase('Pause') : phrase('Play');
}

/** Shows a moment. @returns {Promise<void>} settles when it is drawn */
function show(handle, at, passing = false) {
  handle.at = at;
  words(handle);
  return handle.emit({ type: 'moment', text: at === null ? null : textOf(handle, at), passing });
}

function step(handle, by) {
  pause(handle);
  const last = handle.drawing.steps.length - 1;
  const next = handle.at === null ? (by > 0 ? 0 : last) : handle.at + by;
  if (next >= 0 && next <= last) show(handle, next);
}

function rest(handle) {
  pause(handle);
  show(handle, null);
}

function pause(handle) {
  if (!handle.playing) return;
  handle.playing = false;
  clearTimeout(handle.timer);
  words(handle);
}

function play(handle) {
  clearTimeout(handle.timer);
  handle.playing = true;
  const last = handle.drawing.steps.length - 1;
  if (handle.at === null || handle.at >= last) handle.at = -1;
  words({ ...handle, at: handle.at < 0 ? 0 : handle.at });
  const tick = async () => {
    if (!handle.playing || !handle.slide.isConnected) return;
    const began = performance.now();
    if (handle.at >= last) {
      if (!handle.repeat) return pause(handle);
      handle.at = -1;
    }
    const next = handle.at + 1;
    const ahead = [];
    for (let n = next + 1; n <= Math.min(last, next + AHEAD); n++) ahead.push(textOf(handle, n));
    handle.emit({ type: 'ahead', texts: ahead });
    await show(handle, next, true);
    if (handle.playing) handle.timer = setTimeout(tick, Math.max(0, 1000 / handle.speed - (performance.now() - began)));
  };
  tick();
}

export function unmount(handle) {
  handle.playing = false;
  clearTimeout(handle.timer);
}

export function figures({ labels, spread, step }) {
  return {
    head: [step, phrase('rows, in hundredths of the most')],
    rows: labels.map((label, i) => ({ key: null, cells: [label, spread[i] < 0 ? '–' : String(spread[i])] })),
  };
}

export function mini({ spread }) {
  const bars = spread.filter((_, i) => i % Math.ceil(spread.length / 40) === 0);
  return el(
    'svg',
    { viewBox: '0 0 206 112' },
    ...bars.map((share, i) =>
      el('rect', {
        x: 14 + (i * 178) / bars.length,
        y: 84 - Math.max(1, (Math.max(0, share) * 56) / 100),
        width: 178 / bars.length - 1,
        height: Math.max(1, (Math.max(0, share) * 56) / 100),
        fill: 'var(--bar)',
      }),
    ),
    el('line', { x1: 14, x2: 192, y1: 92, y2: 92, stroke: 'var(--loch)', 'stroke-width': 2 }),
  );
}
