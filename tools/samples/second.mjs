// Writes spreadsheets, and reads spreadsheets and Parquet files, with other makers' libraries (see make.py).
//   node second.mjs write ROWS.json FILE KIND | read FILE | parquet FILE
import { createRequire } from 'node:module';
import { readFileSync, writeFileSync } from 'node:fs';

const require = createRequire((process.env.SAMPLES_MODULES ?? import.meta.dirname + '/node_modules') + '/');
const [what, file, to, kind] = process.argv.slice(2);

/** A day or a moment as it is written, without a zone. */
const moment = date => date.toISOString().slice(0, 19).replace(/T00:00:00$/, '');

if (what === 'parquet') {
  const { asyncBufferFromFile, parquetReadObjects } = await import(require.resolve('hyparquet').replace(/hyparquet\.js$/, 'node.js'));
  const { decompress } = require('fzstd');
  const rows = await parquetReadObjects({ file: await asyncBufferFromFile(file), compressors: { ZSTD: (packed, size) => decompress(packed, new Uint8Array(size)) } });
  const flat = row => Object.fromEntries(Object.entries(row).flatMap(([name, value]) => name === 'at' ? ['street', 'floor'].map(n => [`at.${n}`, value?.[n] ?? null]) : [[name, value ?? null]]));
  console.log(JSON.stringify(rows.map(flat), (key, value) => typeof value === 'bigint' ? Number(value) : value));
} else {
  const sheets = require('xlsx');
  if (what === 'write') {
    const [names, ...rows] = JSON.parse(readFileSync(file));
    const dated = rows.map(row => row.map((value, column) => value !== null && (names[column] === 'opened' || names[column] === 'seen') ? new Date(value.length > 10 ? `${value}Z` : value) : value));
    const sheet = sheets.utils.aoa_to_sheet([names, ...dated], { UTC: true, cellDates: kind !== 'biff8' });
    // The library writes days of the machine's own zone, which has to be UTC.
    for (const cell of Object.values(sheet)) if (cell?.t === 'd') cell.z = cell.v.getTime() % 86_400_000 ? 'yyyy-mm-dd hh:mm:ss' : 'yyyy-mm-dd';
    const book = sheets.utils.book_new();
    sheets.utils.book_append_sheet(book, sheet, 'Rows');
    writeFileSync(to, sheets.write(book, { type: 'buffer', bookType: kind }));
    console.log('null');
  } else {
    const book = sheets.read(readFileSync(file), { cellDates: true, UTC: true });
    const rows = sheets.utils.sheet_to_json(book.Sheets[book.SheetNames[0]], { defval: null, raw: true, UTC: true });
    console.log(JSON.stringify(rows.map(row => Object.fromEntries(Object.entries(row).map(([name, value]) => [name, value instanceof Date ? moment(new Date(Math.round(value.getTime() / 1000) * 1000)) : value])))));
  }
}
