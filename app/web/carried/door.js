// Answers what the page asks, from the files beside it and by the core in a worker. Works on any web server and from a
// disk: files come as scripts, since pages from a disk may load nothing else.
import { Refusal } from '/js/http.js';
import { phrase } from '/js/language.js';

const BELOW = '/api/shown/package';
const { sheet, own, data, spoken = { tag: 'en', sentences: [] } } = self.sarnikData;

const waitingFor = new Map();
const assets = new Map();

self.sarnikAsset = (name, content) => waitingFor.get(name)?.(content);

/** A file beside the page. */
function asset(name) {
  if (!assets.has(name))
    assets.set(
      name,
      new Promise((resolve, reject) => {
        waitingFor.set(name, resolve);
        const script = document.createElement('script');
        script.src = `${name}.js`;
        script.onerror = () =>
          reject(new Refusal(404, phrase('The file {0} is missing beside this page.', `${name}.js`)));
        document.head.append(script);
      }),
    );
  return assets.get(name);
}

// --- the worker --------------------------------------------------------------------------------

const worker = new Worker(
  URL.createObjectURL(new Blob([`(${self.sarnikCoreSource})();`], { type: 'text/javascript' })),
);
self.sarnikCoreSource = null;

/** One at a time, so that what nobody waits for any more is never worked out. */
const waiting = [];
let asked = null;

function next() {
  if (asked) return;
  asked = waiting.shift() ?? null;
  if (!asked) return;
  if (asked.signal?.aborted) {
    asked.reject(new DOMException('left', 'AbortError'));
    asked = null;
    next();
  } else worker.postMessage(asked.message);
}

worker.onmessage = ({ data: said }) => {
  const { resolve, reject, signal } = asked;
  asked = null;
  if (signal?.aborted) reject(new DOMException('left', 'AbortError'));
  else if (said.refused) reject(new Refusal(400, said.refused));
  else resolve(said.answer);
  next();
};
worker.onerror = () => {
  asked?.reject(
    new Refusal(0, phrase('The figures cannot be worked out in this browser. Open the page in a newer one.')),
  );
  asked = null;
};

const send = (message, signal) =>
  new Promise((resolve, reject) => {
    waiting.push({ message, signal, resolve, reject });
    next();
  });

const open = send({ data, spoken, day: new URLSearchParams(location.hash.slice(1)).get('day') });
open.catch(() => {});
self.sarnikData = null;

async function worked(what, body, signal) {
  await open;
  const { answer, refused } = JSON.parse(await send({ what, body: JSON.stringify(body ?? {}) }, signal));
  if (refused) throw new Refusal(400, refused);
  return answer;
}

// --- what is asked -----------------------------------------------------------------------------

async function shapes(path) {
  const [, name, band] = /^boundary-sets\/(.*)\/shapes\/(\w+)$/.exec(path);
  const number = self.sarnikShapes[decodeURIComponent(name)];
  if (!number) throw new Refusal(404, phrase('These shapes were not taken along.'));
  return asset(`shapes/${number}-${band}`);
}

self.sarnikCarried = {
  /** As `ask` of http.js. */
  async ask(method, address, { body, signal } = {}) {
    const path = address.startsWith(BELOW) ? address.slice(BELOW.length + 1) : null;
    if (path === '') return sheet;
    if (path === null || method === 'DELETE') return null;
    if (path.startsWith('boundary-sets/')) return shapes(path);
    if (own[path]) return own[path];
    if (path.startsWith('places?')) return [];
    return worked(path, body, signal);
  },
  asset,
  /** The address of a picture that a server would give out. */
  file: address => address.replace(`${BELOW}/files/`, 'files/'),
};
