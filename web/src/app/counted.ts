/** "1 reading", "2 readings": the one place where plurals are made. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

/** "Bridge Street Parts", "Bridge Street Parts and Harrow Mail", "a, b and c" */
export function listed(names: readonly string[]): string {
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
}
