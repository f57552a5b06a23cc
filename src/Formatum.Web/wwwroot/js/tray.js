// The tray: pictures that wait. One of them is in hand, is shown in the frame under the pointer as the server fits it, and is placed by a click.
(() => {
  const { canvas, underWay, address, spread, at, scale, edit, asker, startDrag } = window.Desk;
  const tray = document.getElementById('tray');
  const words = document.getElementById('pointer-words');
  const dialog = document.getElementById('pour-dialog');
  const remembered = `tray-hand-${document.getElementById('desk').dataset.publication}`;

  const waiting = () => [...tray.querySelectorAll('[data-tray]')].map(item => Number(item.dataset.tray));
  const itemOf = image => tray.querySelector(`[data-tray="${image}"]`);

  let hand = Number(sessionStorage.getItem(remembered)) || null;
  let carried = null, over = null;

  // Takes a picture up; null puts the tray down. What waits in it stays.
  function take(image) {
    hand = image !== null && waiting().includes(image) ? image : null;
    sessionStorage.setItem(remembered, hand ?? '');
    canvas.classList.toggle('has-hand', hand !== null);
    leaveFrame();
    carried?.remove();
    carried = null;
    show();
  }

  function show() {
    for (const item of tray.querySelectorAll('[data-tray]')) item.setAttribute('aria-pressed', Number(item.dataset.tray) === hand);
    const button = document.getElementById('tray-hand');
    if (button) {
      button.setAttribute('aria-pressed', hand !== null);
      button.textContent = hand === null ? 'Take up' : 'Put down';
    }
  }

  function step(by) {
    const all = waiting(), index = all.indexOf(hand);
    take(all[(index + by + all.length) % all.length] ?? null);
    itemOf(hand)?.scrollIntoView({ block: 'nearest' });
  }

  // ---- The picture in hand over the spread ----------------------------------------------------------------------------------------------------

  const preview = asker(answer => {
    if (over === null || hand === null) return;
    underWay.innerHTML = answer.preview ?? '';
    words.textContent = answer.words;
    words.hidden = !answer.words;
    words.dataset.off = '';
  });

  function leaveFrame() {
    over = null;
    if (hand !== null || underWay.querySelector('.tray-preview')) underWay.replaceChildren();
    words.hidden = true;
  }

  canvas.addEventListener('pointermove', event => {
    if (hand === null || event.buttons !== 0) return;
    const frame = event.target.closest('[data-frame]');
    const id = frame && !frame.classList.contains('frame-text') ? Number(frame.dataset.frame) : null;
    if (!carried) {
      carried = itemOf(hand)?.querySelector('img').cloneNode();
      if (!carried) return;
      carried.className = 'carried';
      document.body.append(carried);
    }
    carried.style.left = `${event.clientX + 10}px`;
    carried.style.top = `${event.clientY + 10}px`;
    carried.hidden = id !== null;
    words.style.transform = `translate(${event.clientX + 16}px, ${event.clientY + 18}px)`;
    if (id === over) return;
    leaveFrame();
    over = id;
    if (over !== null) preview.ask({ do: 'tray-preview', frames: `${over}`, image: hand });
  });
  canvas.addEventListener('pointerleave', () => {
    if (hand === null) return;
    leaveFrame();
    carried?.remove();
    carried = null;
  });

  // The next one comes to hand when one is placed.
  async function place(values) {
    const all = waiting(), next = all[all.indexOf(hand) + 1] ?? all.find(image => image !== hand) ?? null;
    leaveFrame();
    await edit({ image: hand, keep: 'none', ...values });
    take(next);
  }

  canvas.addEventListener('pointerdown', event => {
    if (hand === null || event.button !== 0 || window.Desk.inside) return;
    event.stopPropagation();
    event.preventDefault();
    const frame = event.target.closest('[data-frame]');
    if (frame && !frame.classList.contains('frame-text')) {
      place({ do: 'tray-place', frames: Number(frame.dataset.frame) });
      return;
    }
    carried?.remove();
    carried = null;
    const image = hand;
    const made = values => place({ ...values, do: 'set-down', image, fromTray: true });
    startDrag(event, { do: 'set-down', image, fromTray: true, keep: 'none' }, made, async () => {
      const all = waiting();
      take(all.find(other => other !== image && all.indexOf(other) >= all.indexOf(image)) ?? all[0] ?? null);
    });
  }, true);

  // ---- The tray itself -----------------------------------------------------------------------------------------------------------------------------

  tray.addEventListener('click', event => {
    const item = event.target.closest('[data-tray]');
    if (item && !item.dataset.moved) take(Number(item.dataset.tray) === hand ? null : Number(item.dataset.tray));
    if (event.target.closest('#tray-hand')) take(hand === null ? waiting()[0] ?? null : null);
    if (event.target.closest('#pour')) openPour();
  });

  tray.addEventListener('pointerdown', event => {
    const item = event.target.closest('[data-tray]');
    if (!item || event.button !== 0) return;
    const startX = event.clientX, startY = event.clientY;
    let target = null;
    const mark = next => {
      target?.classList.remove('goes-before');
      target = next;
      target?.classList.add('goes-before');
    };
    followPointer(document, e => {
      if (!item.dataset.moved && Math.hypot(e.clientX - startX, e.clientY - startY) < 6) return;
      item.dataset.moved = 'yes';
      mark(document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-tray]') ?? null);
    }, e => {
      const before = target?.dataset.tray, inTray = document.elementFromPoint(e.clientX ?? 0, e.clientY ?? 0)?.closest('#tray');
      mark(null);
      const moved = item.dataset.moved;
      setTimeout(() => delete item.dataset.moved);
      if (e.type === 'pointerup' && moved && inTray && before !== item.dataset.tray) edit({ do: 'tray-reorder', images: item.dataset.tray, before });
    });
  });

  tray.addEventListener('keydown', event => {
    const item = event.target.closest('[data-tray]');
    if (!item) return;
    const all = waiting(), image = Number(item.dataset.tray), index = all.indexOf(image);
    if (event.key === 'Delete') {
      event.preventDefault();
      event.stopPropagation();
      edit({ do: 'tray-remove', images: image }).then(() => (itemOf(all[index + 1]) ?? itemOf(all[index - 1]))?.focus());
    }
    if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      event.stopPropagation();
      const before = event.key === 'ArrowLeft' ? all[index - 1] : all[index + 2];
      if (event.key === 'ArrowLeft' && index === 0) return;
      edit({ do: 'tray-reorder', images: image, before }).then(() => itemOf(image)?.focus());
    }
  });

  document.addEventListener('keydown', event => {
    if (event.target.closest('input, select, textarea, [contenteditable], dialog') || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key.toLowerCase() === 't' && waiting().length > 0) {
      take(hand === null ? waiting()[0] : null);
    } else if (hand !== null && event.key === 'Escape') {
      event.stopPropagation();
      take(null);
    } else if (hand !== null && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      event.stopPropagation();
      step(event.key === 'ArrowRight' ? 1 : -1);
    }
  }, true);

  // The server sends the tray anew whenever it changed.
  new MutationObserver(() => {
    if (hand !== null && !waiting().includes(hand)) take(null);
    else show();
  }).observe(tray, { childList: true });

  // ---- Pouring: a proposal first ----------------------------------------------------------------------------------------------------------------------

  async function openPour() {
    take(null);
    // What is chosen is meant where there is something in it to fill.
    const { chosen, frameElement } = window.Desk, frames = chosen.some(id => frameElement(id)?.classList.contains('frame-empty')) ? chosen.join(',') : '';
    await htmx.ajax('GET', `${address}/${spread}?handler=Pour&frames=${frames}&into=${frames ? 'Chosen' : 'Publication'}`, { target: '#pour-body', swap: 'innerHTML' });
    dialog.showModal();
  }

  dialog.addEventListener('click', async event => {
    if (event.target.closest('#leave-pour')) dialog.close();
    if (!event.target.closest('#take-pour')) return;
    event.target.disabled = true;
    const answer = await fetch(`${address}/${spread}?handler=Pour&seen=${window.Desk.revision}`, {
      method: 'POST', headers: { RequestVerificationToken: requestToken }, body: new FormData(document.getElementById('pour-form')),
    }).catch(() => null);
    const told = answer ? problemOf(await answer.text()) : null;
    if (!answer?.ok) {
      event.target.disabled = false;
      dialog.close();
      tell(told?.detail ?? unreachable);
      return;
    }
    tellAfterwards(told.words);
    location.reload();
  });

  take(hand);
  Object.assign(window.Desk, { takeUp: take });
})();
