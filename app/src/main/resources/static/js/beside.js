import './head.js';
import { PAGE_ADDRESS } from './base.js';
import { el } from './elements.js';
import { writeAddress } from './state.js';
import { LANGUAGE, phrase } from './language.js';
import { full } from './numbers.js';

/** A page, or one visual, twice: each narrowed by itself, with scales in common, and the difference of the figures. */
const { visual } = document.body.dataset;
const SIDES = ['left', 'right'];
const asked = new URLSearchParams(location.search);
const sheets = {};
let moving = null;

for (const side of SIDES) {
  const frame = document.getElementById(side);
  frame.addEventListener('load', () => {
    const { sarnikSheet } = frame.contentWindow;
    if (!sarnikSheet) return;
    sheets[side] = sarnikSheet;
    sarnikSheet.place.addEventListener('drawn', () => drawn(side));
  });
  const state = [asked.get(side) ?? '', 'w.page=all'].filter(Boolean).join('&');
  frame.src = `${PAGE_ADDRESS}?${state}#beside${visual ? `.${visual}` : ''}`;
}

function drawn(side) {
  const next = new URLSearchParams(location.search);
  for (const one of SIDES)
    if (sheets[one]) {
      const state = new Map([...sheets[one].state].filter(([name]) => name !== 'w.page'));
      next.set(one, writeAddress(state));
    }
  history.replaceState(null, '', `${location.pathname}?${next}`);
  differences();
  together(side);
}

/** Under each figure on the right: how much more or less it is than the one on the left. */
function differences() {
  if (!sheets.left || !sheets.right) return;
  for (const [id, mounted] of sheets.right.visuals) {
    const other = sheets.left.visuals.get(id)?.drawing;
    mounted.box.querySelector('.beside-difference')?.remove();
    const { compared } = mounted.kind;
    if (!compared || !mounted.drawing || !other) continue;
    const [was, is] = [compared(other), compared(mounted.drawing)];
    // What is no amount, such as a day, or has no figure, has no difference.
    if (!Number.isFinite(was.value) || !Number.isFinite(is.value)) continue;
    const words = difference(was.value, is.value, is.percent);
    // Made where it stands: an element belongs to one page.
    const place = mounted.box.ownerDocument.createElement('p');
    place.className = 'beside-difference';
    place.textContent = words;
    mounted.box.append(place);
  }
}

/** How much more or less a figure is than another; of those written per cent in points. */
export function difference(was, is, percent = false) {
  const by = is - was;
  if (by === 0) return phrase('the same as on the left');
  const sign = by > 0 ? '+' : '−';
  const amount = sign + full(Math.abs(percent ? 100 * by : by));
  if (percent) return phrase('{0} against the left', phrase('{0} points', amount));
  if (was === 0) return phrase('{0} against the left', amount);
  const share = Math.abs((100 * by) / was).toLocaleString(LANGUAGE, { maximumFractionDigits: 1 });
  return phrase('{0} against the left ({1} %)', amount, sign + share);
}

/** Maps that stand beside each other move together. */
function together(side) {
  const other = SIDES.find(one => one !== side);
  for (const [id, mounted] of sheets[side]?.visuals ?? []) {
    if (!mounted.kind.onMoved || mounted.joined) continue;
    mounted.joined = true;
    mounted.kind.onMoved(mounted.handle, view => {
      const twin = sheets[other]?.visuals.get(id);
      if (!twin || moving === side) return;
      moving = other;
      twin.kind.showView(twin.handle, view);
      requestAnimationFrame(() => (moving = null));
    });
  }
}

document.getElementById('one').addEventListener('click', () => {
  location.href = `${PAGE_ADDRESS}?${asked.get('left') ? writeAddress(sheets.left?.state ?? new Map()) : ''}`;
});
document.title ||= el('title', {}, phrase('Side by side')).textContent;
