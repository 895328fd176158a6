/** Where somebody wanted to go before they had to log in: an address of ours, whatever stands in the question. */
export function onward(next: unknown, origin = window.location.origin): string {
  if (typeof next !== 'string' || !next.startsWith('/')) return '/'
  try {
    // As the browser would read it: a backslash is a slash, tabs and line ends are nothing.
    const url = new URL(next, origin)
    return url.origin === origin ? `${url.pathname}${url.search}${url.hash}` : '/'
  } catch {
    return '/'
  }
}
