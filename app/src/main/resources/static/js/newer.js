import './head.js';
import { refuse } from './elements.js';
import { ask } from './http.js';

const button = document.getElementById('serve');

button.addEventListener('click', async () => {
  button.disabled = true;
  button.textContent = 'Writing the rows';
  try {
    location.assign((await ask('POST', `/api/bring/${document.body.dataset.bring}/serve`)).address);
  } catch (refused) {
    refuse(document.getElementById('refusal'), refused.message);
    button.disabled = false;
    button.textContent = 'Serve these rows';
  }
});
