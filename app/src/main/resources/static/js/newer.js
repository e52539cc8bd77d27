import './head.js';
import { refuse } from './elements.js';
import { ask } from './http.js';

function serve(button, query) {
  button.addEventListener('click', async () => {
    const words = button.textContent;
    button.disabled = true;
    button.textContent = 'Writing the rows';
    try {
      location.assign((await ask('POST', `/api/bring/${document.body.dataset.bring}/serve${query}`)).address);
    } catch (refused) {
      refuse(document.getElementById('refusal'), refused.message);
      button.disabled = false;
      button.textContent = words;
    }
  });
}
serve(document.getElementById('serve'), '');
serve(document.getElementById('append'), '?append=true');
