import { defineStore } from 'pinia'
import { computed, watch } from 'vue'
import { schoolsOf, tapeSchoolFor, type FamilyId, type Schools } from '#core'
import type { Student, Studio, StudioSettings } from '#contracts'
import { call } from '../api/client'
import { onNewest } from '../api/onNewest'
import { setAsStudio } from '../ui/asStudio'
import { showAs } from '../words/shown'
import { useSession } from './session'

/** What of a studio is changed: its name, its tuning system, or how it teaches and shows things. */
export type StudioEdit = Partial<Pick<Studio, 'name' | 'system'>> & {
  readonly settings?: (now: StudioSettings) => StudioSettings
}

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

  /** Saves one change, on the newest state of the studio. */
  async function change({ settings: edit, ...rest }: StudioEdit): Promise<void> {
    const studio = session.session?.studio
    if (!studio) return
    const saved = await onNewest<Pick<Studio, 'version' | 'settings'>, Studio>(studio, (now) =>
      call('studio.update', {
        body: { version: now.version, ...rest, ...(edit && { settings: edit(now.settings) }) },
      }),
    )
    session.takeStudio(saved)
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
