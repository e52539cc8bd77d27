import './head.js';
import { say } from './elements.js';
import { Sheet } from './sheet.js';

const sheet = new Sheet(document.body.dataset.dashboard);
// One of two that stand side by side: their page looks after what they have in common.
const [beside, , only] = /^#beside(\.([a-z0-9]+))?$/.exec(location.hash) ?? [];
if (beside) {
  document.body.classList.add('is-beside-page');
  sheet.only = only;
  window.sarnikSheet = sheet;
}
sheet.load().catch(refused => say(refused.message, { words: 'Try again', run: () => location.reload() }));
