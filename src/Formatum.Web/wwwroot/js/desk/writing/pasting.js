// Copying and pasting words with how they are set.
import { address } from '../parts.js';
import { ask, randomName } from '../../shared/http.js';
import { editText, send } from './storing.js';
import { insert } from './ahead.js';
import { inField, inTurn } from './turns.js';
import { lookAhead } from './showing.js';
import { writing } from './opened.js';

const remembered = 'copied-words';

// The clipboard holds the words; how they are set is kept by the server as it was then.
export async function keepCopied(mine) {
  const { selectionStart: from, selectionEnd: to, value } = mine.field, token = randomName();
  if (from === to) return;
  localStorage.setItem(remembered, JSON.stringify({ token, source: mine.id, sourceFrom: from, sourceTo: to, text: value.slice(from, to) }));
  if (!await send(mine)) return;
  await ask('POST', `${address}?handler=Copy&token=${token}`).catch(() => {});
}

export async function cut(event, mine) {
  const { selectionStart: from, selectionEnd: to, value } = mine.field;
  if (from === to) return;
  event.preventDefault();
  event.clipboardData.setData('text/plain', value.slice(from, to));
  await keepCopied(mine);
  if (writing === mine && mine.field.selectionStart === from && mine.field.selectionEnd === to) document.execCommand('delete');
}

// Whether there is more to HTML than its words.
const isStyled = html => /<(b|strong|i|em|u|s|del|sup|sub|h[1-6]|li|table|p)[\s>]/i.test(html);

export function paste(event, mine) {
  const { clipboardData } = event, text = clipboardData.getData('text/plain').replaceAll('\r\n', '\n');
  const styled = mine.plain ? null : styledOf(text, clipboardData.getData('text/html'));
  // Words alone the browser puts in by itself, unless something else is still on its way.
  if (!styled && !mine.plain && !mine.held) return;
  event.preventDefault();
  // Where the first is prevented, Chromium tells of a plain paste twice.
  if (mine.plain === 'done') return;
  if (mine.plain) mine.plain = 'done';
  if (styled) inTurn(mine, () => pasteStyled(mine, text, styled));
  else if (mine.held) mine.held.keys.push({ words: text });
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
  inField(mine, () => { if (!done) insert(plain); });
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
