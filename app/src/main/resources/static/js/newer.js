import './head.js';
import { whereAsked } from './asked.js';
import { refuse } from './elements.js';
import { ask } from './http.js';
import { untilRead, withProgress } from './sending.js';

function serve(button, query) {
  button.addEventListener('click', async () => {
    const words = button.textContent;
    button.disabled = true;
    button.textContent = 'Writing the rows';
    try {
      location.assign((await withProgress('POST', `/api/bring/${document.body.dataset.bring}/serve${query}`)).address);
    } catch (refused) {
      refuse(document.getElementById('refusal'), refused.message);
      button.disabled = false;
      button.textContent = words;
    }
  });
}
serve(document.getElementById('serve'), '');
serve(document.getElementById('append'), '?append=true');

const intake = JSON.parse(document.getElementById('intake').textContent);
const sources = JSON.parse(document.getElementById('sources').textContent);

/** Reads the file again as its intake says now. */
async function reread() {
  try {
    await untilRead(
      await ask('POST', `/api/bring/${document.body.dataset.bring}/intake`, { body: intake }),
      'it again',
    );
    location.reload();
  } catch (refused) {
    refuse(document.getElementById('refusal'), refused.message);
    document.getElementById('progress').hidden = true;
  }
}
whereAsked(intake.shaping, reread);

/* A column that is called otherwise in this file: it is read again under the name it has here. */
for (const choice of document.querySelectorAll('.renamed')) {
  choice.addEventListener('change', () => {
    intake.shaping.names[sources[choice.value]] = choice.dataset.gone;
    reread();
  });
}
document.body.dataset.ready = 'true';
