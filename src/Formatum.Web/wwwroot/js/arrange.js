// More of arranging: gaps between frames, free outlines, grids, the clipboard, the history. What the hand does goes to the server, as everywhere.
(() => {
  const { svg, canvas, inspector, marks, underWay, make, at, scale, edit, choose, asker, startDrag, setTool, gridValues, address, spread } = window.Desk;
  const publication = document.getElementById('desk').dataset.publication;

  // Shown once the click that asked for it is over; it would close it again.
  window.Desk.showCard = (card, event, field) => setTimeout(() => {
    card.showPopover();
    card.style.left = `${Math.min(event.clientX, innerWidth - card.offsetWidth - 12)}px`;
    card.style.top = `${Math.min(event.clientY + 8, innerHeight - card.offsetHeight - 12)}px`;
    field.select();
  });

  // ---- The gap under the pointer, which can itself be drawn ---------------------------------------------------------------------------------

  const gap = document.getElementById('gap');
  const card = document.getElementById('gap-card'), width = document.getElementById('gap-width');
  let meant = null;
  let overFrame = false;
  const finder = asker(answer => showGap(answer.gap));

  function showGap(found) {
    gap.replaceChildren();
    if (!found) return;
    const least = 6 / scale(), narrow = found.upright ? found.width < least : found.height < least;
    // Over a frame, the frame is meant, but where it meets another there is no other place to take hold of their edge.
    if (overFrame && !narrow) return;
    const box = { x: found.x, y: found.y, width: found.width, height: found.height };
    // A gap too narrow to take hold of is held by a wider one.
    if (narrow && found.upright) Object.assign(box, { x: found.x + found.width / 2 - least / 2, width: least });
    if (narrow && !found.upright) Object.assign(box, { y: found.y + found.height / 2 - least / 2, height: least });
    const held = make('rect', { class: 'gap-held', 'data-gap': found.words, ...box });
    held.style.cursor = found.upright ? 'ew-resize' : 'ns-resize';
    const title = make('title', {});
    title.textContent = `${found.words}: draw it; with Alt, wider or narrower; click to type`;
    held.append(title);
    gap.append(held);
  }

  canvas.addEventListener('pointermove', event => {
    if (event.buttons !== 0 || window.Desk.tool !== 'pick' || window.Desk.inside) return;
    if (event.target.closest('[data-gap], [data-grip]')) return;
    if (event.target.closest('[data-guide]')) {
      if (gap.firstChild) showGap(null);
      return;
    }
    overFrame = Boolean(event.target.closest('[data-frame]'));
    const { x, y } = at(event);
    finder.ask({ do: 'find-gutter', fromX: x, fromY: y, scale: scale() });
  });
  canvas.addEventListener('pointerleave', () => showGap(null));
  document.addEventListener('formatum:scale', () => showGap(null));

  svg.addEventListener('pointerdown', event => {
    const held = event.target.closest('[data-gap]');
    if (!held || event.button !== 0) return;
    event.preventDefault();
    startDrag(event, { do: 'gutter' }, values => {
      meant = values;
      width.value = held.dataset.gap.replace('gap ', '');
      window.Desk.showCard(card, event, width);
    });
    held.remove();
  });
  card.querySelector('form').addEventListener('submit', event => {
    event.preventDefault();
    card.hidePopover();
    edit({ ...meant, toX: meant.fromX, toY: meant.fromY, scale: scale(), gap: width.value });
  });

  // ---- A free outline: a click for a corner, a drawn one for a bend, the first point or Enter closes it -----------------------------------------

  let points = [];

  function showFree(pointer = null) {
    const data = points.map((point, i) => {
      const before = points[i - 1];
      if (i === 0) return `M${point.x} ${point.y}`;
      return before.after || point.before ? `C${(before.after ?? before).x} ${(before.after ?? before).y} ${(point.before ?? point).x} ${(point.before ?? point).y} ${point.x} ${point.y}` : `L${point.x} ${point.y}`;
    }).join('');
    const pixel = 1 / scale();
    underWay.replaceChildren(make('path', { class: 'ghost', d: data + (pointer ? `L${pointer.x} ${pointer.y}` : '') }),
      ...points.map(point => make('rect', { class: 'grip', x: point.x - 3.5 * pixel, y: point.y - 3.5 * pixel, width: 7 * pixel, height: 7 * pixel })));
  }

  async function closeFree() {
    const text = points.map(p => p.before ? `${p.x},${p.y}/${p.before.x},${p.before.y}/${p.after.x},${p.after.y}` : `${p.x},${p.y}`).join(' ');
    points = [];
    underWay.replaceChildren();
    setTool('pick');
    await edit({ do: 'draw-free', points: text });
  }

  canvas.addEventListener('pointerdown', event => {
    if (window.Desk.tool !== 'free' || event.button !== 0) return;
    event.preventDefault();
    const point = at(event), first = points[0];
    if (points.length > 2 && Math.hypot(point.x - first.x, point.y - first.y) * scale() < 8) {
      closeFree();
      return;
    }
    points.push(point);
    canvas.setPointerCapture(event.pointerId);
    followPointer(canvas, e => {
      const drawn = at(e);
      if (Math.hypot(drawn.x - point.x, drawn.y - point.y) * scale() < 4) return;
      point.after = drawn;
      point.before = { x: 2 * point.x - drawn.x, y: 2 * point.y - drawn.y };
      showFree();
    });
    showFree();
  });
  canvas.addEventListener('pointermove', event => {
    if (window.Desk.tool === 'free' && points.length > 0 && event.buttons === 0) showFree(at(event));
  });
  document.addEventListener('keydown', event => {
    if (window.Desk.tool !== 'free' || event.key !== 'Enter' || points.length === 0) return;
    event.preventDefault();
    event.stopPropagation();
    closeFree();
  }, true);
  document.addEventListener('formatum:tool', event => {
    if (event.detail === 'free') return;
    points = [];
    underWay.replaceChildren();
  });

  // ---- A grid ------------------------------------------------------------------------------------------------------------------------------------

  document.getElementById('grid-form').addEventListener('click', event => {
    const fills = event.target.closest('[data-fills]')?.dataset.fills;
    if (fills === undefined) return;
    document.getElementById('grid-card').hidePopover();
    if (fills) edit({ do: 'grid', ...gridValues(), fills });
    else setTool('grid');
  });
  document.getElementById('grid-form').addEventListener('submit', event => event.preventDefault());

  // ---- The clipboard: it holds which frames of which publication were copied -----------------------------------------------------------------------

  const copiedPattern = /^Formatum frames ([\d,]+) of publication (\d+)$/;
  const isTyping = event => Boolean(event.target.closest?.('input, textarea, select, [contenteditable]'));
  let pointer = null, inPlace = false;

  canvas.addEventListener('pointermove', event => { pointer = at(event); });
  canvas.addEventListener('pointerleave', () => { pointer = null; });

  document.addEventListener('copy', event => {
    if (isTyping(event) || window.Desk.chosen.length === 0 || !getSelection().isCollapsed) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', `Formatum frames ${window.Desk.chosen.join(',')} of publication ${publication}`);
  });
  document.addEventListener('cut', event => {
    if (isTyping(event) || window.Desk.chosen.length === 0) return;
    event.preventDefault();
    tell('Frames are copied, then removed: cut would lose them where they are never pasted. Copy them first.');
  });
  document.addEventListener('keydown', event => { inPlace = event.shiftKey; }, true);
  document.addEventListener('paste', event => {
    if (isTyping(event)) return;
    const copied = copiedPattern.exec(event.clipboardData.getData('text/plain').trim());
    if (!copied) return;
    event.preventDefault();
    edit({ do: 'paste', copied: copied[1], fromPublication: copied[2], inPlace: inPlace || !pointer, toX: pointer?.x ?? 0, toY: pointer?.y ?? 0 });
  });

  let lastCopied = null;
  document.addEventListener('copy', () => { if (window.Desk.chosen.length > 0) lastCopied = window.Desk.chosen.join(','); });
  inspector.addEventListener('click', event => {
    const what = event.target.closest('#paste-rule, #paste-look')?.id;
    if (!what) return;
    if (lastCopied) edit({ do: what, copied: lastCopied, fromPublication: publication });
    else tell(`Copy the frame whose ${what === 'paste-rule' ? 'rule' : 'look'} you want first (Ctrl C), then choose the others.`);
  });

  // ---- The look ---------------------------------------------------------------------------------------------------------------------------------------

  inspector.addEventListener('change', event => {
    const field = event.target, look = field.dataset.look;
    if (!look) return;
    // The tone is switched on with the colour beside it.
    const value = field.type !== 'checkbox' ? field.value : field.dataset.colour ? (field.checked ? document.getElementById(field.dataset.colour).value : 'none') : field.checked;
    edit({ do: 'look', look, value });
  });

  // ---- The history ------------------------------------------------------------------------------------------------------------------------------------

  const history = document.getElementById('history-card');
  history.addEventListener('toggle', event => {
    if (event.newState === 'open') htmx.ajax('GET', `${address}/${spread}?handler=History`, { target: '#history-list', swap: 'innerHTML' });
  });
  history.addEventListener('click', async event => {
    const entry = event.target.closest('[data-sequence]');
    if (!entry) return;
    history.hidePopover();
    await edit({ do: 'go-to', count: entry.dataset.sequence });
    choose([]);
  });
})();
