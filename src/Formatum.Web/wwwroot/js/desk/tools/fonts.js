// Fonts dropped on the page are brought in for the publication, and texts can be set in them.
import { publication } from '../parts.js';
import { refresh } from '../edits.js';
import { state } from '../state.js';
import { ask, problemOf } from '../../shared/http.js';
import { tell } from '../../shared/notices.js';

const endings = ['.ttf', '.otf', '.ttc', '.otc', '.woff', '.woff2'];
export const isFont = file => endings.some(ending => file.name.toLowerCase().endsWith(ending));

export async function bringFonts(files) {
  const form = new FormData();
  for (const file of files) form.append('files', file);
  try {
    const arrived = problemOf((await ask('POST', `/api/publications/${publication}/fonts?seen=${state.revision}`, { form, seconds: 600 })).text);
    for (const { name, error } of arrived) if (error) tell(`${name}: ${error}`, { stays: true });
    const families = [...new Set(arrived.map(a => a.family).filter(Boolean))];
    if (families.length === 0) return;
    await refresh();
    tell(`Brought in: ${families.join(', ')}. Texts can be set in ${families.length === 1 ? 'it' : 'them'} now.`);
  } catch (problem) {
    tell(problem.message, { stays: true });
  }
}
