import { spawnSync } from 'node:child_process'
import { accessSync, constants } from 'node:fs'
import { delimiter, join } from 'node:path'

/** Where a program is, also in the folders that only an administrator's path has. */
export function findProgram(...names: string[]): string | undefined {
  const folders = [...(process.env['PATH'] ?? '').split(delimiter), '/usr/sbin', '/usr/local/sbin']
  for (const name of names)
    for (const folder of folders) {
      const path = join(folder, name)
      try {
        accessSync(path, constants.X_OK)
        return path
      } catch {
        // not here
      }
    }
  return undefined
}

/**
 * Installs Debian packages, saying first which. Throws with `instead`, what else can be done, where neither root nor
 * sudo is to be had.
 */
export function aptInstall(packages: readonly string[], instead: string): void {
  const apt = findProgram('apt-get')
  const sudo = process.getuid?.() === 0 ? [] : ['sudo']
  if (!apt || (sudo.length > 0 && !findProgram('sudo')))
    throw new Error(
      `Jadefell needs the Debian packages ${packages.join(', ')}, and cannot install them here` +
        ` (${apt ? 'neither root nor sudo' : 'no apt-get'}). ${instead}`,
    )
  console.log(`  installing Debian packages: ${packages.join(', ')}${sudo.length > 0 ? ' (with sudo)' : ''}`)
  const run = (...args: string[]) => {
    const [command = apt, ...rest] = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive', apt, ...args]
    const done = spawnSync(command, rest, { stdio: ['inherit', 'ignore', 'pipe'], encoding: 'utf8' })
    return done.status === 0 ? '' : done.stderr.trim() || `apt-get ended with ${done.status}`
  }
  const updateFault = run('update', '-qq')
  const fault = run('install', '-y', '-qq', '--no-install-recommends', ...packages)
  if (fault)
    throw new Error(`apt-get could not install ${packages.join(', ')}:\n${fault}\n${updateFault}\n${instead}`)
}

/** What is in a Debian package, laid out in `folder` without installing it: a service in it is not started. */
export function aptUnpack(name: string, folder: string): void {
  const run = (command: string, ...args: string[]) =>
    spawnSync(command, args, { cwd: folder, stdio: ['ignore', 'ignore', 'pipe'], encoding: 'utf8' })
  if (run('apt-get', 'download', name).status !== 0) {
    // What there is to be had is not known here yet.
    run('apt-get', 'update', '-qq')
    const again = run('apt-get', 'download', name)
    if (again.status !== 0) throw new Error(`apt-get could not fetch ${name}:\n${again.stderr}`)
  }
  const unpacked = run('sh', '-c', `dpkg-deb -x ${name}_*.deb .`)
  if (unpacked.status !== 0) throw new Error(`${name} could not be unpacked:\n${unpacked.stderr}`)
}
