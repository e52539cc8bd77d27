import { el, say } from './elements.js';
import { wearMood } from './head.js';
import { drawingOf, KEY } from './map/take-along.js';
import { pagesOf } from './pages.js';
import { closePopup, openPopup } from './popup.js';
import { settled } from './settled.js';
import { LANGUAGE, phrase } from './language.js';

/** Pages of a dashboard on paper: each on a sheet of its own, with its title, what is shown, credits and the day. */

/** Width and height in millimetres, upright. */
const PAPERS = { A4: [210, 297], A3: [297, 420], letter: [215.9, 279.4] };
const MARGIN = 10;
const DOT = 25.4 / 96;
/** What a drawn map has above and below it, for its title and its credits. */
const AROUND = 50;
/** What of a page is for the screen only. */
const ON_SCREEN = '.visual-signs, .map-buttons, .tip, .ol-control, .map-reach, .sr-only';

/** What an address asks to have on paper: `#print.A3.upright.all`; null for nothing. */
export function printOf(hash = location.hash) {
  const [print, ...words] = hash.slice(1).split('.');
  if (print !== 'print') return null;
  return {
    paper: Object.keys(PAPERS).find(p => words.includes(p)) ?? 'A4',
    upright: words.includes('upright'),
    all: words.includes('all'),
  };
}

async function turnTo(sheet, page) {
  if (sheet.page !== page) {
    const drawn = new Promise(done => sheet.place.addEventListener('drawn', done, { once: true }));
    sheet.goTo(page, true);
    await drawn;
  }
  await settled(sheet);
}

/** A page as it stands, with pictures where canvases were; maps are drawn anew as lines and shapes. */
async function still(sheet) {
  const copy = sheet.place.cloneNode(true);
  copy.removeAttribute('id');
  const from = [...sheet.place.querySelectorAll('canvas')];
  [...copy.querySelectorAll('canvas')].forEach((canvas, i) => {
    const picture = el('img', { src: from[i].toDataURL(), alt: '' });
    picture.className = canvas.className;
    picture.style.cssText = canvas.style.cssText;
    canvas.replaceWith(picture);
  });
  for (const [id, { handle, type }] of sheet.visuals) {
    if (type !== 'map') continue;
    const body = copy.querySelector(`[data-visual="${CSS.escape(id)}"] .visual-body`);
    try {
      const box = sheet.visuals.get(id).body;
      const size = [Math.max(200, box.clientWidth - KEY), Math.max(120, box.clientHeight - AROUND)];
      const drawing = await drawingOf(handle, size);
      const picture = el('img', { src: URL.createObjectURL(drawing), class: 'print-map', alt: '' });
      await picture.decode();
      body.replaceChildren(picture);
    } catch {
      /* as it was painted on the screen */
    }
  }
  copy.querySelectorAll(ON_SCREEN).forEach(part => part.remove());
  return copy;
}

/**
 * Sets pages for paper.
 * @param {import('./sheet.js').Sheet} sheet
 * @param {{paper: string, upright: boolean, all: boolean}} wanted
 */
async function set(sheet, { paper, upright, all }) {
  const [short, long] = PAPERS[paper];
  const [width, height] = upright ? [short, long] : [long, short];
  const before = sheet.page;
  const { document: dashboard } = sheet.opened;
  const pages = all ? pagesOf(dashboard).filter(page => !dashboard.pages[page].hidden) : [before];
  const container = el('div', { class: 'print-pages' });
  const day = new Date().toLocaleDateString(LANGUAGE === 'en' ? 'en-GB' : LANGUAGE, {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  });
  const credits = [...document.querySelectorAll('.told p')].map(p => p.textContent.trim()).join(' · ');
  for (const page of pages) {
    await turnTo(sheet, page);
    const showing = document.querySelector('#showing .showing-parts')?.textContent.trim() ?? '';
    const name = pages.length > 1 || pagesOf(dashboard).length > 1 ? dashboard.pages[page].title : '';
    const one = el(
      'section',
      { class: 'print-page' },
      el('h1', { class: 'sheet-title' }, dashboard.title, name ? el('span', { class: 'print-of' }, ` ${name}`) : ''),
      el('p', { class: 'print-showing' }, showing, ' ', document.getElementById('kept-back')?.textContent ?? ''),
      await still(sheet),
      el('p', { class: 'print-foot' }, [credits, day].filter(Boolean).join(' · ')),
    );
    one.style.width = `${document.querySelector('main').clientWidth}px`;
    container.append(one);
  }
  document.body.append(container);
  document.body.classList.add('is-printing');
  for (const one of container.children) {
    const fit = Math.min(
      (width - 2 * MARGIN) / DOT / one.offsetWidth,
      (height - 2 * MARGIN) / DOT / (one.offsetHeight + 2),
    );
    one.style.zoom = String(Math.min(1.6, fit));
  }
  const rule = new CSSStyleSheet();
  rule.replaceSync(`@page { size: ${width}mm ${height}mm; margin: ${MARGIN}mm; }`);
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, rule];
  await turnTo(sheet, before);
  return () => {
    container.remove();
    document.body.classList.remove('is-printing');
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter(s => s !== rule);
  };
}

async function byDay(run) {
  const { mood } = document.documentElement.dataset;
  wearMood('day');
  try {
    return await run();
  } finally {
    wearMood(mood);
  }
}

/** Sets what an address asks to have on paper, for a program that prints it. */
export async function printedAsAsked(sheet, wanted) {
  await byDay(() => set(sheet, wanted));
  document.body.dataset.printed = 'true';
}

/** Offers pages on paper. @param {HTMLElement} opener */
export function offerPrint(sheet, opener) {
  const paper = el(
    'select',
    { class: 'entry', 'aria-label': phrase('Paper') },
    ...Object.keys(PAPERS).map(p => el('option', {}, p)),
  );
  const way = el(
    'select',
    { class: 'entry', 'aria-label': phrase('Way of the paper') },
    el('option', { value: '' }, phrase('lying')),
    el('option', { value: 'upright' }, phrase('upright')),
  );
  const which = el(
    'select',
    { class: 'entry', 'aria-label': phrase('Pages') },
    el('option', { value: '' }, phrase('this page')),
    el('option', { value: 'all' }, phrase('all pages')),
  );
  const several = pagesOf(sheet.opened.document).length > 1;
  openPopup(opener, [
    el('p', { class: 'popup-words' }, phrase('On paper, or kept as a PDF by the dialog that follows')),
    paper,
    way,
    several ? which : '',
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option text-loch',
        onclick: async () => {
          closePopup(true);
          try {
            await byDay(async () => {
              const back = await set(sheet, {
                paper: paper.value,
                upright: way.value === 'upright',
                all: which.value === 'all',
              });
              addEventListener('afterprint', back, { once: true });
              print();
            });
          } catch (failed) {
            say(failed.message);
          }
        },
      },
      phrase('Print'),
    ),
  ]);
}
