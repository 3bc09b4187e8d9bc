import { aptInstall, findProgram } from './apt'

/** Without a window first: the same pages in three quarters of the time. */
const PROGRAMS = ['chromium-headless-shell', 'chromium'] as const

/** Debian’s Chromium, where there is one; `CHROMIUM` names another. */
function findChromium(): string | undefined {
  return process.env['CHROMIUM'] ?? findProgram(...PROGRAMS)
}

/** The same, installed where there is none. Throws with what else can be done where it cannot be. */
export function installedChromium(): string {
  if (!findChromium()) aptInstall([PROGRAMS[0]], 'Set CHROMIUM to a Chromium that is installed elsewhere.')
  const program = findChromium()
  if (!program) throw new Error(`The package ${PROGRAMS[0]} brought no Chromium.`)
  return program
}
