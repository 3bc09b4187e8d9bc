const WATCH_MS = 500

/**
 * `npm start` is npm, and we are its child. A supervisor that ends npm means us: npm passes no signal on, so we watch whether
 * it is still there. Started without npm, who started us is nobody's business.
 */
export function stopWithNpm(stop: () => void): void {
  const parent = process.ppid
  if (!['start', 'dev'].includes(process.env['npm_lifecycle_event'] ?? '')) return
  const timer = setInterval(() => {
    if (process.ppid === parent) return
    clearInterval(timer)
    stop()
  }, WATCH_MS)
  timer.unref()
}
