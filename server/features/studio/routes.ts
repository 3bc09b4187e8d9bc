import { familyOf, fingerWritten, parseWritten, placementContext } from '#core'
import type { HandlerInput, OwnExercise, Studio } from '#contracts'
import type { Call, Handlers } from '../../http/call'
import { given } from '../../http/given'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { settingsOf } from './settings'

export const studioRoutes: Pick<Handlers, 'studio.read' | 'studio.update'> = {
  'studio.read': ({ store }) => readStudio(store),
  'studio.update': ({ store }, { body }) => change(store, body),
}

async function readStudio(store: Call['store']): Promise<Studio> {
  const row = await store.studio()
  if (!row) throw new ProblemError('not_found')
  return { version: row.version, name: row.name, system: row.system, settings: settingsOf(row.settings) }
}

async function change(
  store: Call['store'],
  { version, ...change }: HandlerInput<'studio.update'>['body'],
): Promise<Studio> {
  const { settings, ...rest } = change
  insistOnPlayable(settings?.exercises ?? [])
  const kept = settings && { ...settingsOf((await store.studio())?.settings), ...given(settings) }
  if (!(await store.changeStudio(version, { ...given(rest), ...(kept && { settings: kept }) })))
    throw new ProblemError('changed_meanwhile', {
      detail: 'Your entries are still here. Look at what changed, then save again.',
      data: await readStudio(store),
    })
  return readStudio(store)
}

/** A line is of the instrument that it is written for. What the contract reads letter by letter is asked of a hand here, once, when it is saved. */
function insistOnPlayable(exercises: readonly OwnExercise[]): void {
  exercises.forEach(({ notes, writtenFor }, index) => {
    const family = familyOf(writtenFor)
    const read = parseWritten(notes, family.tuning[0]!)
    const made = read.ok && fingerWritten(placementContext(family, family.tuning), read.notes)
    if (made && !made.ok && 'note' in made.fault)
      throw fieldProblem(
        `settings.exercises.${index}.notes`,
        `No hand on a ${family.name} plays ${made.fault.note} as it is written: write it otherwise.`,
      )
  })
}
