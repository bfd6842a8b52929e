/** Pages of people without an account, who came by a link: no frame around them, and nothing of Sombra stays on their device. */
export const isOpenPage = (): boolean => /^\/(consent|welcome|join|place|planted|care|told)\//.test(location.pathname);
