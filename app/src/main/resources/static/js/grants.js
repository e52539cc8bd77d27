import { el, say } from './elements.js';
import { ask } from './http.js';

/** What can be given, from the least to the most; each holds those before it. */
const MAY = [
  ['READ', 'read it'],
  ['COMPOSE', 'change it'],
  ['HAND_ON', 'hand it on'],
];

/**
 * Who may do what with a dashboard or a dataset, to be changed.
 * @param {HTMLElement} place
 * @param {string} thing such as dashboards/7
 * @param {(run: () => Promise<void>) => void} attempt
 */
export async function drawGrants(place, thing, attempt) {
  const address = `/api/${thing}/grants`;
  show(await ask('GET', address));

  function give(who, may, words) {
    return attempt(async () => {
      show(await ask('PUT', address, { body: { who, may } }));
      say(words, null, 3);
    });
  }

  function show({ owner, given, candidates }) {
    const chooser = el(
      'select',
      { 'aria-label': 'To whom', id: 'grant-who' },
      ...candidates.map((c, i) => el('option', { value: i }, c.name)),
    );
    const chosen = el(
      'select',
      { 'aria-label': 'What', id: 'grant-may' },
      ...MAY.map(([may, words]) => el('option', { value: may }, words)),
    );
    place.replaceChildren(
      el('p', {}, `It is ${owner}’s, who may do all with it, as stewards may.`),
      el(
        'ul',
        { class: 'doubts given' },
        ...given.map(({ who, name, may }) =>
          el(
            'li',
            { class: 'form-sentence' },
            el('b', {}, name),
            ' may ',
            el(
              'select',
              {
                'aria-label': `What ${name} may`,
                onchange: e =>
                  give(who, e.target.value, `${name} may ${MAY.find(([m]) => m === e.target.value)[1]} now.`),
              },
              ...MAY.map(([value, words]) => el('option', { value, selected: value === may }, words)),
            ),
            who.kind === 'EVERYBODY' || who.kind === 'GROUP' ? ', as far as the role of each allows' : '',
            '. ',
            el(
              'button',
              {
                type: 'button',
                class: 'quiet',
                onclick: () => give(who, null, `It is not given to ${name} any more.`),
              },
              'Take it back',
            ),
          ),
        ),
      ),
      candidates.length
        ? el(
            'p',
            { class: 'form-sentence' },
            'Let ',
            chooser,
            ' ',
            chosen,
            '. ',
            el(
              'button',
              {
                type: 'button',
                class: 'do',
                id: 'grant-keep',
                onclick: () => {
                  const { who, name } = candidates[chooser.value];
                  give(who, chosen.value, `${name} may ${MAY.find(([m]) => m === chosen.value)[1]} now.`);
                },
              },
              'Let them',
            ),
          )
        : '',
    );
  }
}
