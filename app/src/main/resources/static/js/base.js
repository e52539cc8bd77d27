/** Where this page asks for what it shows: below a dashboard, an edition, or a link by which it is borne. */
export const BASE = document.body.dataset.base ?? '/api';

/** The address of the page itself, whose reader is somebody who is signed in, or whoever bears a link. */
export const PAGE_ADDRESS = BASE.replace(/^\/api/, '').replace(/~.*/, '');

/** Under which name this page keeps that the password of its link was typed. */
export const PASS_NAME = `sarnik.pass.${PAGE_ADDRESS}`;

/** Whether a link shows it to whoever bears it. */
export const isBorne = BASE.startsWith('/api/shown/');

/** @param {string} what such as 'frames' */
export const addressOf = what => `${BASE}/${what}`;

/** A JSON file that ships with the program. @param {string} name such as 'ground/world' */
export const shipped = name =>
  globalThis.sarnikCarried?.asset(name) ?? fetch(`/${name}.json`).then(answer => answer.json());

/** A picture that ships with the program. @param {string} file such as 'ground/relief.jpg' @returns {Promise<Blob>} */
export async function shippedPicture(file) {
  const address = globalThis.sarnikCarried
    ? await globalThis.sarnikCarried.asset(file.replace(/\.\w+$/, ''))
    : `/${file}`;
  return (await fetch(address)).blob();
}

/**
 * An address of what all dashboards have in common, such as shapes of areas; whoever bears a link is answered below the
 * link only.
 * @param {string} what such as 'places'
 */
export const commonAddress = what => (isBorne ? `${BASE}/${what}` : `/api/${what}`);
