import { defineStore } from 'pinia'
import { computed, watch } from 'vue'
import { schoolsOf, tapeSchoolFor, type FamilyId, type Schools } from '#core'
import type { Student, Studio, StudioSettings } from '#contracts'
import { ApiProblem, call } from '../api/client'
import { setAsStudio } from '../ui/asStudio'
import { showAs } from '../words/shown'
import { useSession } from './session'

/** What of a studio is changed: its name, its tuning system, or how it teaches and shows things. */
export type StudioEdit = Partial<Pick<Studio, 'name' | 'system'>> & {
  readonly settings?: (now: StudioSettings) => StudioSettings
}

const MOST_TRIES = 5

/** How the studio teaches and shows things, the same on every tablet; undefined before anybody is signed in. */
export const useSettings = defineStore('settings', () => {
  const session = useSession()
  const settings = computed<StudioSettings | undefined>(() => session.session?.studio.settings)
  watch(
    settings,
    (now) => {
      if (!now) return
      setAsStudio(now)
      showAs(now)
    },
    { immediate: true },
  )

  /**
   * Saves one change. Where somebody else has saved meanwhile, it is made again on what they saved: a change of one thing
   * never undoes another's.
   */
  async function change({ settings: edit, ...rest }: StudioEdit): Promise<void> {
    let now: Pick<Studio, 'version' | 'settings'> | undefined = session.session?.studio
    for (let tries = 0; now && tries < MOST_TRIES; tries++)
      try {
        const body = { version: now.version, ...rest, ...(edit && { settings: edit(now.settings) }) }
        return session.takeStudio(await call('studio.update', { body }))
      } catch (error) {
        if (!(error instanceof ApiProblem) || error.code !== 'changed_meanwhile') throw error
        now = error.problem?.data as Studio
      }
    throw new Error('The studio is being changed by somebody else at every moment: try again.')
  }

  return {
    settings,
    change,
    /** The schools that hold for a student, or for the studio. */
    schoolsOf: (student?: Pick<Student, 'schools'>): Schools =>
      schoolsOf(settings.value?.schools, student?.schools),
    /** The tapes that a student’s row, else the studio’s school, lays on a family. */
    tapeSchoolId: (family: FamilyId, student?: Pick<Student, 'tapeSchoolId'>): string =>
      student?.tapeSchoolId ?? tapeSchoolFor(family, schoolsOf(settings.value?.schools).tapes).id,
    intervals: computed(() => settings.value?.intervals),
    arrangement: computed(() => settings.value?.setup),
  }
})
