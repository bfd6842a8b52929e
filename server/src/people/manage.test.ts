import type { Invitation, PeopleWithLink, Person, Problem, Session } from '@sombra/contract';
import { v7 as uuidv7 } from 'uuid';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let ada: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  ada = await Visitor.signedIn(town.url, 'ada');
});
afterAll(() => town.stop());

const someone = (signIn: string) => ({
  id: uuidv7(),
  signIn,
  name: `Name of ${signIn}`,
  role: 'inspector' as const,
  units: 'metric' as const,
});
const add = (person: object) => ada.send<PeopleWithLink & Problem>('POST', '/api/people', person);
const person = async (id: string): Promise<Person> => {
  const found = (await ada.send<Person[]>('GET', '/api/people')).body.find((one) => one.id === id);
  if (!found) throw new Error('no such person');
  return found;
};
const doorOf = (link: string | null) => `/api/open/invitations/${(link ?? '').split('/').at(-1)}`;
const password = 'slow walks at dusk';

async function joined(signIn: string): Promise<{ id: string; visitor: Visitor }> {
  const one = someone(signIn);
  const { body } = await add(one);
  await new Visitor(town.url).send('POST', doorOf(body.link), { password });
  return { id: one.id, visitor: await Visitor.signedIn(town.url, signIn, password) };
}

describe('a person who is added', () => {
  it('sets a password by a link that opens once, and is kept as a hash alone', async () => {
    const paula = someone('paula');
    const { status, body } = await add(paula);
    expect([status, body.people.find(({ id }) => id === paula.id)]).toMatchObject([
      201,
      { signIn: 'paula', joined: false, addedBy: 'ada', sessions: 0 },
    ]);
    const stranger = new Visitor(town.url);
    const opened = await stranger.send<Invitation>('GET', doorOf(body.link));
    expect(opened.body).toEqual({ signIn: 'paula', name: 'Name of paula', programme: 'Test' });
    const token = (body.link ?? '').split('/').at(-1) ?? '';
    const dump = JSON.stringify([
      await town.db('invitation'),
      await town.db('audit').where('table_name', 'invitation'),
    ]);
    expect(dump).not.toContain(token);

    const weak = await stranger.send('POST', doorOf(body.link), { password: 'paula' });
    expect([weak.status, weak.body.issues?.[0]?.path]).toEqual([400, 'password']);
    expect((await stranger.send('POST', doorOf(body.link), { password })).status).toBe(204);
    expect((await stranger.send('POST', doorOf(body.link), { password })).status).toBe(404);
    expect((await (await Visitor.signedIn(town.url, 'paula', password)).arrive()).user?.name).toBe('Name of paula');
    expect((await person(paula.id)).lastSignInAt).not.toBeNull();
  });

  it('is added once, whoever sends it twice, and never over somebody else', async () => {
    const rui = someone('rui');
    const both = await Promise.all([add(rui), add(rui)]);
    expect(both.map(({ status }) => status)).toEqual([201, 201]);
    expect(await town.db('app_user').where({ sign_in: 'rui' })).toHaveLength(1);
    const other = await add({ ...someone('rui'), name: 'Another' });
    expect([other.status, other.body.title]).toEqual([409, expect.stringContaining('rui already')]);
  });

  it('may use the newest link only, and none once it has run out', async () => {
    const eva = someone('eva');
    const first = (await add(eva)).body.link;
    const second = (await ada.send<PeopleWithLink>('POST', `/api/people/${eva.id}/link`, {})).body.link;
    const stranger = new Visitor(town.url);
    expect((await stranger.send('GET', doorOf(first))).status).toBe(404);
    expect((await stranger.send('GET', doorOf(second))).status).toBe(200);
    await town
      .db('invitation')
      .where({ user_id: eva.id })
      .update({ expires_at: new Date(Date.now() - 1000) });
    expect((await stranger.send('POST', doorOf(second), { password })).status).toBe(404);
  });

  it.each([{ signIn: 'a' }, { signIn: 'two words' }, { name: ' ' }, { role: 'king' }])(
    'is refused as %j',
    async (bad) => {
      expect((await add({ ...someone('xena'), ...bad })).status).toBe(400);
    },
  );
});

describe('a person who is kept out', () => {
  it('is out at once, on every device, and gets in by no link', async () => {
    const { id, visitor } = await joined('sol');
    const { body } = await ada.send<PeopleWithLink>('POST', `/api/people/${id}/link`, {});
    const { name, role, version } = await person(id);
    const out = await ada.send('PUT', `/api/people/${id}`, { name, role, disabled: true, version });
    expect(out.status).toBe(200);
    expect((await visitor.send('GET', '/api/desk')).status).toBe(401);
    expect((await new Visitor(town.url).send('GET', doorOf(body.link))).status).toBe(404);
    await expect(Visitor.signedIn(town.url, 'sol', password)).rejects.toThrow('400');
    await ada.send('PUT', `/api/people/${id}`, { name, role, disabled: false, version: version + 1 });
    await expect(Visitor.signedIn(town.url, 'sol', password)).resolves.toBeDefined();
  });

  it('is never the last who administers, not even when two shut out each other', async () => {
    const other = await joined('olga');
    const give = async (id: string, change: object, by = ada) => {
      const { name, role, version } = await person(id);
      return by.send('PUT', `/api/people/${id}`, { name, role, disabled: false, version, ...change });
    };
    const adaId = (await ada.arrive()).user?.id ?? '';
    expect((await give(adaId, { disabled: true })).status).toBe(400);
    expect((await give(adaId, { role: 'viewer' })).status).toBe(400);
    await give(other.id, { role: 'administrator' });
    const [mine, theirs] = [await person(other.id), await person(adaId)];
    const shut = (one: Person, by: Visitor) =>
      by.send('PUT', `/api/people/${one.id}`, { ...pick(one), disabled: true });
    const statuses = (await Promise.all([shut(mine, ada), shut(theirs, other.visitor)])).map(({ status }) => status);
    // The second is refused as the last, or no longer known where the first was done before it was asked who it is.
    expect(statuses.filter((status) => status === 200)).toHaveLength(1);
    expect(statuses.filter((status) => status === 400 || status === 401)).toHaveLength(1);
    expect(await town.db('app_user').where({ role: 'administrator', disabled_at: null })).toHaveLength(1);
    await town.db('app_user').where({ id: adaId }).update({ disabled_at: null });
    await town.db('app_user').where({ id: other.id }).update({ role: 'viewer' });
    ada = await Visitor.signedIn(town.url, 'ada');
  });

  it('is changed by one of two, the other is told', async () => {
    const { id } = await joined('hugo');
    const one = await person(id);
    const change = (role: string) => ada.send('PUT', `/api/people/${id}`, { ...pick(one), role });
    const statuses = (await Promise.all([change('viewer'), change('waterer')])).map(({ status }) => status);
    expect(statuses.sort()).toEqual([200, 409]);
  });
});

const pick = ({ name, role, version, disabledAt }: Person) => ({ name, role, version, disabled: disabledAt !== null });

describe('one’s own', () => {
  it('password is changed with the one before, and ends the other sessions', async () => {
    const { visitor } = await joined('nina');
    const elsewhere = await Visitor.signedIn(town.url, 'nina', password);
    const change = (entry: object) => visitor.send('PUT', '/api/session/password', entry);
    expect((await change({ current: 'wrong', password: 'another long one' })).body.issues?.[0]?.path).toBe('current');
    expect((await change({ current: password, password: '1234567890' })).body.issues?.[0]?.path).toBe('password');
    expect((await change({ current: password, password: 'another long one' })).status).toBe(204);
    expect((await visitor.send('GET', '/api/desk')).status).toBe(200);
    expect((await elsewhere.send('GET', '/api/desk')).status).toBe(401);
    await expect(Visitor.signedIn(town.url, 'nina', 'another long one')).resolves.toBeDefined();
  });

  it('name changes from then on, what was recorded keeps the name it had', async () => {
    const { visitor } = await joined('ema');
    const { body } = await visitor.send<Session>('PUT', '/api/session/preferences', { name: 'Ema Nova' });
    expect(body.user).toMatchObject({ name: 'Ema Nova', units: 'metric' });
  });
});

it('ends somebody’s sessions and says how many are open', async () => {
  const { id, visitor } = await joined('ivo');
  expect((await person(id)).sessions).toBe(1);
  await ada.send('DELETE', `/api/people/${id}/sessions`);
  expect((await visitor.send('GET', '/api/desk')).status).toBe(401);
  expect((await person(id)).sessions).toBe(0);
});
