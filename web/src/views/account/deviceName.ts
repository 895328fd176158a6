/** What a browser says of itself, in two words a person knows. Names that contain others come first. */
const BROWSERS = ['Edg', 'OPR', 'Firefox', 'Chrome', 'Safari'] as const
const CALLED: Record<string, string> = { Edg: 'Edge', OPR: 'Opera', HeadlessChrome: 'Chrome' }
const SYSTEMS: [RegExp, string][] = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'an Apple telephone or tablet'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'a Mac'],
  [/Linux/, 'Linux'],
]

export function deviceName(agent: string): string {
  const browser = BROWSERS.find((name) => agent.includes(name))
  const system = SYSTEMS.find(([sign]) => sign.test(agent))?.[1]
  if (!browser) return 'Another program'
  return `${CALLED[browser] ?? browser}${system ? ` on ${system}` : ''}`
}
