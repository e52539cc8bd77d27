import './head.js';
import { el, refuse, say } from './elements.js';
import { FormulaEditor } from './formula-editor.js';
import { ask } from './http.js';

const id = document.body.dataset.dataset;
const by = name => document.getElementById(name);
let revision = Number(document.body.dataset.revision);
const kept = JSON.parse(by('calculations').textContent);

/** Everything on the list, in its order: columns and measures, then rules. */
const items = [
  ...kept.formulas.map(f => ({ kind: f.measure ? 'measure' : 'column', name: f.name, text: f.text })),
  ...kept.rules.map(text => ({ kind: 'rule', name: '', text })),
];
const KINDS = { column: 'column', measure: 'measure', rule: 'standing rule' };
let chosen = null;
let asked = 0;
let typing;
const editor = new FormulaEditor(by('editor'), JSON.parse(by('words').textContent), text => {
  if (!chosen || chosen.text === text) return;
  chosen.text = text;
  clearTimeout(typing);
  typing = setTimeout(tryOut, 250);
});

const called = item => (item.kind === 'rule' ? item.text || 'a rule' : item.name || 'without a name');

function showList() {
  by('list').replaceChildren(
    ...items.map(item =>
      el(
        'li',
        {},
        el(
          'button',
          { type: 'button', 'aria-current': item === chosen ? 'true' : null, onclick: () => choose(item) },
          el('span', { class: 'text-faint text-small' }, KINDS[item.kind]),
          el('b', {}, called(item)),
        ),
      ),
    ),
  );
}

function choose(item) {
  chosen = item;
  by('desk').hidden = !item;
  by('idle').hidden = Boolean(item);
  showList();
  if (!item) return;
  by('naming').replaceChildren(
    ...(item.kind === 'rule'
      ? ['Only rows where this holds always take part:']
      : [
          `A ${KINDS[item.kind]} called `,
          el('input', {
            id: 'name',
            'aria-label': 'Name',
            value: item.name,
            maxlength: 120,
            size: Math.max(18, item.name.length),
            placeholder: 'name',
            oninput: e => {
              item.name = e.target.value;
              showList();
            },
          }),
          ' is',
        ]),
  );
  editor.text = item.text;
  editor.focus();
  tryOut();
}

function before() {
  return items
    .slice(0, items.indexOf(chosen))
    .filter(i => i.kind !== 'rule')
    .map(i => ({ name: i.name, text: i.text, measure: i.kind === 'measure' }));
}

async function tryOut() {
  const turn = ++asked;
  const item = chosen;
  if (!item || !item.text.trim()) {
    show({ trouble: null, gives: null, header: [], rows: [] });
    return;
  }
  try {
    const tried = await ask('POST', `/api/datasets/${id}/formulas/try`, {
      body: { before: before(), text: item.text, kind: item.kind },
    });
    if (turn === asked) show(tried);
  } catch (refused) {
    if (turn === asked) refuse(by('refusal'), refused.message);
  }
}

function show({ trouble, gives, header, rows }) {
  editor.mark(trouble);
  by('trouble').className = trouble ? 'formula-trouble is-wrong' : 'formula-trouble';
  by('trouble').textContent = trouble ? trouble.words : gives ? `It gives ${gives}.` : '';
  by('result').tHead.replaceChildren(
    el(
      'tr',
      {},
      header.map((h, i) => el('th', { scope: 'col' }, i === header.length - 1 ? chosen?.name || 'result' : h)),
    ),
  );
  by('result').tBodies[0].replaceChildren(
    ...rows.map(row =>
      el(
        'tr',
        {},
        row.map((cell, i) => el('td', { class: i === row.length - 1 ? 'is-result' : null }, cell)),
      ),
    ),
  );
}

async function keepAll(said) {
  refuse(by('refusal'), '');
  try {
    revision = (
      await ask('PUT', `/api/datasets/${id}/calculations`, {
        headers: { 'If-Match': `"${revision}"` },
        body: {
          formulas: items
            .filter(i => i.kind !== 'rule')
            .map(i => ({ name: i.name.trim(), text: i.text, measure: i.kind === 'measure' })),
          rules: items.filter(i => i.kind === 'rule').map(i => i.text),
        },
      })
    ).revision;
    say(said, null, 3);
    return true;
  } catch (refused) {
    refuse(by('refusal'), refused.message);
    if (refused.status === 412) {
      const again = async () => {
        revision = (await ask('GET', `/api/datasets/${id}`)).revision;
        await keepAll(said);
      };
      by('refusal').append(
        el('button', { class: 'do', type: 'button', onclick: again }, 'Keep mine'),
        ' ',
        el('button', { class: 'quiet', type: 'button', onclick: () => location.reload() }, 'Look at what stands now'),
      );
    }
    return false;
  }
}

for (const button of document.querySelectorAll('[data-new]')) {
  button.addEventListener('click', () => {
    const item = { kind: button.dataset.new, name: '', text: '' };
    items.push(item);
    choose(item);
    by('name')?.focus();
  });
}
by('keep').addEventListener('click', () => keepAll('Kept. It holds at every refresh.'));
by('remove').addEventListener('click', async () => {
  const at = items.indexOf(chosen);
  const [gone] = items.splice(at, 1);
  if (await keepAll('Taken away.')) choose(items[at] ?? items[at - 1] ?? null);
  else {
    items.splice(at, 0, gone);
    showList();
  }
});
choose(items[0] ?? null);
