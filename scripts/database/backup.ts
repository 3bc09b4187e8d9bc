import { closeSync, fsyncSync, openSync, renameSync, rmSync } from 'node:fs'
import { sealBackup, type BackupSeal } from './backup-file'
import { runClient } from './client-programs'

/** Writes the whole database of `url` to `file`, consistent while teachers go on saving; nothing half written is left. */
export async function backup(url: URL, file: string): Promise<BackupSeal> {
  const partial = `${file}.part`
  try {
    const output = openSync(partial, 'w', 0o600)
    try {
      await runClient(
        ['mariadb-dump', 'mysqldump'],
        url,
        ['--single-transaction', '--skip-comments', '--hex-blob', '--skip-triggers', url.pathname.slice(1)],
        { output },
      )
    } finally {
      closeSync(output)
    }
    const seal = await sealBackup(partial)
    const whole = openSync(partial, 'r+')
    fsyncSync(whole)
    closeSync(whole)
    renameSync(partial, file)
    return seal
  } catch (error) {
    rmSync(partial, { force: true })
    throw error
  }
}
