// Typing text in its place. What is typed is sent after each pause and when the field is left, and counts as sent once it is stored.
import { ask } from '../../shared/http.js';
import { boxOf, canvas, frameElement, inspector, make, underWay, address } from '../parts.js';
import { edit, onLeaving, refresh } from '../edits.js';
import { change, state, watch } from '../state.js';
import { sending } from '../typed.js';
import { tell } from '../../shared/notices.js';

const pause = 1200;
let writing = null;

// Opens the field over a frame, the caret at the end or where it was.
export async function write(id, caret = null) {
  await leave();
  const frame = frameElement(id);
  if (!frame) return;
  // Shown by an answer that is still to come, the text is not what was seen: the revision is that of the text itself.
  const answer = await ask('GET', `${address}?handler=Writing&frames=${id}`).catch(problem => tell(problem.message) && null);
  if (!answer) return;
  const [, , width, height] = boxOf(frame);
  const holder = make('foreignObject', { width, height, transform: frame.getAttribute('transform'), class: 'writing-holder' });
  holder.innerHTML = answer.text;
  underWay.replaceChildren(holder);
  const field = holder.querySelector('.writing');
  writing = { id, holder, field, stored: plain(field), seen: Number(field.dataset.revision), timer: 0, sent: Promise.resolve(true) };
  change({ writing: id });
  hideBeneath();
  canvas.classList.add('is-writing');
  field.focus({ preventScroll: true });
  if (caret) putCaret(field, caret);
  else getSelection().selectAllChildren(field), getSelection().collapseToEnd();
  listenTo(field, writing);
}

function listenTo(field, mine) {
  field.addEventListener('input', () => {
    clearTimeout(mine.timer);
    mine.timer = setTimeout(() => send(mine), pause);
  });
  field.addEventListener('focusout', () => { if (writing === mine) send(mine); });
  field.addEventListener('paste', event => {
    event.preventDefault();
    document.execCommand('insertText', false, event.clipboardData.getData('text/plain'));
  });
  field.addEventListener('keydown', event => {
    event.stopPropagation();
    const letter = (event.ctrlKey || event.metaKey) && !event.shiftKey && !event.altKey ? faces[event.key.toLowerCase()] : null;
    if (event.key === 'Escape') leave();
    else if (event.key === 'Tab' && !event.shiftKey) document.execCommand('insertText', false, '\t');
    else if (letter) set(letter, String(!isSet(letter)));
    else return;
    event.preventDefault();
  });
}

// Keys that switch a setting of what is selected, as its field in the inspector does.
const faces = { b: 'bold', i: 'italic', u: 'underline' };
function isSet(setting) {
  const node = getSelection().focusNode, at = getComputedStyle(node?.nodeType === Node.TEXT_NODE ? node.parentElement : node ?? document.body);
  return { bold: Number(at.fontWeight) > 500, italic: at.fontStyle === 'italic', underline: at.textDecorationLine.includes('underline') }[setting];
}

const paragraphs = field => [...field.childNodes].filter(node => node.nodeType === Node.ELEMENT_NODE || node.textContent);

// Line ends between paragraphs; a line ended with Shift and Enter stays within its paragraph.
function plainOf(node) {
  const copy = node.cloneNode(true);
  if (copy.lastChild?.nodeName === 'BR') copy.lastChild.remove();
  copy.querySelectorAll?.('br').forEach(br => br.replaceWith('\u2028'));
  return copy.textContent.replaceAll('\u00a0', ' ');
}
const plain = field => paragraphs(field).map(plainOf).join('\n');

// Sends what is typed. Whether all of it is stored; where it is not, it stays in the field.
function send(mine) {
  clearTimeout(mine.timer);
  mine.sent = mine.sent.then(async () => {
    const text = plain(mine.field);
    if (text === mine.stored) return true;
    if (mine.offered) return false;
    const outcome = await edit({ do: 'write', frames: mine.id, keep: mine.id, text }, { seen: mine.seen });
    if (outcome.done) mine.stored = text;
    else if (outcome.problem.status === 409) offerBack(mine, text);
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
        Object.assign(mine, { seen: state.revision, offered: false });
        if (writing === mine) await send(mine);
        else await edit({ do: 'write', frames: mine.id, keep: mine.id, text }, { seen: mine.seen });
      }],
      ['Take theirs, copy mine', async () => {
        mine.offered = false;
        await navigator.clipboard?.writeText(text).catch(() => {});
        if (writing === mine) await close(mine);
        await refresh();
      }],
    ],
  });
}

// Leaves the field once what was typed is stored; where it could not be, the field stays open with it.
export async function leave() {
  const mine = writing;
  if (!mine) return true;
  if (!await send(mine)) return false;
  if (writing === mine) await close(mine);
  return true;
}

async function close(mine) {
  writing = null;
  change({ writing: null });
  mine.holder.remove();
  canvas.classList.remove('is-writing');
  const frame = frameElement(mine.id);
  delete frame?.dataset.written;
  frame?.focus({ preventScroll: true });
}
onLeaving(leave);

// What is set steps aside while it is typed over; also when the server has sent it anew.
function hideBeneath() {
  if (writing) frameElement(writing.id)?.setAttribute('data-written', 'yes');
}
watch(['answered'], hideBeneath);

// ---- Styles ---------------------------------------------------------------------------------------------------------------------------

// From where to where the selection reaches in the text, with one for each line end between paragraphs.
function selected() {
  const range = getSelection().rangeCount ? getSelection().getRangeAt(0) : null;
  if (!writing || !range || !writing.field.contains(range.startContainer)) return writing?.last ?? null;
  return { from: placeOf(writing.field, range.startContainer, range.startOffset), to: placeOf(writing.field, range.endContainer, range.endOffset) };
}
document.addEventListener('selectionchange', () => { if (writing?.field.contains(document.activeElement)) writing.last = selected(); });

function placeOf(field, node, offset) {
  let place = 0;
  for (const paragraph of paragraphs(field)) {
    if (paragraph === node || paragraph.contains(node)) {
      const before = document.createRange();
      before.setStart(paragraph, 0);
      before.setEnd(node, offset);
      // The line end behind an empty paragraph's caret is none of its words.
      return place + [...before.cloneContents().childNodes].map(child => (child.nodeName === 'BR' ? '\u2028' : plainOf(child))).join('').length;
    }
    if (node === field && [...field.childNodes].indexOf(paragraph) >= offset) return place;
    place += plainOf(paragraph).length + 1;
  }
  return Math.max(0, place - 1);
}

// The point in the field that a place in the text is.
function pointOf(field, place) {
  for (const paragraph of paragraphs(field)) {
    const length = plainOf(paragraph).length;
    if (place > length) {
      place -= length + 1;
      continue;
    }
    const walker = document.createTreeWalker(paragraph, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_ELEMENT);
    let node;
    while ((node = walker.nextNode())) {
      if (node.nodeName === 'BR') place -= 1;
      if (node.nodeType !== Node.TEXT_NODE) continue;
      if (place <= node.length) return [node, Math.max(0, place)];
      place -= node.length;
    }
    return [paragraph, 0];
  }
  return [field, field.childNodes.length];
}

function putCaret(field, { from, to }) {
  getSelection().setBaseAndExtent(...pointOf(field, from), ...pointOf(field, to));
}

// What is asked for goes to what is selected while text is typed, to the paragraph the caret stands in where nothing is, and else to all.
async function style(command) {
  const place = writing && selected(), mine = writing;
  if (place && !await send(mine)) return;
  const outcome = await edit({ ...command, ...(place && { from: place.from, to: place.to }) });
  if (!place || !outcome.done || writing !== mine) return;
  await write(mine.id, place);
}
const set = (setting, value) => style({ do: 'text-style', setting, value });

inspector.addEventListener('change', event => {
  const field = event.target, name = field.dataset.text;
  if (field.dataset.putStyle) style({ do: 'put-style', kind: field.dataset.putStyle, style: field.value });
  if (!name || name === 'yes') return;
  sending(field);
  set(name, field.type === 'checkbox' ? String(field.checked) : field.value);
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
// A button takes the caret away from what is typed; it does not, so that the selection stays.
inspector.addEventListener('mousedown', event => {
  if (writing && event.target.closest('[data-text-align], [data-clear-text]')) event.preventDefault();
});

canvas.addEventListener('pointerdown', event => {
  if (!writing) return;
  if (event.target.closest('.writing-holder')) event.stopPropagation();
  else leave();
}, true);
canvas.addEventListener('dblclick', event => { if (event.target.closest?.('.writing-holder')) event.stopPropagation(); }, true);
window.addEventListener('beforeunload', event => {
  if (writing && plain(writing.field) !== writing.stored) event.preventDefault();
});

// What else is chosen is shown; what was typed before is stored first.
watch(['selection'], () => { if (writing && !state.selection.includes(writing.id)) leave(); });
