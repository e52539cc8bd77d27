/**
 * A part of the page as an SVG picture that stands on its own: its text as text in the fonts that ship with Sarnik, its
 * drawings as they are, its frames and grounds as rectangles.
 */

const NS = 'http://www.w3.org/2000/svg';
const FONTS = [
  ['Bricolage Grotesque', '/fonts/bricolage-grotesque.woff2', '200 800'],
  ['Hanken Grotesk', '/fonts/hanken-grotesk-latin.woff2', '100 900'],
];
/** What of a computed style changes how a drawing looks. */
const LOOKS = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linejoin',
  'stroke-linecap',
  'stroke-opacity',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'paint-order',
  'visibility',
  'display',
  'vector-effect',
];
const SIDES = ['Top', 'Right', 'Bottom', 'Left'];

const made = (tag, attributes = {}) => {
  const node = document.createElementNS(NS, tag);
  for (const [name, value] of Object.entries(attributes)) node.setAttribute(name, value);
  return node;
};

let fonts = null;

/** The fonts as style rules that hold them whole. */
function fontRules() {
  fonts ??= Promise.all(
    FONTS.map(async ([family, address, weights]) => {
      const bytes = new Uint8Array(await (await fetch(address)).arrayBuffer());
      let text = '';
      for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
      return `@font-face{font-family:"${family}";font-weight:${weights};src:url(data:font/woff2;base64,${btoa(text)}) format("woff2")}`;
    }),
  ).then(rules => rules.join(''));
  return fonts;
}

/**
 * @param {HTMLElement} box what is drawn
 * @param {string} leave selector of what is left out
 * @param {string} foot a line below it; empty for none
 * @returns {Promise<{svg: SVGElement, width: number, height: number}>}
 */
export async function pictureOf(box, leave, foot) {
  const frame = box.getBoundingClientRect();
  const margin = 14;
  const width = Math.ceil(frame.width) + 2 * margin;
  const height = Math.ceil(frame.height) + 2 * margin + (foot ? 14 : 0);
  const svg = made('svg', { xmlns: NS, width, height, viewBox: `0 0 ${width} ${height}` });
  const rules = made('style');
  rules.textContent = await fontRules();
  const paper = getComputedStyle(document.documentElement).getPropertyValue('--paper').trim();
  svg.append(rules, made('rect', { width, height, fill: paper }));
  const drawer = new Drawer(margin - frame.left, margin - frame.top, leave);
  drawer.element(box, svg);
  if (foot) {
    const words = made('text', {
      x: margin,
      y: height - 8,
      'font-family': 'Hanken Grotesk, sans-serif',
      'font-size': 11,
    });
    words.setAttribute('fill', getComputedStyle(document.documentElement).getPropertyValue('--faint'));
    words.textContent = foot;
    svg.append(words);
  }
  return { svg, width, height };
}

class Drawer {
  #clips = 0;

  constructor(dx, dy, leave) {
    Object.assign(this, { dx, dy, leave });
  }

  element(node, on) {
    if (node.matches(this.leave)) return;
    const style = getComputedStyle(node);
    const box = node.getBoundingClientRect();
    if (style.display === 'none' || style.visibility === 'hidden' || style.opacity === '0') return;
    if (node instanceof SVGSVGElement) return this.#drawing(node, box, on);
    if (node instanceof HTMLCanvasElement || node instanceof HTMLImageElement) return this.#raster(node, box, on);
    let into = on;
    if (style.opacity !== '1') on.append((into = made('g', { opacity: style.opacity })));
    this.#ground(style, box, into);
    const inner = style.overflowX === 'visible' ? into : this.#clipped(box, into);
    for (const child of node.childNodes) {
      if (child.nodeType === Node.TEXT_NODE) this.#text(child, style, inner);
      else if (child.nodeType === Node.ELEMENT_NODE) this.element(child, inner);
    }
  }

  #drawing(node, box, into) {
    const copy = node.cloneNode(true);
    const [from, to] = [node, copy].map(n => [n, ...n.querySelectorAll('*')]);
    from.forEach((one, i) => {
      const style = getComputedStyle(one);
      to[i].removeAttribute('class');
      to[i].removeAttribute('tabindex');
      to[i].removeAttribute('style');
      // As attributes: the policy of pages lets no style be written into markup.
      for (const look of LOOKS) to[i].setAttribute(look, style.getPropertyValue(look));
    });
    copy.setAttribute('x', box.left + this.dx);
    copy.setAttribute('y', box.top + this.dy);
    copy.setAttribute('width', box.width);
    copy.setAttribute('height', box.height);
    into.append(copy);
  }

  #raster(node, box, into) {
    const sheet = document.createElement('canvas');
    sheet.width = Math.max(1, Math.round(box.width * 2));
    sheet.height = Math.max(1, Math.round(box.height * 2));
    sheet.getContext('2d').drawImage(node, 0, 0, sheet.width, sheet.height);
    into.append(
      made('image', {
        x: box.left + this.dx,
        y: box.top + this.dy,
        width: box.width,
        height: box.height,
        href: sheet.toDataURL('image/png'),
      }),
    );
  }

  #ground(style, box, into) {
    const [x, y] = [box.left + this.dx, box.top + this.dy];
    if (!/^(transparent|rgba\(.*, 0\))$/.test(style.backgroundColor))
      into.append(made('rect', { x, y, width: box.width, height: box.height, fill: style.backgroundColor }));
    const ends = { Top: [0, 0, 1, 0], Right: [1, 0, 1, 1], Bottom: [0, 1, 1, 1], Left: [0, 0, 0, 1] };
    for (const side of SIDES) {
      const thick = parseFloat(style[`border${side}Width`]);
      if (!thick || style[`border${side}Style`] === 'none') continue;
      const [x1, y1, x2, y2] = ends[side];
      into.append(
        made('line', {
          x1: x + x1 * box.width,
          y1: y + y1 * box.height,
          x2: x + x2 * box.width,
          y2: y + y2 * box.height,
          stroke: style[`border${side}Color`],
          'stroke-width': thick,
        }),
      );
    }
  }

  #clipped(box, into) {
    const id = `c${this.#clips++}`;
    const clip = made('clipPath', { id });
    clip.append(made('rect', { x: box.left + this.dx, y: box.top + this.dy, width: box.width, height: box.height }));
    const group = made('g', { 'clip-path': `url(#${id})` });
    into.append(clip, group);
    return group;
  }

  /** The words of a text, line by line as they stand. */
  #text(node, style, into) {
    const lines = new Map();
    const range = document.createRange();
    for (const { 0: word, index } of node.data.matchAll(/\S+\s*/g)) {
      range.setStart(node, index);
      range.setEnd(node, index + word.trimEnd().length);
      const [box] = range.getClientRects();
      if (!box?.width) continue;
      const line = lines.get(Math.round(box.top)) ?? { box, words: [] };
      line.words.push(word.trimEnd());
      lines.set(Math.round(box.top), line);
    }
    for (const { box, words } of lines.values()) {
      const size = parseFloat(style.fontSize);
      const text = made('text', {
        x: box.left + this.dx,
        y: box.top + this.dy + box.height / 2 + size * 0.34,
        'font-size': size,
        'font-family': style.fontFamily,
        'font-weight': style.fontWeight,
        'font-style': style.fontStyle,
        fill: style.color,
      });
      text.textContent = words.join(' ');
      into.append(text);
    }
  }
}
