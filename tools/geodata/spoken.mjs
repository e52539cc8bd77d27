// Builds core/.../language/places_xx.properties: what countries are called in Spanish, Portuguese, French and German, where that is
// not what they are called in the packs. CLDR has names of regions as well, but too many of them are written in other ways than people
// of these languages write them. Run after gazetteer.mjs, whose packs it reads.
//   node spoken.mjs [folder of CLDR]
import { readFileSync, writeFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';

const cldr = process.argv[2] ?? '/usr/share/unicode/cldr/common';
const core = new URL('../../core/src/main/resources/sarnik/', import.meta.url).pathname;
const countries = gunzipSync(readFileSync(`${core}place/countries.tsv.gz`)).toString('utf8').split('\n').filter(Boolean).map(line => line.split('\t'));

for (const language of ['es', 'pt', 'fr', 'de']) {
  const text = readFileSync(`${cldr}/main/${language}.xml`, 'utf8');
  const names = new Map([...text.matchAll(/<territory type="([A-Z]{2})">([^<]+)</g)].map(([, code, name]) => [code, name.replaceAll('&amp;', '&')]));
  const out = countries.flatMap(([code, , , name]) => {
    const own = names.get(code);
    return own && own !== name ? [`aCountries/${code}=${own}`, `r${code}=${own}`] : [];
  });
  writeFileSync(`${core}language/places_${language}.properties`, `# Unicode CLDR 41 (Unicode licence), made by tools/geodata/spoken.mjs\n${out.sort().join('\n')}\n`);
  console.log(language, out.length);
}
