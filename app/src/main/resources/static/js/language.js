/**
 * What is said to readers, in the language of the page. The English sentence stands where it is said and is the key
 * under which the page brings what the others call it; a text before a bar tells alike ones apart and is not said.
 */

/** The language of the page, such as 'es' (BCP 47). */
export const LANGUAGE = document.documentElement.lang || 'en';

const brought = document.getElementById('sentences');
const sentences = brought ? JSON.parse(brought.textContent) : {};
const forms = new Intl.PluralRules(LANGUAGE);

/** What of an address asks for a language; it stays there, for whoever the address is given to. */
export const languageAsked = () => {
  const language = new URLSearchParams(location.search).get('language');
  return language && `language=${language}`;
};

/** A whole number with thousands apart. */
export const count = number => number.toLocaleString(LANGUAGE);

const written = what => (typeof what === 'number' ? count(what) : String(what));

/** What of some cases, such as `one {# row} other {# rows}`, is said. */
function chosen(cases, form, exact) {
  let other = '';
  for (const [, name, words] of cases.matchAll(/(=?[\w-]+)\s*\{((?:[^{}]|\{[^{}]*\})*)\}/g)) {
    if (name === exact || name === form) return words;
    if (name === 'other') other = words;
  }
  return other;
}

/**
 * A sentence with what is put in: `{0}`, and of ICU's message syntax `{0, plural, one {# row} other {# rows}}` and
 * `{1, select, …}`.
 * @param {string} text @param {(string|number)[]} put texts as they are, numbers as the language writes them
 */
export function filled(text, put) {
  const cases = /\{(\d+),\s*(plural|select),((?:[^{}]|\{(?:[^{}]|\{[^{}]*\})*\})*)\}/g;
  return text
    .replace(cases, (_, at, kind, rest) => {
      const of = put[at];
      if (kind === 'select') return chosen(rest, String(of), null);
      return chosen(rest, forms.select(of), `=${of}`).replaceAll('#', written(of));
    })
    .replace(/\{(\d+)\}/g, (_, at) => written(put[at]));
}

/** A sentence in the language of the page. @param {string} sentence in English */
export const phrase = (sentence, ...put) => filled(sentences[sentence] ?? sentence.replace(/^[^|{]*\|/, ''), put);

/** Texts one after the other, the last after "and". @param {string[]} texts */
export const all = texts => list(texts, '{0} and {1}');

/** Texts one after the other, the last after "or". @param {string[]} texts */
export const any = texts => list(texts, '{0} or {1}');

const list = (texts, last) =>
  texts.length < 2 ? (texts[0] ?? '') : phrase(last, texts.slice(0, -1).join(', '), texts.at(-1));
