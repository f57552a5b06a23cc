// Pictures whose files changed are taken as they are now, where an output would take them so.
import { ask, valuesOf } from './http.js';
import { tell } from './notices.js';

// Calls when they were.
export function onUpdated(listener) {
  document.addEventListener('click', async event => {
    const button = event.target.closest('[data-update-changed]');
    if (!button) return;
    button.disabled = true;
    try {
      await ask('POST', `/publications/${button.dataset.updateChanged}/images?handler=Update`, { form: valuesOf({ images: '' }), seconds: 600 });
      tell('The pictures are as their files are now. Undo takes that back.');
      listener();
    } catch (problem) {
      button.disabled = false;
      tell(problem.message, { stays: true });
    }
  });
}
