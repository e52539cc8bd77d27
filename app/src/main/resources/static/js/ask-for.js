import { el, refuse } from './elements.js';
import { ask } from './http.js';
import { phrase } from './language.js';

/** On the page that says that something is not there, or not open to whoever looks: asks its owner for it. */
const [, kind, id] = /^\/(dashboards|datasets)\/(\d+)/.exec(location.pathname) ?? [];
const place = document.getElementById('ask-for');
const signedIn = document.querySelector('meta[name="_csrf"]')?.content;

if (place && kind && signedIn) {
  const words = el('input', {
    class: 'entry',
    maxlength: 400,
    placeholder: phrase('What for'),
    'aria-label': phrase('What you need it for'),
  });
  const button = el(
    'button',
    {
      type: 'button',
      class: 'do',
      onclick: async () => {
        try {
          await ask('POST', '/api/requests', { body: { kind, id: Number(id), may: 'READ', words: words.value } });
          place.replaceChildren(
            el('p', { class: 'sentence-good' }, phrase('If it is there, its owner has your request.')),
          );
        } catch (refused) {
          refuse(place, refused.message);
        }
      },
    },
    phrase('Ask for it'),
  );
  place.append(
    el('p', { class: 'mb-2' }, phrase('If it is there and not open to you, its owner can let you read it.')),
    words,
    button,
  );
}
