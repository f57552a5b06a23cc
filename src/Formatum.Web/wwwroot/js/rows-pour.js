// A table poured into named frames: a proposal with everything worth knowing first.
(() => {
  const { address, spread } = window.Desk;
  const dialog = document.getElementById('rows-dialog'), body = document.getElementById('rows-body');
  const picker = document.getElementById('rows-file');

  async function post(handler, data) {
    const answer = await fetch(`${address}/${spread}?handler=${handler}&seen=${window.Desk.revision}`, { method: 'POST', headers: { RequestVerificationToken: requestToken }, body: data }).catch(() => null);
    if (answer?.ok) return answer;
    tell(answer ? problemOf(await answer.text())?.detail ?? 'That did not work.' : unreachable);
    return null;
  }

  document.getElementById('tray').addEventListener('click', event => { if (event.target.closest('#pour-rows')) picker.click(); });
  picker.addEventListener('change', async () => {
    const data = new FormData();
    data.append('file', picker.files[0]);
    picker.value = '';
    const answer = await post('Rows', data);
    if (!answer) return;
    body.innerHTML = await answer.text();
    htmx.process(body);
    dialog.showModal();
  });
  dialog.addEventListener('submit', event => event.preventDefault());
  dialog.addEventListener('click', async event => {
    if (event.target.closest('#leave-rows')) dialog.close();
    if (!event.target.closest('#take-rows')) return;
    event.target.disabled = true;
    const answer = await post('TakeRows', new FormData(document.getElementById('rows-form')));
    dialog.close();
    if (!answer) return;
    tellAfterwards((await answer.json()).words);
    location.reload();
  });
})();
