// Typing in the page itself. A field out of sight takes what is typed; the server sets it as it will print, and tells where each place in it is. What is typed
// is stored after each pause, when the caret is put elsewhere and when it is left, and counts as sent once it is stored.
import { ask, randomName } from '../../shared/http.js';
import { canvas, frameElement, inspector, typing, address } from '../parts.js';
import { edit, leaveFor, lookAgain, onLeaving, refresh } from '../edits.js';
import { asker } from '../line.js';
import { change, state, watch } from '../state.js';
import { sending } from '../typed.js';
import { tell } from '../../shared/notices.js';
import { holdBack, holdToo, insert, isHeldBack, letGo, wordsOf } from './ahead.js';
import { Caret } from './caret.js';

const pause = 1200, longestPause = 30_000;
// So much at once is stored right away instead of being asked about first.
const longest = 4000;
let writing = null;

// Opens a frame's text, the caret at its end or at a place in it, or where a pointer is.
export async function write(id, { place = null, pointer = null } = {}) {
  await leave();
  if (!frameElement(id)) return;
  holdBack();
  // Shown by an answer that is still to come, the text is not what was seen: the revision is that of the text itself.
  const answer = await ask('GET', `${address}?handler=Writing&frames=${id}`).catch(problem => tell(problem.message) && null);
  const typed = letGo();
  if (!answer) {
    if (wordsOf(typed)) tell(`What you typed is not stored: \u201c${wordsOf(typed)}\u201d. Open the text again when the server answers.`, { stays: true });
    return;
  }
  const { label, text, revision, places } = JSON.parse(answer.text), field = fieldOf(label, text);
  canvas.classList.add('is-writing');
  const mine = { id, field, stored: text, sending: null, seen: revision, known: state.revision, timer: 0, sent: Promise.resolve(true),
    typed: 0, isAhead: false, asked: new WeakMap(), done: place?.done ?? 0, undone: place?.undone ?? 0 };
  mine.caret = new Caret(field);
  mine.asking = asker((shown, asked) => show(mine, shown.writing, asked), () => lookPast(mine));
  writing = mine;
  change({ writing: id });
  field.focus({ preventScroll: true });
  mine.caret.show(places);
  const from = place?.from ?? (pointer && mine.caret.placeAt(pointer)) ?? text.length;
  field.setSelectionRange(from, place?.to ?? from);
  listenTo(field, mine);
  look(mine);
  goOnWith(mine, typed);
}

function fieldOf(label, text) {
  const field = document.createElement('textarea');
  field.className = 'writing';
  field.value = text;
  field.wrap = 'off';
  field.spellcheck = false;
  field.setAttribute('aria-label', `Text of ${label}`);
  return field;
}

// ---- What is typed, shown as it will print -------------------------------------------------------------------------------------------

// How much two texts share before they differ, and behind.
// What is typed with a setting switched begins where that was done, whatever stands around it.
function shared(one, other, most = Infinity) {
  const least = Math.min(one.length, other.length, most);
  let before = 0, behind = 0;
  while (before < least && one[before] === other[before]) before++;
  const rest = Math.min(one.length, other.length) - before;
  while (behind < rest && one[one.length - 1 - behind] === other[other.length - 1 - behind]) behind++;
  return { before, behind };
}

// Where what is typed differs from what is stored: all that goes over the line.
function difference({ field, next }, stored) {
  const text = field.value, { before: from, behind } = shared(stored, text, next?.at);
  const to = stored.length - behind, begin = stored.lastIndexOf('\n', from - 1) + 1, end = stored.indexOf('\n', to);
  return { from, to, text: text.slice(from, text.length - behind), within: stored.slice(begin, end < 0 ? undefined : end), begin };
}

const command = (mine, stored = mine.stored) =>
  ({ do: 'write', frames: String(mine.id), caret: mine.caret.focus, switched: mine.next?.switched ?? [], ...difference(mine, stored) });

// While words are on their way to be stored, the server holds them already or does not: what it cannot follow from the one, it can from the other.
function lookPast(mine) {
  if (writing === mine && mine.sending !== null && mine.lookedFrom !== mine.sending) look(mine, mine.sending);
}

function look(mine, stored = mine.stored) {
  const asked = command(mine, stored);
  mine.asked.set(asked, mine.typed);
  mine.lookedFrom = stored;
  clearTimeout(mine.blind);
  // Where nobody answers, the words are seen in the field itself, and keys wait for no lines.
  mine.blind = setTimeout(() => {
    mine.field.classList.add('is-blind');
    mine.isAhead = false;
    goOn(mine);
  }, 900);
  if (asked.text.length > longest) send(mine);
  else mine.asking.ask(asked);
}

// The field holds other words than those that are shown.
function lookAhead(mine) {
  mine.typed++;
  mine.isAhead = true;
  look(mine);
}

function show(mine, places, asked) {
  if (writing !== mine || !places) return;
  clearTimeout(mine.blind);
  mine.field.classList.remove('is-blind');
  mine.isAhead = mine.asked.get(asked) !== mine.typed;
  mine.caret.show(places);
  if (!mine.isAhead) goOn(mine);
  if (places.elsewhereFrame) goToSpread(mine, places);
}

// The caret has left for a frame of another spread: typing goes on there.
async function goToSpread(mine, { elsewhereSpread, elsewhereFrame }) {
  if (!await leave()) return;
  const { done, undone, field: { selectionStart: from, selectionEnd: to } } = mine;
  sessionStorage.setItem('writing', JSON.stringify({ id: elsewhereFrame, from, to, done, undone }));
  leaveFor(elsewhereSpread);
}
const begun = JSON.parse(sessionStorage.getItem('writing'));
sessionStorage.removeItem('writing');
if (begun) write(begun.id, { place: begun });

watch(['answered'], () => { if (writing) writing.kept = keepUp(writing); });

// Shows what others changed of the text meanwhile; what was typed here is stored first, into the paragraphs it was typed in.
async function keepUp(mine) {
  look(mine);
  if (state.revision === mine.known || mine.offered) return;
  mine.known = state.revision;
  if (!await send(mine)) return;
  const answer = await ask('GET', `${address}?handler=Writing&frames=${mine.id}`).catch(() => null);
  if (!answer || writing !== mine || mine.field.value !== mine.stored) return;
  const { text, revision } = JSON.parse(answer.text);
  // Older than what has been stored since, it would take that back.
  if (revision < state.revision) return;
  mine.seen = Math.max(mine.seen, revision);
  if (text !== mine.stored) takeOver(mine, text);
}

// The caret stays between the words it stands between.
function takeOver(mine, text) {
  const { field, stored } = mine, { before, behind } = shared(stored, text);
  const moved = place => (place <= before ? place : Math.max(before, place >= stored.length - behind ? place + text.length - stored.length : before));
  const { selectionStart, selectionEnd, selectionDirection } = field;
  field.value = mine.stored = text;
  field.setSelectionRange(moved(selectionStart), moved(selectionEnd), selectionDirection);
  lookAhead(mine);
}

// ---- Keys and pointer ----------------------------------------------------------------------------------------------------------------

// Keys that switch a setting of what is selected, as its field in the inspector does.
const faces = { b: 'bold', i: 'italic', u: 'underline' };
const byLines = new Set(['ArrowUp', 'ArrowDown', 'Home', 'End', 'PageUp', 'PageDown']);
const goesElsewhere = new Set([...byLines, 'ArrowLeft', 'ArrowRight']);
const steps = { z: 'undo', y: 'redo' };

function listenTo(field, mine) {
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
  else if (face) switchFace(face, mine);
  else if (control && !event.altKey && steps[event.key.toLowerCase()]) step(mine, event.shiftKey ? 'redo' : steps[event.key.toLowerCase()]);
  else if (event.altKey && event.key.toLowerCase() === 'y') openStyles(event.shiftKey);
  else if (byLines.has(event.key) && !control) moveByLine(event, mine);
  else return;
  event.preventDefault();
}

// With words selected, theirs; with the caret alone, of what is typed next.
async function switchFace(face, mine) {
  if (mine.field.selectionStart !== mine.field.selectionEnd) {
    set(face, 'switch');
    return;
  }
  if (!mine.next && !await send(mine)) return;
  const now = mine.next?.switched ?? [], at = mine.field.selectionStart;
  const switched = now.includes(face) ? now.filter(name => name !== face) : [...now, face];
  mine.next = switched.length > 0 ? { at, switched } : null;
  tell(mine.next ? `What you type next here: ${switched.join(', ')} switched.` : 'What you type next is as before.');
}

// The list of styles, by keys: chosen there, it is put on, and the keys go back to the text.
export function openStyles(ofCharacters) {
  const list = document.getElementById(ofCharacters ? 'text-character-style' : 'text-style');
  if (!list) return;
  list.focus();
  list.showPicker?.();
}

inspector.addEventListener('keydown', event => { if (event.key === 'Escape' && writing) writing.field.focus({ preventScroll: true }); });

// ---- Pasting and copying with how words are set ---------------------------------------------------------------------------------------

const remembered = 'copied-words';

// The clipboard holds the words; how they are set is kept by the server as it was then.
async function keepCopied(mine) {
  const { selectionStart: from, selectionEnd: to, value } = mine.field, token = randomName();
  if (from === to) return;
  localStorage.setItem(remembered, JSON.stringify({ token, source: mine.id, sourceFrom: from, sourceTo: to, text: value.slice(from, to) }));
  if (!await send(mine)) return;
  await ask('POST', `${address}?handler=Copy&token=${token}`).catch(() => {});
}

async function cut(event, mine) {
  const { selectionStart: from, selectionEnd: to, value } = mine.field;
  if (from === to) return;
  event.preventDefault();
  event.clipboardData.setData('text/plain', value.slice(from, to));
  await keepCopied(mine);
  if (writing === mine && mine.field.selectionStart === from && mine.field.selectionEnd === to) document.execCommand('delete');
}

// Whether there is more to HTML than its words.
const isStyled = html => /<(b|strong|i|em|u|s|del|sup|sub|h[1-6]|li|table|p)[\s>]/i.test(html);

function paste(event, mine) {
  const { clipboardData } = event, text = clipboardData.getData('text/plain').replaceAll('\r\n', '\n');
  const styled = mine.plain ? null : styledOf(text, clipboardData.getData('text/html'));
  // Words alone the browser puts in by itself, unless something else is still on its way.
  if (!styled && !mine.plain && !isHeldBack()) return;
  event.preventDefault();
  // Where the first is prevented, Chromium tells of a plain paste twice.
  if (mine.plain === 'done') return;
  if (mine.plain) mine.plain = 'done';
  if (styled) inTurn(mine, () => pasteStyled(mine, text, styled));
  else if (isHeldBack()) holdToo({ words: text });
  else insert(text);
}

// What there is more to what is pasted than its words: where it was copied here, or how it is set.
function styledOf(text, html) {
  const { text: copied, ...source } = JSON.parse(localStorage.getItem(remembered) ?? '{}');
  if (copied === text && text) return source;
  return html && isStyled(html) ? { html } : null;
}

// Where it cannot be done, the words alone are put in.
async function pasteStyled(mine, plain, what) {
  const done = await putStyled(mine, what);
  if (writing !== mine) return;
  mine.field.focus({ preventScroll: true });
  if (!done) insert(plain);
}

async function putStyled(mine, what) {
  if (!await send(mine)) return false;
  const { selectionStart: from, selectionEnd: to, value } = mine.field, behind = value.length - to;
  const outcome = await editText(mine, { do: 'paste-words', frames: String(mine.id), keep: mine.id, from, to, ...what }, { seen: mine.seen });
  if (outcome.problem) return false;
  const answer = await ask('GET', `${address}?handler=Writing&frames=${mine.id}`).catch(() => null);
  if (!answer) return true;
  const { text, revision } = JSON.parse(answer.text);
  mine.seen = Math.max(mine.seen, revision);
  mine.field.value = mine.stored = text;
  mine.field.setSelectionRange(text.length - behind, text.length - behind);
  lookAhead(mine);
  return true;
}

// ---- Taking back ---------------------------------------------------------------------------------------------------------------------

// What was typed, pasted and set in this text is taken back in its order. The field's own way back knows of its words alone.
const step = (mine, what) => inTurn(mine, () => takeStep(mine, what));

// The buttons mean the open text as well, as far as something was done in it.
document.addEventListener('click', event => {
  const mine = writing, what = event.target.closest('#undo, #redo')?.id;
  if (!mine || !what || (mine[what === 'undo' ? 'done' : 'undone'] === 0 && mine.field.value === mine.stored)) return;
  event.stopPropagation();
  mine.field.focus({ preventScroll: true });
  step(mine, what);
}, true);

// Does what changes the text by the server; keys that come meanwhile, and what else does, act on what it leads to.
function inTurn(mine, run) {
  if (isHeldBack()) holdToo({ run });
  else begin(mine, run);
}

function begin(mine, run, behind = []) {
  holdBack(behind);
  mine.turn = run().catch(problem => console.error(problem)).then(() => {
    mine.turn = null;
    const keys = letGo();
    if (writing === mine) goOnWith(mine, keys);
  });
}

async function takeStep(mine, what) {
  const from = what === 'undo' ? 'done' : 'undone', to = what === 'undo' ? 'undone' : 'done';
  if (!await send(mine)) return;
  if (mine[from] === 0) {
    tell(what === 'redo' ? 'Nothing is left to do again.'
        : 'All that was done in this text is taken back. What was done before can be, once you leave it (Esc).');
    return;
  }
  const outcome = await edit({ do: what, frames: String(mine.id), keep: String(mine.id) });
  if (!outcome.done) return;
  mine[from]--;
  mine[to]++;
  await mine.kept;
}

// An edit of this text, which can be taken back while it is open.
async function editText(mine, command, options) {
  const before = state.revision, outcome = await edit(command, options);
  // What changed nothing is no step.
  if (outcome.done && mine && state.revision !== before) {
    mine.done++;
    mine.undone = 0;
  }
  return outcome;
}

function moveByLine({ key, shiftKey }, mine) {
  if (mine.isAhead) waitWith(mine, [{ key, shiftKey }]);
  else {
    const place = mine.caret.goesTo(key);
    if (place !== null) mine.caret.put(place, { stretch: shiftKey });
  }
}

// Where a line goes from is known once what was typed is shown: a key that comes before waits for that, and what follows it with it.
function waitWith(mine, keys) {
  holdBack(keys);
  mine.goesOn = true;
}

// Goes on with what waited for lines to be shown.
function goOn(mine) {
  if (!mine.goesOn) return;
  mine.goesOn = false;
  goOnWith(mine, letGo());
  mine.rested?.();
}

// Until nothing is held back.
async function rest(mine) {
  while (mine.goesOn || mine.turn) await (mine.turn ?? new Promise(resolve => { mine.rested = resolve; }));
}

// Does what keys that were held back would have done.
function goOnWith(mine, keys) {
  for (let i = 0; i < keys.length; i++) {
    const { key, shiftKey, run } = keys[i];
    if (run) {
      begin(mine, run, keys.slice(i + 1));
      return;
    }
    if (byLines.has(key) && mine.isAhead) {
      waitWith(mine, keys.slice(i));
      return;
    }
    if (byLines.has(key)) moveByLine(keys[i], mine);
    else if (key === 'ArrowLeft' || key === 'ArrowRight') mine.caret.step(key === 'ArrowLeft' ? -1 : 1, { stretch: shiftKey });
    else if (key === 'Backspace') document.execCommand('delete');
    else if (key === 'Delete') document.execCommand('forwardDelete');
    else if (key === 'Tab') insert('\t');
    else if (key === 'Enter' && shiftKey) insert('\u2028');
    else {
      const words = wordsOf([keys[i]]);
      if (words) insert(words);
    }
  }
}

// Once the caret rests, the inspector tells of what is selected, or of what would be typed there.
const restTime = 220;
function meant(mine) {
  const range = `${mine.field.selectionStart}-${mine.field.selectionEnd}`;
  if (range === state.range) return false;
  change({ range });
  return true;
}

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
  if (!mine || event.button !== 0) return;
  const place = mine.caret.placeAt(event);
  if (place === null) {
    leave();
    return;
  }
  event.stopPropagation();
  event.preventDefault();
  if (isHeldBack()) {
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
canvas.addEventListener('dblclick', event => { if (writing) event.stopPropagation(); }, true);

// ---- Storing -------------------------------------------------------------------------------------------------------------------------

// Sends what is typed. Whether all of it is stored; where it is not, it stays in the field.
function send(mine) {
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

// Leaves the text once what was typed is stored; where it could not be, it stays open.
export async function leave() {
  const mine = writing;
  if (!mine) return true;
  // What is typed while words are on their way is stored as well.
  do {
    await rest(mine);
    if (!await send(mine)) return false;
  } while (writing === mine && (isHeldBack() || mine.field.value !== mine.stored));
  if (writing === mine) close(mine);
  return true;
}

function close(mine) {
  clearTimeout(mine.blind);
  letGo();
  clearTimeout(mine.resting);
  mine.asking.close();
  writing = null;
  const told = state.range !== null;
  change({ writing: null, range: null });
  if (told && state.selection.includes(mine.id)) lookAgain();
  typing.replaceChildren();
  canvas.classList.remove('is-writing');
  frameElement(mine.id)?.focus({ preventScroll: true });
}
onLeaving(leave);

window.addEventListener('beforeunload', event => {
  if (writing && writing.field.value !== writing.stored) event.preventDefault();
});

// What else is chosen is shown; what was typed before is stored first.
watch(['selection'], () => { if (writing && !state.selection.includes(writing.id)) leave(); });

// ---- Styles ---------------------------------------------------------------------------------------------------------------------------

// What is asked for goes to what is selected while text is typed, to the paragraph the caret stands in where nothing is, and else to all.
async function style(asked) {
  const mine = writing, place = mine && { from: mine.field.selectionStart, to: mine.field.selectionEnd };
  if (mine && !await send(mine)) return;
  if (mine) change({ range: `${place.from}-${place.to}` });
  await editText(mine, { ...asked, ...(mine && { frames: String(mine.id), keep: mine.id, ...place }) });
  if (writing !== mine || !mine) return;
  mine.field.focus({ preventScroll: true });
}
const set = (setting, value) => style({ do: 'text-style', setting, value });

inspector.addEventListener('change', event => {
  const field = event.target, name = field.dataset.text;
  if (field.dataset.putStyle) style({ do: 'put-style', kind: field.dataset.putStyle, style: field.value });
  if (!name || name === 'yes') return;
  sending(field);
  set(name, field.type === 'checkbox' ? String(field.checked) : field.value);
});
// A field goes where the caret stands, or behind all of a text that is not open.
inspector.addEventListener('change', async event => {
  if (event.target.id !== 'insert-field' || !event.target.value) return;
  const written = event.target.value;
  event.target.value = '';
  if (!writing) await write(state.selection[0]);
  writing?.field.focus({ preventScroll: true });
  if (writing) insert(written);
});
inspector.addEventListener('click', event => {
  const align = event.target.closest('[data-text-align]'), clear = event.target.closest('[data-clear-text]');
  if (align) set('alignment', align.dataset.textAlign);
  if (clear) set(clear.dataset.clearText, null);
  if (event.target.closest('#write')) write(state.selection[0]);
});
inspector.addEventListener('submit', event => {
  if (event.target.id !== 'make-style') return;
  const form = new FormData(event.target);
  style({ do: 'make-style', name: form.get('name'), kind: form.get('kind'), settings: form.getAll('settings') });
});
