// Inside a picture: pan, zoom, turn. The hand's moves go to the server; what it answers is shown.
(() => {
  const { svg, canvas, inspector, grips, make, setAll, at, scale, edit, choose, asker, showAnswer, startDrag, addGrip } = window.Desk;
  const cornerNames = ['nw', 'ne', 'se', 'sw'];
  const place = () => document.querySelector('#inside [data-inside-frame]');
  const points = text => text.split(' ').map(pair => pair.split(',').map(Number)).map(([x, y]) => ({ x, y }));

  let noBareArea = true;
  let linked = true;
  window.insideOptions = () => ({ noBareArea });

  // ---- What is seen: the picture's edge, its corners, and a round handle to turn it by -------------------------------------------------

  document.addEventListener('formatum:inside', event => {
    const group = place();
    if (!group) return;
    const patch = event.detail;
    if (patch) {
      group.querySelectorAll('image').forEach(image => image.setAttribute('transform', patch.matrix));
      group.querySelector('.picture-edge').setAttribute('points', patch.edge);
      Object.assign(group.dataset, { corners: patch.corners, middle: patch.middle });
    }
    grips.replaceChildren();
    const corners = points(group.dataset.corners);
    const along = { x: corners[1].x - corners[0].x, y: corners[1].y - corners[0].y };
    const down = { x: corners[3].x - corners[0].x, y: corners[3].y - corners[0].y };
    const length = Math.hypot(along.x, along.y) || 1, side = Math.sign(along.x * down.y - along.y * down.x) || 1;
    const above = (point, pixels) => ({ x: point.x + side * along.y / length * pixels / scale(), y: point.y - side * along.x / length * pixels / scale() });
    // The lever to turn by stands on the picture's upper edge; from the middle where that is out of sight.
    let foot = { x: (corners[0].x + corners[1].x) / 2, y: (corners[0].y + corners[1].y) / 2 }, handle = above(foot, 26);
    if (!isInSight(handle)) {
      [foot] = points(group.dataset.middle);
      handle = above(foot, 70);
    }
    grips.append(make('line', { class: 'turn-line', x1: foot.x, y1: foot.y, x2: handle.x, y2: handle.y }));
    corners.forEach((corner, i) => addGrip(corner, cornerNames[i], 'nwse-resize'));
    addGrip(handle, 'turn', 'grab', 'circle');
  });

  function isInSight(point) {
    const seen = new DOMPoint(point.x, point.y).matrixTransform(svg.getScreenCTM()), room = canvas.getBoundingClientRect();
    return seen.x > room.left + 8 && seen.x < room.right - 8 && seen.y > room.top + 8 && seen.y < room.bottom - 8;
  }

  // ---- Pointer, touch and pen --------------------------------------------------------------------------------------------------------------

  const fingers = new Map();

  canvas.addEventListener('pointerdown', event => {
    if (!window.Desk.inside || event.button !== 0) return;
    event.preventDefault();
    fingers.set(event.pointerId, event);
    if (fingers.size === 2 && event.pointerType === 'touch') {
      window.Desk.cancelDrag();
      startPinch([...fingers.values()]);
      return;
    }
    const grip = event.target.closest('[data-grip]')?.dataset.grip;
    const options = window.insideOptions();
    if (grip === 'turn') startDrag(event, { do: 'picture-turn', ...options });
    else if (grip) startDrag(event, { do: 'picture-corner', grip, ...options });
    else if (isOver(event)) startDrag(event, { do: 'picture-pan', ...options });
    else choose(window.Desk.chosen);
  });
  for (const kind of ['pointerup', 'pointercancel']) document.addEventListener(kind, event => fingers.delete(event.pointerId), true);

  // Over the picture, shown or ghosted, or over its frame.
  function isOver(event) {
    return place() !== null && event.target.closest('#inside') !== null;
  }

  function startPinch([first, second]) {
    const now = new Map([[first.pointerId, first], [second.pointerId, second]]);
    const measure = () => {
      const [p, q] = [...now.values()].map(at);
      return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2, apart: Math.hypot(p.x - q.x, p.y - q.y) };
    };
    const from = measure();
    const asking = asker(showAnswer);
    let values = null;
    const onMove = event => {
      if (!now.has(event.pointerId)) return;
      now.set(event.pointerId, event);
      const to = measure();
      values = { do: 'picture-pinch', factor: to.apart / from.apart, fromX: from.x, fromY: from.y, toX: to.x, toY: to.y, ...window.insideOptions() };
      asking.ask(values);
    };
    const onUp = event => {
      if (!now.has(event.pointerId)) return;
      document.removeEventListener('pointermove', onMove);
      document.removeEventListener('pointerup', onUp);
      document.removeEventListener('pointercancel', onUp);
      asking.close();
      if (values) edit(values);
    };
    document.addEventListener('pointermove', onMove);
    document.addEventListener('pointerup', onUp);
    document.addEventListener('pointercancel', onUp);
  }

  // ---- Wheel and slider: shown at once, told as one edit when the hand rests ---------------------------------------------------------------

  let wheel = null;

  canvas.addEventListener('wheel', event => {
    if (!window.Desk.inside) return;
    event.preventDefault();
    const about = at(event);
    wheel ??= { factor: 1, asking: asker(showAnswer), about };
    wheel.factor *= Math.exp(-event.deltaY / (event.deltaMode === 0 ? 600 : 12));
    const values = { do: 'picture-zoom', factor: wheel.factor, fromX: wheel.about.x, fromY: wheel.about.y, ...window.insideOptions() };
    wheel.asking.ask(values);
    clearTimeout(wheel.timer);
    wheel.timer = setTimeout(() => {
      wheel.asking.close();
      wheel = null;
      edit(values);
    }, 220);
  }, { passive: false });

  let sliding = null;

  inspector.addEventListener('input', event => {
    if (event.target.id !== 'zoom-slide') return;
    sliding ??= asker(showAnswer);
    sliding.ask({ do: 'picture-slide', slide: event.target.value, ...window.insideOptions() });
  });

  // ---- Numbers and switches ------------------------------------------------------------------------------------------------------------------

  inspector.addEventListener('change', event => {
    const field = event.target;
    if (field.id === 'zoom-slide') {
      sliding?.close();
      sliding = null;
      edit({ do: 'picture-slide', slide: field.value, ...window.insideOptions() });
    } else if (field.id === 'no-bare-area') {
      noBareArea = field.checked;
    } else if (field.id === 'scales-linked') {
      linked = field.checked;
    } else if (field.closest('#picture-figures')) {
      edit({ do: 'picture-figures', [field.name]: field.value, linked, noBareArea: field.name === 'angle' && noBareArea });
    }
  });

  inspector.addEventListener('htmx:afterSettle', () => {
    const bare = document.getElementById('no-bare-area'), link = document.getElementById('scales-linked');
    if (bare) bare.checked = noBareArea;
    // Scales that differ are shown unlinked; otherwise as the person left the switch.
    if (link) {
      if (!link.checked) linked = false;
      link.checked = linked;
    } else {
      linked = true;
    }
  });

  inspector.addEventListener('click', event => {
    if (event.target.closest('#go-inside')) choose(window.Desk.chosen, true);
    if (event.target.closest('#leave-inside')) choose(window.Desk.chosen);
  });
})();
