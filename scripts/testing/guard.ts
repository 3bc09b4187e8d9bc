import { spawn } from 'node:child_process'

/** Waits for one process to be gone, however it went, ends the other by the file that holds its number, and clears up. */
const WATCH = `
while kill -0 "$1" 2>/dev/null; do sleep 1; done
database=$(cat "$2" 2>/dev/null)
if [ -n "$database" ]; then
  kill "$database" 2>/dev/null
  while kill -0 "$database" 2>/dev/null; do sleep 1; done
fi
rm -rf "$3"
`

/**
 * Lets a database live no longer than the tests it was started for: also where they are killed and can end nothing themselves.
 *
 * @param pid of the tests
 * @param pidFile in which the database keeps its own number
 * @param folder of the database, removed with it
 */
export function endWith(pid: number, pidFile: string, folder: string): void {
  spawn('sh', ['-c', WATCH, 'sh', String(pid), pidFile, folder], { detached: true, stdio: 'ignore' }).unref()
}
