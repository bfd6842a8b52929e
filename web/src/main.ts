import { isOpenPage } from './app/session/open-pages';
import { wasHere, wasIn } from './app/session/device-marks';
import { askFirst, isOutside, takeFirst, type Outside } from './app/session/first-answer';
import { whenIdle } from './app/ui/when-idle';

const whole = () => import('./app/whole');
const door = () => import('./app/door/door');

/** Who is signed in is asked first: somebody who is not needs the sign-in alone, and the rest comes while they type. */
async function start(): Promise<void> {
  const root = document.querySelector<HTMLElement>('s-root');
  if (root && !isOpenPage()) {
    const known = wasHere();
    // Whoever was in before most likely is still; what is most likely needed is fetched while the server answers.
    void (wasIn() ? whole() : door()).catch(() => undefined);
    const answer = await askFirst();
    if (answer === 'unreached') goOut();
    else if (answer && isOutside(answer.body)) await passDoor(answer.body, root, known);
  }
  const { open } = await whole();
  await open();
}

/** Without a network the work is what was taken along: it is fetched beside the rest, and opened at once. */
function goOut(): void {
  if (!wasIn()) return;
  void import('./app/along/along-page').catch(() => undefined);
  if (location.pathname === '/') history.replaceState(history.state, '', '/along');
}

async function passDoor(outside: Outside, root: HTMLElement, known: boolean): Promise<void> {
  const { letIn } = await door();
  const entered = letIn(outside, root);
  // What was said holds for whoever is outside; once in, the server is asked again.
  void takeFirst();
  const sending = new Promise<void>(whenIdle)
    .then(whole)
    .then(({ fetchFirstViews, sendSealed }) => {
      fetchFirstViews();
      return known ? sendSealed() : null;
    })
    .catch(() => null);
  await entered;
  (await sending)?.();
}

start().catch((error: unknown) => {
  document.body.textContent = 'Sombra could not start. Reload the page.';
  throw error;
});
