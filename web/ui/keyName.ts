const NAMES: Record<string, string> = {
  ArrowDown: '↓',
  ArrowUp: '↑',
  ArrowLeft: '←',
  ArrowRight: '→',
  Enter: '⏎',
  Escape: 'Esc',
  ' ': 'space',
  '-': '−',
}

/** How a key is written on a button: as it stands on the keyboard, a capital where shift goes with it. */
export function keyName(key: string): string {
  const name = NAMES[key]
  if (name !== undefined) return name
  if (key.length > 1) return key
  return key === key.toLowerCase() ? key.toUpperCase() : `⇧ ${key}`
}
