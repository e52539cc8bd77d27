import './head.js';
import { el, refuse } from './elements.js';
import { ask } from './http.js';
import { PlacingMap } from './map/placing-map.js';

const id = document.body.dataset.bring;
const by = name => document.getElementById(name);
const refusal = by('refusal');
const map = new PlacingMap(by('placing-map'));
const number = value => value.toLocaleString('en');
let asked = 0;

function placing() {
  const way = by('way').value;
  by('by-name').hidden = way !== 'name';
  by('by-tie').hidden = way !== 'tie';
  by('by-column').hidden = way !== 'words' && way !== 'code';
  by('by-coordinates').hidden = way !== 'coordinates';
  if (way === 'none') return null;
  if (way === 'tie') {
    const target = by('tie-target').selectedOptions[0];
    return { type: 'tie', column: by('tie-column').value, dataset: Number(target.dataset.dataset), equals: target.dataset.column };
  }
  if (way === 'words' || way === 'code') return { type: way, column: by('column').value };
  if (way === 'coordinates') return { type: 'coordinates', lat: by('lat').value, lon: by('lon').value || null };
  const column = name => by(name).value || null;
  return { type: 'name', town: column('town'), province: column('province'), country: column('country') };
}
const isEmpty = p => !p || (p.type === 'name' && !p.town && !p.province && !p.country);

async function place() {
  const recipe = placing();
  const turn = ++asked;
  refuse(refusal, '');
  if (isEmpty(recipe)) {
    by('counts').replaceChildren(el('span', { class: 'text-faint' }, recipe ? 'Choose a column that tells where a row is.' : 'The rows are kept without a place.'));
    by('doubts').replaceChildren();
    map.show([]);
    return;
  }
  try {
    const found = await ask('POST', `/api/bring/${id}/placing`, { body: recipe });
    if (turn !== asked) return;
    const count = (kind, value, words) => el('span', { class: kind }, el('b', {}, number(value)), words);
    by('counts').replaceChildren(count('good', found.placed, 'rows placed'), count('watch', found.doubtful, 'doubtful'), count('bad', found.unplaced, 'unplaced'));
    by('doubts').replaceChildren(...(found.doubts.length ? [doubts(found)] : []));
    map.show(found.points);
  } catch (refused) {
    if (turn === asked) refuse(refusal, refused.message);
  }
}

function doubts(found) {
  const line = d => el('li', {}, el('b', {}, d.words), ' ',
    el('span', { class: 'text-faint' }, `${number(d.rows)} ${d.rows === 1 ? 'row' : 'rows'}, ${d.taken ? `taken as ${d.taken}` : 'unplaced'}`), el('br'),
    d.reason + (d.runnersUp.length ? ` It might also be ${d.runnersUp.slice(0, 2).join(' or ')}.` : ''));
  return el('ul', { class: 'doubts max-h-[230px]' }, ...found.doubts.map(line), found.moreDoubts ? el('li', {}, `and ${number(found.moreDoubts)} more`) : null);
}

async function retype({ target }) {
  const types = {};
  for (const choice of document.querySelectorAll('.type-choice')) {
    if (choice === target || choice.dataset.set === 'true') types[choice.dataset.column] = choice.value;
  }
  try {
    await ask('POST', `/api/bring/${id}/types`, { body: types });
    location.reload();
  } catch (refused) {
    refuse(refusal, refused.message);
  }
}

async function keep() {
  const recipe = placing();
  by('keep').disabled = true;
  by('keep').textContent = 'Keeping the rows';
  try {
    const kept = await ask('POST', `/api/bring/${id}/keep`, { body: { name: by('name').value, placing: isEmpty(recipe) ? null : recipe } });
    location.assign(kept.address);
  } catch (refused) {
    refuse(refusal, refused.message);
    by('keep').disabled = false;
    by('keep').textContent = 'Keep this dataset';
  }
}

by('placing').addEventListener('change', place);
by('columns').addEventListener('change', retype);
by('keep').addEventListener('click', keep);
place();
