// The points of a frame's outline: shown, dragged, bent, added and taken away. What each change comes to, the server says.
(() => {
  const { svg, inspector, grips, make, at, scale, edit, startDrag, showGrips } = window.Desk;
  let shaping = false, of = '', taken = 0;

  const button = () => document.getElementById('shape-points');

  function points() {
    const place = text => {
      if (!text) return null;
      const [x, y] = text.split(',').map(Number);
      return { x, y };
    };
    return (button()?.dataset.points ?? '').split(' ').filter(Boolean).map(word => {
      const [point, before, after] = word.split('/');
      return { at: place(point), before: place(before), after: place(after) };
    });
  }

  function shape(on) {
    shaping = on && button() !== null;
    of = window.Desk.chosen.join();
    window.Desk.shaping = shaping;
    taken = 0;
    button()?.setAttribute('aria-pressed', shaping);
    const words = document.getElementById('shape-words');
    if (words) words.hidden = !shaping;
    showGrips();
  }

  // The grips stay the elements they are: a double click on one that was swapped between would be none.
  function take(index) {
    taken = index;
    for (const shown of grips.querySelectorAll('[data-shown]')) shown.classList.toggle('grip-taken', Number(shown.dataset.shown) === taken);
  }

  function grip(place, index, part) {
    const pixel = 1 / scale(), half = part === 'At' ? 4.5 : 3.5;
    grips.append(part === 'At'
      ? make('rect', { class: index === taken ? 'grip grip-taken' : 'grip', 'data-shown': index, x: place.x - half * pixel, y: place.y - half * pixel, width: 2 * half * pixel, height: 2 * half * pixel })
      : make('circle', { class: 'grip', cx: place.x, cy: place.y, r: half * pixel }));
    grips.append(make('rect', { class: 'grip-reach', x: place.x - 12 * pixel, y: place.y - 12 * pixel, width: 24 * pixel, height: 24 * pixel, 'data-point': index, 'data-part': part }));
  }

  document.addEventListener('formatum:shape', () => {
    const all = points();
    taken = Math.min(taken, Math.max(0, all.length - 1));
    // Controls first, so that a point lies above one that lies on it.
    all.forEach((point, i) => {
      for (const part of ['before', 'after']) {
        if (!point[part]) continue;
        grips.append(make('line', { class: 'control-line', x1: point.at.x, y1: point.at.y, x2: point[part].x, y2: point[part].y }));
        grip(point[part], i, part === 'before' ? 'Before' : 'After');
      }
    });
    all.forEach((point, i) => grip(point.at, i, 'At'));
  });

  svg.addEventListener('pointerdown', event => {
    const held = event.target.closest('[data-point]');
    if (!shaping || event.button !== 0 || !held) return;
    event.preventDefault();
    take(Number(held.dataset.point));
    startDrag(event, { do: 'shape-move', point: held.dataset.point, part: held.dataset.part });
  });

  svg.addEventListener('dblclick', event => {
    if (!shaping) return;
    const under = document.elementFromPoint(event.clientX, event.clientY);
    const held = under?.closest('[data-point]'), place = at(event);
    if (held) edit({ do: 'shape-bend', point: held.dataset.point });
    else if (Number(under?.closest('[data-frame]')?.dataset.frame) === window.Desk.chosen[0]) edit({ do: 'shape-add', toX: place.x, toY: place.y });
  });

  window.Desk.shapeNudge = steps => {
    if (!shaping) return false;
    edit({ do: 'shape-nudge', point: taken, stepsX: steps[0], stepsY: steps[1] });
    return true;
  };

  // Whether a key was for the outline.
  window.Desk.shapeKey = event => {
    if (event.key.toLowerCase() === 'p' && button()) shape(!shaping);
    else if (!shaping) return false;
    else if (event.key === 'Escape') shape(false);
    else if (event.key === 'Delete') edit({ do: 'shape-remove', point: taken });
    else if (event.key === 'Insert') edit({ do: 'shape-add-next', point: taken });
    else if (event.key.toLowerCase() === 'b') edit({ do: 'shape-bend', point: taken });
    else if (event.key.toLowerCase() === 'n') {
      take((taken + (event.shiftKey ? -1 : 1) + points().length) % points().length);
    } else return false;
    return true;
  };

  inspector.addEventListener('click', event => {
    if (event.target.closest('#shape-points')) shape(!shaping);
  });

  // What the server sends anew has its button up, and may be of another frame.
  inspector.addEventListener('htmx:afterSettle', () => {
    if (!shaping) return;
    const kept = taken;
    shape(window.Desk.chosen.join() === of);
    take(kept);
  });
})();
