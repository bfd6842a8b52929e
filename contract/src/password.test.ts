import { passwordFault } from './password';

const of = { signIn: 'ines', name: 'Inês Tavoro' };

describe('a password', () => {
  it.each([
    ['short', 'at least 10 characters, got 5'],
    ['x'.repeat(201), 'at most 200 characters, got 201'],
    ['aaaaaaaaaaaaaa', 'five different'],
    ['Password 123', 'first that are guessed'],
    ['abcdefghijklm', 'first that are guessed'],
    ['zyxwvutsrqpo', 'first that are guessed'],
    ['tavoro-ines1', 'more than your name'],
  ])('%s will not do', (password, why) => {
    expect(passwordFault(password, of)).toContain(why);
  });

  it.each(['shade-walks', 'correct horse', 'Tavoro plants the long street', 'ääääöööüüß12'])(
    '%s will do',
    (password) => {
      expect(passwordFault(password, of)).toBeNull();
    },
  );
});
