import './head.js';
import { say } from './elements.js';
import { Sheet } from './sheet.js';

const sheet = new Sheet(document.body.dataset.dashboard);
sheet.load().catch(refused => say(refused.message, { words: 'Try again', run: () => location.reload() }));
