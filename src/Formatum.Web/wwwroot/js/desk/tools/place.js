// Pictures onto frames: picked in the contact sheet, dragged from it, or dropped as files from the computer.
import { at, canvas, idOf, sheet } from '../parts.js';
import { edit, refresh } from '../edits.js';
import { followPointer } from '../../shared/pointer.js';
import { bringIn, filesOf, onArrived } from '../../shared/intake.js';
import { bringFonts, isFont } from './fonts.js';
import { bringWords, isDocument } from './words.js';
import { state } from '../state.js';
import { takeImage } from './draw.js';
import { offerArrivals } from './arrivals.js';

function place(image, frames) {
  const everywhere = document.getElementById('replace-everywhere')?.checked && frames.join() === state.selection.join();
  return edit({ do: everywhere ? 'replace-everywhere' : 'place', frames, image });
}

sheet.addEventListener('click', event => {
  const thumb = event.target.closest('.thumb');
  if (!thumb || thumb.dataset.carried) return;
  if (state.selection.length > 0) place(thumb.dataset.image, state.selection);
  else takeImage(thumb.dataset.image);
  // The work goes on at the frame, or where the picture is set down.
  canvas.focus({ preventScroll: true });
});

sheet.addEventListener('pointerdown', event => {
  const thumb = event.target.closest('.contact-sheet li')?.querySelector('.thumb');
  if (!thumb || event.button !== 0) return;
  const startX = event.clientX, startY = event.clientY;
  let carried = null, over = null;
  followPointer(document, e => {
    if (!carried && Math.hypot(e.clientX - startX, e.clientY - startY) < 6) return;
    carried ??= lift(thumb);
    carried.style.left = `${e.clientX + 8}px`;
    carried.style.top = `${e.clientY + 8}px`;
    const frame = document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-frame]') ?? null;
    if (frame === over) return;
    over?.classList.remove('drop-here');
    frame?.classList.add('drop-here');
    over = frame;
  }, e => {
    carried?.remove();
    over?.classList.remove('drop-here');
    setTimeout(() => delete thumb.dataset.carried);
    if (!carried || e.type === 'pointercancel') return;
    if (over) place(thumb.dataset.image, [idOf(over)]);
    else if (document.elementFromPoint(e.clientX, e.clientY)?.closest('#canvas')) setDown(thumb.dataset.image, e);
  });
});

function lift(thumb) {
  const carried = thumb.querySelector('img').cloneNode();
  carried.className = 'carried';
  document.body.append(carried);
  thumb.dataset.carried = 'yes';
  return carried;
}

function setDown(image, event) {
  const { x, y } = at(event);
  edit({ do: 'set-down', image, fromX: x, fromY: y, toX: x, toY: y });
}

// Files from the computer: dropped on a frame, the first that could be read is placed there and the others wait in the tray;
// dropped on the table, a card offers where they may go.
canvas.addEventListener('dragover', event => {
  if (event.dataTransfer.types.includes('Files')) event.preventDefault();
});
canvas.addEventListener('drop', async event => {
  if (!event.dataTransfer.types.includes('Files')) return;
  event.preventDefault();
  const frame = event.target.closest('[data-frame]:not(.frame-text)')?.dataset.frame, where = at(event);
  const ofWords = event.target.closest('.frame-text, .frame-empty')?.dataset.frame;
  const all = await filesOf(event.dataTransfer), fonts = all.filter(isFont), files = all.filter(file => !isFont(file));
  if (fonts.length > 0) await bringFonts(fonts);
  // Among pictures, a document is a note that lies beside them.
  if (files.length > 0 && files.every(isDocument)) {
    for (const file of files) await bringWords(file, ofWords, where);
    return;
  }
  if (files.length === 0) return;
  const arrived = [...new Set((await bringIn(files)).filter(a => a.id).map(a => a.id))];
  if (arrived.length === 0) return;
  if (!frame) {
    offerArrivals(arrived, where);
    return;
  }
  edit({ do: 'place', frames: Number(frame), image: arrived[0] });
  if (arrived.length > 1) edit({ do: 'tray-add', images: arrived.slice(1).join(','), keep: frame });
});
onArrived(refresh);
