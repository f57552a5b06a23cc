// The caret goes where the pointer says; and once it rests, the inspector tells of what is selected there.
import { canvas, inspector } from '../parts.js';
import { leave } from './leaving.js';
import { look } from './showing.js';
import { lookAgain } from '../edits.js';
import { meant, send } from './storing.js';
import { rest } from './turns.js';
import { writing } from './opened.js';

// In milliseconds.
const restTime = 220;

function restsSoon(mine) {
  clearTimeout(mine.resting);
  mine.resting = setTimeout(() => {
    if (writing !== mine || mine.field.value !== mine.stored || inspector.contains(document.activeElement)) return;
    if (meant(mine)) lookAgain();
  }, restTime);
}

document.addEventListener('selectionchange', () => {
  if (!writing || document.activeElement !== writing.field) return;
  // Behind what was just typed, once that is shown.
  if (!writing.isAhead) writing.caret.draw();
  restsSoon(writing);
  // Elsewhere, nothing is switched.
  if (writing.next && writing.field.value === writing.stored && writing.field.selectionStart !== writing.next.at) writing.next = null;
  // Out of sight, the server tells where.
  if (writing.caret.lines.length > 0 && writing.caret.lineOf(writing.caret.focus) < 0) look(writing);
});

canvas.addEventListener('pointerdown', event => {
  const mine = writing;
  if (!mine || mine.isLeft || event.button !== 0) return;
  const place = mine.caret.placeAt(event);
  if (place === null) {
    leave();
    return;
  }
  event.stopPropagation();
  event.preventDefault();
  if (mine.held) {
    // What is typed stands elsewhere then.
    rest(mine).then(() => mine.caret.put(mine.caret.placeAt(event) ?? mine.caret.focus));
    return;
  }
  send(mine);
  mine.field.focus({ preventScroll: true });
  mine.caret.goal = null;
  const now = performance.now();
  mine.clicks = now - (mine.clicked ?? -1000) < 450 && mine.clickPlace === place ? mine.clicks + 1 : 1;
  Object.assign(mine, { clicked: now, clickPlace: place });
  if (mine.clicks > 1) mine.caret.select(place, mine.clicks === 2 ? 'word' : 'paragraph');
  else mine.caret.put(place, { stretch: event.shiftKey });
  selectAlong(event, mine);
}, true);

// What lies between where the pointer went down and where it goes is selected.
function selectAlong(event, mine) {
  const move = e => {
    const place = mine.caret.placeAt(e);
    if (place !== null && place !== mine.clickPlace) mine.caret.put(place, { stretch: true });
  };
  const end = () => {
    window.removeEventListener('pointermove', move, true);
    for (const kind of ['pointerup', 'pointercancel']) window.removeEventListener(kind, end, true);
  };
  window.addEventListener('pointermove', move, true);
  for (const kind of ['pointerup', 'pointercancel']) window.addEventListener(kind, end, true);
}
canvas.addEventListener('dblclick', event => { if (writing && !writing.isLeft) event.stopPropagation(); }, true);
