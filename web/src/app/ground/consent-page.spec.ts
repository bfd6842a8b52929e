import type { HttpTestingController } from '@angular/common/http/testing';
import type { OpenConsent } from '@sombra/contract';
import { PageRig } from '../../../testing/page-rig';
import { until } from '../../../testing/until';
import { ConsentPage } from './consent-page';

const asked: OpenConsent = {
  programme: 'Shade Walks',
  owner: 'Rui Belmar',
  place: 'Figgery Walk',
  ref: 'Y-0007',
  species: 'Arbutus unedo',
  state: 'asked',
  expiresOn: '2026-07-01',
};
const address = '/api/open/consents/a%2Fb';
let rig: PageRig<ConsentPage>;
const show = async (answer: OpenConsent | { status: number } = asked) => {
  rig = new PageRig();
  const showing = rig.show(ConsentPage, { inputs: { token: 'a/b' } });
  // The page is shown only once its first answer is there: the call comes before that.
  const call = await until(() => (rig.http as HttpTestingController | undefined)?.match(address)[0]);
  if ('state' in answer) call.flush(answer);
  else call.flush(null, { status: answer.status, statusText: 'Not found' });
  await showing;
  await rig.settle();
};
async function sign(name: string): Promise<void> {
  const field = rig.element.querySelector<HTMLInputElement>('#signed');
  if (!field) throw new Error('nothing to sign');
  field.value = name;
  field.dispatchEvent(new Event('input'));
  await rig.settle();
}

describe('consent by a link', () => {
  it('says who asks whom for what, until when, and warns of private lines', async () => {
    await show();
    expect(rig.text).toContain('Shade Walks asks Rui Belmar: spot Y-0007, Figgery Walk, Arbutus unedo.');
    expect(rig.text).toContain('1 Jul 2026');
    expect(rig.text).toContain('irrigation, low-voltage cable, drains');
  });

  it('wants a name, and sends nothing without one', async () => {
    await show();
    await sign(' R ');
    await rig.press('Yes, plant it');
    expect(rig.text).toContain('Write your name, 2 letters or more.');
    rig.http.expectNone(address);
  });

  it.each([
    ['Yes, plant it', true, 'given', 'Thank you: your consent is stored.'],
    ['No, do not', false, 'refused', 'no tree will be planted here'],
  ] as const)('takes %s with the name, and closes', async (button, agrees, state, words) => {
    await show();
    await sign(' Rui Belmar ');
    await rig.press(button);
    const call = rig.http.expectOne(address);
    expect(call.request.body).toEqual({ agrees, signedBy: 'Rui Belmar', remark: '' });
    call.flush({ ...asked, state });
    await rig.settle();
    expect(rig.text).toContain(words);
    expect(rig.text).not.toContain('Yes, plant it');
  });

  it('says that a link is used up or unknown', async () => {
    await show({ ...asked, state: 'expired' } as unknown as OpenConsent);
    expect(rig.text).toContain('This link is no longer open.');
    await show({ status: 404 });
    expect(rig.element.querySelector('[role=alert]')).not.toBeNull();
  });
});
