import { el, say } from '../elements.js';
import { ask } from '../http.js';
import { act, below, place, readings } from './page.js';

/** Where readings are sent, and with which token. */

let token = place('send').dataset.token ?? '';

export function drawSend() {
  const example = `curl -H "Authorization: Bearer ${token || 'TOKEN'}" -H "Content-Type: application/json" \\\n  -d '{"device": "p1", "time": "${new Date().toISOString()}", "temperature": 12.5}' \\\n  ${readings}`;
  place('send').replaceChildren(
    el(
      'p',
      {},
      'Devices and gateways send JSON, one message or many in an array, or a message a line (NDJSON), to this address. What is answered as taken is safe.',
    ),
    el('p', {}, el('code', { class: 'link-address' }, readings)),
    token
      ? el(
          'p',
          {},
          el('b', {}, 'Token: '),
          el('code', { id: 'token' }, token),
          ' It is told this once; whoever sends readings bears it.',
        )
      : el('p', { class: 'text-faint' }, 'Whoever sends readings bears the token that was told when it was made.'),
    el('pre', { class: 'feed-message' }, example),
    act('Make another token', async () => {
      token = (await ask('POST', below('token'))).token;
      say('The token before is taken no longer.');
      drawSend();
    }),
  );
}
