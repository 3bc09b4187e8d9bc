import { fleschKincaid } from 'flesch-kincaid'
import { syllable } from 'syllable'
import { sum } from 'd3-array'
import { describe, expect, it } from 'vitest'
import { wordsOf, writtenSentences } from './sentences'
import { ALL_FINDINGS } from './testing'
import { verdictSentence } from './verdict'

/**
 * The aim: a reader of twelve, who is in the sixth or seventh school year of the United States. The grade is Kincaid’s
 * (Kincaid, Fishburne, Rogers and Chissom 1975, Naval Technical Training Command report 8-75), syllables and grade counted by
 * libraries. A grade is of a text; of one sentence it jumps with a single long word, so that a sentence may be four years
 * above it and no more.
 */
const GRADE_OF_TWELVE = 6
const GRADE_OF_A_SENTENCE = 10
const MOST_WORDS = 20
/** Of a verdict, whose numbers are words too. */
const MOST_WORDS_SAID = 22
/** Fewer words have no grade to speak of: `Measure it` is two words and four syllables. */
const LEAST_GRADED = 8

const gradeOf = (texts: readonly string[]) =>
  fleschKincaid({
    sentence: texts.length,
    word: sum(texts, (text) => wordsOf(text).length),
    syllable: sum(texts, (text) => sum(wordsOf(text), syllable)),
  })

/** The worked example that is usually given with the formula: one sentence, thirteen words, twenty-four syllables. */
it('the grade is Kincaid’s: 0.39 words a sentence and 11.8 syllables a word, less 15.59', () => {
  expect(fleschKincaid({ sentence: 1, word: 13, syllable: 24 })).toBeCloseTo(11.26, 2)
  // The library counts rather too many than too few: seemingly, creature and a third word have one each beyond the twenty-four.
  expect(
    syllable('The Australian platypus is seemingly a hybrid of a mammal and reptilian creature'),
  ).toBeGreaterThanOrEqual(24)
})

describe('every sentence that is written for a teacher', () => {
  const all = writtenSentences()
  it('is found, in the word files, in the pages and in the server’s answers', () => {
    expect(all.length).toBeGreaterThan(1200)
    const texts = all.map(({ text }) => text)
    expect(texts).toContain('Play each once more with the bow and listen for its ring.')
    expect(texts).toContain('The frame is 4 too 4')
    expect(texts).toContain('Measure the string from nut to bridge first.')
  })

  it('has at most twenty words, and is for a reader of twelve', () => {
    const long = all.filter(({ text }) => wordsOf(text).length > MOST_WORDS)
    expect(long.map(({ file, text }) => `${file}: ${text}`)).toEqual([])
    const hard = all.filter(
      ({ text }) => wordsOf(text).length >= LEAST_GRADED && gradeOf([text]) > GRADE_OF_A_SENTENCE,
    )
    expect(hard.map(({ file, text }) => `${file}: ${text}`)).toEqual([])
    expect(gradeOf(all.map(({ text }) => text))).toBeLessThan(GRADE_OF_TWELVE)
  })
})

it.each(
  ALL_FINDINGS.map((finding) => [
    verdictSentence({ outcome: 'explained', findings: [finding], alternatives: [] }),
  ]),
)('says in few words: %s', (said) => {
  for (const sentence of said.split(/(?<=[.!?]) /))
    expect(wordsOf(sentence).length).toBeLessThanOrEqual(MOST_WORDS_SAID)
  expect(gradeOf([said])).toBeLessThan(GRADE_OF_A_SENTENCE)
})
