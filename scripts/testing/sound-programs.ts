import { existsSync } from 'node:fs'
import { aptInstall, findProgram } from '../lib/apt'

const SOUND_FONT = '/usr/share/sounds/sf2/TimGM6mb.sf2'

/** Programs that make sound of other hands for the tests; installs them where they are missing. */
export function soundPrograms(): {
  readonly fluidsynth: string
  readonly sox: string
  readonly soundFont: string
} {
  const missing = [
    ...(findProgram('fluidsynth') ? [] : ['fluidsynth']),
    ...(findProgram('sox') ? [] : ['sox']),
    ...(findProgram('espeak-ng') ? [] : ['espeak-ng']),
    ...(existsSync(SOUND_FONT) ? [] : ['timgm6mb-soundfont']),
  ]
  if (missing.length > 0) aptInstall(missing, 'Install them in another way.')
  const [fluidsynth, sox] = [findProgram('fluidsynth'), findProgram('sox')]
  if (!fluidsynth || !sox) throw new Error(`The packages ${missing.join(', ')} brought no program.`)
  return { fluidsynth, sox, soundFont: SOUND_FONT }
}
