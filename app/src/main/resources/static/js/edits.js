import { say } from './elements.js';
import { ask, renewToken } from './http.js';

/** The value at a JSON pointer (RFC 6901), undefined where there is none. */
export function valueAt(document, pointer) {
  return pointer
    .split('/')
    .slice(1)
    .map(s => s.replaceAll('~1', '/').replaceAll('~0', '~'))
    .reduce((v, key) => v?.[key], document);
}

const same = (a, b) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
const never = () => false;

/**
 * Sends the edits of one author, one after the other. When somebody else has gone on meanwhile, an edit that touches
 * nothing of theirs is put on top of the newer revision; one that does is not made, and the author is told and asked.
 * What could not be sent, since the author was signed out or the server away, waits until they say so.
 */
export class Edits {
  #queue = Promise.resolve();
  #waiting = [];

  /**
   * @param {import('./sheet.js').Sheet} sheet @param {(opened: Object) => void} taken called with every new revision
   */
  constructor(sheet, taken) {
    this.sheet = sheet;
    this.taken = taken;
  }

  /** @param {Object[]} patch JSON Patch operations */
  edit(patch) {
    const send = opened =>
      ask('PATCH', `/api/dashboards/${opened.id}`, {
        body: patch,
        type: 'application/json-patch+json',
        headers: { 'If-Match': `"${opened.revision}"` },
      });
    return this.#send(send, (before, now) => patch.some(op => !same(valueAt(before, op.path), valueAt(now, op.path))));
  }

  /** @param {'undo'|'redo'} name */
  step(name) {
    return this.#send(
      opened =>
        ask('POST', `/api/dashboards/${opened.id}/${name}`, { headers: { 'If-Match': `"${opened.revision}"` } }),
      never,
    );
  }

  #send(step, clashes) {
    this.#queue = this.#queue.then(() => this.#try(step, clashes)).catch(refused => say(refused.message));
    return this.#queue;
  }

  #wait(refused, again) {
    this.#waiting.push(again);
    const run = async () => {
      const all = this.#waiting.splice(0);
      await renewToken();
      await Promise.all(all.map(one => one()));
    };
    const words = this.#waiting.length === 1 ? 'Make my change now' : `Make my ${this.#waiting.length} changes now`;
    say(`${refused.message} Until then your change waits on this page.`, { words, run }, 3600);
  }

  async #try(step, clashes) {
    const before = this.sheet.opened;
    try {
      this.taken(await step(before));
    } catch (refused) {
      if (refused.status === 401 || refused.status === 0) {
        this.#wait(refused, () => this.#send(step, clashes));
        return;
      }
      this.taken(await ask('GET', `/api/dashboards/${this.sheet.id}`));
      if (refused.status !== 412) {
        say(refused.message);
      } else if (clashes(before.document, this.sheet.opened.document)) {
        say(
          `${refused.message} Your own change to the same thing was not made, so that nothing of theirs is lost.`,
          { words: 'Make it all the same', run: () => this.#send(step, never) },
          20,
        );
      } else {
        say(`${refused.message} Your change is put on top.`);
        await this.#try(step, never);
      }
    }
  }
}
