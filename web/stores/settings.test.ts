import { beforeEach, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { StudioSettings } from '#contracts/settings'
import { useAsStudio } from '../ui/asStudio'
import { length } from '../words/numbers'
import { fakeServer, freshStores, signedIn } from '../testing'
import { useSession } from './session'
import { useSettings } from './settings'

beforeEach(() => {
  sessionStorage.clear()
  freshStores()
})

it('shows lengths, pitch and board as the studio has them; a page may have them otherwise until it is closed', async () => {
  signedIn('hester', 'fifths', { a4Hz: 442, lengthUnit: 'cm', boardFacing: true })
  useSettings()
  await nextTick()
  const a4Hz = useAsStudio('a4Hz')
  expect([length(10), a4Hz.value, useAsStudio('boardFacing').value]).toEqual(['1.00 cm', 442, true])
  a4Hz.value = 415
  await nextTick()
  expect([a4Hz.value, useAsStudio('a4Hz').value]).toEqual([415, 415])
  a4Hz.value = 442
  signedIn('hester', 'fifths', { a4Hz: 443 })
  await nextTick()
  expect([a4Hz.value, length(10)]).toEqual([443, '10.0 mm'])
})

it('makes a change again on what somebody else saved meanwhile: neither undoes the other’s', async () => {
  signedIn()
  const theirs = {
    version: 4,
    name: 'Harbour Strings',
    system: 'fifths',
    settings: StudioSettings.parse({ a4Hz: 442 }),
  }
  const sent = fakeServer(
    { status: 409, body: { status: 409, code: 'changed_meanwhile', title: 'Changed', data: theirs } },
    { status: 200, body: { ...theirs, version: 5, settings: { ...theirs.settings, noteNames: 'german' } } },
  )
  await useSettings().change({ settings: (now) => ({ ...now, noteNames: 'german' }) })
  expect(sent.map(({ body }) => body)).toMatchObject([
    { version: 1, settings: { a4Hz: 440, noteNames: 'german' } },
    { version: 4, settings: { a4Hz: 442, noteNames: 'german' } },
  ])
  expect(useSession().session?.studio).toMatchObject({
    version: 5,
    settings: { a4Hz: 442, noteNames: 'german' },
  })
})

it('lays the tapes of the student’s row, else as many as the studio’s school says', () => {
  signedIn('hester', 'fifths', { schools: { tapes: 'every' } })
  const settings = useSettings()
  expect(settings.tapeSchoolId('violin')).toBe('every')
  expect(settings.tapeSchoolId('violin', { tapeSchoolId: 'first' })).toBe('first')
  expect(settings.tapeSchoolId('bass', { tapeSchoolId: null })).toBe('first_and_fourth')
})
