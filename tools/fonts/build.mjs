// Makes the fonts of pictures that are drawn without a browser: Java reads sfnt files (TrueType), the packages hold WOFF, which is the
// same tables compressed one by one (W3C, "WOFF File Format 1.0"). Run once: `npm ci && node build.mjs`; what it makes is kept.
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { inflateSync } from 'node:zlib';

const HEADER = 44;
const ENTRY = 20;
const out = new URL('../../core/src/main/resources/sarnik/picture/', import.meta.url).pathname;
const files = new URL('node_modules/@fontsource/', import.meta.url).pathname;

/** The sfnt file that a WOFF file was made of. */
function sfnt(woff) {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('no WOFF file');
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = HEADER + i * ENTRY;
    const [offset, packed, length] = [4, 8, 12].map(o => woff.readUInt32BE(at + o));
    const bytes = woff.subarray(offset, offset + packed);
    return { tag: woff.subarray(at, at + 4), sum: woff.readUInt32BE(at + 16), bytes: packed < length ? inflateSync(bytes) : bytes };
  });
  const power = 2 ** Math.floor(Math.log2(count));
  const head = Buffer.alloc(12 + 16 * count);
  head.writeUInt32BE(woff.readUInt32BE(4), 0);
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(power * 16, 6);
  head.writeUInt16BE(Math.log2(power), 8);
  head.writeUInt16BE(count * 16 - power * 16, 10);
  const body = [];
  let offset = head.length;
  tables.forEach(({ tag, sum, bytes }, i) => {
    tag.copy(head, 12 + 16 * i);
    [sum, offset, bytes.length].forEach((value, p) => head.writeUInt32BE(value, 16 + 16 * i + 4 * p));
    const padded = Buffer.alloc(Math.ceil(bytes.length / 4) * 4);
    bytes.copy(padded);
    body.push(padded);
    offset += padded.length;
  });
  return Buffer.concat([head, ...body]);
}

mkdirSync(out, { recursive: true });
for (const [family, set, weight, name] of [
  ['hanken-grotesk', 'latin', 400, 'text'], ['hanken-grotesk', 'latin-ext', 400, 'text-ext'],
  ['hanken-grotesk', 'latin', 600, 'text-bold'], ['hanken-grotesk', 'latin-ext', 600, 'text-bold-ext'],
  ['bricolage-grotesque', 'latin', 600, 'title'], ['bricolage-grotesque', 'latin-ext', 600, 'title-ext']]) {
  writeFileSync(`${out}${name}.ttf`, sfnt(readFileSync(`${files}${family}/files/${family}-${set}-${weight}-normal.woff`)));
}
copyFileSync(`${files}hanken-grotesk/LICENSE`, `${out}LICENSE-hanken-grotesk`);
copyFileSync(`${files}bricolage-grotesque/LICENSE`, `${out}LICENSE-bricolage-grotesque`);
