import { closeSync, fsyncSync, openSync, renameSync, rmSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { openDatabase } from '../../server/db/database'
import { sealBackup, type BackupSeal } from './backup-file'
import { runClient } from './client-programs'
import { lockFile } from './locked-file'
import type { Signer } from './signing'

export interface BackupOptions {
  /** By which it is known again as this installation's own. */
  readonly signer?: Signer | undefined
  /** Without it nobody reads the file. */
  readonly passphrase?: string | undefined
}

/** Writes the whole database of `url` to `file`, consistent while teachers go on saving; nothing half written is left. */
export async function backup(
  url: URL,
  file: string,
  { signer, passphrase }: BackupOptions = {},
): Promise<BackupSeal> {
  const [partial, plain] = [`${file}.part`, `${file}.plain`]
  const first = passphrase === undefined ? partial : plain
  try {
    await dump(url, first)
    const seal = await sealBackup(first, signer)
    if (passphrase !== undefined) await lockFile(plain, partial, passphrase)
    const whole = openSync(partial, 'r+')
    fsyncSync(whole)
    closeSync(whole)
    renameSync(partial, file)
    await keepNote(url, seal, passphrase !== undefined)
    return seal
  } finally {
    for (const left of [partial, plain]) rmSync(left, { force: true })
  }
}

/** What mariadb-dump writes of a database: the same bytes for the same rows. */
export async function dump(url: URL, file: string): Promise<void> {
  const output = openSync(file, 'w', 0o600)
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
}

/** For whoever runs the server: when there was a backup. A database of before there was a place for it goes without. */
async function keepNote(url: URL, { rows }: BackupSeal, isLocked: boolean): Promise<void> {
  const database = openDatabase(url.href, { poolSize: 1 })
  const total = Object.values(rows).reduce((sum, n) => sum + n, 0)
  try {
    await database.models.operation
      .create({
        id: uuid(),
        kind: 'backup',
        at: new Date(),
        isSound: true,
        report: { rows: total, isLocked },
      })
      .catch(() => undefined)
  } finally {
    await database.close()
  }
}
