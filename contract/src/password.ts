import { passwordLeast, passwordMost } from './password-limits';

/** What guessers try first, of the passwords long enough to be asked about; written small, without spaces. */
const guessedFirst = `1234567890 0123456789 0987654321 9876543210 12345678910 123456789012 1234567891 1q2w3e4r5t 1qaz2wsx3edc q1w2e3r4t5
  qwertyuiop qwerty1234 qwerty12345 qwerty123456 qwertyui12 asdfghjkl1 asdfghjkl; zxcvbnm123 1234qwerty 123qweasdzxc
  password12 password123 password1234 password12345 passwort123 passw0rd123 p@ssword123 p@ssw0rd123 mypassword
  password01 passwordpassword passwort1234 palavrapasse palavra-passe senha12345 contrasena1 motdepasse1 geheim12345
  iloveyou12 iloveyou123 iloveyou1234 ilovemyself letmein123 letmeinnow welcome123 welcome1234 administrator admin12345
  administrator1 changeme123 changemenow secret1234 secret12345 trustno1trustno1 football123 baseball123 basketball
  superman123 batman12345 dragon12345 monkey12345 sunshine123 princess123 liverpool1 chocolate1 jennifer12 michael123
  abcdefghij abcd123456 abc1234567 abcdef1234 a123456789 aa12345678 abc123abc123 asdf123456 test123456 testtest123
  computer123 internet123 summer2024 summer2025 summer2026 winter2024 winter2025 winter2026 spring2026 autumn2026
  11111111111 1122334455 1111122222 123123123123 1231231231 3141592653 3141592654 shadowshadow starwars123
  blink182blink myspace123 pokemon123 whatever123 forever123 sombra12345 sombrasombra urbanforest streettrees treetreetree`;

/** Why a password will not do, in words that go on after *The password*; `null` where it will. */
export function passwordFault(password: string, of: { readonly signIn: string; readonly name: string }): string | null {
  const small = password.toLowerCase().replace(/\s/g, '');
  if (password.length < passwordLeast) return `must have at least ${passwordLeast} characters, got ${password.length}`;
  if (password.length > passwordMost) return `must have at most ${passwordMost} characters, got ${password.length}`;
  if (new Set(small).size < 5) return 'must have at least five different characters';
  if (guessedFirst.split(/\s+/).includes(small) || isRun(small)) return 'is one of the first that are guessed';
  const own = [of.signIn, ...of.name.split(/\s+/)].map((part) => part.toLowerCase()).filter((part) => part.length >= 4);
  const rest = own.reduce((left, part) => left.replaceAll(part, ''), small);
  if (rest.length < passwordLeast / 2) return 'must be more than your name';
  return null;
}

/** Letters or digits that follow each other all the way, up or down. */
function isRun(text: string): boolean {
  const steps = [...text].slice(1).map((sign, i) => (sign.codePointAt(0) ?? 0) - (text.codePointAt(i) ?? 0));
  return steps.every((step) => step === 1) || steps.every((step) => step === -1);
}
