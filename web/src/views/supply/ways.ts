/** How parts come or were ordered, in words; whatever is not here is a supplier's own way and called as it calls it. */
export const BY_WORD: Record<string, string> = {
  telephone: 'by telephone',
  counter: 'at the counter',
  site: 'on their own site',
}
export const WAYS: Record<string, string> = { fetch: 'fetched', ...BY_WORD }
