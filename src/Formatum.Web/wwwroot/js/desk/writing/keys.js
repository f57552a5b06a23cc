// What the keys do in an open text.
import { byLines, inTurn, moveByLine } from './turns.js';
import { cut, keepCopied, paste } from './pasting.js';
import { insert } from './ahead.js';
import { leave } from './leaving.js';
import { lookAhead } from './showing.js';
import { openStyles, switchFace } from './styles.js';
import { send } from './storing.js';
import { step } from './steps.js';
import { writing } from './opened.js';

const pause = 1200, longestPause = 30_000;

// Keys that switch a setting of what is selected, as its field in the inspector does.
const faces = { b: 'bold', i: 'italic', u: 'underline' };
const goesElsewhere = new Set([...byLines, 'ArrowLeft', 'ArrowRight']);
const steps = { z: 'undo', y: 'redo' };

export function listenTo(field, mine) {
  field.addEventListener('input', () => {
    mine.caret.goal = null;
    lookAhead(mine);
    clearTimeout(mine.timer);
    mine.since ??= performance.now();
    mine.timer = setTimeout(() => send(mine), Math.max(0, Math.min(pause, mine.since + longestPause - performance.now())));
  });
  field.addEventListener('beforeinput', event => {
    if (event.inputType !== 'historyUndo' && event.inputType !== 'historyRedo') return;
    event.preventDefault();
    step(mine, event.inputType === 'historyUndo' ? 'undo' : 'redo');
  });
  field.addEventListener('focusout', () => { if (writing === mine) send(mine); });
  field.addEventListener('keydown', event => onKey(event, mine));
  field.addEventListener('keyup', () => { mine.plain = null; });
  field.addEventListener('copy', () => keepCopied(mine));
  field.addEventListener('cut', event => cut(event, mine));
  field.addEventListener('paste', event => paste(event, mine));
}

function onKey(event, mine) {
  event.stopPropagation();
  const control = event.ctrlKey || event.metaKey, face = control && !event.shiftKey && !event.altKey ? faces[event.key.toLowerCase()] : null;
  if (!byLines.has(event.key)) mine.caret.goal = null;
  mine.plain = control && event.shiftKey && event.key.toLowerCase() === 'v' ? 'asked' : null;
  if (event.isComposing) return;
  if (goesElsewhere.has(event.key)) send(mine);
  if (event.key === 'Escape') leave();
  else if (event.key === 'Tab' && !event.shiftKey) insert('\t');
  else if (event.key === 'Enter' && event.shiftKey) insert('\u2028');
  else if (face) inTurn(mine, () => switchFace(face, mine));
  else if (control && event.key.toLowerCase() === 'a' && mine.held) inTurn(mine, async () => mine.field.select());
  else if (control && !event.altKey && steps[event.key.toLowerCase()]) step(mine, event.shiftKey ? 'redo' : steps[event.key.toLowerCase()]);
  else if (event.altKey && event.key.toLowerCase() === 'y') openStyles(event.shiftKey);
  else if (byLines.has(event.key) && !control) moveByLine(event, mine);
  else return;
  event.preventDefault();
}
