import { el, say } from './elements.js';
import { pictureOf } from './picture-of.js';
import { closePopup, openPopup } from './popup.js';
import { phrase } from './language.js';

/** Pixels of a picture for each pixel of the screen. */
const RATIO = 2;
/** What of a visual is for the page only. */
const ONLY_ON_SCREEN =
  '.visual-signs, .tip, input, .line-opener, .table-foot button, .details-turn button, .visual-wanting';

/** Gives a file to the browser to be kept. */
export function save(blob, name) {
  const link = el('a', { href: URL.createObjectURL(blob), download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

/** A name for a file made of a title. */
export const fileName = (title, ending) =>
  `${
    title
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase() || 'sarnik'
  }.${ending}`;

/** What is missing is left empty. */
const there = cell => (cell === '–' ? '' : cell);

/** What begins like a formula is marked as text, so that no spreadsheet works it out. */
const harmless = cell => (/^[=+@\t\r-]/.test(cell) && !/^[+-]?[\d.]+(e[+-]\d+)?%?$/.test(cell) ? `'${cell}` : cell);

const quoted = cell => (/[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);

/** Figures as CSV (RFC 4180), of a drawing for files. @param {{head: string[], rows: {cells: string[]}[]}} figures */
export const csvOf = ({ head, rows }) =>
  [head, ...rows.map(r => r.cells)]
    .map(cells => cells.map(c => quoted(harmless(there(String(c ?? ''))))).join(','))
    .join('\r\n') + '\r\n';

/** Gives figures to the browser to be kept, in a file that spreadsheets take for UTF-8. */
export function saveCsv(figures, title) {
  save(new Blob(['\ufeff', csvOf(figures)], { type: 'text/csv;charset=utf-8' }), fileName(title, 'csv'));
}

/**
 * Takes a visual along.
 * @param {'csv'|'svg'|'png'} form
 * @param {{box: HTMLElement, drawing: Object, kind: Object}} mounted
 * @param {() => Promise<Object>} forFile its drawing for files, with all that is not in sight
 */
export async function take(form, mounted, forFile) {
  const title = mounted.drawing.title || 'sarnik';
  if (form === 'csv') {
    const drawing = await forFile();
    saveCsv(mounted.kind.figures(drawing, true), title);
    const given = drawing.rows?.length ?? drawing.lines?.length;
    if (drawing.page && given < drawing.all)
      say(phrase('The file holds the first {0} of {1}. Narrow for the rest.', given, drawing.all));
    return;
  }
  const { svg, width, height } = await pictureOf(mounted.box, ONLY_ON_SCREEN, foot());
  const text = new XMLSerializer().serializeToString(svg);
  const blob = new Blob([text], { type: 'image/svg+xml' });
  save(form === 'svg' ? blob : await raster(blob, width, height), fileName(title, form));
}

/** The line below a picture: what is chosen, where nothing on the picture says it. */
function foot() {
  const showing = [...document.querySelectorAll('#showing b')].map(b => b.textContent).join(' · ');
  return showing ? phrase('Showing {0}', showing) : '';
}

async function raster(blob, width, height) {
  const image = new Image();
  image.src = URL.createObjectURL(blob);
  try {
    await image.decode();
    const canvas = Object.assign(document.createElement('canvas'), { width: width * RATIO, height: height * RATIO });
    canvas.getContext('2d').drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise(done => {
      canvas.toBlob(done, 'image/png');
    });
  } finally {
    URL.revokeObjectURL(image.src);
  }
}

/** What may not be taken along cannot be copied or printed either. @param {{takes: Object}} opened */
export function keepBack({ takes }) {
  document.body.classList.toggle('keeps-rows', !takes.rows);
  document.body.classList.toggle('keeps-prints', !takes.prints);
}

document.addEventListener('copy', e => {
  const typed = e.target.closest?.('input, textarea');
  if (!document.body.classList.contains('keeps-rows') || typed) return;
  e.preventDefault();
  say(phrase('Whoever made this dashboard lets no figures be copied.'));
});

/**
 * Offers the forms in which a visual can be taken along.
 * @param {{rows: boolean, pictures: boolean}} takes
 * @param {(form: string) => Promise<void>} run
 */
export function offerTake(opener, takes, run) {
  const option = (form, words, hint) =>
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option',
        onclick: () => {
          closePopup(true);
          run(form).catch(refused => say(refused.message));
        },
      },
      words,
      el('span', { class: 'hint' }, hint),
    );
  openPopup(opener, [
    el(
      'div',
      { class: 'popup-list' },
      takes.rows && option('csv', phrase('The figures'), 'CSV'),
      takes.pictures && option('png', phrase('A picture'), 'PNG'),
      takes.pictures && option('svg', phrase('A drawing'), 'SVG'),
      takes.rows && option('rows.csv', phrase('The rows'), 'CSV'),
      takes.rows && option('rows.xlsx', phrase('The rows'), 'XLSX'),
      takes.rows && option('rows.geojson', phrase('The rows with their places'), 'GeoJSON'),
      takes.rows && option('rows.gpkg', phrase('The rows with their places'), 'GeoPackage'),
      takes.rows && option('rows.parquet', phrase('The rows with their places'), 'Parquet'),
    ),
  ]);
}
