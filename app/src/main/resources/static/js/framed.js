import { wearMood } from './head.js';
import { readAddress, writeAddress } from './state.js';

/**
 * A published page within a page of another site: what of it is shown, how high it is, and what both tell each other.
 */
const PARTS = ['title', 'strip', 'controls'];

/** What the address says about the frame: `#framed.no-title.night`; null where the page stands by itself. */
export function framing(hash = location.hash) {
  const [framed, ...words] = hash.slice(1).split('.');
  return framed === 'framed' ? new Set(words) : null;
}

const tell = message => parent.postMessage({ from: 'sarnik', ...message }, '*');

/** @param {import('./sheet.js').Sheet} sheet @param {Set<string>} words what the address says about the frame */
export function stand(sheet, words) {
  document.body.classList.add('is-framed');
  for (const part of PARTS) document.body.classList.toggle(`no-${part}`, words.has(`no-${part}`));
  document.body.classList.toggle('slid', words.has('slid'));
  for (const mood of ['day', 'night']) if (words.has(mood)) wearMood(mood);
  if (parent === window) return;

  const main = document.querySelector('main');
  let height = 0;
  const measure = () => {
    // A page that fills its window is as high as its frame, whatever that is.
    if (sheet.opened?.document.pages[sheet.page].size?.fit === 'WINDOW') return;
    const now = Math.ceil(main.getBoundingClientRect().height);
    // A pixel less is left as it is, so that two sizes never take turns; a pixel more would be cut off.
    if (now <= height && now > height - 2) return;
    height = now;
    tell({ type: 'height', height });
  };
  new ResizeObserver(measure).observe(main);

  let chosen = null;
  sheet.place.addEventListener('drawn', () => {
    measure();
    const state = writeAddress(sheet.state);
    if (state === chosen) return;
    const first = chosen === null;
    chosen = state;
    if (first) return tell({ type: 'ready', state });
    const picked = Object.fromEntries(
      [...sheet.visuals]
        .map(([id, { drawing }]) => [drawing?.title || id, sheet.pickedOn(id)])
        .filter(([, v]) => v.length),
    );
    tell({ type: 'chosen', state, picked });
  });
  addEventListener('message', ({ source, data }) => {
    // Who may show this page in a frame is named in its policy; nobody else is the parent.
    if (source !== parent || data?.to !== 'sarnik') return;
    if (data.type === 'tell') {
      height = 0;
      measure();
    }
    if (data.type === 'choose' && typeof data.state === 'string') sheet.went(readAddress(`?${data.state}`), null);
    if (data.type === 'mood' && words.has('page') && ['day', 'night'].includes(data.mood)) wearMood(data.mood);
  });
}
