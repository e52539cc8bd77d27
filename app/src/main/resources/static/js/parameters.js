import { commonAddress } from './base.js';
import { el } from './elements.js';
import { ask } from './http.js';
import { WRITTEN_AS, read, sheetOfDays, written } from './filters/days.js';
import { chooseButton } from './filters/choose.js';
import { turns } from './filters/turns.js';
import { closePopup, openPopup } from './popup.js';
import { phrase } from './language.js';

/** Up to so many things to choose from stand side by side. */
const BESIDE = 3;

/** What a parameter is turned by, by how the author has it. @returns {HTMLElement} */
export function parameterControl(sheet, id, parameter) {
  const type = parameter.type ?? 'NUMBER';
  const count = parameter.options?.length ?? 0;
  const usual =
    type === 'YES_NO' ? 'SWITCH' : type === 'WORD' || count ? (count <= BESIDE ? 'SWITCH' : 'LIST') : 'TYPED';
  const made = { SWITCH: beside, LIST: list, SLIDER: slider, STEPS: steps }[parameter.control ?? usual] ?? typed;
  return (type === 'NUMBER' && made === beside ? typed : made)(sheet, id, parameter, type);
}

const now = (sheet, id, parameter) =>
  sheet.state.get(`v.${id}`)?.[0] ??
  (parameter.type && parameter.type !== 'NUMBER'
    ? (parameter.first ?? (parameter.type === 'WORD' ? '0' : ''))
    : String(parameter.value));

/** What can be chosen, as it stands in the state. */
function choices(parameter, type) {
  if (type === 'YES_NO') return ['yes', 'no'].map(value => ({ words: value, value }));
  return (parameter.options ?? []).map(({ words }, i) => ({ words, value: type === 'WORD' ? String(i) : words }));
}

const set = (sheet, id, parameter, value, passing) =>
  sheet.number(id, value === now({ state: new Map() }, id, parameter) ? null : value, passing);

function beside(sheet, id, parameter, type) {
  const is = now(sheet, id, parameter);
  return turns(
    parameter.name,
    choices(parameter, type).map(({ words, value }) => ({
      words,
      on: value === is,
      part: `${id}-${value}`,
      run: () => set(sheet, id, parameter, value),
    })),
  );
}

function list(sheet, id, parameter, type) {
  const is = now(sheet, id, parameter);
  const all = choices(parameter, type);
  return chooseButton(id, all.find(({ value }) => value === is)?.words ?? phrase('nothing yet'), opener =>
    openPopup(opener, [
      el(
        'div',
        { class: 'popup-list', role: 'listbox', 'aria-label': parameter.name },
        ...all.map(({ words, value }) =>
          el(
            'button',
            {
              type: 'button',
              class: 'popup-option',
              role: 'option',
              'aria-selected': String(value === is),
              onclick: () => {
                closePopup(true);
                set(sheet, id, parameter, value);
              },
            },
            words,
          ),
        ),
      ),
    ]),
  );
}

/** A number that is turned between its bounds, while everything follows. */
function slider(sheet, id, parameter) {
  const low = parameter.low ?? 0;
  const high = parameter.high ?? Math.max(low + 1, parameter.value * 2);
  const output = el('output', { class: 'filter-side' }, now(sheet, id, parameter));
  const handle = el('input', {
    type: 'range',
    class: 'slide',
    min: low,
    max: high,
    step: parameter.step ?? (high - low) / 100,
    value: now(sheet, id, parameter),
    'aria-label': parameter.name,
    'data-filter-part': `${id}-slide`,
    oninput: () => {
      output.textContent = handle.value;
      set(sheet, id, parameter, handle.value, true);
    },
    onchange: () => set(sheet, id, parameter, handle.value),
    onpointerup: () => sheet.turning === id && set(sheet, id, parameter, handle.value),
  });
  return el('span', { class: 'spread-filter' }, handle, output);
}

/** A number that is turned by steps. */
function steps(sheet, id, parameter) {
  const is = Number(now(sheet, id, parameter));
  const step = parameter.step ?? 1;
  const to = value => set(sheet, id, parameter, String(Number(value.toFixed(9))));
  const turn = (sign, words, value) =>
    el(
      'button',
      {
        type: 'button',
        class: 'turn',
        'aria-label': `${parameter.name} ${words === 'less' ? phrase('less') : phrase('more')}`,
        'data-filter-part': `${id}-${words}`,
        disabled: value < (parameter.low ?? -Infinity) || value > (parameter.high ?? Infinity),
        onclick: () => to(value),
      },
      sign,
    );
  return el(
    'span',
    { class: 'turns' },
    turn('−', 'less', is - step),
    el('output', { class: 'turn-now' }, String(is)),
    turn('+', 'more', is + step),
  );
}

function typed(sheet, id, parameter, type) {
  if (type === 'DATE') return day(sheet, id, parameter);
  if (type === 'PLACE') return place(sheet, id, parameter);
  const number = type === 'NUMBER';
  const input = el('input', {
    type: number ? 'number' : 'text',
    class: number ? 'filter-number' : 'filter-words',
    step: number ? 'any' : null,
    min: parameter.low,
    max: parameter.high,
    maxlength: number ? null : 200,
    value: now(sheet, id, parameter),
    'aria-label': parameter.name,
    'data-filter-part': `${id}-number`,
    // What lies beyond its bounds is said by the control and not sent.
    onchange: () => {
      if (!input.reportValidity()) return;
      if (input.value === '') sheet.number(id, null);
      else set(sheet, id, parameter, number ? String(Number(input.value)) : input.value);
    },
  });
  return input;
}

function day(sheet, id, parameter) {
  const is = now(sheet, id, parameter);
  return chooseButton(id, is ? written(is) : phrase('no day yet'), opener => {
    const take = value => {
      set(sheet, id, parameter, value);
      days.set(value, value);
      box.value = written(value);
    };
    const box = el('input', {
      class: 'entry days-typed',
      'aria-label': parameter.name,
      placeholder: WRITTEN_AS,
      value: written(is),
      onchange: () => {
        const value = read(box.value);
        box.setCustomValidity(value ? '' : phrase('Write a day as {0}.', WRITTEN_AS));
        if (box.reportValidity()) take(value);
      },
    });
    const days = sheetOfDays({ from: is, to: is, taken: take });
    openPopup(opener, [el('div', { class: 'days-ends' }, box), days.place]);
  });
}

function place(sheet, id, parameter) {
  const is = now(sheet, id, parameter);
  return chooseButton(id, is || phrase('no place yet'), opener => {
    const found = el('div', { class: 'popup-list' });
    const search = el('input', {
      class: 'entry',
      type: 'search',
      placeholder: phrase('A town, province or country'),
      'aria-label': parameter.name,
      oninput: async () => {
        const asked = search.value.trim();
        const places =
          asked.length < 2 ? [] : await ask('GET', `${commonAddress('places')}?name=${encodeURIComponent(asked)}`);
        if (asked !== search.value.trim()) return;
        found.replaceChildren(
          ...places.map(({ words }) =>
            el(
              'button',
              {
                type: 'button',
                class: 'popup-option',
                onclick: () => {
                  closePopup(true);
                  set(sheet, id, parameter, words.split(',')[0]);
                },
              },
              words,
            ),
          ),
        );
      },
    });
    openPopup(opener, [search, found]);
  });
}
