import './head.js';
import { PASS_NAME } from './base.js';
import { say } from './elements.js';
import { framing, stand } from './framed.js';
import { keepLive } from './live.js';
import { offerPrint, printedAsAsked, printOf } from './print.js';
import { settled } from './settled.js';
import { Sheet } from './sheet.js';
import { fitted, hang, wallOf } from './wall.js';
import { phrase } from './language.js';

const { pass } = document.body.dataset;
if (pass) {
  try {
    sessionStorage.setItem(PASS_NAME, pass);
  } catch {
    /* a browser that keeps nothing asks again */
  }
}

const sheet = new Sheet(document.body.dataset.dashboard);
// One of two that stand side by side: their page looks after what they have in common.
const [beside, , only] = /^#beside(\.([a-z0-9]+))?$/.exec(location.hash) ?? [];
if (beside) {
  document.body.classList.add('is-beside-page');
  sheet.only = only;
  window.sarnikSheet = sheet;
}
const wall = wallOf();
if (wall) {
  sheet.hooks.opening = fitted;
  hang(sheet, wall);
}
const framed = framing();
if (framed) stand(sheet, framed);
const paper = printOf();
document.getElementById('on-paper')?.addEventListener('click', e => offerPrint(sheet, e.currentTarget));
const stands = sheet
  .load()
  .then(() => keepLive(sheet))
  .then(() => paper && printedAsAsked(sheet, paper));
stands.catch(refused => say(refused.message, { words: phrase('Try again'), run: () => location.reload() }));
// For a program that makes pictures of pages: settles once this one shows all it is asked to show.
window.sarnikStands = () => stands.then(() => settled(sheet));
