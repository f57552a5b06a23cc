// Screens of House style: asks for what is done there and goes where that leads; undo and redo; keeps up with other windows.
import { ask, valuesOf } from './http.js';
import { leavePage } from './leave.js';
import { isTyping } from './pointer.js';
import { listen } from './events.js';
import { tell } from './notices.js';

export const revision = () => Number(document.getElementById('revision').dataset.revision);

// Gives what a screen does with its address: act(what, values) asks for something, lead(work) does
// what comes to an address, go(to) opens one. While hasOwn() says that something is under
// way here, the page stays, and elsewhere() is called instead.
export function actOn(address, publication, hasOwn, elsewhere) {
  let leaving = false, acting = false, newest = 0;

  function go(to) {
    leaving = true;
    leavePage(to);
  }

  // Does something that leads on to an address. No preview takes its place, whatever is typed meanwhile, and what is told of it comes after it.
  async function lead(work, failed = '') {
    if (acting) return;
    acting = true;
    try {
      go(await work());
    } catch (problem) {
      tell(failed + problem.message);
    }
    acting = false;
    keepUp();
  }
  const act = (what, values = new FormData()) => lead(async () => (await ask('POST', `${address}?handler=${what}`, { form: values })).head.goesTo);

  // Another window changed something: look at it as it is now, unless something is under way here; that is then shown against it.
  // What is done here comes back so too, before its answer: that one leads on, and nothing takes its place.
  function keepUp() {
    if (newest <= revision() || leaving || acting) return;
    if (hasOwn()) {
      elsewhere();
      return;
    }
    leaving = true;
    leavePage();
  }

  const step = what => act('History', valuesOf({ do: what, seen: revision() }));
  document.addEventListener('click', event => {
    const history = event.target.closest('#history [data-do]');
    if (history) step(history.dataset.do);
  });
  document.addEventListener('keydown', event => {
    if (isTyping(event.target) || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
    event.preventDefault();
    step(event.shiftKey ? 'redo' : 'undo');
  });
  listen(publication, {
    changed: told => {
      newest = Math.max(newest, told);
      keepUp();
    },
  });
  return { act, go, lead, isLeaving: () => leaving };
}
