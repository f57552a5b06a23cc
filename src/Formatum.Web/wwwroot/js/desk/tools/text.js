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
    if (event.key !== 'Escape') return;
    event.preventDefault();
    leave();
  });
}

const paragraphs = field => [...field.childNodes].filter(node => node.nodeType === Node.ELEMENT_NODE || node.textContent);

// Line ends between paragraphs; a line ended with Shift and Enter stays within its paragraph.
function plain(field) {
  return paragraphs(field).map(node => {
    if (node.nodeType === Node.TEXT_NODE) return node.textContent;
    const copy = node.cloneNode(true);
    if (copy.lastChild?.nodeName === 'BR') copy.lastChild.remove();
    copy.querySelectorAll('br').forEach(br => br.replaceWith('\u2028'));
    return copy.textContent;
  }).join('\n').replaceAll('\u00a0', ' ');
}

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

// Which paragraphs the selection reaches over, and how far into the first of them the caret stands.
function selected() {
  const range = getSelection().rangeCount ? getSelection().getRangeAt(0) : null;
  if (!writing || !range || !writing.field.contains(range.startContainer)) return writing?.last ?? null;
  const all = paragraphs(writing.field), of = node => Math.max(0, all.findIndex(p => p === node || p.contains(node)));
  const before = range.cloneRange();
  before.selectNodeContents(all[of(range.startContainer)] ?? writing.field);
  before.setEnd(range.startContainer, range.startOffset);
  return { first: of(range.startContainer), last: of(range.endContainer), offset: before.toString().length };
}
document.addEventListener('selectionchange', () => { if (writing?.field.contains(document.activeElement)) writing.last = selected(); });

function putCaret(field, { first, offset }) {
  const walker = document.createTreeWalker(paragraphs(field)[first] ?? field, NodeFilter.SHOW_TEXT);
  let left = offset, node;
  while ((node = walker.nextNode())) {
    if (left <= node.length) {
      getSelection().collapse(node, left);
      return;
    }
    left -= node.length;
  }
  getSelection().selectAllChildren(paragraphs(field)[first] ?? field);
  getSelection().collapseToEnd();
}

// A style goes to the paragraphs that are selected while text is typed, and else to all.
async function style(values) {
  const place = writing && selected(), mine = writing;
  if (place && !await send(mine)) return;
  const outcome = await edit({ do: 'text-style', ...values, ...(place && { firstParagraph: place.first, lastParagraph: place.last }) });
  if (!place || !outcome.done || writing !== mine) return;
  await write(mine.id, place);
}

inspector.addEventListener('change', event => {
  const field = event.target, name = field.dataset.text;
  if (!name) return;
  sending(field);
  style({ [name]: field.type === 'checkbox' ? field.checked : field.value });
});
inspector.addEventListener('click', event => {
  const align = event.target.closest('[data-text-align]');
  if (align) style({ textAlign: align.dataset.textAlign });
  if (event.target.closest('#write')) write(state.selection[0]);
});
// A button takes the caret away from what is typed; it does not, so that the selection stays.
inspector.addEventListener('mousedown', event => { if (writing && event.target.closest('[data-text-align]')) event.preventDefault(); });

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
