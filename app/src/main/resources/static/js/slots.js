import { valueAt } from './edits.js';
import { el, refuse, say } from './elements.js';
import { ask, sendFiles } from './http.js';
import { phrase } from './language.js';
import { writeState } from './state.js';
import { ownColours } from './own-colours.js';
import { openScale } from './scale-editor.js';
import { shotsOf } from './shots.js';
import { openFormula } from './sheet-formula.js';
import { closePopup, openPopup } from './popup.js';

/** From this many options on they can be searched. */
const SEARCHED = 11;

/**
 * What opens at a slot of a brief, by the slot's kind.
 * @typedef {{sheet: Object, edit: (patch: Object[]) => void}} Board
 */
const OPENERS = {
  TYPED: typed,
  TEXT: longText,
  FORMULA: formula,
  LINES: lines,
  PICTURE: picture,
  PICTURES: pictures,
  NUMBER: number,
  SET: set,
  TIP: set,
  ORDER: order,
  PALETTE: palette,
  COLOURS: ownColours,
  SCALE: scale,
  SHARED_KEY: sharedKey,
  PERIOD: period,
  EXTENT: extent,
  SAVED_VIEW: savedView,
  REMOVE: remove,
};

/** @param {HTMLElement} opener @param {Object} slot as the server writes it @param {Board} board */
export function openSlot(opener, slot, board) {
  (OPENERS[slot.kind] ?? chosen)(opener, slot, { ...board, now: valueAt(board.sheet.opened.document, slot.path) });
}

/** Where an option means what the reader has chosen at the moment. */
const STATE_NOW = '@state';

/** Where an option means what the filter keeps at the moment. */
const TURNED_NOW = '@turned';

/** What a filter keeps at the moment, as an address has it. */
function turnedNow(board, path) {
  const name = `f.${path.split('/')[2]}`;
  const text = writeState(new Map([[name, board.sheet.state.get(name) ?? []]]));
  return text.slice(name.length + 1);
}

function put(board, path, given) {
  if (given === TURNED_NOW) {
    const turned = turnedNow(board, path);
    closePopup(true);
    if (!turned || turned === '*') say('The filter keeps everything at the moment. Turn it first.');
    else board.edit([{ op: 'add', path, value: turned }]);
    return;
  }
  const value = given?.state === STATE_NOW ? { ...given, state: writeState(board.sheet.state) } : given;
  closePopup(true);
  board.edit([{ op: 'add', path, value }]);
}

const leaveOut = (slot, board) =>
  slot.removable &&
  el(
    'button',
    {
      type: 'button',
      class: 'popup-option text-rust',
      onclick: () => {
        closePopup();
        board.edit([{ op: 'remove', path: slot.path }]);
      },
    },
    `Leave ${slot.name} out`,
  );

function optionList(slot, options) {
  const search = el('input', {
    class: 'entry',
    type: 'search',
    placeholder: `Find ${slot.name}`,
    'aria-label': `Find ${slot.name}`,
  });
  search.addEventListener('input', () =>
    options.forEach(o => {
      o.hidden = !o.textContent.toLowerCase().includes(search.value.toLowerCase());
    }),
  );
  return [
    options.length > SEARCHED && search,
    el('div', { class: 'popup-list', role: 'listbox', 'aria-label': slot.name }, ...options),
  ];
}

function optionOf(slot, option, run) {
  const colours = /^#[0-9a-f]{6}( |$)/.test(option.hint);
  const hint = colours
    ? el('span', { class: 'swatches' }, ...option.hint.split(' ').map(background => el('i', { style: { background } })))
    : el('span', { class: 'hint' }, option.hint);
  return el(
    'button',
    {
      type: 'button',
      class: 'popup-option',
      role: 'option',
      'aria-selected': String(option.text === slot.text),
      onclick: run,
    },
    option.text,
    hint,
  );
}

/** Whether readers can be let turn what stands in a slot: a word of a visual or of a filter. */
const turnable = slot =>
  /^\/(visuals|filters)\/[^/]+\/.+/.test(slot.path) && !/\/(at|page|dataset|terms.*)$/.test(slot.path);

const letTurn = (slot, words, run) =>
  turnable(slot) && el('button', { type: 'button', class: 'popup-option text-loch', onclick: run }, words);

const freshId = () => `n${Math.random().toString(36).slice(2, 7)}`;

/** The next place among what readers set. */
const nextOrder = board =>
  1 + Math.max(0, ...Object.values(board.sheet.opened.document.parameters ?? {}).map(p => p.order));

const named = slot => slot.name.charAt(0).toUpperCase() + slot.name.slice(1);

function addParameter(board, parameter) {
  closePopup(true);
  board.edit([
    { op: 'add', path: `/parameters/${freshId()}`, value: { order: nextOrder(board), value: 0, ...parameter } },
  ]);
}

/** Some of the options of a slot, among which readers are let choose. */
function letChoose(opener, slot, board) {
  const taken = new Set(slot.options.filter(o => o.text === slot.text));
  const labels = slot.options.map(option => {
    const box = el('input', { type: 'checkbox' });
    box.checked = taken.has(option);
    box.addEventListener('change', () => (box.checked ? taken.add(option) : taken.delete(option)));
    return el('label', {}, box, option.text, el('span', { class: 'hint' }, option.hint));
  });
  const take = () => {
    if (taken.size < 2) return say('Choose two or more, so that readers have a choice.');
    // What stands there now is what readers begin with.
    const all = slot.options.filter(o => taken.has(o));
    const first = Math.max(
      0,
      all.findIndex(o => o.text === slot.text),
    );
    addParameter(board, {
      name: named(slot),
      type: 'WORD',
      first: String(first),
      options: all.map(({ text, value }) => ({ words: text, value })),
      at: [slot.path],
    });
  };
  openPopup(opener, [
    el('p', { class: 'popup-words' }, `Readers choose ${slot.name} among`),
    ...optionList(slot, labels),
    el('button', { type: 'button', class: 'popup-option text-loch', onclick: take }, 'Let them choose among these'),
  ]);
}

function chosen(opener, slot, board) {
  openPopup(
    opener,
    [
      ...optionList(
        slot,
        slot.options.map(o => optionOf(slot, o, () => put(board, slot.path, o.value))),
      ),
      slot.options.length > 1 && letTurn(slot, 'Let readers choose…', () => letChoose(opener, slot, board)),
      leaveOut(slot, board),
    ].filter(Boolean),
  );
}

function entry(slot, value, attributes, take) {
  const input = el('input', { class: 'entry', 'aria-label': slot.name, value, ...attributes });
  input.addEventListener('keydown', e => e.key === 'Enter' && take(input.value.trim()));
  return input;
}

function typed(opener, slot, board) {
  const take = text => put(board, slot.path, text);
  const input = entry(slot, slot.options[0]?.text ?? '', { maxlength: 200 }, take);
  openPopup(opener, [
    input,
    el(
      'button',
      { type: 'button', class: 'popup-option', onclick: () => take(input.value.trim()) },
      'Take these words',
    ),
  ]);
}

function formula(opener, slot, board) {
  openFormula(opener, slot, board, text => text && put(board, slot.path, text));
}

/** A picture from the author's own machine, which the server checks and keeps. */
function picture(opener, slot, board) {
  const file = el('input', {
    type: 'file',
    accept: 'image/png,image/jpeg,image/gif,image/webp,image/bmp',
    'aria-label': slot.name,
  });
  const state = el('p', { class: 'popup-words', role: 'status' }, 'PNG, JPEG, GIF or BMP, up to 12 MB.');
  file.addEventListener('change', async () => {
    if (!file.files.length) return;
    state.textContent = 'It is being looked at…';
    try {
      const { name } = await sendFiles('/api/images', [file.files[0]], () => {}).promise;
      put(board, slot.path, name);
    } catch (refused) {
      state.textContent = refused.message;
    }
  });
  openPopup(opener, [file, state]);
}

/** Pictures, each of one of the options. */
function pictures(opener, slot, board) {
  openPopup(
    opener,
    shotsOf(slot, board.now, shots => put(board, slot.path, shots)),
  );
}

/** A text of several lines. */
function longText(opener, slot, board) {
  const area = el('textarea', { class: 'entry slot-text', 'aria-label': slot.name, maxlength: 10000, rows: 8 });
  area.value = board.now ?? '';
  const take = () => put(board, slot.path, area.value);
  area.addEventListener('keydown', e => e.key === 'Enter' && (e.ctrlKey || e.metaKey) && take());
  // What can stand in braces is put where the caret is.
  const fields = slot.options.slice(1).map(({ text }) =>
    el(
      'button',
      {
        type: 'button',
        class: 'field-chip',
        onclick: () => {
          area.setRangeText(text, area.selectionStart, area.selectionEnd, 'end');
          area.focus();
        },
      },
      text,
    ),
  );
  openPopup(opener, [
    area,
    fields.length ? el('div', { class: 'field-chips' }, ...fields) : '',
    el(
      'p',
      { class: 'popup-words' },
      fields.length
        ? 'A name in braces stands for its value. How it is written may follow behind a colon: {price:0.00 €}, {opened:month}.'
        : 'Words as CommonMark: # heading, **strong**, *emphasis*, - lists, [words](address). A name in braces is a figure.',
    ),
    el('button', { type: 'button', class: 'popup-option text-loch', onclick: take }, 'Take this text'),
  ]);
}

/** Texts to choose from, one in each line. */
function lines(opener, slot, board) {
  const area = el('textarea', { class: 'entry slot-text', 'aria-label': slot.name, maxlength: 10000, rows: 8 });
  area.value = slot.options.map(o => o.text).join('\n');
  const take = () => {
    const texts = [
      ...new Set(
        area.value
          .split('\n')
          .map(line => line.trim())
          .filter(Boolean),
      ),
    ];
    put(board, slot.path, texts.length ? texts.map(words => ({ words })) : null);
  };
  openPopup(opener, [
    area,
    el('p', { class: 'popup-words' }, 'One in each line.'),
    el('button', { type: 'button', class: 'popup-option text-loch', onclick: take }, 'Take these'),
  ]);
}

function number(opener, slot, board) {
  const problem = el('div', {});
  const take = text => {
    if (text === '' || !Number.isFinite(Number(text))) refuse(problem, 'Write a number, such as 500.');
    else put(board, slot.path, Number(text));
  };
  const input = entry(slot, board.now ?? '', { inputmode: 'decimal' }, take);
  openPopup(
    opener,
    [
      input,
      problem,
      el(
        'button',
        { type: 'button', class: 'popup-option', onclick: () => take(input.value.trim()) },
        'Take this number',
      ),
      letTurn(slot, 'Let readers turn it', () => {
        const value = Number(board.now ?? 0);
        const reach = Math.abs(value) || 10;
        addParameter(board, {
          name: named(slot),
          value,
          low: Math.min(0, value - reach),
          high: value + reach,
          step: Number.isInteger(value) ? 1 : reach / 100,
          control: 'SLIDER',
          at: [slot.path],
        });
      }),
      leaveOut(slot, board),
    ].filter(Boolean),
  );
}

/** What a value holds, for one that has no words of its own. */
const inWords = value =>
  value && typeof value === 'object'
    ? Object.values(value)
        .filter(v => v !== null && v !== '')
        .map(inWords)
        .join(' ')
        .toLowerCase()
    : String(value);

/** Several of the options at once. */
function set(opener, slot, board) {
  const same = (a, b) => JSON.stringify(a) === JSON.stringify(b);
  const sorted = value =>
    value && typeof value === 'object'
      ? Object.fromEntries(
          Object.entries(value)
            .filter(([, v]) => v !== null)
            .sort(),
        )
      : value;
  // What has been changed since it was taken, such as the value of a target, is none of what is offered, and stays.
  const own = (board.now ?? []).filter(v => !slot.options.some(o => same(sorted(v), sorted(o.value))));
  const options = [...slot.options, ...own.map(value => ({ text: 'as it stands', hint: inWords(value), value }))];
  const taken = new Set();
  for (const [i, option] of options.entries())
    if ((board.now ?? []).some(v => same(sorted(v), sorted(option.value)))) taken.add(i);
  const withheld = slot.path.endsWith('/withheld');
  const labels = options.map((option, i) => {
    const box = el('input', { type: 'checkbox' });
    box.checked = withheld ? !taken.has(i) : taken.has(i);
    box.addEventListener('change', () => (box.checked === !withheld ? taken.add(i) : taken.delete(i)));
    return el('label', {}, box, option.text, el('span', { class: 'hint' }, option.hint));
  });
  const take = () => {
    const values = [...taken].sort((a, b) => a - b).map(i => options[i].value);
    if (slot.kind !== 'TIP') put(board, slot.path, values.length || withheld ? values : null);
    else {
      const path = slot.path.replace(/\/measures$/, '');
      put(board, path, values.length ? { ...valueAt(board.sheet.opened.document, path), measures: values } : null);
    }
  };
  openPopup(
    opener,
    [
      ...optionList(slot, labels),
      el(
        'button',
        { type: 'button', class: 'popup-option text-loch', onclick: take },
        withheld ? 'Give readers these' : 'Take these',
      ),
    ].filter(Boolean),
  );
}

/** Some of the options, one before another. */
function order(opener, slot, board) {
  const taken = [...(board.now ?? [])];
  const list = el('div', { class: 'popup-list', 'aria-label': slot.name });
  const show = () => {
    const row = (text, i) =>
      el(
        'div',
        { class: 'ordered' },
        el('b', {}, `${i + 1}`),
        el('span', {}, text),
        el(
          'button',
          { type: 'button', 'aria-label': `${text} earlier`, disabled: i === 0, onclick: () => move(i, -1) },
          '↑',
        ),
        el('button', { type: 'button', 'aria-label': `${text} not in order`, onclick: () => move(i, 0) }, '×'),
      );
    const rest = slot.options.filter(o => !taken.includes(o.value));
    list.replaceChildren(...taken.map(row), ...rest.map(o => optionOf(slot, o, () => (taken.push(o.value), show()))));
  };
  const move = (i, by) => {
    const [value] = taken.splice(i, 1);
    if (by) taken.splice(i + by, 0, value);
    show();
  };
  show();
  openPopup(
    opener,
    [
      list,
      el(
        'button',
        {
          type: 'button',
          class: 'popup-option text-loch',
          onclick: () => put(board, slot.path, taken.length ? taken : null),
        },
        'Take this order',
      ),
      leaveOut(slot, board),
    ].filter(Boolean),
  );
}

function palette(opener, slot, board) {
  const own = entry(
    slot,
    slot.options.some(o => o.text === slot.text) ? '' : slot.text,
    { placeholder: 'or own colours: #f2e9d8 #1f5f66', 'aria-label': 'Own colours', maxlength: 200 },
    take,
  );
  function take(text) {
    if (/^(#[0-9a-fA-F]{6}[\s,]*){2,}$/.test(text)) put(board, slot.path, text);
    else say('Write two or more colours with blanks between, such as #f2e9d8 #1f5f66.');
  }
  openPopup(
    opener,
    [
      ...optionList(
        slot,
        slot.options.map(o => optionOf(slot, o, () => put(board, slot.path, o.value))),
      ),
      own,
    ].filter(Boolean),
  );
}

/** The drawing of the layer that a slot is about. */
function layerOf(slot, { sheet }) {
  const [, , visual, , layer] = slot.path.split('/');
  return {
    visual,
    layer,
    drawn: sheet.visuals.get(visual)?.drawing?.layers?.find(l => l.head.id === layer),
    kind: sheet.visuals.get(visual)?.kind,
    handle: sheet.visuals.get(visual)?.handle,
  };
}

function scale(opener, slot, board) {
  const { drawn } = layerOf(slot, board);
  if (!drawn?.key || drawn.key.low === null) {
    say('The layer shows no figures yet, so there is nothing to cut.');
    return;
  }
  openScale(opener, drawn.key, board.now, colour => put(board, slot.path, colour));
}

function sharedKey(opener, slot, board) {
  const { drawn } = layerOf(slot, board);
  const path = slot.path.replace(/\/key$/, '');
  const problem = el('div', {});
  const name = el('input', {
    class: 'entry',
    placeholder: 'or a name for a new one',
    'aria-label': 'Name of a new shared key',
    maxlength: 120,
  });
  const make = async () => {
    const own = valueAt(board.sheet.opened.document, path);
    const { breaks, low, high, colourWords, colours } = drawn.key;
    const fixed = own.category
      ? { order: colours.map(c => c.text).filter(t => t !== phrase('others')) }
      : { breaks: breaks.length ? breaks : null, low, high };
    const { key, offered, ...rest } = own;
    try {
      await ask('PUT', `/api/keys/${encodeURIComponent(name.value.trim())}`, {
        body: { words: colourWords, colour: { ...rest, ...fixed } },
      });
      put(board, slot.path, name.value.trim());
    } catch (refused) {
      refuse(problem, refused.message);
    }
  };
  openPopup(
    opener,
    [
      ...optionList(
        slot,
        slot.options.map(o => optionOf(slot, o, () => put(board, slot.path, o.value))),
      ),
      name,
      problem,
      el(
        'button',
        { type: 'button', class: 'popup-option text-loch', onclick: () => (name.value.trim() ? make() : name.focus()) },
        'Make a shared key of this scale',
      ),
      leaveOut(slot, board),
    ].filter(Boolean),
  );
}

function period(opener, slot, board) {
  const column = el(
    'select',
    { class: 'entry', 'aria-label': 'Column of dates' },
    ...slot.options.map(o => el('option', { value: o.value, selected: board.now?.column === o.value }, o.text)),
  );
  const day = (name, words) =>
    el('input', { class: 'entry', type: 'date', value: board.now?.[name] ?? '', 'aria-label': words });
  const [from, to] = [day('from', 'From'), day('to', 'To')];
  const take = () => {
    if (!from.value && !to.value) say('Say from which day, or to which.');
    else put(board, slot.path, { column: column.value, from: from.value || null, to: to.value || null });
  };
  openPopup(
    opener,
    [
      column,
      el('p', { class: 'popup-words' }, 'from'),
      from,
      el('p', { class: 'popup-words' }, 'to'),
      to,
      el('button', { type: 'button', class: 'popup-option text-loch', onclick: take }, 'Keep to these days'),
      leaveOut(slot, board),
    ].filter(Boolean),
  );
}

/** What is in sight of a map. */
const extentOf = ({ kind, handle }) => kind.extent(handle);

function extent(opener, slot, board) {
  const mounted = layerOf(slot, board);
  openPopup(
    opener,
    [
      el(
        'button',
        { type: 'button', class: 'popup-option', onclick: () => put(board, slot.path, extentOf(mounted)) },
        'Start where the map is now',
      ),
      slot.removable &&
        el(
          'button',
          {
            type: 'button',
            class: 'popup-option',
            onclick: () => {
              closePopup(true);
              board.edit([{ op: 'remove', path: slot.path }]);
            },
          },
          'Fit to what it shows',
        ),
    ].filter(Boolean),
  );
}

function savedView(opener, slot, board) {
  const mounted = layerOf(slot, board);
  const views = board.now ?? null;
  const name = el('input', {
    class: 'entry',
    placeholder: 'A name for what is in sight',
    'aria-label': 'Name of the saved view',
    maxlength: 80,
  });
  const take = () => {
    if (!name.value.trim()) {
      name.focus();
      return;
    }
    const id = `w${Date.now().toString(36)}`;
    closePopup(true);
    board.edit([
      ...(views ? [] : [{ op: 'add', path: slot.path, value: {} }]),
      {
        op: 'add',
        path: `${slot.path}/${id}`,
        value: { name: name.value.trim(), extent: extentOf(mounted), order: Object.keys(views ?? {}).length + 1 },
      },
    ]);
  };
  const known = Object.entries(views ?? {}).map(([id, v]) =>
    el(
      'button',
      {
        type: 'button',
        class: 'popup-option text-rust',
        onclick: () => {
          closePopup(true);
          board.edit([{ op: 'remove', path: `${slot.path}/${id}` }]);
        },
      },
      `Take “${v.name}” away`,
    ),
  );
  name.addEventListener('keydown', e => e.key === 'Enter' && take());
  openPopup(opener, [
    name,
    el('button', { type: 'button', class: 'popup-option text-loch', onclick: take }, 'Keep this view'),
    ...known,
  ]);
}

function remove(opener, slot, board) {
  board.edit([{ op: 'remove', path: slot.path }]);
}
