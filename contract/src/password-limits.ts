/** Characters a password has at least. Length is what keeps a guesser out; signs and digits are not asked for. */
export const passwordLeast = 10;
export const passwordMost = 200;
