import { call } from '../../api/client'
import { UNDO, useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'

/** Taking an instrument out of the cupboard, with all that is kept of it, and putting it back. */
export function useOutOfCupboard() {
  const studio = useStudio()
  const notices = useNotices()

  async function putBack(instrumentId: string) {
    const back = await call('instruments.restore', { params: { instrumentId } })
    studio.takeInstrument(back)
    notices.say(`${back.label} is in the cupboard again.`)
  }
  return {
    putBack,
    async takeOut(instrumentId: string) {
      const label = studio.instrument(instrumentId)?.label ?? 'The instrument'
      await call('instruments.remove', { params: { instrumentId } })
      await studio.loadInstrument(instrumentId)
      studio.noteSave()
      notices.say(`${label} is out of the cupboard; its length and its log are kept.`, {
        label: UNDO,
        run: () => putBack(instrumentId),
      })
    },
  }
}
