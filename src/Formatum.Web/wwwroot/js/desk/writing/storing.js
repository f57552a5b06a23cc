// Storing what is typed: after each pause, when the caret is put elsewhere, and when the text is left. It counts as sent once it is stored.
import { change, state } from '../state.js';
import { close, writing } from './opened.js';
import { command, look } from './showing.js';
import { edit, refresh } from '../edits.js';
import { tell } from '../../shared/notices.js';

// The inspector tells of what is selected, or of what would be typed there. Whether that is other than before.
export function meant(mine) {
  const range = `${mine.field.selectionStart}-${mine.field.selectionEnd}`;
  if (range === state.range) return false;
  change({ range });
  return true;
}

// An edit of this text, which can be taken back while it is open.
export async function editText(mine, command, options) {
  const before = state.revision, outcome = await edit(command, options);
  // What changed nothing is no step.
  if (outcome.done && mine && state.revision !== before) {
    mine.done++;
    mine.undone = 0;
  }
  return outcome;
}

// Sends what is typed. Whether all of it is stored; where it is not, it stays in the field.
export function send(mine) {
  clearTimeout(mine.timer);
  mine.sent = mine.sent.then(async () => {
    const text = mine.field.value;
    if (text === mine.stored) return true;
    if (mine.offered) return false;
    meant(mine);
    mine.sending = text;
    mine.since = null;
    const outcome = await editText(mine, { ...command(mine), keep: mine.id }, { seen: mine.seen });
    mine.sending = null;
    if (outcome.done) {
      mine.stored = text;
      // What is typed on takes over from what was typed.
      mine.next = null;
      if (writing === mine) look(mine);
    } else if (outcome.problem.status === 409) offerBack(mine, text);
    return Boolean(outcome.done);
  });
  return mine.sent;
}

// Somebody else changed this text since it was opened: nobody's words are lost, and the person chooses.
function offerBack(mine, text) {
  if (mine.offered) return;
  mine.offered = true;
  tell('Somebody else changed this text while you typed. Yours is kept here until you choose.', {
    stays: true,
    actions: [
      ['Put mine in its place', async () => {
        const now = writing === mine ? mine.field.value : text;
        Object.assign(mine, { seen: state.revision, offered: false });
        const outcome = await editText(mine, { do: 'write', frames: mine.id, keep: mine.id, text: now }, { seen: mine.seen });
        if (outcome.done) mine.stored = now;
        if (writing === mine) look(mine);
      }],
      ['Take theirs, copy mine', async () => {
        mine.offered = false;
        await navigator.clipboard?.writeText(text).catch(() => {});
        if (writing === mine) close(mine);
        await refresh();
      }],
    ],
  });
}
