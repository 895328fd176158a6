/** "1 reading", "2 readings": the one place where plurals are made. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}
