// How the spread is looked at: zoom about the pointer, panning, rulers, and the guides that are drawn from them.
(() => {
  const { svg, canvas, make, at, scale, setScale, edit, startDrag } = window.Desk;

  // ---- Zoom and pan ------------------------------------------------------------------------------------------------------------------------

  canvas.addEventListener('wheel', event => {
    if (!(event.ctrlKey || event.metaKey) || window.Desk.inside) return;
    event.preventDefault();
    const kept = at(event);
    setScale(scale() * Math.exp(-event.deltaY / (event.deltaMode === 0 ? 400 : 8)));
    const now = new DOMPoint(kept.x, kept.y).matrixTransform(svg.getScreenCTM());
    canvas.scrollLeft += now.x - event.clientX;
    canvas.scrollTop += now.y - event.clientY;
  }, { passive: false });

  let spaceHeld = false;
  document.addEventListener('keydown', event => {
    if (event.key !== ' ' || event.target.closest('input, select, textarea, button, summary, a')) return;
    event.preventDefault();
    spaceHeld = true;
    canvas.classList.add('panning');
  });
  document.addEventListener('keyup', event => {
    if (event.key !== ' ') return;
    spaceHeld = false;
    canvas.classList.remove('panning');
  });

  canvas.addEventListener('pointerdown', event => {
    if (!(spaceHeld && event.button === 0) && event.button !== 1) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    canvas.setPointerCapture(event.pointerId);
    const from = { x: event.clientX + canvas.scrollLeft, y: event.clientY + canvas.scrollTop };
    followPointer(canvas, e => canvas.scrollTo(from.x - e.clientX, from.y - e.clientY));
  }, true);

  // ---- Rulers: in the publication's unit, from the upper left of the spread ------------------------------------------------------------------

  const unit = Number(svg.dataset.unit);
  const rulers = [{ element: document.getElementById('ruler-top'), upright: false }, { element: document.getElementById('ruler-left'), upright: true }];

  function drawRulers() {
    const matrix = svg.getScreenCTM(), room = canvas.getBoundingClientRect();
    for (const { element, upright } of rulers) {
      const length = upright ? room.height : room.width, zero = upright ? matrix.f - room.top : matrix.e - room.left;
      const pixels = unit * matrix.a;
      const step = [0.25, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find(s => s * pixels >= 44) ?? 2000;
      const ticks = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
      for (let n = Math.floor(-zero / pixels / step); n * step * pixels + zero <= length; n++) {
        const place = n * step * pixels + zero;
        for (let part = 0; part < 5; part++) {
          const tick = place + part * step * pixels / 5, reach = part === 0 ? 0 : 11;
          ticks.append(make('line', upright ? { x1: reach, y1: tick, x2: 16, y2: tick } : { x1: tick, y1: reach, x2: tick, y2: 16 }));
        }
        const words = make('text', upright ? { transform: `translate(8 ${place + 3}) rotate(-90)`, 'text-anchor': 'end' } : { x: place + 3, y: 9 });
        words.textContent = Math.round(n * step * 100) / 100;
        ticks.append(words);
      }
      element.replaceChildren(ticks);
    }
  }

  let drawing = false;
  function drawRulersSoon() {
    if (drawing) return;
    drawing = true;
    requestAnimationFrame(() => {
      drawing = false;
      drawRulers();
    });
  }
  canvas.addEventListener('scroll', drawRulersSoon);
  window.addEventListener('resize', drawRulersSoon);
  document.addEventListener('formatum:scale', drawRulersSoon);
  drawRulersSoon();

  // ---- Guides -----------------------------------------------------------------------------------------------------------------------------------

  for (const { element, upright } of rulers) {
    element.addEventListener('pointerdown', event => {
      if (event.button !== 0) return;
      event.preventDefault();
      startDrag(event, { do: 'guide', upright, acrossSpread: !upright });
    });
  }

  const card = document.getElementById('guide-card'), field = document.getElementById('guide-at');
  let meant = null;

  svg.addEventListener('pointerdown', event => {
    const guide = event.target.closest('[data-guide]');
    if (!guide || event.button !== 0 || window.Desk.tool !== 'pick' || window.Desk.inside) return;
    event.preventDefault();
    const values = { do: 'guide', guide: guide.dataset.guide, upright: guide.dataset.upright === 'yes', acrossSpread: guide.dataset.upright !== 'yes' };
    startDrag(event, values, () => {
      meant = values;
      field.value = '';
      field.placeholder = guide.dataset.words;
      window.Desk.showCard(card, event, field);
    });
  });
  card.querySelector('form').addEventListener('submit', event => {
    event.preventDefault();
    card.hidePopover();
    if (field.value.trim()) edit({ ...meant, value: field.value });
  });
  document.getElementById('guide-remove').addEventListener('click', () => {
    card.hidePopover();
    edit({ ...meant, value: 'none' });
  });
})();
