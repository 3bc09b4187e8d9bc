import type { StudioSettings as Settings } from '#contracts'
import { StudioSettings } from '#contracts/settings'

const USUAL: Settings = StudioSettings.parse({})

/** Settings as they were kept, with what is missing of them as usual; what can no longer be read counts as missing. */
export function settingsOf(kept: unknown): Settings {
  if (kept === null || kept === undefined) return USUAL
  const whole = StudioSettings.safeParse(kept)
  if (whole.success) return whole.data
  const readable = Object.entries(kept as Record<string, unknown>).filter(
    ([key, value]) => StudioSettings.safeParse({ [key]: value }).success,
  )
  return StudioSettings.parse(Object.fromEntries(readable))
}
