// The menu at the right button, or by keys: what can be done with what lies there. It does what buttons and keys do, and names the keys.
import { canvas, frameElement, idOf, inspector } from './parts.js';
import { choose, edit, settled } from './edits.js';
import { duplicate, goInto } from './selection.js';
import { state } from './state.js';

const card = document.getElementById('menu-card');

const has = css => () => inspector.querySelector(css) !== null;
const press = css => () => inspector.querySelector(css)?.click();
const chosenFrames = () => state.selection.map(frameElement).filter(Boolean);
const some = css => () => chosenFrames().some(frame => frame.matches(css));
const holdsImage = frame => !frame.matches('.frame-empty, .frame-text');
const withPicture = () => chosenFrames().some(holdsImage);
const any = () => state.selection.length > 0;
const one = () => state.selection.length === 1;
const fit = kind => ({ words: kind === 'Natural' ? 'Natural size' : kind, when: withPicture, run: () => edit({ do: 'fit', fit: kind }) });

// A line of its own stands between groups.
const groups = [
  [
    { words: 'Go into the picture', keys: 'Enter', when: () => one() && withPicture(), run: () => choose(state.selection, { inside: true }) },
    { words: 'Type in it', keys: 'Enter', when: () => one() && some('.frame-text')(), run: () => goInto(frameElement(state.selection[0])) },
    { words: 'Bring a picture in \u2026', when: () => !some('.frame-text')(), run: () => document.getElementById('bring-in').click() },
    { words: 'Take the picture out', when: withPicture, run: () => edit({ do: 'take-out' }) },
    { words: 'Picture back to the tray', when: withPicture, run: () => edit({ do: 'send-back' }) },
    { words: 'Swap the pictures', when: has('[data-do=swap]'), run: () => edit({ do: 'swap' }) },
  ],
  [
    ...['Fill', 'Fit', 'Stretch', 'Natural'].map(fit),
    { words: 'Back to the crop', when: has('[data-do=recrop-back]'), run: () => edit({ do: 'recrop-back' }) },
    { words: 'Reset recrop', when: has('[data-do=picture-reset]'), run: () => edit({ do: 'picture-reset' }) },
    { words: 'Frame to picture: size', when: withPicture, run: () => edit({ do: 'frame-to-picture', takes: 'Size', referenceX: 0, referenceY: 0 }) },
    { words: 'Subject \u2026', when: has('[data-subject]'), run: press('[data-subject]') },
  ],
  [
    { words: 'Flip left to right', when: any, run: () => edit({ do: 'flip', across: true }) },
    { words: 'Flip top to bottom', when: any, run: () => edit({ do: 'flip', across: false }) },
  ],
  [
    { words: 'To front', keys: 'Shift Page up', when: any, run: () => edit({ do: 'stack', stack: 'Front' }) },
    { words: 'Forward', keys: 'Page up', when: any, run: () => edit({ do: 'stack', stack: 'Forward' }) },
    { words: 'Back', keys: 'Page down', when: any, run: () => edit({ do: 'stack', stack: 'Backward' }) },
    { words: 'To back', keys: 'Shift Page down', when: any, run: () => edit({ do: 'stack', stack: 'Back' }) },
  ],
  [
    { words: 'Duplicate', keys: 'Ctrl D', when: any, run: duplicate },
    { words: 'Group', keys: 'Ctrl G', when: () => state.selection.length > 1, run: () => edit({ do: 'group' }) },
    { words: 'Ungroup', keys: 'Ctrl Shift G', when: some('[data-group]'), run: () => edit({ do: 'ungroup' }) },
    { words: 'Lock', when: () => any() && !some('.frame-locked')(), run: () => edit({ do: 'lock' }) },
    { words: 'Unlock', when: some('.frame-locked'), run: () => edit({ do: 'unlock' }) },
    { words: 'Hide', when: any, run: () => edit({ do: 'hide' }) },
    { words: 'Remove', keys: 'Delete', when: any, run: () => edit({ do: 'remove' }) },
  ],
  [
    { words: 'Choose all frames', keys: 'Ctrl A', when: () => !any(), run: () => choose([...document.querySelectorAll('#frames [data-frame]')].map(idOf)) },
  ],
];

function lineOf({ words, keys = '', run }) {
  const button = Object.assign(document.createElement('button'), { type: 'button', role: 'menuitem', tabIndex: -1 });
  const named = document.createElement('span'), key = document.createElement('kbd');
  named.textContent = words;
  key.textContent = keys;
  button.append(named, ...(keys ? [key] : []));
  button.addEventListener('click', () => {
    card.hidePopover();
    canvas.focus({ preventScroll: true });
    run();
  });
  return button;
}

function show(x, y) {
  card.replaceChildren();
  for (const group of groups) {
    const lines = group.filter(line => line.when()).map(lineOf);
    if (lines.length === 0) continue;
    if (card.children.length > 0) card.append(document.createElement('hr'));
    card.append(...lines);
  }
  card.showPopover();
  card.style.left = `${Math.max(8, Math.min(x, innerWidth - card.offsetWidth - 8))}px`;
  card.style.top = `${Math.max(8, Math.min(y, innerHeight - card.offsetHeight - 8))}px`;
  card.querySelector('button').focus();
}

// At what is chosen; in the middle of the page where nothing is.
export async function openMenu() {
  await settled();
  const { left, top, width, height } = (frameElement(state.selection[0]) ?? canvas).getBoundingClientRect();
  show(left + width / 2, top + height / 2);
}

canvas.addEventListener('contextmenu', async event => {
  if (state.writing !== null || state.inside) return;
  event.preventDefault();
  // By keys, it is asked for above.
  if (event.button !== 2) return;
  // It would be closed again by the button that is still down.
  if (event.buttons & 2) await new Promise(resolve => { window.addEventListener('pointerup', () => setTimeout(resolve), { once: true, capture: true }); });
  const frame = event.target.closest('[data-frame]');
  if (frame && !state.selection.includes(idOf(frame))) await choose([idOf(frame)]);
  else if (!frame && any()) await choose([]);
  else await settled();
  show(event.clientX, event.clientY);
});

card.addEventListener('keydown', event => {
  const lines = [...card.querySelectorAll('button')], at = lines.indexOf(document.activeElement);
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: -1 }[event.key];
  if (to === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  lines.at(to % lines.length).focus();
});
