const YES = /^(y|yes|on|true|1|x)$/i;
const NO = /^(n|no|off|false|0|)$/i;
/** Yes or no as it is typed; empty is no. */
export const readYes = (text: string): { readonly is: boolean } | string =>
  YES.test(text) || NO.test(text) ? { is: YES.test(text) } : `"${text}" is neither yes nor no.`;
