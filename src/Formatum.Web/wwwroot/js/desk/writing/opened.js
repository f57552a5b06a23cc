// The text that is open, to be typed in; null where none is.
import { canvas, frameElement, typing } from '../parts.js';
import { change, state } from '../state.js';
import { isAnswered } from '../away.js';
import { lookAgain, refresh } from '../edits.js';

export let writing = null;

export function open(mine) {
  writing = mine;
  canvas.classList.add('is-writing');
  change({ writing: mine.id });
  return mine;
}

export function close(mine) {
  clearTimeout(mine.blind);
  isAnswered();
  clearTimeout(mine.resting);
  mine.asking.close();
  writing = null;
  const told = state.range !== null;
  change({ writing: null, range: null });
  // What a text says of others is filled where it is not typed in.
  if (mine.field.value.includes('{')) refresh();
  if (told && state.selection.includes(mine.id)) lookAgain();
  typing.replaceChildren();
  canvas.classList.remove('is-writing');
  if (document.activeElement === document.body) frameElement(mine.id)?.focus({ preventScroll: true });
}
