import type { Sequelize } from 'sequelize'

/** Hears of what a migration could not do as it should, a sentence each. */
export type Report = (sentence: string) => void

/** One step of a migration: a statement, or work that reads rows and writes them anew. Either can be begun again. */
export type Step = string | ((sequelize: Sequelize, report: Report) => Promise<void>)
