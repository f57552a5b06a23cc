// Asks one question at a time: what is asked for meanwhile is asked once more at the end, so that the newest answer is the one that stays.
export function oneAtATime(ask) {
  let asking = false, again = false;
  return async () => {
    if (asking) {
      again = true;
      return;
    }
    asking = true;
    do {
      again = false;
      await ask();
    } while (again);
    asking = false;
  };
}
