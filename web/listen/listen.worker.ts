import { listeningDesk } from './listening-desk'
import type { ListenOrder } from './messages'

const take = listeningDesk((report, transfer = []) => self.postMessage(report, { transfer }))
self.onmessage = ({ data }: MessageEvent<ListenOrder>) => take(data)
