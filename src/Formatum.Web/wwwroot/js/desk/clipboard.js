// The clipboard: it holds which frames of which publication were copied or cut. The server keeps them as they were then.
import { address, canvas, inspector, at, publication } from './parts.js';
import { ask, randomName } from '../shared/http.js';
import { edit } from './edits.js';
import { isTyping } from '../shared/pointer.js';
import { state } from './state.js';
import { tell } from '../shared/notices.js';

const pattern = /^Formatum frames ([\d,]+) of publication (\d+)(?: \((\w+)\))?$/;
let pointer = null, inPlace = false, lastCopied = null;

canvas.addEventListener('pointermove', event => { pointer = at(event); });
canvas.addEventListener('pointerleave', () => { pointer = null; });
document.addEventListener('keydown', event => { inPlace = event.shiftKey; }, true);

const isOfDesk = event => !isTyping(event.target) && state.selection.length > 0 && !state.inside && getSelection().isCollapsed;

function put(event) {
  const token = randomName(), frames = state.selection.join(',');
  event.preventDefault();
  event.clipboardData.setData('text/plain', `Formatum frames ${frames} of publication ${publication} (${token})`);
  lastCopied = { copied: frames, fromPublication: publication, token };
  return lastCopied;
}

document.addEventListener('copy', event => {
  if (!isOfDesk(event)) return;
  const { copied, token } = put(event);
  ask('POST', `${address}?handler=Copy&frames=${copied}&token=${token}`).catch(() => {});
});

document.addEventListener('cut', event => {
  if (!isOfDesk(event)) return;
  const { copied, token } = put(event);
  edit({ do: 'cut', frames: copied, token });
});

document.addEventListener('paste', event => {
  if (isTyping(event.target)) return;
  const copied = pattern.exec(event.clipboardData.getData('text/plain').trim());
  if (!copied) return;
  event.preventDefault();
  const where = inPlace || !pointer;
  edit({ do: 'paste', copied: copied[1], fromPublication: copied[2], token: copied[3], inPlace: where, toX: pointer?.x ?? 0, toY: pointer?.y ?? 0 });
});

inspector.addEventListener('click', event => {
  const what = event.target.closest('#paste-rule, #paste-look')?.id;
  if (!what) return;
  if (lastCopied) edit({ do: what, ...lastCopied });
  else tell(`Copy the frame whose ${what === 'paste-rule' ? 'rule' : 'look'} you want first (Ctrl C), then choose the others.`);
});
